"""The twin: the frames of a whole cycle for drawing, and all that is to be seen at one crank angle.

``twin_frames`` is made once for a revision and sent in one piece; between its frames a drawing may interpolate. ``snapshot_at`` says
everything about one angle. Clock positions are as seen from the front; sentences carry them as ``{clock:300}`` so that each
reader hears them from the side he looks from.
"""

__all__ = [
    "CylinderFrames",
    "CylinderSnapshot",
    "LobeSnapshot",
    "MarkSnapshot",
    "Section",
    "ShaftFrames",
    "Shown",
    "Snapshot",
    "StrokeSpan",
    "Sweep",
    "TwinFrames",
    "ValveFrames",
    "snapshot_at",
    "twin_frames",
    "twin_words",
    "words_at",
]

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.angles import signed_deg, wrap_deg
from gurvo_core.engine import Camshaft, EngineDocument, Lobe, Mark, Valve
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.engine.valves import ValveHead
from gurvo_core.motion.clock import CamPlace, advance_of, is_told, lobe_clock_deg, mark_clock_deg
from gurvo_core.motion.frames import CycleFrames, cycle_frames, frames_at, slider_of, timed_cylinders
from gurvo_core.motion.lobe import max_valve_lift_mm
from gurvo_core.motion.overlap import at_counted, words_of_place
from gurvo_core.motion.strokes import Stroke, at_dead_centre, cylinder_words, headline, stroke_at, stroke_begins
from gurvo_core.sentence import clock

UM_PER_MM = 1000
HALF_TURN_DEG = 180.0
ROUNDING_DEG = 1e-9
SMOOTH_TEETH = 60  # a mark on a smooth wheel is told as finely as one on a wheel of so many teeth
MARKS_SAID = 2  # in the big sentence; all are in the list


class Shown(BaseModel):
    """Base of what the twin shows."""

    model_config = ConfigDict(extra="forbid")


class StrokeSpan(Shown):
    """One stroke of a cylinder on the strip."""

    stroke: Stroke
    from_deg: float
    to_deg: float


class Sweep(Shown):
    """An angle that grows evenly over a cycle, counted on past 360."""

    begin_deg: float
    end_deg: float


class ValveFrames(Shown):
    """One valve's lift, frame by frame."""

    camshaft: str
    valve: Valve
    place: str
    lift_um: list[int]
    most_mm: float
    nose_clock: Sweep | None


class Section(Shown):
    """What a section through a cylinder is drawn from, bore upright, seen from the front."""

    bore_mm: float = Field(description="Bore; the stroke where it is not known: square is near enough to look at [mm]")
    throw_mm: float
    rod_mm: float
    pin_x_mm: float
    top_mm: float
    crank_pin: Sweep
    heads: list[ValveHead]


class CylinderFrames(Shown):
    """One cylinder: its piston's drop and its valves, frame by frame."""

    cylinder: int
    bank: str
    drop_um: list[int]
    valves: list[ValveFrames]
    strokes: list[StrokeSpan]
    section: Section | None = Field(description="The cylinder cut open; null: stroke or rod is not known, then its drops are left out too")


class ShaftFrames(Shown):
    """How far a shaft has turned clockwise from where it stands at crank angle 0."""

    shaft: str
    turned: Sweep


class TwinFrames(Shown):
    """A whole cycle; every list has one value a frame."""

    home_deg: float
    home_name: str
    reference_cylinder: int
    cylinders: list[CylinderFrames]
    shafts: list[ShaftFrames]


class CylinderSnapshot(Shown):
    """One cylinder at one angle."""

    cylinder: int
    stroke: Stroke
    words: str
    drop_mm: float | None


class MarkSnapshot(Shown):
    """One mark, key or dowel: now, at its timing position, one crank turn later than now."""

    id: str
    name: str
    wheel: str
    kind: str
    decides: bool
    meets: str
    now_deg: float
    timing_deg: float
    turn_later_deg: float
    met: bool = Field(description="Whether it stands where it should at its timing position, within half a tooth")


class LobeSnapshot(Shown):
    """One lobe: where its nose points and how far its valve is open."""

    camshaft: str
    cylinder: int
    valve: Valve
    place: str
    clock_deg: float | None
    lift_mm: float | None


class Snapshot(Shown):
    """Everything at one crank angle."""

    crank_deg: float
    words: str
    at_tdc: list[str]
    cylinders: list[CylinderSnapshot]
    marks: list[MarkSnapshot]
    lobes: list[LobeSnapshot]
    here: list[str] = Field(description="Which pistons are near the top and what springs press on, in sentences")


def _home(document: EngineDocument) -> tuple[float, str]:
    position = document.timing_positions[0]
    return document.position_deg(position.id), position.name


