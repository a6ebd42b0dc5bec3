from django.db import migrations, models
from django.db.models import Max


def fill(apps, _schema_editor):
    """Families that were there before get the number of their newest revision."""
    for family in apps.get_model("engine", "Family").objects.annotate(last=Max("revisions__number")):
        family.newest = family.last or 0
        family.save(update_fields=["newest"])


class Migration(migrations.Migration):
    dependencies = [("engine", "0002_revision_remark")]

    operations = [
        migrations.AddField(
            model_name="family",
            name="newest",
            field=models.PositiveIntegerField(
                default=0, help_text="Number of its newest revision: asked with every entry, so kept beside"
            ),
        ),
        migrations.RunPython(fill, migrations.RunPython.noop),
    ]
