"""True TDC by positive stop, by equal drops, and at the top, each with how far it can be trusted.

Readings are wheel degrees (running way from the wheel's own zero). The answer, the *wheel zero*, is the wheel degrees at which
the piston truly stands at TDC, between -180 and 180; a crank angle is then wheel degrees less wheel zero.

A wheel's own error is one smooth curve, for the most part because it sits off centre: figures read near each other are off by nearly the
same, so more depths and more points do not average it. Each answer says how much of that curve it carries.
"""

__all__ = [
    "TdcEstimate",
    "TdcMethod",
    "TdcPair",
    "carried_by",
    "tdc_at_top",
    "tdc_by_equal_drops",
    "tdc_by_highest",
    "tdc_by_stop",
    "tdc_dwell_half_width_deg",
]

import cmath
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from gurvo_core.angles import midpoint_deg, signed_deg, wrap_deg
from gurvo_core.errors import ReadingError
from gurvo_core.motion import SliderCrank, drop_at_deg, drop_mm, half_arc_middle_deg, pair_middle_deg
from gurvo_core.uncertainty import COVERAGE, GaugeUncertainty, repeats_estimate, root_sum_square, shares_of, weighted_estimate

TdcMethod = Literal["positive_stop", "equal_drop", "fit", "top"]
SIDES: tuple[Literal["before", "after"], ...] = ("before", "after")
SAME_PLACE_DEG = 2.0  # readings this near each other share the scale's error there
SLOPE_STEP_DEG = 0.01


@dataclass(frozen=True, kw_only=True)
class TdcEstimate:
    """Where the wheel stands at true TDC, and how sure that is."""

    method: TdcMethod
    zero_deg: float
    own_u_deg: float  # without the wheel's own curve
    carried: complex = 0j  # how much of that curve, and of which side of the wheel
    calibration_deg: float = 0.0  # standard uncertainty of the wheel's curve at one place
    spread_deg: float = 0.0
    readings: int = 0
    outlier: int | None = None  # place in the list of the reading that does not belong
    dial_zero_mm: float | None = None

    @property
    def u_deg(self) -> float:
        """Standard uncertainty of the zero [deg]."""
        return root_sum_square(self.own_u_deg, self.calibration_deg * abs(self.carried))

    def u_of(self, own_u_deg: float, carried: complex) -> float:
        """Standard uncertainty of a crank angle read on the same wheel; what zero and place share of its curve goes out of it [deg]."""
        return root_sum_square(own_u_deg, self.own_u_deg, self.calibration_deg * abs(carried - self.carried))

    @property
    def expanded_deg(self) -> float:
        """Expanded uncertainty U = 2u [deg]."""
        return COVERAGE * self.u_deg


@dataclass(frozen=True, kw_only=True)
class TdcPair:
    """A reading before TDC and one after it, in wheel degrees; at equal drops with the drop."""

    before_deg: float
    after_deg: float
    drop_mm: float | None = None


def carried_by(weights: Mapping[float, float]) -> complex:
    """Return how much of an eccentric wheel's error a weighted sum of figures read on it carries, and from where.

    weights: what each figure counts in the sum, by the wheel degrees at which it was read [deg].
    Source: [eccentric] in docs/sources.md: an error e sin(w - v) with v unknown has between two places the covariance u^2 cos(w1 - w2).
    >>> abs(carried_by({10.0: 0.5, 190.0: 0.5})) < 1e-12, round(abs(carried_by({300.0: 0.5, 60.0: 0.5})), 9)
    (True, 0.5)
    """
    return sum((weight * cmath.exp(1j * math.radians(at_deg)) for at_deg, weight in weights.items()), 0j)


