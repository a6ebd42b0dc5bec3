"""By what one tells where a shaft stands: its marks, and the noses of its first cylinder's lobes; and which place that is.

A place is a crank angle: of a camshaft the one at which it would stand there as its card has it, 0 to 720; of the crank 0 to 360, since its
mark says nothing of the stroke.
"""

__all__ = ["TellBy", "clock_of", "place_of", "told_by"]

from dataclasses import dataclass

from gurvo_core.engine import Camshaft, EngineDocument, Lobe
from gurvo_core.engine.same import kept_for
from gurvo_core.motion.clock import is_told, lobe_clock_deg, mark_clock_deg

NOSE = "nose-"


@dataclass(frozen=True, kw_only=True)
class TellBy:
    """Something on a shaft that one sees: its id and what it is called."""

    of: str
    name: str


@kept_for
def told_by(document: EngineDocument, shaft: str) -> tuple[TellBy, ...]:
    """Return by what one can tell where a shaft stands, marks first; nothing where no clock position of it is known."""
    wheels = {wheel.id for wheel in document.drive.wheels if wheel.shaft == shaft}
    marks = [
        TellBy(of=mark.id, name=mark.name)
        for mark in document.drive.marks
        if mark.wheel in wheels and not mark.decoy and mark.clock_deg is not None and document.is_placed(mark.position)
    ]
    cam = document.camshaft(shaft)
    noses = [TellBy(of=f"{NOSE}{at}", name=f"{lobe.valve} nose of cylinder {lobe.cylinder}") for at, lobe in _noses(document, cam)]
    return tuple([*marks, *noses] if document.turns_clockwise.get(shaft) else [])


def _noses(document: EngineDocument, cam: Camshaft | None) -> list[tuple[int, Lobe]]:
    """Those of its first cylinder, one of each sort, that are known."""
    if cam is None or not cam.lobes:
        return []
    first = min(lobe.cylinder for lobe in cam.lobes)
    own = [(at, lobe) for at, lobe in enumerate(cam.lobes) if lobe.cylinder == first and is_told(document, cam, lobe)]
    return list({lobe.valve: (at, lobe) for at, lobe in reversed(own)}.values())


def clock_of(document: EngineDocument, shaft: str, of: str, place_deg: float) -> float | None:
    """Return where a mark or nose stands once its shaft is at a place.

    place_deg: crank angle [deg].
    Returned: clockwise from straight up, seen from the front [deg]; None where it is not known.
    """
    cam = document.camshaft(shaft)
    if of.startswith(NOSE) and cam is not None and of[len(NOSE) :].isdigit() and int(of[len(NOSE) :]) < len(cam.lobes):
        lobe = cam.lobes[int(of[len(NOSE) :])]
        return float(lobe_clock_deg(document, cam, lobe, place_deg, None)) if is_told(document, cam, lobe) else None
    mark = next((one for one in document.drive.marks if one.id == of), None)
    return float(mark_clock_deg(document, mark, place_deg, {})) if mark is not None and mark.clock_deg is not None else None


def place_of(document: EngineDocument, shaft: str, of: str, clock_deg: float) -> float | None:
    """Return the place of a shaft of which a mark or nose stands somewhere.

    clock_deg: clockwise from straight up, seen from the front [deg].
    Returned: crank angle, 0 to 720 of a camshaft and 0 to 360 of the crank [deg]; None where it cannot be told by that.
    """
    at_zero, turns = clock_of(document, shaft, of, 0.0), document.turns_clockwise.get(shaft, 0.0)
    if at_zero is None or not turns:
        return None
    return ((clock_deg - at_zero) / turns) % abs(360 / turns)
