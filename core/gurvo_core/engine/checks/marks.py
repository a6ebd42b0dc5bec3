"""Marks that can meet, and counts between marked links that add up round the loop."""

__all__ = ["mark_faults"]

import math
from collections.abc import Iterator

from gurvo_core.angles import signed_deg, wrap_deg
from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.drive import Drive, GearStage, LoopStage, Sprocket
from gurvo_core.engine.marks import Mark
from gurvo_core.errors import Fault

SMOOTH_WITHIN_DEG = 3.0  # a mark on a wheel without teeth


def mark_faults(document: EngineDocument) -> list[Fault]:
    """Return marks that cannot meet what they should, and counts that do not add up.

    Source: Geometry: marks meet within half a tooth; marks of meshing gears meet on the line between their axes.
    >>> mark_faults(quern_4())
    []
    """
    drive = document.drive
    return [
        *_meetings(drive),
        *_elsewhere(document),
        *(fault for at, stage in enumerate(drive.stages) for fault in _counts(drive, at, stage)),
    ]


def _half_tooth_deg(wheel: Sprocket | None) -> float:
    return 180 / wheel.teeth if wheel and wheel.teeth else SMOOTH_WITHIN_DEG


def _meetings(drive: Drive) -> Iterator[Fault]:
    wheels = {wheel.id: wheel for wheel in drive.wheels}
    pointers, marks = {pointer.id: pointer for pointer in drive.pointers}, {mark.id: mark for mark in drive.marks}
    for at, mark in enumerate(drive.marks):
        path, within_deg = f"drive.marks.{at}.clock_deg", _half_tooth_deg(wheels.get(mark.wheel))
        if mark.meets in pointers:
            pointer = pointers[mark.meets]
            if mark.clock_deg is None or pointer.clock_deg is None:
                continue
            if abs(signed_deg(mark.clock_deg - pointer.clock_deg)) > within_deg:
                sentence = f"{mark.name} stands at {mark.clock_deg:g}° but {pointer.name} at {pointer.clock_deg:g}°: they cannot meet."
                yield Fault(path=path, sentence=sentence)
        elif mark.meets in marks:
            yield from _gear_marks(drive, at, mark, marks[mark.meets])


def _elsewhere(document: EngineDocument) -> Iterator[Fault]:
    """One mark at several positions: its shaft's turn between them says where it must stand."""
    wheels = {wheel.id: wheel for wheel in document.drive.wheels}
    for at, mark in enumerate(document.drive.marks):
        wheel = wheels.get(mark.wheel)
        turns = document.turns_clockwise.get(wheel.shaft) if wheel else None
        if turns is None or mark.clock_deg is None or not all(_told(document, one.position) for one in mark.stands):
            continue
        for n, other in enumerate(mark.seen):
            if other.clock_deg is None:
                continue
            turned_deg = turns * (document.position_deg(other.position) - document.position_deg(mark.position))
            stands_deg = wrap_deg(mark.clock_deg + turned_deg)
            if abs(signed_deg(other.clock_deg - stands_deg)) > _half_tooth_deg(wheel):
                between = f"the crank's turn from {mark.position} to {other.position} brings it to {abs(stands_deg):.1f}°"
                sentence = f"{mark.name} is said to stand at {other.clock_deg:g}° there, but {between}: one of the two is misread."
                yield Fault(path=f"drive.marks.{at}.seen.{n}.clock_deg", sentence=sentence)


def _told(document: EngineDocument, position_id: str) -> bool:
    return any(position.id == position_id and document.is_known(position) for position in document.timing_positions)


def _gear_marks(drive: Drive, at: int, mark: Mark, other: Mark) -> Iterator[Fault]:
    wheels, shafts = {wheel.id: wheel for wheel in drive.wheels}, {shaft.id: shaft for shaft in drive.shafts}
    pair = {mark.wheel, other.wheel}
    if mark.position != other.position or not _neighbours(drive, pair):
        sentence = f"{mark.name} and {other.name} cannot meet: their gears do not mesh, or they are for different timing positions."
        yield Fault(path=f"drive.marks.{at}.meets", sentence=sentence)
        return
    here, there = (shafts.get(wheels[one.wheel].shaft) if one.wheel in wheels else None for one in (mark, other))
    if here is None or there is None or here.place is None or there.place is None:
        return
    right_mm, up_mm = (b - a for a, b in zip(here.place, there.place, strict=True))
    towards_deg = wrap_deg(math.degrees(math.atan2(right_mm, up_mm)))
    if mark.clock_deg is not None and abs(signed_deg(mark.clock_deg - towards_deg)) > _half_tooth_deg(wheels.get(mark.wheel)):
        sentence = (
            f"{mark.name} stands at {mark.clock_deg:g}°, but the {_what(drive, pair)} at {towards_deg:.1f}°: the marks cannot meet there."
        )
        yield Fault(path=f"drive.marks.{at}.clock_deg", sentence=sentence)


def _neighbours(drive: Drive, pair: set[str]) -> bool:
    """Whether marks on two wheels can face each other: the wheels mesh, or one chain or belt goes over both."""
    meshes = [{mesh.driver, mesh.driven} for stage in drive.stages if isinstance(stage, GearStage) for mesh in stage.meshes]
    return pair in meshes or any(pair <= set(stage.wheel_ids) for stage in drive.stages if isinstance(stage, LoopStage))


def _what(drive: Drive, pair: set[str]) -> str:
    """How marks meet between two wheels."""
    meshes = any({mesh.driver, mesh.driven} == pair for stage in drive.stages if isinstance(stage, GearStage) for mesh in stage.meshes)
    return "gears mesh" if meshes else "axes lie"


def _counts(drive: Drive, at: int, stage: LoopStage | GearStage) -> Iterator[Fault]:
    if not isinstance(stage, LoopStage) or not stage.marked:
        return
    known = [link.to_next for link in stage.marked if link.to_next is not None]
    total, is_whole = sum(known), len(known) == len(stage.marked)
    if stage.count is not None and (total != stage.count if is_whole else total >= stage.count):
        sentence = (
            f"The counts between the marks add up to {total:g} {stage.counted_in} round the loop, but {stage.name} has {stage.count}."
        )
        yield Fault(path=f"drive.stages.{at}.marked", sentence=sentence)
    wheel_of = {mark.id: mark.wheel for mark in drive.marks}
    order = stage.wheel_ids
    for n, link in enumerate(stage.marked):
        wheel = wheel_of.get(link.meets)
        if wheel is not None and wheel not in order:
            sentence = f"{link.name} meets a mark on {wheel}, which {stage.name} does not go round."
            yield Fault(path=f"drive.stages.{at}.marked.{n}.meets", sentence=sentence)
    places = [order.index(wheel_of[link.meets]) for link in stage.marked if wheel_of.get(link.meets) in order]
    turned = [places[n:] + places[:n] for n in range(len(places))]
    if places and not any(way == sorted(way) for way in turned):
        sentence = "The marked ones are not listed in the order in which they pass; follow the path, wheel by wheel."
        yield Fault(path=f"drive.stages.{at}.marked", sentence=sentence)
