"""How near a valve comes to its piston: squeezed clay after turning over, or a dial on the shut valve at TDC."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.clearway.job.entries import GapMeasured
from gurvo_core.clearway.job.measured import read_gap, valve_of
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.errors import CoreError
from gurvo_core.ledger import LENGTH_GAUGES, Facts, Kind, LedgerEntry, NamedGauge, Objection, Words, need

MOST_MM = 60.0


def _say(body: GapMeasured) -> Words:
    """A gap that was measured."""
    place = f" {body.place}" if body.place else ""
    how = "clay, the least in turning over" if body.how == "clay" else "dial, shut at TDC"
    return Words(title=f"Gap of {body.valve} {body.cylinder}{place} to its piston", value=f"{body.gap.text} {body.gap.unit}", detail=how)


def _take(now: ClearwayState, entry: LedgerEntry, body: GapMeasured) -> ClearwayState:
    read, valve = read_gap(now, entry, body), valve_of(now, body)
    return now if read is None or valve is None else replace(now, read={**now.read, valve.key: read})


def _check(now: ClearwayState, body: GapMeasured, _facts: Facts) -> Iterator[Objection]:
    """A valve whose lift is known, and a figure that can be."""
    yield from need(
        valve_of(now, body) is not None,
        "valve",
        "this engine has no such valve whose lift, head and piston's motion are known: name one of its lobes",
    )
    try:
        gap_mm = body.gap.inside("length", "gap.text")
    except CoreError as error:
        yield Objection("gap.text", error.rule)
        return
    yield from need(0 <= gap_mm <= MOST_MM, "gap.text", f"a gap lies between 0 and {MOST_MM:g} mm, not {gap_mm:g} mm")


def _gap_values(_now: ClearwayState, body: GapMeasured) -> dict[str, float]:
    return {"gap.text": body.gap.inside("length", "gap.text")}


KIND: Kind[GapMeasured, ClearwayState] = Kind(
    body=GapMeasured,
    does="look",
    words=_say,
    take=_take,
    check=_check,
    si_values=_gap_values,
    gauges=lambda body: [NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "gauge")] if body.gauge else [],
)
