"""What is doubtful in a drive: it can be, and seldom is. A document is kept with it said."""

__all__ = ["drive_doubts"]

from collections.abc import Iterator
from itertools import combinations

from gurvo_core.angles import signed_deg
from gurvo_core.drive.path import loop_path
from gurvo_core.drive.sketch import stage_is_known
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.errors import Fault
from gurvo_core.sentence import within

LOADS = ("camshaft", "pump", "auxiliary", "balance")  # what a loop has to pull round
SAME_PLACE_DEG = 1.0
SMOOTH_TEETH = 60


def drive_doubts(document: EngineDocument) -> list[Fault]:
    """Return what is doubtful in a document's drive.

    Source: Practice: the crank pulls the run that comes to it, so a tensioner works on the other; a lock for one bank does not reach
    another.
    >>> drive_doubts(quern_4())
    []
    """
    return [*_tensioners(document), *_marks(document), *_untouched(document), *_locks(document), *_clamped(document)]


def _tensioners(document: EngineDocument) -> Iterator[Fault]:
    for at, stage in enumerate(document.drive.stages):
        if isinstance(stage, LoopStage) and stage.tightened_by and stage.tightened_by.after in _pulling(document, stage):
            path, name = f"drive.stages.{at}.tensioner.after", stage.tightened_by.name
            driving = document.drive.wheel(stage.wheel_ids[0])
            pulls = f"{name} works on the run that the {within(driving.name or driving.id)} pulls"
            sentence = f"{pulls}; a tensioner works on the slack one. Does it travel the other way round?"
            yield Fault(path=path, sentence=sentence)


def _pulling(document: EngineDocument, stage: LoopStage) -> set[str]:
    """The wheels after which the loop is pulled: from the last load round to the driving wheel, which comes first on the path."""
    found: set[str] = set()
    for step in reversed(stage.path[1:]):
        found.add(step.wheel)
        if document.drive.shaft(document.drive.wheel(step.wheel).shaft).kind in LOADS:
            break
    return found


def _marks(document: EngineDocument) -> Iterator[Fault]:
    """Two marks of one wheel that stand in one place at one position, or one pointer that two of them meet from different places."""
    drive = document.drive
    for (_, one), (at, other) in combinations(enumerate(drive.marks), 2):
        if (one.wheel, one.position) != (other.wheel, other.position) or one.decoy or other.decoy:
            continue
        if one.clock_deg is None or other.clock_deg is None:
            continue
        apart_deg = abs(signed_deg(one.clock_deg - other.clock_deg))
        if one.kind == other.kind and apart_deg < SAME_PLACE_DEG:
            sentence = f"{one.name} and {other.name} stand in one place of {one.wheel}: is one of them for another position?"
            yield Fault(path=f"drive.marks.{at}.clock_deg", sentence=sentence)
        elif one.meets is not None and one.meets == other.meets and apart_deg >= SAME_PLACE_DEG:
            sentence = f"{one.name} and {other.name} meet the same pointer {apart_deg:.0f}° apart: only one of them can at {one.position}."
            yield Fault(path=f"drive.marks.{at}.meets", sentence=sentence)


def _clamped(document: EngineDocument) -> Iterator[Fault]:
    """What is held by torque alone turns on its shaft unless that is held while it is tightened."""
    held = {shaft for thing in document.things for shaft in thing.holds} | {lock.holds for lock in document.drive.locks}
    for at, wheel in enumerate(document.drive.wheels):
        if wheel.fixed_by in ("clamped", "slots", "taper") and document.things and wheel.shaft not in held:
            name = document.drive.shaft(wheel.shaft).name
            sentence = f"{wheel.name or wheel.id} is held by its bolt alone, and no thing holds {name} while that is tightened."
            yield Fault(path=f"drive.wheels.{at}.fixed_by", sentence=sentence)


def _untouched(document: EngineDocument) -> Iterator[Fault]:
    """A marked link meets its mark where the loop lies on the wheel; a mark without a pointer that stands elsewhere is off its place."""
    marks = {mark.id: (at, mark) for at, mark in enumerate(document.drive.marks)}
    for stage in document.drive.stages:
        if not isinstance(stage, LoopStage) or not stage_is_known(document, stage):
            continue
        wraps = {wrap.circle.name: wrap for wrap in loop_path(document, stage).wraps}
        for link in stage.marked:
            at, mark = marks[link.meets]
            wrap = wraps.get(mark.wheel)
            if wrap is None or mark.meets is not None or mark.clock_deg is None:
                continue
            middle_deg = wrap.from_clock_deg + (1 if wrap.circle.clockwise else -1) * wrap.wrap_deg / 2
            off_deg = abs(signed_deg(mark.clock_deg - middle_deg)) - wrap.wrap_deg / 2
            if off_deg > 180 / (wrap.circle.teeth or SMOOTH_TEETH):
                sentence = (
                    f"{link.name} meets {mark.name} at {mark.clock_deg:g}°, {off_deg:.0f}° from where {stage.name} touches that wheel."
                )
                yield Fault(path=f"drive.marks.{at}.clock_deg", sentence=sentence)


def _locks(document: EngineDocument) -> Iterator[Fault]:
    for at, lock in enumerate(document.drive.locks):
        cam, bank = document.camshaft(lock.holds), document.position(lock.position).bank
        if cam is not None and cam.bank is not None and bank not in (None, cam.bank):
            sentence = f"{lock.name} holds {cam.name} of {cam.bank}, but goes in where bank {bank} is timed: it cannot reach it."
            yield Fault(path=f"drive.locks.{at}.holds", sentence=sentence)
