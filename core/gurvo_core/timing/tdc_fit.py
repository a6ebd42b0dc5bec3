"""True TDC by least squares over many readings of wheel and dial, with the reading that does not belong.

Unknown are the wheel's zero and the dial's own zero. A wheel error matters by the slope of the drop, so every point is weighed
by it (effective variance); without that the standard error comes out too small.
"""

__all__ = ["DropReading", "fit_tdc"]

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.angles import circular_mean_deg, signed_deg
from gurvo_core.errors import ReadingError
from gurvo_core.motion import SliderCrank, drop_mm
from gurvo_core.timing.tdc import TdcEstimate, carried_by
from gurvo_core.timing.wheel_and_dial import OUTLIER_SIGMAS, Fitted, fit_wheel_and_dial
from gurvo_core.uncertainty import GaugeUncertainty

MIN_READINGS = 4
MIN_PLACES = 3  # two unknowns, and one more that can contradict
DIAL_ZERO_WITHIN = 0.1  # of the travel: further off, no dial was set to zero anywhere near the top
SLOPE_STEP_DEG = 0.01
_Array = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class DropReading:
    """One point: wheel degrees and what the dial says the piston has dropped."""

    wheel_deg: float
    drop_mm: float


def fit_tdc(readings: Sequence[DropReading], slider: SliderCrank, wheel: GaugeUncertainty, dial: GaugeUncertainty) -> TdcEstimate:
    """Return true TDC from many readings of wheel and dial by weighted least squares.

    slider: throw, rod and pin offset [mm].
    wheel: of one wheel reading [deg].
    dial: of one dial reading [mm].
    Returned: DegreeWheel zero [deg], its standard error (widened when the points scatter more than the gauges explain), the dial's zero
        [mm], and the place of the reading that does not belong, if one stands out.
    Raises ReadingError if there are too few readings, all lie on one side, or the dial's zero comes out where no dial was set; NotConverged
    if least squares finds no answer.
    Source: [effective-variance] Orear 1982: variance of a point = u_dial^2 + (slope u_wheel)^2; scipy's least_squares.
    >>> slider = SliderCrank(throw_mm=43, rod_mm=143)
    >>> points = [DropReading(wheel_deg=w, drop_mm=float(drop_mm(w - 2.0, slider))) for w in (-40, -20, 20, 40)]
    >>> round(fit_tdc(points, slider, GaugeUncertainty(0.18), GaugeUncertainty(0.003)).zero_deg, 6)
    2.0
    """
    if len(readings) < MIN_READINGS:
        raise ReadingError("readings", len(readings), f"a fit needs {MIN_READINGS} readings at least; there are {len(readings)}")
    middle_deg = circular_mean_deg([reading.wheel_deg for reading in readings])
    places = _places(readings, middle_deg, wheel)
    turned, drops = np.array([place.wheel_deg for place in places]), np.array([place.drop_mm for place in places])
    fitted = _fitted(turned, drops, slider, (wheel.resolution, dial.u))
    _check_dial_zero(fitted.dial_zero_mm, slider)
    worst = int(np.argmax(fitted.standing_out))
    return TdcEstimate(
        method="fit",
        zero_deg=signed_deg(fitted.place_deg + middle_deg),
        own_u_deg=fitted.own_u_deg,
        carried=carried_by(dict(zip((turned + middle_deg).tolist(), fitted.counts, strict=True))),
        calibration_deg=wheel.calibration,
        spread_deg=float(np.ptp(_residual_deg(fitted.left_mm, turned - fitted.place_deg, slider))),
        readings=len(readings),
        outlier=places[worst].first if fitted.standing_out[worst] > OUTLIER_SIGMAS else None,
        dial_zero_mm=fitted.dial_zero_mm,
    )


def _fitted(turned: _Array, drops: _Array, slider: SliderCrank, u: tuple[float, float]) -> Fitted:
    """The wheel's zero by all points."""
    return fit_wheel_and_dial(
        lambda zero_deg: drop_mm(turned - zero_deg, slider),
        lambda zero_deg: _slope(turned - zero_deg, slider),
        drops,
        u=u,
        start_deg=_first_guess_deg(turned, drops),
        none_fits="no zero of the wheel fits these readings; look for a misread one",
    )


@dataclass(frozen=True)
class _Place:
    """Readings repeated at one place count once: the scale's error there is the same each time."""

    first: int
    wheel_deg: float
    drop_mm: float


def _places(readings: Sequence[DropReading], middle_deg: float, wheel: GaugeUncertainty) -> list[_Place]:
    """The readings round their middle, so that none lies across a zero; repeats brought together."""
    groups: list[tuple[int, list[tuple[float, float]]]] = []
    for n, reading in enumerate(readings):
        point = (signed_deg(reading.wheel_deg - middle_deg), reading.drop_mm)
        near = next((own for _, own in groups if abs(own[0][0] - point[0]) <= wheel.u), None)
        if near is None:
            groups.append((n, [point]))
        else:
            near.append(point)
    return [_Place(first, *(float(figure) for figure in np.mean(own, axis=0))) for first, own in groups]


def _check_dial_zero(dial_zero_mm: float, slider: SliderCrank) -> None:
    most_mm = DIAL_ZERO_WITHIN * slider.travel_mm
    if abs(dial_zero_mm) > most_mm:
        rule = f"the dial's zero would lie {dial_zero_mm:+.1f} mm from the top: zero the dial at the top, or look for a misread wheel"
        raise ReadingError("readings", dial_zero_mm, rule)


def _first_guess_deg(turned: _Array, drops: _Array) -> float:
    """Vertex of a parabola through the readings; near TDC the drop is almost one. There must be readings on both sides of it."""
    one_sided = ReadingError("readings", len(turned), "all readings lie on one side of TDC; take some on the other side too")
    if len(turned) < MIN_PLACES:
        raise one_sided
    a, b, _ = np.polyfit(turned, drops, 2)
    start_deg = float(-b / (2 * a)) if a > 0 else 0.0
    sides = np.sign(turned - start_deg)
    if np.all(sides <= 0) or np.all(sides >= 0):
        raise one_sided
    return start_deg


def _slope(crank_deg: _Array, slider: SliderCrank) -> _Array:
    """Slope of the drop [mm/deg]."""
    ahead, behind = drop_mm(crank_deg + SLOPE_STEP_DEG, slider), drop_mm(crank_deg - SLOPE_STEP_DEG, slider)
    return np.asarray((ahead - behind) / (2 * SLOPE_STEP_DEG), dtype=np.float64)


def _residual_deg(residual_mm: _Array, crank_deg: _Array, slider: SliderCrank) -> _Array:
    """Residuals in crank degrees; points too near TDC say nothing about the angle and count as zero."""
    slope = _slope(crank_deg, slider)
    flat = np.abs(slope) < 1e-3
    return np.where(flat, 0.0, residual_mm / np.where(flat, 1.0, slope))
