"""Lash from feelers, and what to do about it: how far to turn a screw, how thick a shim. Lengths mm."""

__all__ = ["ScrewTurn", "lash_by_feelers", "screw_turn", "shim_mm"]

import math
from dataclasses import dataclass

from gurvo_core.errors import ReadingError
from gurvo_core.uncertainty import Estimate, GaugeUncertainty, root_sum_square

FLATS = 6  # of a hexagon
SETTLED = 1 / 48  # of a turn: less nobody turns on purpose


@dataclass(frozen=True, kw_only=True)
class ScrewTurn:
    """How far an adjusting screw is turned."""

    turns: float  # positive = in, which takes lash away
    words: str


def lash_by_feelers(goes_mm: float, not_goes_mm: float | None, gauge: GaugeUncertainty) -> Estimate:
    """Return the lash that a pair of feelers tells.

    goes_mm: the largest that goes, with feel [mm].
    not_goes_mm: the smallest that does not go [mm]; left out where nobody tried.
    gauge: of the set: the step from leaf to leaf, and its calibration [mm].
    Returned: midway between both; by one leaf alone as thick as that leaf, which drags [mm].
    Raises ReadingError if the one that does not go is not the larger.
    Source: [gum] 4.3.7: a value that lies anywhere between two bounds.
    >>> lash_by_feelers(0.20, 0.25, GaugeUncertainty(0.0144)).value
    0.225
    """
    if not_goes_mm is None:
        return Estimate(value=goes_mm, u=gauge.u)
    if not not_goes_mm > goes_mm:
        raise ReadingError("not_goes", not_goes_mm, f"the leaf that does not go is thicker than the {goes_mm:g} mm that goes")
    width = not_goes_mm - goes_mm
    return Estimate(value=(goes_mm + not_goes_mm) / 2, u=root_sum_square(width / math.sqrt(12), gauge.calibration))


def screw_turn(lash_mm: float, wanted_mm: float, *, pitch_mm: float, acts_by: float = 1.0) -> ScrewTurn:
    """Return how far to turn the adjusting screw.

    lash_mm: as it was measured [mm].
    wanted_mm: as it should be [mm].
    pitch_mm: of the screw's thread [mm a turn].
    acts_by: lash at the valve for each mm the screw moves [-]: the rocker's ratio where the screw is at the pushrod, 1 at the valve.
    Source: Geometry: a turn moves a screw by its pitch.
    >>> screw_turn(0.35, 0.25, pitch_mm=1.0, acts_by=1.5).words
    'screw in by 0.07 of a turn, 0.4 of a flat'
    """
    turns = (lash_mm - wanted_mm) / (pitch_mm * acts_by)
    if abs(turns) < SETTLED:
        return ScrewTurn(turns=turns, words="leave the screw as it is")
    way = "in" if turns > 0 else "out"
    flats = abs(turns) * FLATS
    said = f"{flats:.1f} of a flat" if flats < 1 else f"{flats:.1f} flats"
    return ScrewTurn(turns=turns, words=f"screw {way} by {abs(turns):.2f} of a turn, {said}")


def shim_mm(shim_now_mm: float, lash_mm: float, wanted_mm: float, acts_by: float = 1.0) -> float:
    """Return how thick the shim should be.

    shim_now_mm: the one that is in [mm].
    lash_mm: as it was measured with it [mm].
    wanted_mm: as it should be [mm].
    acts_by: lash at the valve for each mm of shim [-].
    Returned: before it is rounded to what there is [mm]; a thicker shim is less lash.
    """
    return shim_now_mm + (lash_mm - wanted_mm) / acts_by
