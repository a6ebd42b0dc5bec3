"""One valve of a camshaft with its readings: events, centreline and verdict. Kept as long as no reading of it joins."""

__all__ = ["EVENTS", "NO_READINGS", "SAME_LIFT_MM", "MeasuredBy", "MeasuredValve", "valve_measured", "wheel_degrees"]

from collections import Counter
from dataclasses import dataclass
from functools import cached_property, lru_cache

from gurvo_core.angles import nearest_turn_deg, wrap_deg
from gurvo_core.engine import Flank
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.errors import CoreError
from gurvo_core.sentence import fine, length
from gurvo_core.timing import Estimate, GaugeUncertainty, TdcEstimate, advance_deg, centreline_deg, in_words, judge
from gurvo_core.timing.events import OVERLAP_TDC_DEG, lift_slope_mm_per_deg, nose_half_width_deg
from gurvo_core.timing.job.state import EventReadings
from gurvo_core.timing.job.view import EventFigure, LiftCurve, ValveFigures
from gurvo_core.timing.lift_fit import LiftFit, LiftPoint, fit_lift
from gurvo_core.timing.lines import FLANKS, LineAt
from gurvo_core.timing.tdc import carried_by
from gurvo_core.uncertainty import COVERAGE, repeats_estimate, root_sum_square

SAME_LIFT_MM = 0.0005
NOTED_STEPS = 3  # of the dial: its zero is never set better than that
# of a lobe whose shape is not known: a lazy flank and a broad nose, so that nothing is trusted more than it may be
SLOW_SLOPE_MM_PER_DEG = 0.05
BROAD_NOSE_DEG = 6.0
NO_READINGS = EventReadings()
EVENTS = (*FLANKS, "top")
# a long ledger asks for the same few over and over
_slope = lru_cache(maxsize=256)(lift_slope_mm_per_deg)
_nose_width = lru_cache(maxsize=256)(nose_half_width_deg)


@lru_cache(maxsize=1024)
def wheel_degrees(readings: EventReadings, lift_mm: float | None) -> Counter[float]:
    """Return the wheel degrees of the readings at a checking lift, and how often each was read.

    lift_mm: the checking lift; None for all, as at the top [mm].
    Returned: by what was read on the wheel [deg].
    Readings at another lift are of another event.
    """
    found: Counter[float] = Counter()
    for at_mm, often in readings.degrees.items():
        if lift_mm is None or (at_mm is not None and abs(at_mm - lift_mm) <= SAME_LIFT_MM):
            found.update(often)
    return Counter(dict(sorted(found.items())))  # whatever was read first: a sum comes out the same to its last digit


@lru_cache(maxsize=1024)
def _event(readings: EventReadings, lift_mm: float | None, near_wheel_deg: float, u_place: float, step_deg: float) -> Estimate | None:
    """Mean of one event's readings, unwrapped to the turn on which it is expected; kept as long as none joins."""
    on_turn_deg: Counter[float] = Counter()
    for at_deg, times in wheel_degrees(readings, lift_mm).items():
        on_turn_deg[nearest_turn_deg(at_deg, near_wheel_deg)] += times
    return repeats_estimate(on_turn_deg, u_place, step_deg) if on_turn_deg else None


@dataclass(frozen=True)
class MeasuredBy:
    """What a line was measured by."""

    readings: tuple[EventReadings, EventReadings, EventReadings]  # opening, closing, at the top
    wheel: GaugeUncertainty
    dial: GaugeUncertainty
    dial_step_mm: float

    def of(self, flank: str) -> EventReadings:
        """The readings of one event."""
        return self.readings[EVENTS.index(flank)]


@lru_cache(maxsize=512)
def valve_measured(at: LineAt, zero: TdcEstimate | None, measured: MeasuredBy) -> "MeasuredValve":
    """Return one line with its readings; a reading changes one line of many, so the others are kept."""
    return MeasuredValve(at, zero, measured)