def _said_marks(document: EngineDocument) -> list[Mark]:
    """The marks that the big sentence names: the first on each camshaft, a few at most."""
    first: dict[str, Mark] = {}
    for mark in document.drive.marks:
        shaft = document.drive.wheel(mark.wheel).shaft
        if mark.kind == "mark" and document.camshaft(shaft) and _is_told(document, mark):
            first.setdefault(shaft, mark)
    return list(first.values())[:MARKS_SAID]


def _is_told(document: EngineDocument, mark: Mark) -> bool:
    """A mark that means something, and whose place is known from where angles count."""
    return not mark.decoy and document.is_placed(mark.position)


def _sentence(document: EngineDocument, crank_deg: float, clocks: list[tuple[str, float]]) -> str:
    marks = "".join(f"; {name} at {clock(clock_deg)}" for name, clock_deg in clocks)
    return f"{headline(document, crank_deg)}{marks}"


def words_at(document: EngineDocument, crank_deg: float, places: Mapping[str, CamPlace]) -> str:
    """Return the big sentence of one crank angle. crank_deg: crank angle from the firing TDC of the first cylinder [deg]."""
    said = [(mark.name, float(mark_clock_deg(document, mark, crank_deg, places))) for mark in _said_marks(document)]
    return _sentence(document, crank_deg, said)


def _strokes(document: EngineDocument, cylinder: int) -> list[StrokeSpan]:
    """The strokes of a cylinder within one cycle, the one that runs over its end cut in two."""
    steps, begins = [], stroke_begins(document, cylinder)
    for place, (stroke, begins_deg) in enumerate(begins):
        ends_deg = begins[place + 1][1] if place + 1 < len(begins) else CYCLE_DEG
        from_deg = wrap_deg(document.firing_deg[cylinder] + begins_deg, CYCLE_DEG)
        to_deg = from_deg + ends_deg - begins_deg
        steps.append(StrokeSpan(stroke=stroke, from_deg=from_deg, to_deg=min(to_deg, CYCLE_DEG)))
        if to_deg > CYCLE_DEG + ROUNDING_DEG:
            steps.append(StrokeSpan(stroke=stroke, from_deg=0, to_deg=to_deg - CYCLE_DEG))
    return sorted(steps, key=lambda step: step.from_deg)


def _section(document: EngineDocument, cylinder: int) -> Section | None:
    bank, slider = document.bank_of(cylinder), slider_of(document, cylinder)
    if slider is None:
        return None
    at_zero = document.rotation_sign * (slider.tdc_pin_angle_deg - document.firing_deg[cylinder])
    return Section(
        bore_mm=bank.cranktrain.bore_mm or 2 * slider.throw_mm,
        throw_mm=slider.throw_mm,
        rod_mm=slider.rod_mm,
        pin_x_mm=-document.rotation_sign * slider.pin_offset_mm,
        top_mm=slider.top_mm,
        crank_pin=Sweep(begin_deg=at_zero, end_deg=at_zero + document.rotation_sign * CYCLE_DEG),
        heads=[head for head in document.valves if head.bank in (None, bank.id)],
    )


def _um(lengths_mm: NDArray[np.float64]) -> list[int]:
    whole: list[int] = np.rint(lengths_mm * UM_PER_MM).astype(int).tolist()
    return whole


def _cylinder(document: EngineDocument, frames: CycleFrames, cylinder: int, places: Mapping[str, CamPlace]) -> CylinderFrames:
    valves = []
    for lift, (camshaft, place) in zip(frames.lift_mm, frames.valves, strict=True):
        cam = document.camshaft(camshaft)
        if cam is None or cam.lobes[place].cylinder != cylinder:
            continue
        lobe = cam.lobes[place]
        profile = document.shape(cam, lobe)
        assert profile is not None  # lifts are worked out of those alone that have one
        valves.append(
            ValveFrames(
                camshaft=camshaft,
                valve=lobe.valve,
                place=lobe.place,
                lift_um=_um(lift),
                most_mm=max_valve_lift_mm(profile, cam, lobe),
                nose_clock=_nose(document, cam, lobe, places) if is_told(document, cam, lobe) else None,
            )
        )
    return CylinderFrames(
        cylinder=cylinder,
        bank=document.bank_of(cylinder).name,
        drop_um=_um(frames.drop_mm[frames.cylinders.index(cylinder)]) if cylinder in frames.cylinders else [],
        valves=valves,
        strokes=_strokes(document, cylinder),
        section=_section(document, cylinder),
    )


def _nose(document: EngineDocument, cam: Camshaft, lobe: Lobe, places: Mapping[str, CamPlace]) -> Sweep:
    begun = float(lobe_clock_deg(document, cam, lobe, 0.0, places.get(cam.id)))
    return Sweep(begin_deg=begun, end_deg=begun + document.turns_clockwise.get(cam.id, 0.0) * CYCLE_DEG)


