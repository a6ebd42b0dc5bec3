"""The Floor counts the ledgers that do not fit at every look."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("work", "0004_chain")]

    operations = [
        migrations.AddIndex(
            model_name="enginesummary",
            index=models.Index(fields=["chain"], name="misfits", condition=models.Q(chain__gt="")),
        ),
    ]
