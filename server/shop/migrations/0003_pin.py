"""PINs, and after how long a bench left alone asks who is there."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("shop", "0002_shop")]

    operations = [
        migrations.AddField(model_name="shop", name="alone_minutes", field=models.PositiveSmallIntegerField(default=15, help_text="After how long a bench left alone asks who is there [min]; 0 for never")),
        migrations.CreateModel(
            name="Pin",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("hashed", models.CharField(max_length=128)),
                (
                    "user",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE, related_name="pin", to=settings.AUTH_USER_MODEL
                    ),
                ),
            ],
        ),
    ]
