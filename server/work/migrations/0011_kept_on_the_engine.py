from django.db import migrations, models
from django.db.models import OuterRef, Subquery


def carry(apps, _schema_editor):
    """What was worked out stays so: only where it is noted moves."""
    summaries = apps.get_model("work", "EngineSummary").objects.filter(engine=OuterRef("pk"), broken="")
    revisions = apps.get_model("engine", "Revision").objects.filter(family=OuterRef("revision__family")).order_by("-number")
    newest = Subquery(revisions.values("number")[:1])
    engines = apps.get_model("work", "Engine").objects
    engines.update(summed_at=Subquery(summaries.values("at_entry")[:1]))
    for engine in engines.annotate(newest=newest):  # an update cannot look through a relation
        engines.filter(pk=engine.pk).update(newest_revision=engine.newest)


class Migration(migrations.Migration):
    dependencies = [("work", "0010_fit_figures")]

    operations = [
        migrations.AddField(
            model_name="engine",
            name="summed_at",
            field=models.UUIDField(help_text="The entry at which its summary was worked out", null=True),
        ),
        migrations.AddField(
            model_name="engine",
            name="newest_revision",
            field=models.PositiveIntegerField(default=0, help_text="Number of its family's newest document"),
        ),
        migrations.RunPython(carry, migrations.RunPython.noop),
        migrations.RemoveField(model_name="enginesummary", name="at_entry"),
    ]
