"""What the timing's entries may say, in the light of what stands. Each rule yields its objections; nothing is changed."""

__all__ = [
    "check_cam_decision",
    "check_check",
    "check_lift",
    "check_method",
    "check_setup",
    "check_stop",
    "check_tdc",
    "check_turn",
    "check_zero",
]

from collections.abc import Iterator

from gurvo_core.angles import signed_deg, wrap_deg
from gurvo_core.engine import Flank
from gurvo_core.errors import ReadingError
from gurvo_core.ledger import Facts, Objection, met_on_the_way, need
from gurvo_core.motion.crank import drop_at_deg
from gurvo_core.motion.frames import slider_of
from gurvo_core.motion.lobe import max_valve_lift_mm
from gurvo_core.timing import event_deg
from gurvo_core.timing.job.cams import cam_basis, cams_of, check_order, event_found_deg
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
from gurvo_core.timing.job.readings import length_mm, opposite_readings, turned_to_deg, wheel_reading_deg
from gurvo_core.timing.job.state import StandingTdcReading, TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero, find_tdc, half_pair, tdc_basis
from gurvo_core.timing.job.valve import SAME_LIFT_MM
from gurvo_core.timing.lines import CamLine
from gurvo_core.timing.tdc_fit import DIAL_ZERO_WITHIN

MIN_PAIR_ARC_DEG = 8.0  # nearer to TDC the piston dwells and a touch says nothing
MAX_DWELL_DEG = 20.0
SAME_SHOWN_DEG = 0.005  # what was shown and sent back differs by rounding at most
FAR_FROM_DROP_DEG = 20.0  # more than any wheel or dial is out; less than a wrong side makes
ABOUT_OPPOSITE_DEG = 10.0
NEARLY_A_TURN_DEG = 300
PAIRED = ("positive_stop", "equal_drop", "top")
SET_UP_FIRST = "set up the wheel first: its numbering is not known yet"
Objections = Iterator[Objection]


def check_setup(_now: TimingState, body: WheelSetup, _facts: Facts) -> Objections:
    """The plugs are out."""
    yield from need(body.plugs_out, "plugs_out", "take the plugs out and lock the stand before the crank is turned")


def check_check(now: TimingState, body: WheelCheck, _facts: Facts) -> Objections:
    """Both pointers are read before anything rests on the wheel, and the second stands about opposite."""
    if now.wheel is None:
        yield Objection("kind", SET_UP_FIRST)
        return
    here, opposite = opposite_readings(body, now.wheel)
    late = "something has been read on this wheel already: set it up anew, then check it before the first reading"
    yield from need(not now.tdc_readings and not any(cam.readings for cam in now.cams.values()), "kind", late)
    off_deg = signed_deg(opposite - here - 180)
    rule = f"the second pointer would stand {abs(off_deg):g}° from opposite: read it again, or set it half a turn from the first"
    yield from need(abs(off_deg) <= ABOUT_OPPOSITE_DEG, "opposite.text", rule)


def check_method(now: TimingState, body: TdcMethodChoice, _facts: Facts) -> Objections:
    """The wheel is set up before anybody looks for TDC on it, and what the method rests on is known."""
    rule = "stroke and rod of this engine are not known: find TDC by a positive stop or by equal drops"
    yield from need(body.method not in ("fit", "top") or slider_of(now.document) is not None, "method", rule)
    yield from need(now.setup is not None, "kind", "set up the wheel first")


def check_stop(now: TimingState, body: PistonStop, _facts: Facts) -> Objections:
    """A stop goes in once and comes out once."""
    yield from need(now.setup is not None, "kind", "set up the wheel first")
    if body.fitted:
        yield from need(not now.stop_in, "fitted", "the piston stop is in already")
        yield from need(now.method == "positive_stop", "fitted", "true TDC is looked for without a stop; choose that method first")
    else:
        yield from need(bool(now.stop_in), "fitted", "no piston stop is in")


def check_turn(_now: TimingState, body: Turn, facts: Facts) -> Objections:
    """The angle can be read, and nothing that is known is met on the way."""
    to_deg = turned_to_deg(body)
    yield from met_on_the_way(facts, "to", lambda clear: clear.crank_to(to_deg))


def check_tdc(now: TimingState, body: TdcReading, facts: Facts) -> Objections:
    """A reading by the chosen method, with what that method needs, that can belong to its partner."""
    if now.wheel is None:
        yield Objection("kind", SET_UP_FIRST)
        return
    rule = "this reading is by another method than the one chosen; choose the method first"
    yield from need(body.method == now.method, "method", rule)
    wheel_deg, paired = wheel_reading_deg(body.wheel, now.wheel), body.method in PAIRED
    yield from need(paired == (body.place is not None), "place", "say before or after TDC for a pair of readings, and only there")
    yield from need(body.method != "positive_stop" or bool(now.stop_in), "method", "fit the piston stop first, and say that it is in")
    with_drop = body.method in ("equal_drop", "fit")
    yield from need(with_drop == (body.drop is not None), "drop", "give the dial's drop for equal drops or a fit, and only there")
    drop_mm = length_mm(body.drop, "drop") if body.drop else None
    if drop_mm is not None:
        yield from _check_drop(now, drop_mm)
    waiting = half_pair(now)
    if paired and waiting is not None:
        yield from _check_pair(now, body, waiting, wheel_deg, drop_mm)
        if body.method == "positive_stop":
            # from one side of a stop to the other the crank goes nearly all the way round
            way = 1 if body.place == "before" else -1
            yield from met_on_the_way(facts, "place", lambda clear: clear.crank_by(way * NEARLY_A_TURN_DEG))


