"""How a wheel sits off centre, from a second pointer opposite the first: one reads as much too little as the other too much."""

__all__ = ["OffCentre", "off_centre"]

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from gurvo_core.angles import signed_deg, wrap_deg

LEAST_PLACES = 3  # two parts of the error, and how far from opposite the second pointer stands
ROUNDS = 3
MOST_TIMES = 4.0  # as much as the best places would make the uncertainty: nearer together they tell too little


@dataclass(frozen=True, kw_only=True)
class OffCentre:
    """The error of a wheel's figures, in two parts of one wave, and how sure it is at one place [deg]."""

    sine_deg: float
    cosine_deg: float
    u_deg: float
    places: int

    @property
    def most_deg(self) -> float:
        """The largest error that it makes anywhere [deg]."""
        return math.hypot(self.sine_deg, self.cosine_deg)

    def true_deg(self, read_deg: float) -> float:
        """Wheel degrees without it."""
        true = read_deg
        for _ in range(ROUNDS):  # it errs by where it stands, not by what it reads
            true = read_deg - self.sine_deg * math.sin(math.radians(true)) - self.cosine_deg * math.cos(math.radians(true))
        return wrap_deg(true)


def off_centre(pairs: Sequence[tuple[float, float]], u_resolution_deg: float) -> OffCentre | None:
    """Return how a wheel sits off centre.

    pairs: what both pointers read, in wheel degrees, at places round the wheel [deg].
    u_resolution_deg: standard uncertainty that reading to a step gives one figure [deg].
    Source: [eccentric] in docs/sources.md: half the difference of both, less half a turn, is the error with its sign turned, and a constant
    for a second pointer that is not quite opposite; least squares.
    >>> found = off_centre([(0.0, 180.4), (90.0, 270.0), (180.0, 359.6), (270.0, 90.0)], 0.1)
    >>> round(found.cosine_deg, 3), round(found.true_deg(0.0), 3)
    (-0.2, 0.2)
    """
    if len(pairs) < LEAST_PLACES:
        return None
    found = _fitted([here for here, _ in pairs], pairs, u_resolution_deg)
    for _ in range(ROUNDS if found else 0):
        found = found and _fitted([found.true_deg(here) for here, _ in pairs], pairs, u_resolution_deg)
    return found


def _fitted(places_deg: Sequence[float], pairs: Sequence[tuple[float, float]], u_resolution_deg: float) -> OffCentre | None:
    at = np.radians(places_deg)
    half = np.array([signed_deg(opposite - here - 180) / 2 for here, opposite in pairs])
    waves = np.column_stack([-np.sin(at), -np.cos(at), np.ones(len(pairs))])
    u_half = u_resolution_deg / math.sqrt(2)
    if np.linalg.matrix_rank(waves) < waves.shape[1]:
        return None
    covariance = np.linalg.inv(waves.T @ waves)
    spread = math.sqrt(float(covariance[0, 0] + covariance[1, 1]) / 2)
    if spread > MOST_TIMES * math.sqrt(2 / len(pairs)):
        return None
    sine, cosine, _ = covariance @ waves.T @ half
    left = half - waves @ covariance @ waves.T @ half
    free = len(pairs) - waves.shape[1]
    scatter = math.sqrt(float(left @ left) / free) if free > 0 else 0.0
    return OffCentre(sine_deg=float(sine), cosine_deg=float(cosine), u_deg=spread * max(u_half, scatter), places=len(pairs))
