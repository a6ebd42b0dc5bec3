"""The clearway's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from gurvo_core.clearway.job import words
from gurvo_core.clearway.job.entries import GapMeasured, WayLeft
from gurvo_core.clearway.job.measured import read_gap, valve_of
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.errors import CoreError
from gurvo_core.ledger import LENGTH_GAUGES, Facts, Kind, LedgerEntry, NamedGauge, Objection, need

MOST_MM = 60.0


def _take_gap(now: ClearwayState, entry: LedgerEntry, body: GapMeasured) -> ClearwayState:
    read, valve = read_gap(now, entry, body), valve_of(now, body)
    return now if read is None or valve is None else replace(now, read={**now.read, valve.key: read})


def _check_gap(now: ClearwayState, body: GapMeasured, _facts: Facts) -> Iterator[Objection]:
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


def _take_left(now: ClearwayState, entry: LedgerEntry, body: WayLeft) -> ClearwayState:
    return replace(now, left={**now.left, body.step: entry.seq})


def _check_left(now: ClearwayState, body: WayLeft, _facts: Facts) -> Iterator[Objection]:
    steps = {step.id for step in now.document.work_steps}
    yield from need(body.step in steps, "step", f"this engine's run has no step {body.step}; load the bench again")
    yield from need(bool(body.reason), "reason", "say how they are brought there, and what is known that the document does not say")


KINDS: tuple[Kind[Any, ClearwayState], ...] = (
    Kind(
        body=GapMeasured,
        does="look",
        words=words.say_gap,
        take=_take_gap,
        check=_check_gap,
        si_values=_gap_values,
        gauges=lambda body: [NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "gauge")] if body.gauge else [],
    ),
    Kind(body=WayLeft, does="look", words=words.say_left, take=_take_left, check=_check_left),
)
