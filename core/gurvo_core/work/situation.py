"""What stands in a ledger: struck entries gone, the wheel's last setting, the readings that still count.

One pass over the entries. A new setting of the wheel makes all readings before it lapse; an adjusted cam makes the lift
readings before it lapse. Nothing is worked out here.
"""

__all__ = ["CamWork", "Situation", "Taken", "gather", "go_on", "struck_by"]

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from uuid import UUID

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import CoreError
from gurvo_core.timing import Wheel
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.work.entries import (
    CamDecision,
    Decision,
    Gauge,
    LedgerEntry,
    LiftReading,
    RevisionDecision,
    SetupDecision,
    SignOffDecision,
    StopOutDecision,
    Strike,
    TdcMethodDecision,
    TdcReading,
    Turn,
    Turned,
    WheelZero,
)
from gurvo_core.work.readings import inside_figures, turned_to_deg

DEFAULT_METHOD: TdcMethod = "positive_stop"
COMMON_DIAL_STEP_MM = 0.01


@dataclass(frozen=True, kw_only=True)
class Taken:
    """A lift reading as read on the wheel that was set up when it was taken."""

    seq: int
    wheel_deg: float
    lift_mm: float | None
    turned: Turned


@dataclass(kw_only=True)
class CamWork:
    """What has been done about one camshaft since it was last moved."""

    # by cylinder, valve and flank, since everything that is worked out asks for one of these
    readings: dict[tuple[int, str, str], list[Taken]] = field(default_factory=dict)
    made: dict[str, str] = field(default_factory=dict)
    rounds: int = 1
    left: tuple[LedgerEntry, CamDecision] | None = None


@dataclass(kw_only=True)
class Situation:
    """All that stands."""

    document: EngineDocument
    setup: SetupDecision | None = None
    wheel_gauge: Gauge | None = None
    dial_gauge: Gauge | None = None
    set_up_on: date | None = None
    method: TdcMethod = DEFAULT_METHOD
    method_chosen: bool = False
    tdc_readings: list[tuple[LedgerEntry, TdcReading]] = field(default_factory=list)
    zero: WheelZero | None = None
    stop_in: bool = False
    cams: dict[str, CamWork] = field(default_factory=dict)
    turned_to: tuple[int, float] | None = None  # place in the ledger, crank angle
    signed: LedgerEntry | None = None

    @property
    def dial_step_mm(self) -> float:
        """Smallest step of the dial that is set up; of a common dial as long as none is [mm]."""
        return self.dial_gauge.resolution if self.dial_gauge else COMMON_DIAL_STEP_MM

    @property
    def wheel(self) -> Wheel | None:
        """The wheel as it is set up."""
        return Wheel(numbering=self.setup.numbering, runs=self.setup.runs) if self.setup else None


def struck_by(entries: Iterable[LedgerEntry]) -> dict[UUID, LedgerEntry]:
    """Return which entries are struck, and by which strike.

    Parameters
    ----------
    entries : iterable of LedgerEntry
        The ledger.

    Returns
    -------
    struck : dict
        Strike entry by the id of the entry it strikes.

    Source
    ------
    House rule: a wrong entry is struck, never removed.

    Example
    -------
    >>> struck_by([])
    {}
    """
    return {entry.body.strikes: entry for entry in entries if isinstance(entry.body, Strike)}


def gather(document: EngineDocument, entries: Sequence[LedgerEntry]) -> Situation:
    """Return what stands in a ledger.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    entries : sequence of LedgerEntry
        The ledger, oldest first.

    Returns
    -------
    situation : Situation
        What counts now. A struck entry leaves no trace in it.

    Source
    ------
    House rules in this module's head.

    Example
    -------
    >>> gather(quern_4(), []).setup is None
    True
    """
    struck = struck_by(entries)
    situation = Situation(document=document, cams={shaft.id: CamWork() for shaft in document.camshafts})
    for entry in entries:
        if entry.id not in struck:
            _take(situation, entry)
    return situation


