"""Clock positions: where marks, keys and lobes stand at a crank angle, seen from the front.

Clock positions are degrees clockwise from straight up. Shafts turn with the crank at their exact ratio; a cam that is advanced
stands further on its own way. Rigid drive: slack and stretch are the business of the room ``drive``.
"""

__all__ = ["CamPlace", "advance_of", "is_told", "lobe_clock_deg", "mark_clock_deg", "nose_crank_deg"]

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from gurvo_core.engine import Camshaft, EngineDocument, Lobe, Mark
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.errors import GeometryError, ReadingError


@dataclass(frozen=True, kw_only=True)
class CamPlace:
    """Where a camshaft stands against its card: measured advance, and its phaser's way off its rest stop, both crank degrees."""

    advance_deg: float = 0.0
    phaser_off_deg: float = 0.0


def advance_of(cam: Camshaft, place: CamPlace | None) -> float:
    """Return how far a camshaft is advanced against its card, phaser included.

    Returned: positive = advanced, crank degrees [deg].
    Raises ReadingError if the phaser cannot be that far off its rest stop.
    A phaser that rests retarded can only advance, and the other way round.
    """
    if place is None:
        return 0.0
    off_deg, phaser = place.phaser_off_deg, cam.phaser
    most_deg = (phaser.travel_deg or 0.0) if phaser else 0.0
    if not 0 <= off_deg <= most_deg:
        raise ReadingError("phaser_off_deg", off_deg, f"the phaser of {cam.name} moves 0 to {most_deg:g}° off its stop, not {off_deg:g}°")
    return place.advance_deg + (off_deg if phaser is None or phaser.rests == "retarded" else -off_deg)


def mark_clock_deg(document: EngineDocument, mark: Mark, crank_deg: ArrayLike, places: Mapping[str, CamPlace]) -> NDArray[np.float64]:
    """Return where a mark, key or dowel stands.

    crank_deg: crank angles, 0 to 720 for one cycle [deg].
    Returned: clockwise from straight up, 0 to 360 [deg], same shape as ``crank_deg``.
    Its clock position at its timing position, turned on with its shaft; whoever asks has made sure that it is known.
    """
    shaft = document.drive.wheel(mark.wheel).shaft
    cam = document.camshaft(shaft)
    on_deg = np.asarray(crank_deg, dtype=np.float64) - document.position_deg(mark.position)
    if cam is not None:
        place = places.get(cam.id)
        # what stands on a phaser's body stays with the chain
        on_deg = on_deg + (place.advance_deg if place and mark.on == "body" else advance_of(cam, place))
    return _clock((mark.clock_deg or 0.0) + document.turns_clockwise.get(shaft, 0.0) * on_deg)


def nose_crank_deg(document: EngineDocument, lobe: Lobe) -> float:
    """Return the crank angle at which a lobe's nose lifts most, by its document.

    Returned: from the firing TDC of the first cylinder [deg], 0 to 720.
    Raises GeometryError if it is not known; ``is_told`` says so beforehand.
    Definition of ``nose_deg``: intake after, exhaust before the cylinder's overlap TDC.
    """
    if lobe.nose_after_overlap_deg is None or lobe.cylinder not in document.firing_deg:
        raise GeometryError("nose_deg", lobe.nose_deg, f"where the {lobe.valve} nose of cylinder {lobe.cylinder} stands is not known")
    return (document.firing_deg[lobe.cylinder] + CYCLE_DEG / 2 + lobe.nose_after_overlap_deg) % CYCLE_DEG


def is_told(document: EngineDocument, cam: Camshaft, lobe: Lobe) -> bool:
    """Return whether it is known where a lobe's nose points."""
    follower = cam.follower(lobe.valve)
    is_known = lobe.nose_deg is not None and follower is not None and follower.clock_deg is not None
    return is_known and document.is_timed and lobe.cylinder in document.firing_deg


def lobe_clock_deg(
    document: EngineDocument, cam: Camshaft, lobe: Lobe, crank_deg: ArrayLike, place: CamPlace | None
) -> NDArray[np.float64]:
    """Return where a lobe's nose points.

    crank_deg: crank angles, 0 to 720 for one cycle [deg].
    Returned: clockwise from straight up, 0 to 360 [deg], same shape as ``crank_deg``.
    The nose points at its follower at full lift, and turns with the cam. Exact for a flat follower; near for rockers and fingers.
    """
    on_deg = np.asarray(crank_deg, dtype=np.float64) - nose_crank_deg(document, lobe) + advance_of(cam, place)
    follower = cam.follower(lobe.valve)
    if follower is None or follower.clock_deg is None:
        raise GeometryError("clock_deg", None, f"where the {lobe.valve} followers of {cam.name} stand is not known")
    return _clock(follower.clock_deg + document.turns_clockwise.get(cam.id, 0.0) * on_deg)


def _clock(degrees: NDArray[np.float64]) -> NDArray[np.float64]:
    wrapped = np.mod(degrees, 360)
    return np.asarray(np.where(wrapped >= 360, 0.0, wrapped), dtype=np.float64)  # -1e-17 % 360 is 360.0
