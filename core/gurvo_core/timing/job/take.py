"""What each of the timing's entries changes of what stands."""

__all__ = [
    "take_cam_decision",
    "take_check",
    "take_lift",
    "take_method",
    "take_setup",
    "take_stop",
    "take_tdc",
    "take_turn",
    "take_zero",
]

from dataclasses import replace

from gurvo_core.errors import CoreError
from gurvo_core.ledger import Gauge, LedgerEntry, changed
from gurvo_core.timing.job.entries import (
    CamDecision,
    LiftReading,
    PistonStop,
    TdcMethodChoice,
    TdcReading,
    Turn,
    WheelCheck,
    WheelSetup,
    WheelZero,
)
from gurvo_core.timing.job.readings import opposite_readings, si_values, turned_to_deg
from gurvo_core.timing.job.state import (
    CamWork,
    EventReadings,
    Placed,
    StandingReading,
    StandingTdcReading,
    TimingState,
)


def _figures(now: TimingState, body: TdcReading | LiftReading) -> dict[str, float]:
    """The reading's figures; none when it cannot be read, as after the set-up it was taken with was struck."""
    try:
        return si_values(now, body) if now.wheel else {}
    except CoreError:
        return {}


def take_setup(now: TimingState, entry: LedgerEntry, body: WheelSetup) -> TimingState:
    """The wheel set up anew: what was read on it before lapses. The stop stays where it is."""
    cams = {shaft: replace(work, readings={}, left=None) for shaft, work in now.cams.items()}
    gauges: dict[str, Gauge] = {gauge.role: gauge for gauge in entry.gauges}
    fresh = TimingState(document=now.document, lines=now.lines, at=now.at, cams=cams, stop_in=now.stop_in, turned_to=now.turned_to)
    return replace(fresh, setup=body, gauges=gauges, set_up_on=entry.latest.date())


def take_check(now: TimingState, _entry: LedgerEntry, body: WheelCheck) -> TimingState:
    """One more place at which two opposite pointers were read."""
    try:
        return replace(now, checked=(*now.checked, opposite_readings(body, now.wheel))) if now.wheel else now
    except CoreError:
        return now


def take_method(now: TimingState, _entry: LedgerEntry, body: TdcMethodChoice) -> TimingState:
    """Another way to look for true TDC; readings by the others are kept for when it is chosen again."""
    return replace(now, method=body.method, method_chosen=True)


def take_stop(now: TimingState, entry: LedgerEntry, body: PistonStop) -> TimingState:
    """The stop in or out."""
    return replace(now, stop_in=entry.seq if body.fitted else 0)


def take_tdc(now: TimingState, entry: LedgerEntry, body: TdcReading) -> TimingState:
    """One more reading towards true TDC. Where the stop was met it must be in, even if an early ledger never said so."""
    figures = _figures(now, body)
    if not figures:
        return now
    reading = StandingTdcReading(seq=entry.seq, wheel_deg=figures["wheel_deg"], drop_mm=figures.get("drop_mm"), body=body)
    stop_in = now.stop_in or (entry.seq if body.method == "positive_stop" else 0)
    return replace(now, tdc_readings=(*now.tdc_readings, reading), stop_in=stop_in)


def take_zero(now: TimingState, entry: LedgerEntry, body: WheelZero) -> TimingState:
    """True TDC taken over."""
    return replace(now, zero=Placed(entry.seq, body))


def take_turn(now: TimingState, entry: LedgerEntry, body: Turn) -> TimingState:
    """The crank turned to a place."""
    return replace(now, turned_to=(entry.seq, turned_to_deg(body)))


def take_lift(now: TimingState, entry: LedgerEntry, body: LiftReading) -> TimingState:
    """One more lift reading of a cam."""
    work, reading = now.cams.get(body.camshaft), _standing(now, entry, body)
    if work is None or reading is None:
        return now
    event = (body.cylinder, body.valve, body.flank)
    readings = {**work.readings, event: work.readings.get(event, EventReadings()).joined(reading)}
    return _with_cam(now, body.camshaft, changed(work, readings=readings))


def _standing(now: TimingState, entry: LedgerEntry, body: LiftReading) -> StandingReading | None:
    figures = _figures(now, body)
    if not figures:
        return None
    return StandingReading(seq=entry.seq, wheel_deg=figures["wheel_deg"], lift_mm=figures.get("lift_mm"), approach=body.approach)


def take_cam_decision(now: TimingState, entry: LedgerEntry, body: CamDecision) -> TimingState:
    """A cam left as it is, or moved: then it is degreed again."""
    work = now.cams.get(body.camshaft)
    if work is None:
        return now
    if not body.moves:
        return _with_cam(now, body.camshaft, replace(work, left=Placed(entry.seq, body)))
    made = {**work.made, **{move.adjustment: (*work.made.get(move.adjustment, ()), move.place) for move in body.moves}}
    return _with_cam(now, body.camshaft, CamWork(made=made, rounds=work.rounds + 1))


def _with_cam(now: TimingState, shaft: str, work: CamWork) -> TimingState:
    return changed(now, cams={**now.cams, shaft: work})
