"""What a worn chain, a skimmed head or deck and a thicker gasket do: the retard of each camshaft, and what is left for the tensioner.

Rigid limits, by the taut path itself: between a mark on the cam and a mark on the crank lies the same count whatever is changed, so a way
that has grown shorter, or a chain that has grown longer, lets the cam fall back.
"""

__all__ = ["CamChange", "LoopChange", "changed_loops", "pulled_change_mm", "tensioner_travel_mm"]

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from gurvo_core.drive.path import Circle, LoopPath, circles_of, loop_path, tangent_loop
from gurvo_core.drive.rig import bare_path, mm_a_crank_deg
from gurvo_core.drive.sketch import stage_is_known
from gurvo_core.engine import EngineDocument, GearStage, LoopStage
from gurvo_core.errors import GeometryError


@dataclass(frozen=True, kw_only=True)
class CamChange:
    """A camshaft, and how far it would stand from where it stood; early is positive [crank deg]."""

    camshaft: str
    advance_deg: float


@dataclass(frozen=True, kw_only=True)
class LoopChange:
    """One chain, belt or train of gears: its camshafts, and what its tensioner takes up [mm]; None where that is not known."""

    loop: str
    cams: tuple[CamChange, ...]
    travel_mm: float | None


def changed_loops(
    document: EngineDocument, lowered_mm: Mapping[str | None, float], longer_percent: Mapping[str, float]
) -> list[LoopChange]:
    """Return what wear and machining do to every camshaft.

    lowered_mm: by bank, or None for all: how much nearer the crank its head comes; a thicker gasket is negative [mm].
    longer_percent: by loop: how much longer its chain has grown [%].
    Raises GeometryError if an elongation is below zero, or the path cannot be after the change.
    Source: Plane geometry of the taut path before and after. Elongation counts where no tooth holds a link: on free runs, over smooth
    wheels.
    >>> [change.cams for change in changed_loops(quern_4(), {None: 0.3}, {})]  # pushrods: the cam stays in the block
    [(CamChange(camshaft='cam', advance_deg=0.0),)]
    """
    found: list[LoopChange] = []
    stands = _coupled(document, {shaft.id: 0.0 for shaft in document.drive.shafts if shaft.kind == "crank"})
    waiting = list(document.drive.stages)
    while ready := [stage for stage in waiting if document.drive.wheel(stage.wheel_ids[0]).shaft in stands]:
        waiting = [stage for stage in waiting if stage not in ready]
        for stage in ready:
            made = (
                _loop(document, stage, stands, lowered_mm, longer_percent)
                if isinstance(stage, LoopStage)
                else _gears(document, stage, stands, lowered_mm)
            )
            if made is not None:
                found.append(made)
        stands = _coupled(document, stands)
    return found


def _coupled(document: EngineDocument, stands: Mapping[str, float]) -> dict[str, float]:
    """What turns as one with a shaft stands as it does."""
    return {**stands, **{one.driven: stands[one.driver] for one in document.drive.couplings if one.driver in stands}}


def _loop(
    document: EngineDocument,
    stage: LoopStage,
    stands: dict[str, float],
    lowered_mm: Mapping[str | None, float],
    longer_percent: Mapping[str, float],
) -> LoopChange | None:
    """What one chain or belt does to the shafts it turns; where they stand is written down."""
    longer = longer_percent.get(stage.id, 0.0)
    if longer < 0:
        raise GeometryError(f"longer_percent.{stage.id}", longer, "a chain does not grow shorter; measure again, pulled straight")
    if not stage_is_known(document, stage):
        return None
    before, after = loop_path(document, stage), tangent_loop(_moved(document, stage, lowered_mm), stage.pitch_mm or 1.0)
    first, *others = (document.drive.wheel(name) for name in stage.wheel_ids)
    unit_mm = mm_a_crank_deg(document, stage) or 1.0
    for wheel in others:
        if not wheel.diameter_mm:
            moved_mm = pulled_change_mm(before, after, wheel.id) - longer / 100 * _free_mm(after, wheel.id)
            stands[wheel.shaft] = stands[first.shaft] + moved_mm / unit_mm
    cams = _cams(document, [wheel.shaft for wheel in others if not wheel.diameter_mm], stands)
    return LoopChange(loop=stage.id, cams=cams, travel_mm=_travel_mm(document, stage, after, longer))


def _gears(
    document: EngineDocument, stage: GearStage, stands: dict[str, float], lowered_mm: Mapping[str | None, float]
) -> LoopChange | None:
    """Gears turn with what drives them; but not from a block into a head that has come nearer."""
    turned = []
    for mesh in stage.meshes:
        driver, driven = (document.drive.wheel(name).shaft for name in (mesh.driver, mesh.driven))
        if driver in stands and _lowered_mm(document, driver, lowered_mm) == _lowered_mm(document, driven, lowered_mm):
            stands[driven] = stands[driver]
            turned.append(driven)
    cams = _cams(document, turned, stands)
    return LoopChange(loop=stage.id, cams=cams, travel_mm=None) if cams else None


