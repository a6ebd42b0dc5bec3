"""A whole lift curve against the profile it should have: where its nose stands, and whether it is that profile at all.

Unknown are the nose and the dial's own zero, in which a lash that is not the book's goes as well. Needs readings of both flanks, since
either alone moves as much by one as by the other.
"""

__all__ = ["LEAST_LIFTS", "LEAST_POINTS", "LiftFit", "LiftPoint", "fit_lift"]

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.engine import Camshaft, Lobe, Profile
from gurvo_core.errors import ReadingError
from gurvo_core.motion import lobe_lift_mm
from gurvo_core.motion.lobe import ratio_and_lash
from gurvo_core.timing.wheel_and_dial import OUTLIER_SIGMAS, fit_wheel_and_dial

LEAST_POINTS = 5  # two unknowns, and three that can contradict them
LEAST_LIFTS = 3
SLOPE_STEP_CAM_DEG = 0.02
NONE_FITS = "the profile goes through these readings nowhere; look for a misread one"
_Array = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class LiftPoint:
    """Crank degrees after the firing TDC of the valve's own cylinder, on the turn that is meant, and what the dial shows there."""

    crank_deg: float
    lift_mm: float


@dataclass(frozen=True, kw_only=True)
class LiftFit:
    """Where the nose stands, and how well the profile goes through the readings."""

    nose_deg: float
    own_u_deg: float  # without the wheel's own curve and without its zero
    counts: tuple[float, ...]  # what a degree of each point moves the nose by
    dial_zero_mm: float
    most_off_mm: float  # the largest of what is left, signed: above the profile is positive
    most_off_at: int
    is_this_profile: bool  # whether what is left is within what wheel and dial explain


def fit_lift(points: Sequence[LiftPoint], profile: Profile, lobe_of: tuple[Camshaft, Lobe], wheel_u: float, dial_u: float) -> LiftFit:
    """Return where a lobe stands by weighted least squares over its whole lift curve.

    wheel_u, dial_u: standard uncertainty of one wheel reading without what its curve gives [deg], of one dial reading [mm].
    Raises ReadingError if there are too few points, or all lie on one flank; NotConverged if least squares finds no answer.
    Source: [effective-variance], [lift-fit]; scipy's least_squares. What is left beyond 3.5 standard deviations is another shape.
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
    >>> shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
    >>> read = {-80: 1.6481, -60: 3, -30: 4.875, 30: 4.875, 60: 3, 80: 1.6481}  # crank degrees from a nose at 470
    >>> points = [LiftPoint(crank_deg=470 + at, lift_mm=mm) for at, mm in read.items()]
    >>> round(fit_lift(points, table, (shaft, lobe), 0.1, 0.005).nose_deg, 3)
    470.0
    """
    at_deg, lifts = np.array([point.crank_deg for point in points]), np.array([point.lift_mm for point in points])
    _enough(at_deg, lifts)
    curve = _Curve(at_deg, profile, *ratio_and_lash(*lobe_of))
    start_deg = float(np.sum(at_deg * lifts) / np.sum(lifts))
    fitted = fit_wheel_and_dial(curve.lift_mm, curve.slope, lifts, u=(wheel_u, dial_u), start_deg=start_deg, none_fits=NONE_FITS)
    if np.all(at_deg < fitted.place_deg) or np.all(at_deg > fitted.place_deg):
        raise ReadingError("readings", len(points), "all readings lie on one flank; take some on the other too")
    worst = int(np.argmax(np.abs(fitted.left_mm)))
    return LiftFit(
        nose_deg=fitted.place_deg,
        own_u_deg=fitted.own_u_deg,
        counts=fitted.counts,
        dial_zero_mm=fitted.dial_zero_mm,
        most_off_mm=-float(fitted.left_mm[worst]),
        most_off_at=worst,
        is_this_profile=bool(np.max(fitted.standing_out) <= OUTLIER_SIGMAS),
    )


@dataclass(frozen=True)
class _Curve:
    """What the profile lifts where the readings were taken, for any place of its nose."""

    at_deg: _Array
    profile: Profile
    ratio: float
    lash_mm: float

    def lift_mm(self, nose_deg: float) -> _Array:
        """Valve lift, without its being cut off at the base circle, so that a dial that stands off is found [mm]."""
        return np.asarray(self.ratio * lobe_lift_mm((self.at_deg - nose_deg) / 2, self.profile) - self.lash_mm, dtype=np.float64)

    def slope(self, nose_deg: float) -> _Array:
        """How fast the valve moves there [mm/deg]."""
        step = 2 * SLOPE_STEP_CAM_DEG
        return (self.lift_mm(nose_deg - step) - self.lift_mm(nose_deg + step)) / (2 * step)


def _enough(at_deg: _Array, lifts: _Array) -> None:
    apart = len(np.unique(lifts))
    if len(at_deg) < LEAST_POINTS or apart < LEAST_LIFTS:
        rule = f"a whole curve needs {LEAST_POINTS} readings at {LEAST_LIFTS} lifts at least; there are {len(at_deg)} at {apart}"
        raise ReadingError("readings", len(at_deg), rule)
