"""One reading towards true TDC."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.angles import wrap_deg
from gurvo_core.errors import ReadingError
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, met_on_the_way, need
from gurvo_core.motion.crank import drop_at_deg
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing.job.entries import TdcReading
from gurvo_core.timing.job.readings import length_mm, si_values, wheel_reading_deg
from gurvo_core.timing.job.rules import SET_UP_FIRST
from gurvo_core.timing.job.state import StandingTdcReading, TimingState
from gurvo_core.timing.job.take import figures_read
from gurvo_core.timing.job.true_tdc import half_pair
from gurvo_core.timing.job.words import METHOD_NAMES, came_back, details_of, wheel_words
from gurvo_core.timing.tdc_fit import DIAL_ZERO_WITHIN

_PLACES = {"before": ", before TDC", "after": ", after TDC", None: ""}
MIN_PAIR_ARC_DEG = 8.0  # nearer to TDC the piston dwells and a touch says nothing
MAX_DWELL_DEG = 20.0
FAR_FROM_DROP_DEG = 20.0  # more than any wheel or dial is out; less than a wrong side makes
NEARLY_A_TURN_DEG = 300
PAIRED = ("positive_stop", "equal_drop", "top")


def _say(body: TdcReading) -> Words:
    """A reading towards true TDC."""
    drop = f"drop {body.drop.text.strip()} {body.drop.unit}" if body.drop else ""
    title = METHOD_NAMES[body.method].capitalize() + _PLACES[body.place]
    detail = details_of(drop, body.approach)
    return Words(title=title, value=wheel_words(body.wheel), detail=detail, look_again=came_back(body.approach))


def _check(now: TimingState, body: TdcReading, facts: Facts) -> Iterator[Objection]:
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


def _check_drop(now: TimingState, drop_mm: float) -> Iterator[Objection]:
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


def _check_pair(
    now: TimingState, body: TdcReading, waiting: StandingTdcReading, wheel_deg: float, drop_mm: float | None
) -> Iterator[Objection]:
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


def _take(now: TimingState, entry: LedgerEntry, body: TdcReading) -> TimingState:
    """One more reading towards true TDC. Where the stop was met it must be in, even if an early ledger never said so."""
    figures = figures_read(now, body)
    if not figures:
        return now
    reading = StandingTdcReading(seq=entry.seq, wheel_deg=figures["wheel_deg"], drop_mm=figures.get("drop_mm"), body=body)
    stop_in = now.stop_in or (entry.seq if body.method == "positive_stop" else 0)
    return replace(now, tdc_readings=(*now.tdc_readings, reading), stop_in=stop_in)


KIND: Kind[TdcReading, TimingState] = Kind(
    body=TdcReading,
    does="turn",
    words=_say,
    take=_take,
    check=_check,
    si_values=si_values,
)
