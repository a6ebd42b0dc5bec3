"""True TDC by positive stop, by equal drops, and at the top, each with how far it can be trusted.

Readings are wheel degrees (running way from the wheel's own zero). The answer, the *wheel zero*, is the wheel degrees at which
the piston truly stands at TDC, between -180 and 180; a crank angle is then wheel degrees less wheel zero.
"""

__all__ = ["TdcEstimate", "TdcMethod", "tdc_at_top", "tdc_by_equal_drops", "tdc_by_stop", "top_half_width_deg"]

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from gurvo_core.angles import midpoint_deg, signed_deg, wrap_deg
from gurvo_core.errors import ReadingError
from gurvo_core.motion import Slider, drop_mm, half_arc_middle_deg, pair_middle_deg
from gurvo_core.timing.uncertainty import COVERAGE, mean_estimate, root_sum_square

TdcMethod = Literal["positive_stop", "equal_drop", "fit", "top"]


@dataclass(frozen=True, kw_only=True)
class TdcEstimate:
    """Where the wheel stands at true TDC, and how sure that is."""

    method: TdcMethod
    zero_deg: float
    u_deg: float
    spread_deg: float = 0.0
    readings: int = 0
    stray: int | None = None  # place in the list of the reading that does not belong
    dial_zero_mm: float | None = None

    @property
    def expanded_deg(self) -> float:
        """Expanded uncertainty U = 2u [deg]."""
        return COVERAGE * self.u_deg


def _mean_zero(zeros_deg: Sequence[float], u_each_deg: float, method: TdcMethod) -> TdcEstimate:
    from_first = [signed_deg(zero_deg - zeros_deg[0]) for zero_deg in zeros_deg]
    mean = mean_estimate(from_first, u_each_deg)
    return TdcEstimate(
        method=method,
        zero_deg=signed_deg(zeros_deg[0] + mean.value),
        u_deg=mean.u,
        spread_deg=max(from_first) - min(from_first),
        readings=2 * len(zeros_deg),
    )


def tdc_by_stop(pairs_deg: Sequence[tuple[float, float]], slider: Slider, u_reading_deg: float) -> TdcEstimate:
    """Return true TDC from readings where the piston meets a positive stop.

    Parameters
    ----------
    pairs_deg : sequence of (float, float)
        Wheel degrees where it was met turning forward, then turning backward [deg]. TDC lies on the arc from the first forward
        to the second, however long that arc is.
    slider : Slider
        For the pin-offset correction; the blocked arc itself says how far down the stop is.
    u_reading_deg : float
        Standard uncertainty of one wheel reading [deg].

    Returns
    -------
    estimate : TdcEstimate
        Wheel zero [deg], its standard uncertainty and the spread over the pairs.

    Raises
    ------
    ReadingError
        If there is no pair.

    Source
    ------
    Practice (midway between the two stops); [rod-triangle] for the offset correction.

    Example
    -------
    >>> round(tdc_by_stop([(318.5, 41.0)], Slider(throw_mm=43, rod_mm=143), 0.18).zero_deg, 3)
    -0.25
    """
    if not pairs_deg:
        raise ReadingError("readings", 0, "a positive stop needs one reading turning forward and one turning backward")
    zeros = [midpoint_deg(forward, backward) - half_arc_middle_deg(wrap_deg(backward - forward), slider) for forward, backward in pairs_deg]
    return _mean_zero(zeros, u_reading_deg / math.sqrt(2), "positive_stop")


