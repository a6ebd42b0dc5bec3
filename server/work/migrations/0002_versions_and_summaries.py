"""Entries carry their version and why they were taken, engines know their last entry, and the Floor's summaries are kept."""

import django.db.models.deletion
from django.db import migrations, models
from django.db.models import OuterRef, Subquery


def name_last_entries(apps, _schema_editor):
    """Let every engine name its ledger's last entry."""
    engines, entries = apps.get_model("work", "Engine"), apps.get_model("work", "Entry")
    last = entries.objects.filter(engine=OuterRef("pk")).order_by("-seq")
    engines.objects.filter(entries__isnull=False).update(
        last_seq=Subquery(last.values("seq")[:1]), last_entry=Subquery(last.values("id")[:1])
    )


class Migration(migrations.Migration):
    dependencies = [("work", "0001_initial")]

    operations = [
        migrations.RenameField("entry", "inside", "si_values"),
        migrations.AddField("entry", "because", models.CharField(blank=True, help_text="Why it was taken although the core objected", max_length=500, default=""), preserve_default=False),
        # what was entered until now is of version 1
        migrations.AddField("entry", "version", models.PositiveSmallIntegerField(default=1, help_text="Of the body's shape")),
        migrations.AlterField("entry", "version", models.PositiveSmallIntegerField(default=2, help_text="Of the body's shape")),
        migrations.AlterField("entry", "because", models.CharField(blank=True, help_text="Why it was taken although the core objected", max_length=500)),
        migrations.AddField("engine", "last_seq", models.PositiveIntegerField(default=0, help_text="Place of the ledger's last entry")),
        migrations.AddField("engine", "last_entry", models.UUIDField(help_text="The ledger's last entry", null=True)),
        migrations.CreateModel(
            name="EngineSummary",
            fields=[
                ("engine", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name="summary", serialize=False, to="work.engine")),
                ("at_entry", models.UUIDField(null=True)),
                ("revision_id", models.IntegerField()),
                ("rules", models.PositiveIntegerField()),
                ("beads", models.JSONField(default=list)),
                ("step", models.CharField(blank=True, max_length=120)),
                ("waits_for", models.CharField(blank=True, max_length=200)),
                ("free_to_turn", models.BooleanField(default=False)),
                ("loose_ends", models.PositiveIntegerField(default=0)),
                ("verdict", models.CharField(blank=True, max_length=12)),
                ("signed", models.BooleanField(default=False)),
                ("broken", models.CharField(blank=True, help_text="Why it cannot be shown", max_length=600)),
            ],
        ),
        migrations.RunPython(name_last_entries, migrations.RunPython.noop),
    ]
