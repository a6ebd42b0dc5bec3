"""A ledger of thousands of entries, as it might grow on an engine that is degreed again and again: readings, strikes, notes."""

import random
from datetime import timedelta

ENTRIES = 2000
EVENTS = (
    ("intake", "opening", 16, "before TDC"),
    ("intake", "closing", 52, "after BDC"),
    ("exhaust", "opening", 54, "before BDC"),
    ("exhaust", "closing", 14, "after TDC"),
)


def fill(serial: str, entries: int = ENTRIES) -> None:
    """Fill an engine whose true TDC has been found up to so many entries."""
    from django.contrib.auth.models import User
    from django.utils import timezone

    from work.models import Engine, Entry
    from work.seals import seal

    chance = random.Random(entries)
    engine, by = Engine.objects.get(serial=serial), User.objects.get(username="della")
    first = Entry.objects.filter(engine=engine).count() + 1
    begun, rows = timezone.now() - timedelta(days=1), []
    for seq in range(first, entries + 1):
        body = _body(chance, rows)
        at = begun + timedelta(seconds=30 * seq)
        row = Entry(engine=engine, seq=seq, kind=body["kind"], body=body, at=at, by=by, by_name="Della Marsk", revision=engine.revision)
        seal(row, rows[-1].digest if rows else engine.head)
        rows.append(row)
    Entry.objects.bulk_create(rows)
    last = rows[-1]
    Engine.objects.filter(serial=serial).update(last_seq=last.seq, last_entry=last.id, head=last.digest)


def _body(chance: random.Random, rows: list) -> dict:
    drawn = chance.random()
    if drawn < 0.1:
        return {"kind": "note", "text": "wiped the wheel, looked again"}
    if drawn < 0.2 and rows and rows[-1].kind == "lift_reading":
        return {"kind": "strike", "strikes": str(rows[-1].id), "reason": "misread the wheel"}
    valve, flank, figure, side = chance.choice(EVENTS)
    return {
        "kind": "lift_reading",
        "camshaft": "cam",
        "cylinder": 1,
        "valve": valve,
        "flank": flank,
        "lift": {"text": "1.00", "unit": "mm"},
        "wheel": {"text": str(figure + chance.choice([-0.5, 0, 0.5])), "side": side},
        "approach": "running way",
    }