def _check_drop(now: TimingState, drop_mm: float) -> Objections:
    """The piston has such a drop; in a fit the dial's own zero may lie a little below the top."""
    slider = slider_of(now.document)
    if slider is None:
        yield from need(drop_mm > 0, "drop.text", "a drop is above 0 mm")
        return
    if now.method == "fit" and -DIAL_ZERO_WITHIN * slider.travel_mm < drop_mm < 0:
        return
    try:
        drop_at_deg(drop_mm, "after", slider)
    except ReadingError as error:
        yield Objection("drop.text", error.rule)


def _check_pair(now: TimingState, body: TdcReading, waiting: StandingTdcReading, wheel_deg: float, drop_mm: float | None) -> Objections:
    """The two belong together: by the arc between them, wherever the wheel's own zero is."""
    way = "turn back until the piston meets the stop" if body.method == "positive_stop" else "take the one on the other side"
    yield from need(waiting.body.place != body.place, "place", f"this side has been read already: {way}")
    before_deg, after_deg = (waiting.wheel_deg, wheel_deg) if body.place == "after" else (wheel_deg, waiting.wheel_deg)
    arc_deg, field = wrap_deg(after_deg - before_deg), "wheel.side" if body.wheel.side else "wheel.text"
    if body.method == "top":
        rule = f"the ends of the dwell lie {arc_deg:.1f}° apart, and a dwell is a few degrees wide: check figure and side"
        yield from need(arc_deg < MAX_DWELL_DEG, field, rule)
        return
    rule = "the two readings lie too near each other, where the piston dwells; use a longer stop or a larger drop"
    yield from need(MIN_PAIR_ARC_DEG <= arc_deg <= 360 - MIN_PAIR_ARC_DEG, "wheel.text", rule)
    if drop_mm is None or waiting.drop_mm is None:
        return
    rule = f"the drop must be the same as on the other side ({waiting.drop_mm:.2f} mm)"
    yield from need(abs(drop_mm - waiting.drop_mm) <= now.dial_step_mm / 2, "drop.text", rule)
    slider = slider_of(now.document)
    if slider is None:
        return
    fits_deg = drop_at_deg(drop_mm, "after", slider) - drop_at_deg(drop_mm, "before", slider)
    rule = f"the two lie {arc_deg:.0f}° apart, but a drop of {drop_mm:g} mm lies {fits_deg:.0f}° apart: check figures and sides"
    yield from need(abs(arc_deg - fits_deg) < FAR_FROM_DROP_DEG, field, rule)


def check_zero(now: TimingState, body: WheelZero, _facts: Facts) -> Objections:
    """True TDC is taken over as it was shown, with the readings it was shown for."""
    estimate = find_tdc(now)
    if estimate is None:
        yield Objection("zero_deg", "true TDC is not known yet: take the readings first")
        return
    same = body.method == now.method and body.rests_on in (None, tdc_basis(now))
    rule = f"the readings now say {estimate.zero_deg:+.2f}°: look again and take that over"
    yield from need(same and abs(estimate.zero_deg - body.zero_deg) <= SAME_SHOWN_DEG, "zero_deg", rule)


def check_lift(now: TimingState, body: LiftReading, facts: Facts) -> Objections:
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


def _same_deg(one: float | None, other: float | None) -> bool:
    if one is None or other is None:
        return one is other
    return abs(one - other) <= SAME_SHOWN_DEG


def check_cam_decision(now: TimingState, body: CamDecision, _facts: Facts) -> Objections:
    """A decision is made on the figure that was shown, and only what was offered can be moved."""
    cam = next((cam for cam in cams_of(now) if cam.camshaft == body.camshaft), None)
    if cam is None:
        yield Objection("camshaft", f"this engine has no camshaft {body.camshaft}")
        return
    if cam.verdict is None:
        yield Objection("camshaft", "take the readings of both flanks of every valve first")
        return
    same = body.rests_on in (None, cam_basis(now, body.camshaft)) and _same_deg(cam.advance_deg, body.advance_deg)
    yield from need(same, "advance_deg", f"the cam is now {cam.advance_words}: look again and decide on that")
    if body.moves:
        offered = [tuple(offer.moves) for offer in cam.offers]
        yield from need(body.moves in offered, "moves", "this is not one of the corrections offered; choose one of them")
    elif cam.verdict not in ("in", "no limit known"):
        yield from need(bool(body.reason), "reason", f"the cam is “{cam.verdict}”: say why it is left as it is")
