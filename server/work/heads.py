"""The shop's head: one figure over all its ledgers and its daybook at a moment. It stands on every paper and in every record that is handed
out, so that what the shop's own file cannot show of itself (a tail cut off, a ledger sealed anew from end to end) shows against it.
"""

__all__ = ["ShopHead", "against_backup", "against_head", "head_now", "head_then"]

import re
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import NamedTuple

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from gurvo_core.ledger.chain import START, short
from gurvo_core.ledger.heads import leaf_of, root_of
from shop.daybook import head_at
from shop.models import DayLine
from work.models import Engine, Entry

PRINTED = re.compile(r"(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?)(?:Z|\+00:00)\D*?((?:[0-9A-F]{4}-){3}[0-9A-F]{4}|[0-9a-f]{64})")


class ShopHead(NamedTuple):
    """The root over all ledgers at a moment."""

    at: datetime
    root: str
    engines: int

    @property
    def words(self) -> str:
        """As it is printed, and read again by ``./gurvo verify --against``."""
        return f"{self.at.astimezone(UTC):%Y-%m-%dT%H:%M:%S.%fZ} {short(self.root)}"


@transaction.atomic
def head_now() -> ShopHead:
    """Return the shop's head at this moment, or at that of its last entry, should a clock have been ahead."""
    last = Entry.objects.filter(pk__in=Engine.objects.exclude(last_entry=None).values("last_entry")).aggregate(at=Max("at"))["at"]
    moment = max(timezone.now(), last) if last else timezone.now()
    heads = Engine.objects.order_by("serial").values_list("serial", "head")
    return _head(moment, dict(heads))


def head_then(moment: datetime) -> ShopHead:
    """Return the shop's head as it was at a moment, from the ledgers as they are now: of each the last entry by then."""
    begun = Engine.objects.filter(begun__lte=moment).order_by("serial").values_list("serial", flat=True)
    last = dict(Entry.objects.filter(at__lte=moment).order_by().values_list("engine").annotate(Max("seq")))
    digests = {(serial, seq): digest for serial, seq, digest in _digests(last)}
    return _head(moment, {serial: digests.get((serial, last.get(serial, 0)), START) for serial in begun})


def _digests(last: dict[str, int]) -> Iterator[tuple[str, int, str]]:
    for serial, seq in last.items():
        digest = Entry.objects.filter(engine=serial, seq=seq).values_list("digest", flat=True).first()
        if digest is not None:
            yield serial, seq, digest


def _head(moment: datetime, heads: dict[str, str]) -> ShopHead:
    leaves = [leaf_of("the daybook", head_at(moment)), *(leaf_of(serial, head) for serial, head in heads.items())]
    return ShopHead(moment, root_of(leaves), len(heads))


def against_head(text: str) -> str:
    """Return what is wrong by a head that was kept elsewhere, as it was printed or is in a record; empty when nothing is."""
    found = PRINTED.search(text)
    if found is None:
        return "this is no shop's head; it reads like 2026-11-30T10:41:05.123456Z 3F2A-91BC-3F2A-91BC"
    moment = datetime.fromisoformat(f"{found[1]}+00:00")
    then = head_then(moment)
    if found[2] in (then.root, short(then.root)):
        return ""
    was = f"at {found[1]}Z the shop's head was {found[2]}, and by what is here it would have been {short(then.root)}"
    return f"{was}: something from before then was changed or taken away"


def against_backup(file: Path) -> list[str]:
    """Return what a backup has that this shop's ledgers and daybook have not."""
    with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as backup:
        kept = backup.execute("SELECT engine_id, seq, digest FROM work_entry ORDER BY engine_id, seq").fetchall()
        serials = [serial for (serial,) in backup.execute("SELECT serial FROM work_engine ORDER BY serial")]
        lines = _lines_of(backup)
    here = {(serial, seq): digest for serial, seq, digest in Entry.objects.order_by().values_list("engine_id", "seq", "digest")}
    there = set(Engine.objects.values_list("serial", flat=True))
    faults = [f"{serial}: the backup has this engine, the shop has not" for serial in serials if serial not in there]
    named = {fault.split(":")[0] for fault in faults}
    for serial, seq, digest in kept:
        if serial not in named and here.get((serial, seq)) != digest:
            faults.append(f"{serial}: entry {seq} of the backup is not in this shop's ledger")
            named.add(serial)
    ours = dict(DayLine.objects.values_list("seq", "digest"))
    first = next((seq for seq, digest in lines if ours.get(seq) != digest), None)
    return [*faults, f"line {first} of the backup's daybook is not in the shop's"] if first is not None else faults


def _lines_of(backup: sqlite3.Connection) -> list[tuple[int, str]]:
    try:
        return backup.execute("SELECT seq, digest FROM shop_dayline ORDER BY seq").fetchall()
    except sqlite3.OperationalError:  # of before there was a daybook
        return []
