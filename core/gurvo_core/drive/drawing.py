"""The front of the engine: shafts, wheels with their marks, the drawn ways of chains and belts, pointers.

Seen from the front; x to the right, y up, mm. Everything stands as at crank angle 0: wheels are turned from there by the twin's frames.
"""

__all__ = [
    "Arc",
    "Box",
    "DrawnLoop",
    "DrawnMark",
    "DrawnPointer",
    "DrawnTensioner",
    "DrawnWheel",
    "DriveDrawing",
    "Place",
    "draw_drive",
    "drawn_if_known",
]

import math

from pydantic import Field

from gurvo_core.drive.banks import DrawnBank, drawn_banks
from gurvo_core.drive.path import LoopPath, Point, loop_path
from gurvo_core.drive.place import Place
from gurvo_core.drive.sketch import is_to_scale, laid_out
from gurvo_core.engine import EngineDocument, LoopStage, Sprocket, Stage
from gurvo_core.engine.circles import pitch_radius_mm
from gurvo_core.errors import CoreError, GeometryError
from gurvo_core.motion import mark_clock_deg
from gurvo_core.motion.twin import Shown

POINTER_GAP = 0.026  # of the whole drawing's height or width
MARGIN_MM, MARGIN = 14.0, 0.05  # and this share of the drawing, since its letters grow with it


class DrawnMark(Shown):
    """A mark, key or dowel on a wheel, where it stands at crank angle 0."""

    id: str
    name: str
    kind: str
    decides: bool
    decoy: bool
    clock_deg: float


class DrawnWheel(Shown):
    """A wheel on its shaft; one that turns stands as at crank angle 0."""

    id: str
    shaft: str
    name: str
    kind: str
    x_mm: float
    y_mm: float
    radius_mm: float
    teeth: int | None
    marks: list[DrawnMark]


class Arc(Shown):
    """A wrap on a wheel and the straight run after it."""

    radius_mm: float
    clockwise: bool
    large: bool
    begin: Place
    end: Place
    run_to: Place


class DrawnTensioner(Shown):
    """A tensioner without a pulley of its own: the middle of the run that it works on."""

    name: str
    kind: str
    x_mm: float
    y_mm: float


class DrawnLoop(Shown):
    """A chain or belt."""

    id: str
    name: str
    kind: str
    count: int | None
    arcs: list[Arc]
    tensioner: DrawnTensioner | None


class DrawnPointer(Shown):
    """A pointer beside a wheel."""

    id: str
    name: str
    x_mm: float
    y_mm: float
    clock_deg: float


class Box(Shown):
    """What the drawing covers."""

    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


class DriveDrawing(Shown):
    """The whole front; a sketch that lays itself out where lengths are not known."""

    is_to_scale: bool
    box: Box
    wheels: list[DrawnWheel]
    loops: list[DrawnLoop]
    pointers: list[DrawnPointer]
    banks: list[DrawnBank] = Field(default=[], description="Rows of cylinders behind it, where all of it is to scale")


def draw_drive(document: EngineDocument) -> DriveDrawing:
    """Return the drawing of an engine's front."""
    is_known, document = is_to_scale(document), laid_out(document)
    drive = document.drive
    stages = {name: stage for stage in reversed(drive.stages) for name in stage.wheel_ids}
    wheels = [_wheel(document, wheel, stages.get(wheel.id)) for wheel in drive.wheels]
    loops = [_loop(document, stage) for stage in drive.stages if isinstance(stage, LoopStage)]
    box, banks = _box(wheels), drawn_banks(document) if is_known else []
    return DriveDrawing(is_to_scale=is_known, box=box, wheels=wheels, loops=loops, pointers=_pointers(document, wheels, box), banks=banks)


