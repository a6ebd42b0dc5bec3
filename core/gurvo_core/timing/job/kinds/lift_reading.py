"""Where a valve passed a lift, or stood at its highest (flank `top`)."""

__all__ = ["KIND"]

from collections.abc import Iterator

from gurvo_core.engine import Flank
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, changed, met_on_the_way, need
from gurvo_core.motion.lobe import max_valve_lift_mm
from gurvo_core.timing import event_deg
from gurvo_core.timing.job.cams import check_order, event_found_deg
from gurvo_core.timing.job.entries import LiftReading
from gurvo_core.timing.job.readings import length_mm, si_values, wheel_reading_deg
from gurvo_core.timing.job.rules import SET_UP_FIRST
from gurvo_core.timing.job.state import EventReadings, StandingReading, TimingState
from gurvo_core.timing.job.take import figures_read, with_cam
from gurvo_core.timing.job.true_tdc import adopted_zero
from gurvo_core.timing.job.valve import SAME_LIFT_MM
from gurvo_core.timing.job.words import came_back, details_of, wheel_words
from gurvo_core.timing.lines import CamLine


def _say(body: LiftReading) -> Words:
    """A lift reading."""
    lift = f"{body.lift.text.strip()} {body.lift.unit}" if body.lift else "full lift"
    moves = {"opening": "opens", "closing": "closes", "top": "stands"}[body.flank]
    detail = details_of(f"cylinder {body.cylinder}", body.approach)
    title = f"{body.valve.capitalize()} {moves}, {lift}"
    return Words(title=title, value=wheel_words(body.wheel), detail=detail, look_again=came_back(body.approach))


def _check(now: TimingState, body: LiftReading, facts: Facts) -> Iterator[Objection]:
    """A lift this lobe has, on a valve of the card, with true TDC known."""
    document = now.document
    if now.wheel is None:
        yield Objection("kind", SET_UP_FIRST)
        return
    shaft = document.camshaft(body.camshaft)
    if shaft is None:
        names = ", ".join(camshaft.id for camshaft in document.camshafts)
        yield Objection("camshaft", f"this engine has no camshaft {body.camshaft}; it has {names}")
        return
    lobe = document.lobe(shaft.id, body.cylinder, body.valve)
    if lobe is None and shaft.lobes:
        yield Objection("cylinder", f"{shaft.name} has no {body.valve} lobe for cylinder {body.cylinder}")
        return
    line = _line_of(now, body)
    if isinstance(line, Objection):
        yield line
        return
    zero = adopted_zero(now)
    if zero is None:
        yield Objection("kind", "take over true TDC first: without it a reading says nothing")
        return
    wheel_deg = wheel_reading_deg(body.wheel, now.wheel)
    to_deg = wheel_deg - zero.zero_deg + document.firing_deg.get(document.reference_cylinder, 0.0)
    yield from met_on_the_way(facts, "wheel.text", lambda clear: clear.crank_to(to_deg, knows_stroke=False))
    if body.flank == "top":
        yield from need(body.lift is None, "lift", "full lift needs no lift figure; leave it out")
        return
    if body.lift is None:
        yield Objection("lift.text", "give the checking lift, such as 1.00 mm")
        return
    lift_mm, profile = length_mm(body.lift, "lift"), document.shape(shaft, lobe) if lobe else None
    if lobe is not None and profile is not None:
        most_mm = max_valve_lift_mm(profile, shaft, lobe)
        rule = f"a lift of {lift_mm:.2f} mm cannot be: this valve lifts above 0 and below {most_mm:.2f} mm"
        yield from need(0 < lift_mm < most_mm - SAME_LIFT_MM, "lift.text", rule)
    else:
        yield from need(lift_mm > 0, "lift.text", "a lift is above 0 mm")
    if abs(lift_mm - line.lift_mm) <= SAME_LIFT_MM:
        right = _opens_before_it_closes(now, body, line, wheel_deg, zero.zero_deg)
        yield from need(right, "wheel.text", f"the {body.valve} valve would open after it closes: check the figure and its side")


def _line_of(now: TimingState, body: LiftReading) -> CamLine | Objection:
    """The line that a reading is for, or why there is none."""
    lines = [line for line in now.lines if line.camshaft == body.camshaft and line.valve == body.valve]
    if not lines:
        return Objection("valve", f"the cam card has no line for the {body.valve} valve")
    line = next((line for line in lines if line.cylinder == body.cylinder), None)
    return line or Objection("cylinder", f"the card is measured on cylinder {lines[0].cylinder}: degree the cam on that one")


def _opens_before_it_closes(now: TimingState, body: LiftReading, line: CamLine, wheel_deg: float, zero_deg: float) -> bool:
    flanks: tuple[Flank, Flank] = ("opening", "closing")
    found: dict[Flank, float | None] = {}
    on_deg = now.document.from_reference_deg(body.cylinder)
    for flank in flanks:
        near_deg = line.event_deg(flank)
        if flank == body.flank:
            found[flank] = event_deg(wheel_deg, zero_deg, near_deg + on_deg) - on_deg
        else:
            found[flank] = event_found_deg(now, line, flank, zero_deg)
    return check_order(found["opening"], found["closing"])


def _take(now: TimingState, entry: LedgerEntry, body: LiftReading) -> TimingState:
    """One more lift reading of a cam."""
    work, reading = now.cams.get(body.camshaft), _standing(now, entry, body)
    if work is None or reading is None:
        return now
    event = (body.cylinder, body.valve, body.flank)
    readings = {**work.readings, event: work.readings.get(event, EventReadings()).joined(reading)}
    return with_cam(now, body.camshaft, changed(work, readings=readings))


def _standing(now: TimingState, entry: LedgerEntry, body: LiftReading) -> StandingReading | None:
    """What a reading says in degrees and mm; None where it cannot be read any more."""
    figures = figures_read(now, body)
    if not figures:
        return None
    return StandingReading(seq=entry.seq, wheel_deg=figures["wheel_deg"], lift_mm=figures.get("lift_mm"), approach=body.approach)


KIND: Kind[LiftReading, TimingState] = Kind(
    body=LiftReading,
    does="turn",
    words=_say,
    take=_take,
    check=_check,
    si_values=si_values,
)
