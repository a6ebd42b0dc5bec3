from django.db import migrations, models
from django.db.models import OuterRef, Subquery


def carry(apps, _schema_editor):
    """What was worked out stays so: only where it is noted moves."""
    summaries = apps.get_model("work", "EngineSummary").objects.filter(engine=OuterRef("pk"), broken="")
    apps.get_model("work", "Engine").objects.update(summed_at=Subquery(summaries.values("at_entry")[:1]))


class Migration(migrations.Migration):
    dependencies = [("work", "0010_fit_figures")]

    operations = [
        migrations.AddField(
            model_name="engine",
            name="summed_at",
            field=models.UUIDField(help_text="The entry at which its summary was worked out", null=True),
        ),
        migrations.RunPython(carry, migrations.RunPython.noop),
        migrations.RemoveField(model_name="enginesummary", name="at_entry"),
    ]
