"""What gauges were used on, from the entries there are."""

from django.db import migrations

AT_ONCE = 500


def find_uses(apps, _schema_editor):
    entry, use, gauge = apps.get_model("work", "Entry"), apps.get_model("shop", "GaugeUse"), apps.get_model("shop", "Gauge")
    known, rows = set(gauge.objects.values_list("pk", flat=True)), []
    for row in entry.objects.exclude(gauges=[]).iterator(chunk_size=AT_ONCE):
        for code in {one["id"] for one in row.gauges} & known:
            rows.append(use(gauge_id=code, serial=row.engine_id, seq=row.seq, kind=row.kind, at=row.at, by_name=row.by_name))
        if len(rows) >= AT_ONCE:
            use.objects.bulk_create(rows)
            rows = []
    use.objects.bulk_create(rows)


class Migration(migrations.Migration):
    dependencies = [("work", "0008_whereabouts_after_times"), ("shop", "0005_gauges")]
    operations = [migrations.RunPython(find_uses, migrations.RunPython.noop)]