def _from_pairs(
    pairs: Sequence[TdcPair], offsets_deg: Sequence[float], u_places_deg: Sequence[float], wheel: GaugeUncertainty, method: TdcMethod
) -> TdcEstimate:
    """The middle of each pair less its offset; pairs at one place share its rounding, all share the wheel's curve."""
    zeros = [signed_deg(midpoint_deg(pair.before_deg, pair.after_deg) - offset) for pair, offset in zip(pairs, offsets_deg, strict=True)]
    from_first = [signed_deg(zero_deg - zeros[0]) for zero_deg in zeros]
    places: dict[int, list[int]] = {}
    for n, pair in enumerate(pairs):
        same = next((k for k in places if abs(signed_deg(pairs[k].before_deg - pair.before_deg)) < SAME_PLACE_DEG), n)
        places.setdefault(same, []).append(n)
    means = [repeats_estimate([from_first[n] for n in own], u_places_deg[own[0]], wheel.step) for own in places.values()]
    mean = weighted_estimate(means)
    shares = shares_of(means)
    ends = [pairs[own[0]] for own in places.values()]
    carried = sum((share * carried_by({pair.before_deg: 0.5, pair.after_deg: 0.5}) for share, pair in zip(shares, ends, strict=True)), 0j)
    return TdcEstimate(
        method=method,
        zero_deg=signed_deg(zeros[0] + mean.value),
        own_u_deg=mean.u,
        carried=carried,
        calibration_deg=wheel.calibration,
        spread_deg=max(from_first) - min(from_first),
        readings=2 * len(pairs),
    )


def tdc_by_stop(pairs: Sequence[TdcPair], slider: SliderCrank | None, wheel: GaugeUncertainty) -> TdcEstimate:
    """Return true TDC from readings where the piston meets a positive stop.

    pairs: wheel degrees where it was met turning forward (before) and turning backward (after) [deg]. TDC lies on the arc from the first
        forward to the second, however long that arc is.
    wheel: of one wheel reading [deg].
    Returned: wheel zero [deg], its standard uncertainty and the spread over the pairs. Repeats at the same stop average scatter only.
    Raises ReadingError if there is no pair.
    Source: Practice (midway between the two stops); [rod-triangle] for the offset correction.
    >>> pair = TdcPair(before_deg=318.5, after_deg=41.0)
    >>> round(tdc_by_stop([pair], SliderCrank(throw_mm=43, rod_mm=143), GaugeUncertainty(0.18)).zero_deg, 3)
    -0.25
    """
    if not pairs:
        raise ReadingError("readings", 0, "a positive stop needs one reading turning forward and one turning backward")
    offsets = [half_arc_middle_deg(wrap_deg(pair.after_deg - pair.before_deg), slider) if slider else 0.0 for pair in pairs]
    return _from_pairs(pairs, offsets, [wheel.resolution / math.sqrt(2)] * len(pairs), wheel, "positive_stop")


def _slope_mm_per_deg(crank_deg: float, slider: SliderCrank) -> float:
    """How fast the piston moves at a crank angle, never below what a dial can feel."""
    slope = float(drop_mm(crank_deg + SLOPE_STEP_DEG, slider) - drop_mm(crank_deg - SLOPE_STEP_DEG, slider)) / (2 * SLOPE_STEP_DEG)
    return max(abs(slope), 1e-6)


def _deg_per_mm(pair: TdcPair, drop: float, slider: SliderCrank | None) -> list[float]:
    """What a millimetre is worth on each side; near the top a drop grows as the square of the angle, so its slope is 2 drop / angle."""
    if slider is not None:
        return [1 / _slope_mm_per_deg(drop_at_deg(drop, side, slider), slider) for side in SIDES]
    half_arc_deg = wrap_deg(pair.after_deg - pair.before_deg) / 2
    return [half_arc_deg / (2 * max(drop, 1e-6))] * len(SIDES)


