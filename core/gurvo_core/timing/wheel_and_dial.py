"""Least squares over readings of wheel and dial side by side: where the wheel stands, and the dial's own zero.

A wheel error matters by the slope of what the dial shows, so every point is weighed by it (effective variance); without that the standard
error comes out too small.
"""

__all__ = ["OUTLIER_SIGMAS", "Fitted", "fit_wheel_and_dial"]

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

from gurvo_core.errors import NotConverged

OUTLIER_SIGMAS = 3.5  # a normal error passes this once in some 2,000 readings
SETTLING_ROUNDS = 3  # the weights depend on the place by a hair only: they settle at once
_Array = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class Fitted:
    """Where it stands, and what is left of every point."""

    place_deg: float
    own_u_deg: float  # widened when the points scatter more than the gauges explain
    dial_zero_mm: float
    left_mm: _Array  # what was expected less what was read
    counts: tuple[float, ...]  # what a degree of each point on the wheel moves the place by
    standing_out: _Array  # what is left in its own standard deviations, freed of its pull on the fit


def fit_wheel_and_dial(
    expected_mm: Callable[[float], _Array],
    slope: Callable[[float], _Array],
    read_mm: _Array,
    *,
    u: tuple[float, float],
    start_deg: float,
    none_fits: str,
) -> Fitted:
    """Return where the wheel stands, by all its points.

    expected_mm, slope: what the dial would show at each point, and how fast it moves there, for a place of the wheel [mm], [mm/deg].
    read_mm: what it showed [mm].
    u: standard uncertainty of one wheel reading without what its curve gives [deg], of one dial reading [mm].
    start_deg: where to begin [deg].
    Raises NotConverged if least squares finds no answer.
    Source: [effective-variance] Orear 1982: variance of a point = u_dial^2 + (slope u_wheel)^2; scipy's least_squares.
    >>> at = np.array([-2.0, -1.0, 1.0, 2.0])
    >>> square = lambda place: (at - place) ** 2
    >>> found = fit_wheel_and_dial(square, lambda place: 2 * (at - place), at**2 + 0.5, u=(0.1, 0.1), start_deg=0.2, none_fits="")
    >>> abs(round(found.place_deg, 6)), round(found.dial_zero_mm, 6)
    (0.0, 0.5)
    """
    place_deg = start_deg
    for _ in range(SETTLING_ROUNDS):
        sigma = np.asarray(np.hypot(u[1], slope(place_deg) * u[0]), dtype=np.float64)
        answer = scipy.optimize.least_squares(lambda p, s=sigma: (expected_mm(p[0]) + p[1] - read_mm) / s, [start_deg, 0.0], xtol=1e-14)
        if not answer.success:
            raise NotConverged("readings", answer.message, none_fits)
        place_deg = float(answer.x[0])
    covariance = np.linalg.inv(answer.jac.T @ answer.jac)
    scatter = max(1.0, float(np.sum(answer.fun**2)) / max(1, len(read_mm) - 2))
    moved = (covariance @ answer.jac.T)[0] * slope(place_deg) / -sigma
    leverage = np.einsum("ij,jk,ik->i", answer.jac, covariance, answer.jac)
    return Fitted(
        place_deg=place_deg,
        own_u_deg=float(np.sqrt(covariance[0, 0] * scatter)),
        dial_zero_mm=float(answer.x[1]),
        left_mm=answer.fun * sigma,
        counts=tuple(float(one) for one in moved),
        standing_out=np.abs(answer.fun) / np.sqrt(np.maximum(1 - leverage, 1e-9)),
    )
