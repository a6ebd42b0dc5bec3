"""What runs by the clock, what is left to do and how to turn are shown on the Floor."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("work", "0005_misfits")]

    operations = [
        migrations.AddField(
            model_name="enginesummary",
            name="clock",
            field=models.CharField(blank=True, default="", help_text="What runs by the clock and ends first", max_length=200),
            preserve_default=False,
        ),
        migrations.AddField(model_name="enginesummary", name="careful", field=models.BooleanField(default=False)),
        migrations.AddField(
            model_name="enginesummary",
            name="left_minutes",
            field=models.FloatField(default=0, help_text="Work that is left, as far as it is known [min]"),
        ),
        migrations.AddField(model_name="enginesummary", name="clock_at", field=models.DateTimeField(null=True)),
        migrations.AddField(model_name="enginesummary", name="clock_clears", field=models.BooleanField(default=False)),
    ]