class MeasuredValve:
    """One line with its readings, ready to be turned into figures."""

    def __init__(self, at: LineAt, zero: TdcEstimate | None, measured: MeasuredBy) -> None:
        self.at, self.line, self.zero, self.measured = at, at.line, zero, measured
        self.lobe, self.profile, self.on_deg = at.lobe, at.profile, at.on_deg
        self.wheel, self.dial = measured.wheel, measured.dial
        self.events = {flank: self._measured(flank) for flank in FLANKS}

    def _estimate(self, flank: str, lift_mm: float | None, near_deg: float, u_place: float) -> Estimate | None:
        if self.zero is None:
            return None
        to_wheel_deg = self.on_deg + self.zero.zero_deg
        found = _event(self.measured.of(flank), lift_mm, near_deg + to_wheel_deg, u_place, self.wheel.step)
        return Estimate(value=found.value - to_wheel_deg, u=found.u) if found else None

    def _measured(self, flank: Flank) -> Estimate | None:
        known = self.profile is not None
        slope = _slope(self.profile, self.at.shaft, self.lobe, self.line.lift_mm, flank) if known else SLOW_SLOPE_MM_PER_DEG
        u_place = root_sum_square(self.wheel.resolution, self.dial.u / slope)
        return self._estimate(flank, self.line.lift_mm, self.line.event_deg(flank), u_place)

    @cached_property
    def centreline(self) -> Estimate | None:
        """Middle of equal lifts; the zero's error is common to both flanks, so it does not halve; the wheel's curve goes through all."""
        opening, closing = (self.events[flank] for flank in FLANKS)
        if opening is None or closing is None or self.zero is None:
            return None
        value = centreline_deg(self.line.valve, opening.value, closing.value)
        return Estimate(value=value, u=self.zero.u_of(self.own_u, self.carried))

    @property
    def own_u(self) -> float:
        """Standard uncertainty of the middle of both flanks without what the wheel and its zero give it [deg]."""
        return root_sum_square(*(found.u / 2 for found in self.events.values() if found is not None))

    @property
    def carried(self) -> complex:
        """How much of the wheel's own curve the middle of both flanks carries."""
        return sum((self._carried(found.value) / 2 for found in self.events.values() if found is not None), 0j)

    def _carried(self, crank_deg: float) -> complex:
        return carried_by({crank_deg + self.on_deg + (self.zero.zero_deg if self.zero else 0.0): 1.0})

    def top_centreline(self) -> Estimate | None:
        """Centreline by maximum lift; the dial cannot see the nose's flat."""
        sign = 1 if self.line.valve == "intake" else -1
        mean = self._estimate("top", None, self.line.top_deg, self.wheel.resolution)
        if mean is None or self.zero is None:
            return None
        known = self.profile is not None
        hidden_deg = (_nose_width(self.profile, self.at.shaft, self.lobe, self.measured.dial_step_mm) if known else BROAD_NOSE_DEG) / 3**0.5
        u = self.zero.u_of(root_sum_square(mean.u, hidden_deg), self._carried(mean.value))
        return Estimate(value=sign * (mean.value - OVERLAP_TDC_DEG), u=u)

    @cached_property
    def curve(self) -> LiftCurve | None:
        """The whole lift curve, as soon as anything was read at another lift than the card's."""
        read = [(flank, lift) for flank in FLANKS for lift in self.measured.of(flank).degrees if lift is not None]
        others = [lift for _, lift in read if abs(lift - self.line.lift_mm) > SAME_LIFT_MM]
        if not others or self.zero is None or self.lobe is None or self.profile is None:
            return None
        points = [LiftPoint(crank_deg=at, lift_mm=lift) for flank, lift in read for at in self._crank_degs(flank, lift, self.zero)]
        card_deg = self.lobe.nose_deg
        try:
            fit = fit_lift(points, self.profile, (self.at.shaft, self.lobe), self.wheel.resolution, self.dial.u)
        except CoreError as why:
            words = f"{why}."
            return LiftCurve(readings=len(points), centreline_deg=None, expanded_deg=None, card_deg=card_deg, follows=None, words=words)
        carried = sum((count * self._carried(point.crank_deg) for count, point in zip(fit.counts, points, strict=True)), 0j)
        sign = 1 if self.line.valve == "intake" else -1
        return LiftCurve(
            readings=len(points),
            centreline_deg=sign * (fit.nose_deg - OVERLAP_TDC_DEG),
            expanded_deg=COVERAGE * self.zero.u_of(fit.own_u_deg, carried),
            card_deg=card_deg,
            follows=fit.is_this_profile,
            words=_curve_words(fit, points[fit.most_off_at], self.measured.dial_step_mm),
        )

    def _crank_degs(self, flank: Flank, lift_mm: float, zero: TdcEstimate) -> list[float]:
        """Where a lift was read on one flank, each place once: its rounding is the same however often it is read."""
        to_wheel_deg, near_deg = self.on_deg + zero.zero_deg, self.line.event_deg(flank)
        return [nearest_turn_deg(at_deg - to_wheel_deg, near_deg) for at_deg in wheel_degrees(self.measured.of(flank), lift_mm)]

    def _event_figure(self, flank: Flank) -> EventFigure:
        estimate = self.events[flank]
        card_deg = self.line.event_deg(flank) if self.line.has_card else None
        u = self.zero.u_of(estimate.u, self._carried(estimate.value)) if estimate and self.zero else 0.0
        return EventFigure(
            crank_deg=estimate.value if estimate else None,
            wheel_deg=wrap_deg(estimate.value + self.on_deg, CYCLE_DEG) if estimate else None,
            card_wheel_deg=wrap_deg(card_deg + self.on_deg, CYCLE_DEG) if card_deg is not None else None,
            words=in_words(estimate.value) if estimate else "",
            expanded_deg=COVERAGE * u if estimate else None,
            card_deg=card_deg,
            card_words=in_words(card_deg) if card_deg is not None else "",
            readings=wheel_degrees(self.measured.of(flank), self.line.lift_mm).total(),
        )

    @cached_property
    def figures(self) -> ValveFigures:
        """All of it, judged against the card; as found where there is none."""
        line, card_deg = self.line, self.line.card_deg
        centre, top = self.centreline, self.top_centreline()
        low, high = (
            (None, None)
            if card_deg is None or line.tolerance_deg is None
            else (card_deg - line.tolerance_deg, card_deg + line.tolerance_deg)
        )
        judged = judge(centre, low, high, "°", self.at.rule) if centre else None
        opening, closing = (self.events[flank] for flank in FLANKS)
        return ValveFigures(
            valve=line.valve,
            cylinder=line.cylinder,
            lift_mm=line.lift_mm,
            opening=self._event_figure("opening"),
            closing=self._event_figure("closing"),
            duration_deg=closing.value - opening.value if opening and closing else None,
            card_duration_deg=line.closing_deg - line.opening_deg if line.has_card else None,
            centreline_deg=centre.value if centre else None,
            centreline_expanded_deg=centre.expanded if centre else None,
            card_centreline_deg=card_deg,
            side_words="after TDC" if line.valve == "intake" else "before TDC",
            tolerance_deg=line.tolerance_deg,
            top_centreline_deg=top.value if top else None,
            top_expanded_deg=top.expanded if top else None,
            card_top_centreline_deg=self.lobe.nose_deg if self.lobe else None,
            curve=self.curve,
            advance_deg=advance_deg(line.valve, card_deg, centre.value) if centre and card_deg is not None else None,
            verdict=judged.verdict if judged else None,
            settles=judged.settles if judged else "",
        )


def _curve_words(fit: LiftFit, worst: LiftPoint, dial_step_mm: float) -> str:
    """How well the profile goes through the readings, and what it means where it does not."""
    off = abs(fit.dial_zero_mm) > NOTED_STEPS * dial_step_mm
    zero = f" The dial's zero, or the lash, is {fine(abs(fit.dial_zero_mm))} off what the profile takes." if off else ""
    if fit.is_this_profile:
        return f"It follows its profile within {fine(abs(fit.most_off_mm))}.{zero}"
    where = f"It leaves its profile by {fine(abs(fit.most_off_mm))} where {length(worst.lift_mm)} was read"
    return f"{where}: read that again; if it stays, the lobe is worn or is not the one of this profile."
