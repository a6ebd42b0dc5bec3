"""Rows are sealed one behind the other. What was there before the update is sealed as the update found it."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from gurvo_core.ledger.chain import START, content_of, digest_of


def _revisions(engine, revisions):
    """Which revision each entry was judged on: that of the engine's beginning, then those it was moved to."""
    of_family = revisions.filter(family=engine.revision.family)
    at_first = of_family.filter(at__lte=engine.begun).order_by("-number").first() or of_family.order_by("number").first()
    return at_first, {revision.number: revision for revision in of_family}


def seal_all(apps, _schema_editor):
    """Lay every ledger's chain."""
    engines, entries = apps.get_model("work", "Engine"), apps.get_model("work", "Entry")
    revisions, document_digest = apps.get_model("engine", "Revision").objects, {}
    for engine in engines.objects.select_related("revision"):
        revision, by_number = _revisions(engine, revisions)
        rows = list(entries.objects.filter(engine=engine).select_related("by").order_by("seq"))
        revision = revision if any(_moved_to(row.body) for row in rows) else engine.revision
        before = START
        for row in rows:
            if revision.pk not in document_digest:
                document_digest[revision.pk] = digest_of(revision.document)
            row.by_name, row.revision = row.by.first_name or row.by.username, revision
            plain = {name: getattr(row, name) for name in ("seq", "at", "typed_at", "version", "body", "because", "si_values", "gauges")}
            plain |= {"id": str(row.id), "by": {"account": row.by.username, "name": row.by_name}}
            row.digest = digest_of(content_of(plain, engine=engine.pk, document=document_digest[revision.pk], before=before))
            row.save(update_fields=["by_name", "revision", "digest"])
            before = row.digest
            revision = by_number.get(_moved_to(row.body), revision)
        engines.objects.filter(pk=engine.pk).update(head=before)


def _moved_to(body):
    """The revision a row moves its engine to, in either version; None of any other."""
    plain = body.get("decision", body)
    is_move = "revision" in (plain.get("kind"), plain.get("subject"))
    return plain.get("number") if is_move else None


class Migration(migrations.Migration):
    dependencies = [("work", "0003_floor_moment"), ("engine", "0002_revision_remark"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.AddField("engine", "head", models.CharField(default=START, help_text="Seal of the ledger's last entry", max_length=64)),
        migrations.AddField("entry", "by_name", models.CharField(default="", help_text="What the maker was called then", max_length=150), preserve_default=False),
        migrations.AddField("entry", "digest", models.CharField(default="", help_text="Its seal, over all of this and the row before it", max_length=64), preserve_default=False),
        migrations.AddField(
            "entry",
            "revision",
            models.ForeignKey(help_text="The engine document it was judged on", null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to="engine.revision"),
        ),
        migrations.AddField("enginesummary", "chain", models.CharField(blank=True, default="", help_text="The first thing in its ledger that does not fit", max_length=300), preserve_default=False),
        migrations.RunPython(seal_all, migrations.RunPython.noop),
        migrations.AlterField(
            "entry",
            "revision",
            models.ForeignKey(help_text="The engine document it was judged on", on_delete=django.db.models.deletion.PROTECT, related_name="+", to="engine.revision"),
        ),
    ]