def tdc_by_equal_drops(
    pairs_deg: Sequence[tuple[float, float, float]], slider: Slider, u_reading_deg: float, u_dial_mm: float
) -> TdcEstimate:
    """Return true TDC from pairs of equal drops.

    Parameters
    ----------
    pairs_deg : sequence of (float, float, float)
        Drop [mm], wheel degrees before TDC, wheel degrees after TDC [deg].
    slider : Slider
        For the pin-offset correction and for what an error of the dial is worth.
    u_reading_deg : float
        Standard uncertainty of one wheel reading [deg].
    u_dial_mm : float
        Standard uncertainty of one dial reading [mm].

    Returns
    -------
    estimate : TdcEstimate
        Wheel zero [deg], its standard uncertainty and the spread over the pairs.

    Raises
    ------
    ReadingError
        If there is no pair, or the piston never has that drop.

    Source
    ------
    Practice (midway between equal drops); [rod-triangle] for the offset; [gum] 5.1.2 for the dial's share.

    Example
    -------
    >>> tdc_by_equal_drops([(5.0, 330.0, 31.0)], Slider(throw_mm=43, rod_mm=143), 0.18, 0.003).zero_deg
    0.5
    """
    if not pairs_deg:
        raise ReadingError("readings", 0, "equal drops need one reading before TDC and one after it at the same drop")
    zeros, u_pairs = [], []
    for drop, before_deg, after_deg in pairs_deg:
        zeros.append(midpoint_deg(before_deg, after_deg) - pair_middle_deg(drop, slider))
        half_arc_deg = wrap_deg(after_deg - before_deg) / 2
        slope_mm_per_deg = float(drop_mm(half_arc_deg + 0.01, slider) - drop_mm(half_arc_deg - 0.01, slider)) / 0.02
        u_pairs.append(root_sum_square(u_reading_deg, u_dial_mm / max(slope_mm_per_deg, 1e-6)) / math.sqrt(2))
    return _mean_zero(zeros, float(np.sqrt(np.mean(np.square(u_pairs)))), "equal_drop")


def top_half_width_deg(slider: Slider, resolution_mm: float) -> float:
    """Return how far either side of TDC a dial cannot see the piston move.

    Parameters
    ----------
    slider : Slider
        Throw and rod [mm].
    resolution_mm : float
        Smallest step of the dial [mm].

    Returns
    -------
    half_width_deg : float
        The dwell either side of TDC [deg].

    Source
    ------
    Series of [rod-triangle] near TDC: drop = r (1 + r/L) a^2 / 2.

    Example
    -------
    >>> round(top_half_width_deg(Slider(throw_mm=43, rod_mm=143), 0.01), 1)
    1.1
    """
    throw_mm = slider.throw_mm
    return math.degrees(math.sqrt(2 * resolution_mm / (throw_mm * (1 + throw_mm / slider.rod_mm))))


def tdc_at_top(readings_deg: Sequence[float], slider: Slider, u_reading_deg: float, resolution_mm: float) -> TdcEstimate:
    """Return true TDC as read where the dial stands highest, with its honest error.

    Parameters
    ----------
    readings_deg : sequence of float
        Wheel degrees where the dial seemed highest [deg].
    slider : Slider
        Throw and rod [mm].
    u_reading_deg : float
        Standard uncertainty of one wheel reading [deg].
    resolution_mm : float
        Smallest step of the dial [mm].

    Returns
    -------
    estimate : TdcEstimate
        Wheel zero [deg]; more readings do not narrow the dwell, so its share of the uncertainty stays.

    Raises
    ------
    ReadingError
        If there is no reading.

    Source
    ------
    ``top_half_width_deg`` as a rectangular distribution, [gum] 4.3.7.

    Example
    -------
    >>> round(tdc_at_top([1.0], Slider(throw_mm=43, rod_mm=143), 0.18, 0.01).u_deg, 2)
    0.65
    """
    if not readings_deg:
        raise ReadingError("readings", 0, "at the top needs one reading at least")
    from_first = [signed_deg(reading - readings_deg[0]) for reading in readings_deg]
    mean = mean_estimate(from_first, u_reading_deg)
    hidden_deg = top_half_width_deg(slider, resolution_mm) / math.sqrt(3)
    return TdcEstimate(
        method="top",
        zero_deg=signed_deg(readings_deg[0] + mean.value),
        u_deg=root_sum_square(mean.u, hidden_deg),
        spread_deg=max(from_first) - min(from_first),
        readings=len(readings_deg),
    )
