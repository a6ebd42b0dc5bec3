"""True TDC by least squares over many readings of wheel and dial, with the reading that does not belong.

Unknown are the wheel's zero and the dial's own zero. A wheel error matters by the slope of the drop, so every point is weighed
by it (effective variance); without that the standard error comes out too small.
"""

__all__ = ["DropReading", "fit_tdc"]

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import OptimizeResult, least_squares

from gurvo_core.angles import signed_deg
from gurvo_core.errors import NotConverged, ReadingError
from gurvo_core.motion import Slider, drop_mm
from gurvo_core.timing.tdc import TdcEstimate

LEAST_READINGS = 4
STRAY_SIGMAS = 3.5  # a normal error passes this once in some 2,000 readings
SLOPE_STEP_DEG = 0.01
SETTLING_ROUNDS = 3  # the weights depend on the zero by a hair only: they settle at once
_Array = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class DropReading:
    """One point: wheel degrees and what the dial says the piston has dropped."""

    wheel_deg: float
    drop_mm: float


def fit_tdc(readings: Sequence[DropReading], slider: Slider, u_reading_deg: float, u_dial_mm: float) -> TdcEstimate:
    """Return true TDC from many readings of wheel and dial by weighted least squares.

    Parameters
    ----------
    readings : sequence of DropReading
        At least four, on both sides of TDC.
    slider : Slider
        Throw, rod and pin offset [mm].
    u_reading_deg : float
        Standard uncertainty of one wheel reading [deg].
    u_dial_mm : float
        Standard uncertainty of one dial reading [mm].

    Returns
    -------
    estimate : TdcEstimate
        Wheel zero [deg], its standard error (widened when the points scatter more than the gauges explain), the dial's zero
        [mm], and the place of the reading that does not belong, if one stands out.

    Raises
    ------
    ReadingError
        If there are too few readings or all lie on one side.
    NotConverged
        If least squares finds no answer.

    Source
    ------
    [effective-variance] Orear 1982: variance of a point = u_dial^2 + (slope u_wheel)^2; scipy's least_squares.

    Example
    -------
    >>> slider = Slider(throw_mm=43, rod_mm=143)
    >>> points = [DropReading(wheel_deg=w, drop_mm=float(drop_mm(w - 2.0, slider))) for w in (-40, -20, 20, 40)]
    >>> round(fit_tdc(points, slider, 0.18, 0.003).zero_deg, 6)
    2.0
    """
    if len(readings) < LEAST_READINGS:
        raise ReadingError("readings", len(readings), f"a fit needs {LEAST_READINGS} readings at least; there are {len(readings)}")
    turned = np.array([signed_deg(reading.wheel_deg) for reading in readings])
    drops = np.array([reading.drop_mm for reading in readings])
    start_deg = _first_guess_deg(turned, drops)
    sides = np.sign(turned - start_deg)
    if np.all(sides <= 0) or np.all(sides >= 0):
        raise ReadingError("readings", len(readings), "all readings lie on one side of TDC; take some on the other side too")

    answer, sigma = _solve(turned, drops, slider, (u_reading_deg, u_dial_mm), start_deg)
    covariance = np.linalg.inv(answer.jac.T @ answer.jac)
    scatter = max(1.0, float(np.sum(answer.fun**2)) / (len(readings) - 2))
    return TdcEstimate(
        method="fit",
        zero_deg=signed_deg(float(answer.x[0])),
        u_deg=float(np.sqrt(covariance[0, 0] * scatter)),
        spread_deg=float(np.ptp(_residual_deg(answer.fun * sigma, turned - answer.x[0], slider))),
        readings=len(readings),
        stray=_stray(answer.fun, answer.jac, covariance),
        dial_zero_mm=float(answer.x[1]),
    )


def _solve(
    turned: _Array, drops: _Array, slider: Slider, u_wheel_and_dial: tuple[float, float], start_deg: float
) -> tuple[OptimizeResult, _Array]:
    """Least squares with every point weighed by its effective variance; the answer and those weights."""
    u_wheel, u_dial = u_wheel_and_dial
    zero_deg = start_deg
    for _ in range(SETTLING_ROUNDS):
        sigma = np.asarray(np.hypot(u_dial, _slope(turned - zero_deg, slider) * u_wheel), dtype=np.float64)
        answer = least_squares(lambda p, s=sigma: (drop_mm(turned - p[0], slider) + p[1] - drops) / s, [start_deg, 0.0], xtol=1e-14)
        if not answer.success:
            raise NotConverged("readings", answer.message, "no zero of the wheel fits these readings; look for a misread one")
        zero_deg = float(answer.x[0])
    return answer, sigma


def _first_guess_deg(turned: _Array, drops: _Array) -> float:
    """Vertex of a parabola through the readings; near TDC the drop is almost one."""
    a, b, _ = np.polyfit(turned, drops, 2)
    return float(-b / (2 * a)) if a > 0 else 0.0


def _slope(crank_deg: _Array, slider: Slider) -> _Array:
    """Slope of the drop [mm/deg]."""
    ahead, behind = drop_mm(crank_deg + SLOPE_STEP_DEG, slider), drop_mm(crank_deg - SLOPE_STEP_DEG, slider)
    return np.asarray((ahead - behind) / (2 * SLOPE_STEP_DEG), dtype=np.float64)


def _residual_deg(residual_mm: _Array, crank_deg: _Array, slider: Slider) -> _Array:
    """Residuals in crank degrees; points too near TDC say nothing about the angle and count as zero."""
    slope = _slope(crank_deg, slider)
    flat = np.abs(slope) < 1e-3
    return np.where(flat, 0.0, residual_mm / np.where(flat, 1.0, slope))


def _stray(residuals: _Array, jacobian: _Array, covariance: _Array) -> int | None:
    """Place of the reading whose residual, freed of its own pull on the fit, stands out most; None if none does."""
    leverage = np.einsum("ij,jk,ik->i", jacobian, covariance, jacobian)
    standing_out = np.abs(residuals) / np.sqrt(np.maximum(1 - leverage, 1e-9))
    worst = int(np.argmax(standing_out))
    return worst if standing_out[worst] > STRAY_SIGMAS else None