def tdc_by_equal_drops(
    pairs: Sequence[TdcPair], slider: SliderCrank | None, wheel: GaugeUncertainty, dial: GaugeUncertainty
) -> TdcEstimate:
    """Return true TDC from pairs of equal drops.

    pairs: wheel degrees before and after TDC [deg], each with its drop [mm].
    wheel: of one wheel reading [deg].
    dial: of one dial reading [mm]. Its calibration is the same at both readings of a pair and falls out but for the difference of the
        slopes.
    Returned: wheel zero [deg], its standard uncertainty and the spread over the pairs.
    Raises ReadingError if there is no pair, or the piston never has that drop.
    Source: Practice (midway between equal drops); [rod-triangle] for the offset; [gum] 5.1.2 and 5.2.2 for the dial's share.
    >>> pair = TdcPair(before_deg=330.0, after_deg=31.0, drop_mm=5.0)
    >>> tdc_by_equal_drops([pair], SliderCrank(throw_mm=43, rod_mm=143), GaugeUncertainty(0.18), GaugeUncertainty(0.003)).zero_deg
    0.5
    """
    if not pairs:
        raise ReadingError("readings", 0, "equal drops need one reading before TDC and one after it at the same drop")
    offsets, u_places = [], []
    for pair in pairs:
        drop = pair.drop_mm or 0.0
        offsets.append(pair_middle_deg(drop, slider) if slider else 0.0)
        per_mm = _deg_per_mm(pair, drop, slider)
        common = dial.calibration * (per_mm[1] - per_mm[0])
        own = root_sum_square(*(root_sum_square(wheel.resolution, dial.resolution * one) for one in per_mm))
        u_places.append(root_sum_square(own, common) / 2)
    return _from_pairs(pairs, offsets, u_places, wheel, "equal_drop")


def tdc_dwell_half_width_deg(slider: SliderCrank, resolution_mm: float) -> float:
    """Return how far either side of TDC a dial cannot see the piston move.

    slider: throw and rod [mm].
    resolution_mm: smallest step of the dial [mm].
    Returned: the dwell either side of TDC [deg].
    Source: Series of [rod-triangle] near TDC: drop = r (1 + r/L) a^2 / 2.
    >>> round(tdc_dwell_half_width_deg(SliderCrank(throw_mm=43, rod_mm=143), 0.01), 1)
    1.1
    """
    throw_mm = slider.throw_mm
    return math.degrees(math.sqrt(2 * resolution_mm / (throw_mm * (1 + throw_mm / slider.rod_mm))))


def tdc_at_top(pairs: Sequence[TdcPair], slider: SliderCrank, wheel: GaugeUncertainty, resolution_mm: float) -> TdcEstimate:
    """Return true TDC as the middle of the piston's dwell.

    pairs: wheel degrees where the dial stops rising (before) and where it begins to fall (after) [deg].
    slider: throw, rod and pin offset [mm].
    wheel: of one wheel reading [deg].
    resolution_mm: smallest step of the dial [mm]; each end is seen within half a step either way.
    Returned: wheel zero [deg]; either end alone is most of a degree away from it.
    Raises ReadingError if there is no pair.
    """
    if not pairs:
        raise ReadingError("readings", 0, "at the top needs both ends of the dwell")
    end_deg = tdc_dwell_half_width_deg(slider, resolution_mm) / 4 / math.sqrt(3)
    u_pair_deg = root_sum_square(wheel.resolution, end_deg) / math.sqrt(2)
    return _from_pairs(pairs, [0.0] * len(pairs), [u_pair_deg] * len(pairs), wheel, "top")


def tdc_by_highest(readings_deg: Sequence[float], slider: SliderCrank, wheel: GaugeUncertainty, resolution_mm: float) -> TdcEstimate:
    """Return true TDC from single readings where the dial seemed highest, as ledgers of version 1 hold them.

    readings_deg: wheel degrees where the dial seemed highest [deg].
    slider: throw and rod [mm].
    wheel: of one wheel reading [deg].
    resolution_mm: smallest step of the dial [mm].
    Returned: wheel zero [deg]; more readings do not narrow the dwell, so its share of the uncertainty stays.
    Raises ReadingError if there is no reading.
    """
    if not readings_deg:
        raise ReadingError("readings", 0, "at the top needs one reading at least")
    from_first = [signed_deg(reading - readings_deg[0]) for reading in readings_deg]
    hidden_deg = tdc_dwell_half_width_deg(slider, resolution_mm) / math.sqrt(3)
    mean = repeats_estimate(from_first, root_sum_square(wheel.resolution, hidden_deg), wheel.step)
    return TdcEstimate(
        method="top",
        zero_deg=signed_deg(readings_deg[0] + mean.value),
        own_u_deg=mean.u,
        carried=carried_by({readings_deg[0]: 1.0}),
        calibration_deg=wheel.calibration,
        spread_deg=max(from_first) - min(from_first),
        readings=len(readings_deg),
    )
