"""Lobes and valves: lift from a profile table, and the angle at which a lift is passed.

Cam degrees count from the nose, negative on the opening side. Lobe lift [mm]; valve lift = rocker ratio x lobe lift - lash,
never below zero. Between the lines of a table a shape-keeping cubic (PCHIP) is used; outside it the lobe is base circle. A
polynomial profile is worked out from its law.
"""

__all__ = ["LobeCurve", "crossing_cam_deg", "lobe_curve", "lobe_lift_mm", "max_valve_lift_mm", "ratio_and_lash", "valve_lift_mm"]

from collections.abc import Callable
from functools import lru_cache, partial

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import ArrayLike, NDArray
from pydantic import BaseModel, ConfigDict

from gurvo_core.engine import Camshaft, Flank, LiftProfile, Lobe, Profile
from gurvo_core.errors import GeometryError, ReadingError
from gurvo_core.motion.polynomial import polynomial_lift_mm

CROSSING_TOLERANCE_DEG = 1e-9


@lru_cache(maxsize=256)
def _curve(profile: Profile) -> Callable[[ArrayLike], NDArray[np.float64]]:
    """Lobe lift over cam degrees from the nose; not a number outside a table."""
    if isinstance(profile, LiftProfile):
        table: Callable[[ArrayLike], NDArray[np.float64]] = scipy.interpolate.PchipInterpolator(
            profile.cam_deg, profile.lobe_lift_mm, extrapolate=False
        )
        return table
    return partial(polynomial_lift_mm, profile=profile)


def lobe_lift_mm(cam_deg: ArrayLike, profile: Profile) -> NDArray[np.float64]:
    """Return lobe lift at cam angles from the nose.

    cam_deg: cam degrees from the nose [deg]; any whole turns are taken off.
    Returned: lobe lift [mm], same shape as ``cam_deg``.
    Source: Fritsch and Carlson's monotone cubic, as in scipy's PchipInterpolator.
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> lobe_lift_mm([0, 180, 390], table).tolist()
    [6.0, 0.0, 3.0]
    """
    from_nose = np.mod(np.asarray(cam_deg, dtype=np.float64) + 180, 360) - 180
    return np.asarray(np.nan_to_num(_curve(profile)(from_nose), nan=0.0), dtype=np.float64)


class LobeCurve(BaseModel):
    """A lobe's lift, ready to be drawn."""

    model_config = ConfigDict(extra="forbid")

    id: str
    cam_deg: list[float]
    lobe_lift_mm: list[float]


def lobe_curve(profile: Profile) -> LobeCurve:
    """Return a lobe's lift at every cam degree from base circle to base circle, for drawing.

    Returned: cam degrees from the nose [deg], lobe lift [mm].
    """
    cam_deg = np.arange(np.floor(profile.begins_deg), np.ceil(profile.ends_deg) + 1)
    return LobeCurve(id=profile.id, cam_deg=cam_deg.tolist(), lobe_lift_mm=lobe_lift_mm(cam_deg, profile).round(4).tolist())


def ratio_and_lash(camshaft: Camshaft, lobe: Lobe) -> tuple[float, float]:
    """Return how a lobe's lift becomes its valve's.

    Returned: valve lift over lobe lift [-].
    Returned: working lash at the valve [mm].
    Raises GeometryError if one of them is not known; ``EngineDocument.shape`` says so beforehand.
    """
    ratio = camshaft.ratio(lobe.valve)
    if ratio is None or lobe.lash_mm is None:
        raise GeometryError("lash_mm", lobe.lash_mm, f"ratio or lash of {camshaft.name} is not known: measure or import it")
    return ratio, lobe.lash_mm


def valve_lift_mm(cam_deg: ArrayLike, profile: Profile, camshaft: Camshaft, lobe: Lobe) -> NDArray[np.float64]:
    """Return valve lift at cam angles from the lobe's nose.

    cam_deg: cam degrees from the nose [deg].
    camshaft: for its follower's ratio [-].
    lobe: for its lash at the valve [mm].
    Returned: valve lift [mm], never below zero.
    Rocker ratio x lobe lift - lash.
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    return np.maximum(ratio * lobe_lift_mm(cam_deg, profile) - lash_mm, 0.0)


def max_valve_lift_mm(profile: Profile, camshaft: Camshaft, lobe: Lobe) -> float:
    """Return the greatest valve lift of a lobe.

    camshaft: for its follower's ratio [-].
    lobe: for its lash [mm].
    Returned: valve lift at the nose [mm].
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    return ratio * profile.top_mm - lash_mm


@lru_cache(maxsize=4096)
def crossing_cam_deg(profile: Profile, lift_mm: float, flank: Flank) -> float:
    """Return where a flank passes a lobe lift.

    lift_mm: lobe lift [mm], above zero and below the nose.
    Returned: cam degrees from the nose [deg], negative for opening.
    Raises ReadingError if the lobe does not pass that lift; at zero the event is not defined.
    Source: Brent's method on the table's monotone flank, to 1e-9 deg.
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> round(crossing_cam_deg(table, 3.0, "closing"), 6)
    30.0
    """
    top_mm = profile.top_mm
    if not 0 < lift_mm < top_mm:
        raise ReadingError("lift", lift_mm, f"this lobe passes lifts above 0 and below {top_mm:.2f} mm, not {lift_mm:g} mm")
    ends = (profile.begins_deg, 0.0) if flank == "opening" else (0.0, profile.ends_deg)
    curve = _curve(profile)
    return float(scipy.optimize.brentq(lambda cam_deg: float(curve(cam_deg)) - lift_mm, *ends, xtol=CROSSING_TOLERANCE_DEG))
