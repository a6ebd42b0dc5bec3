"""From rows to the core's ledger and back to plain results. No arithmetic, no saving.

Ledgers only ever grow, so what was read of one is kept in this process and only the new rows are fetched. The last row kept is
fetched again each time: should it not be the same row, everything is read anew.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from threading import Lock
from typing import Any, cast

from pydantic import TypeAdapter

from engine.bridge import document_of
from gurvo_core.work import EntryBody, Gauge, LedgerEntry, Situation, TapeLine, gather, go_on, struck_by, tape_line
from shop.models import Gauge as GaugeRow
from shop.roles import shown_name
from work.models import Engine, Entry

LEDGERS_KEPT = 64
BODY: TypeAdapter[EntryBody] = TypeAdapter(cast("Any", EntryBody))  # a union is no class, and mypy wants one here


@dataclass(frozen=True, kw_only=True)
class Ledger:
    """All entries of an engine, oldest first, and what stands in them. Shared between requests: never changed."""

    entries: tuple[LedgerEntry, ...]
    situation: Situation
    revision_id: int


_kept: dict[str, Ledger] = {}
_lock = Lock()


def to_ledger(row: Entry) -> LedgerEntry:
    """Return a row as the core's ledger entry."""
    return LedgerEntry(
        id=row.id,
        seq=row.seq,
        at=row.at,
        by=shown_name(row.by),
        body=BODY.validate_python(row.body),
        typed_at=row.typed_at,
        gauges=tuple(Gauge.model_validate(gauge) for gauge in row.gauges),
    )


def ledger_of(engine: Engine) -> Ledger:
    """Return an engine's whole ledger with what stands in it."""
    with _lock:
        known = _kept.get(engine.pk)
    if known is None or not known.entries:
        return _keep(engine, _grown(_empty(engine), Entry.objects.filter(engine=engine).since(1)))
    if known.revision_id != engine.revision_id:
        known = on_revision(known, engine.revision_id)
    last = known.entries[-1]
    rows = list(Entry.objects.filter(engine=engine).since(last.seq))
    if not rows or rows[0].id != last.id:
        return _keep(engine, _grown(_empty(engine), Entry.objects.filter(engine=engine).since(1)))
    return _keep(engine, _grown(known, rows[1:])) if rows[1:] else known


def with_row(ledger: Ledger, row: Entry) -> Ledger:
    """Return a ledger with one more row. It is not kept: its transaction may still fail."""
    return _grown(ledger, [row])


def _empty(engine: Engine) -> Ledger:
    return Ledger(entries=(), situation=gather(document_of(engine.revision_id), ()), revision_id=engine.revision_id)


def on_revision(ledger: Ledger, revision_id: int) -> Ledger:
    """Return the same entries as they stand on another revision of the engine document."""
    return Ledger(entries=ledger.entries, situation=gather(document_of(revision_id), ledger.entries), revision_id=revision_id)


def _grown(ledger: Ledger, rows: Iterable[Entry]) -> Ledger:
    added = [to_ledger(row) for row in rows]
    entries = (*ledger.entries, *added)
    before = ledger.situation
    situation = go_on(before, entries, added[0]) if len(added) == 1 else gather(before.document, entries)
    return Ledger(entries=entries, situation=situation, revision_id=ledger.revision_id)


def _keep(engine: Engine, ledger: Ledger) -> Ledger:
    with _lock:
        _kept.pop(engine.pk, None)
        _kept[engine.pk] = ledger
        while len(_kept) > LEDGERS_KEPT:
            del _kept[next(iter(_kept))]
    return ledger


def gauges_named(codes: list[str]) -> tuple[Gauge, ...]:
    """Return gauges as they are now, for an entry that names them."""
    rows = GaugeRow.objects.filter(code__in=codes)
    return tuple(
        Gauge(
            id=row.code,
            name=row.name,
            kind=GaugeRow.Kind(row.kind).value,
            resolution=row.resolution,
            expanded_uncertainty=row.expanded_uncertainty,
            due=row.due,
        )
        for row in rows
    )


def tape_of(ledger: Sequence[LedgerEntry], *, before: int | None = None, most: int | None = None) -> list[TapeLine]:
    """Return the newest lines of the tape first, from before a place."""
    struck = struck_by(ledger)
    part = ledger[: before - 1] if before is not None else ledger
    chosen = part[-most:] if most else part
    return [tape_line(entry, struck.get(entry.id)) for entry in reversed(chosen)]