def twin_frames(document: EngineDocument, places: Mapping[str, CamPlace] | None = None) -> TwinFrames:
    """Return the frames of a whole cycle at one degree, ready to be drawn.

    Returned: drops and lifts in whole micrometres, turns of shafts [deg]. The sentences are made when asked for: ``twin_words``.
    Raises ReadingError if a phaser cannot stand as said.
    """
    known = places or {}
    frames = cycle_frames(document, places=known)
    home_deg, home_name = _home(document)
    return TwinFrames(
        home_deg=home_deg,
        home_name=home_name,
        reference_cylinder=document.reference_cylinder,
        cylinders=[_cylinder(document, frames, cylinder, known) for cylinder in timed_cylinders(document)],
        shafts=[_shaft_frames(document, shaft.id, known) for shaft in document.drive.shafts],
    )


def twin_words(document: EngineDocument, places: Mapping[str, CamPlace] | None = None) -> list[str]:
    """Return the big sentence of every degree of a cycle."""
    degrees = np.arange(0, CYCLE_DEG)
    said = [(mark.name, mark_clock_deg(document, mark, degrees, places or {})) for mark in _said_marks(document)]
    return [_sentence(document, float(deg), [(name, float(clock[n])) for name, clock in said]) for n, deg in enumerate(degrees)]


def _shaft_frames(document: EngineDocument, shaft: str, places: Mapping[str, CamPlace]) -> ShaftFrames:
    cam, turn = document.camshaft(shaft), document.turns_clockwise.get(shaft, 0.0)
    begun = turn * advance_of(cam, places.get(cam.id)) if cam else 0.0
    return ShaftFrames(shaft=shaft, turned=Sweep(begin_deg=begun, end_deg=begun + turn * CYCLE_DEG))


def _mark_snapshot(document: EngineDocument, mark: Mark, crank_deg: float, places: Mapping[str, CamPlace]) -> MarkSnapshot:
    drive = document.drive
    angles = [crank_deg, document.position_deg(mark.position), crank_deg + 360]
    now, timing, later = (float(deg) for deg in mark_clock_deg(document, mark, angles, places))
    wheel = drive.wheel(mark.wheel)
    met = {pointer.id: pointer.name for pointer in drive.pointers} | {other.id: other.name for other in drive.marks}
    return MarkSnapshot(
        id=mark.id,
        name=mark.name,
        wheel=wheel.name or drive.shaft(wheel.shaft).name,
        kind=mark.kind,
        decides=mark.decides,
        meets=met.get(mark.meets or "", ""),
        now_deg=now,
        timing_deg=timing,
        turn_later_deg=later,
        met=abs(signed_deg(now - timing)) < HALF_TURN_DEG / (wheel.teeth or SMOOTH_TEETH),
    )


def snapshot_at(document: EngineDocument, crank_deg: float, places: Mapping[str, CamPlace] | None = None) -> Snapshot:
    """Return everything that is to be seen at one crank angle.

    crank_deg: crank angle from the firing TDC of the first cylinder [deg]; whole cycles are taken off.
    Raises ReadingError if a phaser cannot stand as said.
    """
    at_deg, known = wrap_deg(crank_deg, CYCLE_DEG), places or {}
    frames = frames_at(document, [at_deg], known)
    cylinders = [
        CylinderSnapshot(
            cylinder=cylinder,
            stroke=stroke_at(document, cylinder, at_deg),
            words=cylinder_words(document, cylinder, at_deg),
            drop_mm=float(frames.drop_mm[frames.cylinders.index(cylinder), 0]) if cylinder in frames.cylinders else None,
        )
        for cylinder in timed_cylinders(document)
    ]
    return Snapshot(
        crank_deg=at_deg,
        words=words_at(document, at_deg, known),
        at_tdc=[f"cylinder {cylinder} {centre}" for cylinder, centre in at_dead_centre(document, at_deg)],
        cylinders=cylinders,
        marks=[_mark_snapshot(document, mark, at_deg, known) for mark in document.drive.marks if _is_told(document, mark)],
        lobes=_lobes(document, frames, at_deg, known),
        here=words_of_place(at_counted(document, at_deg)),
    )


def _lobes(document: EngineDocument, frames: CycleFrames, at_deg: float, places: Mapping[str, CamPlace]) -> list[LobeSnapshot]:
    lifts = {which: float(lift[0]) for which, lift in zip(frames.valves, frames.lift_mm, strict=True)}
    return [
        LobeSnapshot(
            camshaft=cam.id,
            cylinder=lobe.cylinder,
            valve=lobe.valve,
            place=lobe.place,
            clock_deg=float(lobe_clock_deg(document, cam, lobe, at_deg, places.get(cam.id))) if is_told(document, cam, lobe) else None,
            lift_mm=lifts.get((cam.id, place)),
        )
        for cam in document.camshafts
        for place, lobe in enumerate(cam.lobes)
    ]
