"""What is handed over to a spreadsheet: the readings with what was typed and how sure, and each room's own tables, as CSV."""

import csv
from collections.abc import Iterable, Iterator
from itertools import chain
from typing import Any

from django.http import Http404
from pydantic import BaseModel

from gurvo_core.ledger import Gauge, LedgerEntry, Strike
from gurvo_core.timing.job.entries import LiftReading, TdcReading
from gurvo_core.timing.job.readings import gauge_u
from work import bridge
from work.models import Engine, Entry
from work.record.gauges import with_gauges
from work.schemas import TableOut

COLUMNS = [
    "seq",
    "at",
    "by",
    "kind",
    "what",
    "wheel_typed",
    "side",
    "length_typed",
    "unit",
    "approach",
    "wheel_deg",
    "drop_mm",
    "lift_mm",
    "wheel_gauge",
    "u_wheel_deg",
    "dial_gauge",
    "u_dial_mm",
    "struck_because",
]
STARTS_A_FORMULA = ("=", "+", "-", "@", "\t")


class Pass:
    """A file that hands back what is written to it."""

    def write(self, text: str) -> str:
        """Hand it on."""
        return text


def csv_of(rows: Iterable[Iterable[Any]]) -> Iterator[str]:
    """Return rows as CSV, a line at a time; words that a spreadsheet would take for a formula are set apart."""
    table = csv.writer(Pass())
    for row in rows:
        yield str(table.writerow([safe_text(cell) if isinstance(cell, str) else cell for cell in row]))


def tables_of(engine: Engine) -> list[TableOut]:
    """Return the rooms' own tables of an engine; one in which nothing stands yet is left out."""
    return [TableOut(name=name, title=bridge.HOUSE.tables[name][1].title, rows=len(rows)) for name, rows in _standing(engine)]


def tables_csv(engine: Engine) -> Iterator[tuple[str, Iterator[str]]]:
    """Yield the same as CSV, each with its name."""
    return ((name, _as_table(name, rows)) for name, rows in _standing(engine))


def table_csv(engine: Engine, name: str) -> Iterator[str]:
    """Return one of the rooms' own tables: every row that stands. Raises Http404 where no room has one of that name."""
    if name not in bridge.HOUSE.tables:
        raise Http404
    return _as_table(name, bridge.HOUSE.rows(bridge.ledger_of(engine).folded, name))


def _standing(engine: Engine) -> Iterator[tuple[str, list[BaseModel]]]:
    folded = bridge.ledger_of(engine).folded
    return ((name, rows) for name in bridge.HOUSE.tables if (rows := bridge.HOUSE.rows(folded, name)))


def _as_table(name: str, rows: Iterable[BaseModel]) -> Iterator[str]:
    heads = list(bridge.HOUSE.tables[name][1].row.model_fields)
    return csv_of(chain([heads], ([getattr(row, head) for head in heads] for row in rows)))


def as_csv(engine: Engine) -> Iterator[str]:
    """Return the readings of an engine as CSV, oldest first, a line at a time."""
    folded = bridge.ledger_of(engine).folded
    si_values = dict(Entry.objects.filter(engine=engine).values_list("id", "si_values"))
    table = csv.DictWriter(Pass(), COLUMNS)
    yield str(table.writeheader())
    for entry, gauges in with_gauges(folded.entries):
        if isinstance(entry.body, TdcReading | LiftReading):
            yield str(table.writerow({**_row(entry, entry.body, gauges, folded.struck.get(entry.id)), **_rounded(si_values[entry.id])}))


def _row(entry: LedgerEntry, body: TdcReading | LiftReading, gauges: dict[str, Gauge], strike: LedgerEntry | None) -> dict[str, object]:
    length = body.lift if isinstance(body, LiftReading) else body.drop
    what = f"{body.valve} {body.flank}" if isinstance(body, LiftReading) else f"{body.method} {body.place or ''}".strip()
    wheel, dial = gauges.get("wheel"), gauges.get("dial")
    return {
        "seq": entry.seq,
        "at": entry.at.isoformat(timespec="seconds"),
        "by": safe_text(entry.by),
        "kind": body.kind,
        "what": what,
        "wheel_typed": body.wheel.text,
        "side": body.wheel.side or "",
        "length_typed": length.text if length else "",
        "unit": length.unit if length else "",
        "approach": body.approach,
        "wheel_gauge": wheel.id if wheel else "",
        "u_wheel_deg": round(gauge_u(wheel).u, 4),
        "dial_gauge": dial.id if dial else "",
        "u_dial_mm": round(gauge_u(dial).u, 5),
        "struck_because": safe_text(strike.body.reason) if strike and isinstance(strike.body, Strike) else "",
    }


def _rounded(values: dict[str, Any]) -> dict[str, Any]:
    """Far finer than anybody reads a wheel or a dial, without the noise of binary fractions."""
    return {key: round(value, 6) if isinstance(value, float) else value for key, value in values.items()}


def safe_text(words: str) -> str:
    """What people typed must not run as a formula in somebody's spreadsheet."""
    return f"'{words}" if words.startswith(STARTS_A_FORMULA) else words