def _wheel(document: EngineDocument, wheel: Sprocket, stage: Stage | None) -> DrawnWheel:
    shaft = document.drive.shaft(wheel.shaft)
    x_mm, y_mm = shaft.place or (0.0, 0.0)
    marks = [
        DrawnMark(
            id=mark.id,
            name=mark.name,
            kind=mark.kind,
            decides=mark.decides,
            decoy=mark.decoy,
            clock_deg=float(mark_clock_deg(document, mark, 0.0, {})),
        )
        for mark in document.drive.marks
        if mark.wheel == wheel.id and mark.clock_deg is not None and document.is_placed(mark.position)
    ]
    return DrawnWheel(
        id=wheel.id,
        shaft=shaft.id,
        name=wheel.name or shaft.name,
        kind=shaft.kind,
        x_mm=x_mm,
        y_mm=y_mm,
        radius_mm=pitch_radius_mm(stage, wheel) if stage else (wheel.diameter_mm or 0.0) / 2,
        teeth=wheel.teeth,
        marks=marks,
    )


def _loop(document: EngineDocument, stage: LoopStage) -> DrawnLoop:
    try:
        loop = loop_path(document, stage)
    except GeometryError:  # a sketch; a document that was checked has a way wherever it is known
        return DrawnLoop(id=stage.id, name=stage.name, kind=stage.kind, count=stage.count, arcs=[], tensioner=None)
    arcs = []
    for place, (wrap, run) in enumerate(zip(loop.wraps, loop.runs, strict=True)):
        arcs.append(
            Arc(
                radius_mm=wrap.circle.radius_mm,
                clockwise=wrap.circle.clockwise,
                large=wrap.wrap_deg > 180,
                begin=_place(loop.runs[place - 1].end),
                end=_place(run.start),
                run_to=_place(run.end),
            )
        )
    return DrawnLoop(id=stage.id, name=stage.name, kind=stage.kind, count=stage.count, arcs=arcs, tensioner=_tensioner(stage, loop))


def _place(point: Point) -> Place:
    return Place(x_mm=point[0], y_mm=point[1])


def _tensioner(stage: LoopStage, loop: LoopPath) -> DrawnTensioner | None:
    if stage.tightened_by is None or stage.tightened_by.shaft is not None:  # one with a pulley is drawn as that
        return None
    run = next((run for run in loop.runs if run.after == stage.tightened_by.after), None)
    if run is None:
        return None  # on which run it works is not known
    x_mm, y_mm = ((a + b) / 2 for a, b in zip(run.start, run.end, strict=True))
    return DrawnTensioner(name=stage.tightened_by.name, kind=stage.tightened_by.kind or "", x_mm=x_mm, y_mm=y_mm)


def _pointers(document: EngineDocument, wheels: list[DrawnWheel], box: Box) -> list[DrawnPointer]:
    """Each pointer beside the wheel whose mark meets it."""
    by_id, drawn = {wheel.id: wheel for wheel in wheels}, []
    for pointer in document.drive.pointers:
        mark = next((mark for mark in document.drive.marks if mark.meets == pointer.id), None)
        if mark is None or pointer.clock_deg is None:
            continue
        wheel, towards = by_id[mark.wheel], math.radians(pointer.clock_deg)
        out_mm = wheel.radius_mm + POINTER_GAP * max(box.right_mm - box.left_mm, box.top_mm - box.bottom_mm)
        x_mm, y_mm = wheel.x_mm + out_mm * math.sin(towards), wheel.y_mm + out_mm * math.cos(towards)
        drawn.append(DrawnPointer(id=pointer.id, name=pointer.name, x_mm=x_mm, y_mm=y_mm, clock_deg=pointer.clock_deg))
    return drawn


def _box(wheels: list[DrawnWheel]) -> Box:
    left = min((wheel.x_mm - wheel.radius_mm for wheel in wheels), default=0.0)
    right = max((wheel.x_mm + wheel.radius_mm for wheel in wheels), default=0.0)
    bottom = min((wheel.y_mm - wheel.radius_mm for wheel in wheels), default=0.0)
    top = max((wheel.y_mm + wheel.radius_mm for wheel in wheels), default=0.0)
    margin = MARGIN_MM + MARGIN * max(right - left, top - bottom)
    return Box(left_mm=left - margin, right_mm=right + margin, bottom_mm=bottom - margin, top_mm=top + margin)


def drawn_if_known(document: EngineDocument) -> DriveDrawing | None:
    """The front, where anything is said to pass anything and it can be drawn as it stands; what cannot is said among the faults."""
    try:
        return draw_drive(document) if document.drive.stages else None
    except CoreError:
        return None