def go_on(now: Situation, entries: Sequence[LedgerEntry], entry: LedgerEntry) -> Situation:
    """Return what stands after one more entry, without reading the whole ledger again where that is not needed.

    Parameters
    ----------
    now : Situation
        What stands before it; it is left as it is.
    entries : sequence of LedgerEntry
        The ledger with the entry.
    entry : LedgerEntry
        Its last entry.

    Returns
    -------
    situation : Situation
        The same as ``gather`` of the whole ledger.

    Source
    ------
    A strike changes what stood before; every other entry only adds.

    Example
    -------
    >>> from datetime import UTC, datetime
    >>> from uuid import UUID
    >>> note = LedgerEntry(id=UUID(int=1), seq=1, at=datetime.now(UTC), by="x", body=Note(kind="note", text="cold"))
    >>> go_on(gather(quern_4(), []), [note], note) == gather(quern_4(), [note])
    True
    """
    if isinstance(entry.body, Strike):
        return gather(now.document, entries)
    after = _copy(now)
    _take(after, entry)
    return after


def _copy(now: Situation) -> Situation:
    """A situation of its own; the entries in it are shared, they never change."""
    cams = {
        shaft: replace(work, readings={event: [*taken] for event, taken in work.readings.items()}, made={**work.made})
        for shaft, work in now.cams.items()
    }
    return replace(now, tdc_readings=[*now.tdc_readings], cams=cams)


def _take(now: Situation, entry: LedgerEntry) -> None:
    body = entry.body
    if isinstance(body, LiftReading):
        work = now.cams.get(body.camshaft)
        figures = _figures(now, body)
        if work and figures:
            taken = Taken(seq=entry.seq, wheel_deg=figures["wheel_deg"], lift_mm=figures.get("lift_mm"), turned=body.turned)
            work.readings.setdefault((body.cylinder, body.valve, body.flank), []).append(taken)
            work.left = None
    elif isinstance(body, TdcReading):
        if _figures(now, body):
            now.tdc_readings.append((entry, body))
            now.stop_in = now.stop_in or body.method == "positive_stop"
    elif isinstance(body, WheelZero):
        now.zero = body
    elif isinstance(body, Turn):
        now.turned_to = (entry.seq, turned_to_deg(body))
    elif isinstance(body, Decision):
        _take_decision(now, entry, body)


def _figures(now: Situation, body: TdcReading | LiftReading) -> dict[str, float]:
    """The reading's figures; none when it cannot be read, as after the set-up it was taken with was struck."""
    try:
        return inside_figures(body, now.wheel) if now.wheel else {}
    except CoreError:
        return {}


def _take_decision(now: Situation, entry: LedgerEntry, body: Decision) -> None:
    decision = body.decision
    if isinstance(decision, SetupDecision):
        _set_up(now, entry, decision)
    elif isinstance(decision, TdcMethodDecision):
        now.method, now.method_chosen = decision.method, True
    elif isinstance(decision, StopOutDecision):
        now.stop_in = False
    elif isinstance(decision, SignOffDecision):
        now.signed = entry
    elif isinstance(decision, RevisionDecision):
        return  # which document an engine is built to is given from outside; the entry says why it changed
    elif decision.camshaft in now.cams:
        _decide_cam(now.cams[decision.camshaft], entry, decision)


def _set_up(now: Situation, entry: LedgerEntry, decision: SetupDecision) -> None:
    gauges = {gauge.id: gauge for gauge in entry.gauges}
    now.setup, now.set_up_on = decision, entry.at.date()
    now.wheel_gauge, now.dial_gauge = gauges.get(decision.wheel_gauge), gauges.get(decision.dial_gauge)
    now.method, now.method_chosen = DEFAULT_METHOD, False
    now.tdc_readings, now.zero = [], None
    for work in now.cams.values():
        work.readings, work.left = {}, None


def _decide_cam(work: CamWork, entry: LedgerEntry, decision: CamDecision) -> None:
    if not decision.moves:
        work.left = (entry, decision)
        return
    work.made |= {move.adjustment: move.place for move in decision.moves}
    work.readings, work.left = {}, None
    work.rounds += 1
