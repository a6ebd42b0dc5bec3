"""Every database says which shop it is of."""

import uuid

from django.db import migrations, models


def name_the_shop(apps, _schema_editor):
    """One row, made once; a database that is there already gets its own too."""
    shops = apps.get_model("shop", "Shop")
    if not shops.objects.exists():
        shops.objects.create()


class Migration(migrations.Migration):
    dependencies = [("shop", "0001_initial")]

    operations = [
        migrations.CreateModel(
            name="Shop",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, primary_key=True, serialize=False)),
                ("is_demo", models.BooleanField(default=False)),
            ],
        ),
        migrations.RunPython(name_the_shop, migrations.RunPython.noop),
    ]
