"""Lobes drawn by a polynomial law: 3-4-5 or 4-5-6-7 flanks with ramps.

A flank of height h and length b, run through by u from 0 to 1, lifts h times the law's rise. The ramp is a 3-4-5 rise of its own
height, so that lift, velocity and acceleration are continuous where ramp, flank and nose join.
"""

__all__ = ["law_rise", "polynomial_lift_mm"]

from typing import Literal

import numpy as np
from numpy.polynomial import Polynomial
from numpy.typing import ArrayLike, NDArray

from gurvo_core.engine.profiles import PolynomialFlank, PolynomialProfile

RISES = {
    "3-4-5": Polynomial([0, 0, 0, 10, -15, 6]),
    "4-5-6-7": Polynomial([0, 0, 0, 0, 35, -84, 70, -20]),
}


def law_rise(share: ArrayLike, law: Literal["3-4-5", "4-5-6-7"]) -> NDArray[np.float64]:
    """Return the rise of a polynomial cam law.

    share: how much of the flank has been run through [-]; below 0 nothing, above 1 the whole.
    Returned: share of the height [-], 0 to 1.
    Source: [polynomial-cams] in docs/sources.md: 10u^3 - 15u^4 + 6u^5, and 35u^4 - 84u^5 + 70u^6 - 20u^7.
    >>> law_rise([0, 0.5, 1], "3-4-5").tolist()
    [0.0, 0.5, 1.0]
    """
    run = np.clip(np.asarray(share, dtype=np.float64), 0, 1)
    return np.asarray(RISES[law](run), dtype=np.float64)


def polynomial_lift_mm(cam_deg: ArrayLike, profile: PolynomialProfile) -> NDArray[np.float64]:
    """Return lobe lift of a polynomial profile.

    cam_deg: cam degrees from the nose [deg], -180 to 180.
    Returned: lobe lift [mm], same shape as ``cam_deg``.
    """
    angles = np.asarray(cam_deg, dtype=np.float64)
    half_dwell = profile.nose_dwell_cam_deg / 2
    opening = _flank_mm(-angles - half_dwell, profile.opening, profile.lobe_lift_mm)
    closing = _flank_mm(angles - half_dwell, profile.closing, profile.lobe_lift_mm)
    return np.where(angles < 0, opening, closing)


def _flank_mm(down_deg: NDArray[np.float64], flank: PolynomialFlank, top_mm: float) -> NDArray[np.float64]:
    """Lift at so many cam degrees down a flank from the nose's edge."""
    lift = (top_mm - flank.ramp_mm) * law_rise(1 - down_deg / flank.cam_deg, flank.law)
    if flank.ramp_mm:
        lift = lift + flank.ramp_mm * law_rise(1 - (down_deg - flank.cam_deg) / flank.ramp_cam_deg, "3-4-5")
    return lift