def _cams(document: EngineDocument, shafts: Sequence[str], stands: Mapping[str, float]) -> tuple[CamChange, ...]:
    """The camshafts among some shafts, and those coupled to them."""
    ends = [one.driven for one in document.drive.couplings if one.driver in shafts]
    stand = _coupled(document, stands)
    return tuple(CamChange(camshaft=name, advance_deg=stand[name]) for name in (*shafts, *ends) if document.camshaft(name) is not None)


def _lowered_mm(document: EngineDocument, shaft: str, lowered_mm: Mapping[str | None, float]) -> float:
    """How much nearer the crank a shaft has come: with its head, where it is a camshaft in one."""
    cam = document.camshaft(shaft)
    overhead = cam is not None and all(follower.kind != "pushrod" for follower in cam.followers)
    return lowered_mm.get(cam.bank, lowered_mm.get(None, 0.0)) if cam is not None and overhead else 0.0


def _moved(document: EngineDocument, loop: LoopStage, lowered_mm: Mapping[str | None, float]) -> list[Circle]:
    """The wheels of a loop with overhead camshafts moved along their banks."""
    circles = []
    for circle in circles_of(document, loop):
        shaft = document.drive.wheel(circle.name).shaft
        cam, mm = document.camshaft(shaft), _lowered_mm(document, shaft, lowered_mm)
        if cam is not None and mm:
            bank = next((one for one in document.banks if one.id == cam.bank), document.banks[0])
            towards = math.radians(bank.axis_deg or 0.0)
            x_mm, y_mm = circle.x_mm - mm * math.sin(towards), circle.y_mm - mm * math.cos(towards)
            circles.append(replace(circle, x_mm=x_mm, y_mm=y_mm))
        else:
            circles.append(circle)
    return circles


def _from_on(path: LoopPath, wheel: str) -> list[int]:
    """Places on the path from a wheel on, as it travels, back to the driving wheel, which comes first."""
    names = [wrap.circle.name for wrap in path.wraps]
    return list(range(names.index(wheel), len(names)))


def _free_mm(path: LoopPath, wheel: str) -> float:
    """Length from a wheel to the driving one on which no tooth holds a link: free runs, and arcs over smooth wheels."""
    places = _from_on(path, wheel)
    smooth = (path.wraps[place] for place in places[1:] if path.wraps[place].circle.teeth is None)
    return sum(path.runs[place].length_mm for place in places) + sum(math.radians(wrap.wrap_deg) * wrap.circle.radius_mm for wrap in smooth)


def _sign(clockwise: bool) -> int:
    return 1 if clockwise else -1


def pulled_change_mm(before: LoopPath, after: LoopPath, wheel: str) -> float:
    """Return how much longer the way from a mark on a wheel to a mark on the driving wheel has become, both wheels held.

    Returned: negative where it has become shorter [mm].
    Arc from mark to departure, free runs, wraps between, arc from arrival to mark: what changes is where the path leaves and arrives.
    """
    places = _from_on(before, wheel)
    leaves = [_leaves_deg(path, places[0]) for path in (before, after)]
    arrives = [path.wraps[0].from_clock_deg for path in (before, after)]
    first, driving = before.wraps[places[0]].circle, before.wraps[0].circle
    change = _sign(first.clockwise) * math.radians(_turn(leaves)) * first.radius_mm
    change -= _sign(driving.clockwise) * math.radians(_turn(arrives)) * driving.radius_mm
    change += sum(after.runs[place].length_mm - before.runs[place].length_mm for place in places)
    pairs = [(before.wraps[place], after.wraps[place]) for place in places[1:]]
    return change + sum(math.radians(new.wrap_deg - old.wrap_deg) * old.circle.radius_mm for old, new in pairs)


def _leaves_deg(path: LoopPath, place: int) -> float:
    wrap = path.wraps[place]
    return wrap.from_clock_deg + _sign(wrap.circle.clockwise) * wrap.wrap_deg


def _turn(clocks: list[float]) -> float:
    return (clocks[1] - clocks[0] + 180) % 360 - 180


def tensioner_travel_mm(path: LoopPath, after: str, excess_mm: float) -> float:
    """Return how far a tensioner has to push a run to take up so much.

    excess_mm: how much too long the loop is [mm].
    Returned: across the run, in its middle [mm].
    Source: Two straight sides over one chord: the height of the triangle.
    >>> path = loop_path(quern_4(), quern_4().drive.stages[0])
    >>> round(tensioner_travel_mm(path, "crank-sprocket", 1.9), 1)
    10.6
    """
    chord = next(run.length_mm for run in path.runs if run.after == after)
    return math.sqrt(max(0.0, ((chord + max(0.0, excess_mm)) / 2) ** 2 - (chord / 2) ** 2))


def _travel_mm(document: EngineDocument, loop: LoopStage, path: LoopPath, longer_percent: float) -> float | None:
    """What the tensioner takes up in all; one with a pulley of its own is put against the run that the others leave."""
    after = loop.tightened_by.after if loop.tightened_by else None
    if after is None or loop.count is None or loop.pitch_mm is None:
        return None
    bare = bare_path(document, loop, (wrap.circle for wrap in path.wraps))
    if bare is None or all(run.after != after for run in bare.runs):
        return None
    free_mm = sum(run.length_mm for run in bare.runs)
    excess_mm = (loop.count - bare.pitches) * loop.pitch_mm + longer_percent / 100 * free_mm
    return tensioner_travel_mm(bare, after, excess_mm)
