"""A chain or belt as it was laid: where its shafts stand, how much slack lies on which run, and what else turns with it."""

__all__ = ["Rig", "bare_path", "excess_mm", "laid_rig", "mm_a_crank_deg", "ties_with"]

import math
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from gurvo_core.drive.path import Circle, LoopPath, circles_of, tangent_loop
from gurvo_core.drive.sketch import stage_is_known
from gurvo_core.engine import Camshaft, EngineDocument, LoopStage, Stage
from gurvo_core.engine.same import Same
from gurvo_core.errors import GeometryError
from gurvo_core.motion.laid import crank_deg_a_pitch, laid_shafts, loads_of
from gurvo_core.motion.slack import Tie


@dataclass(frozen=True, kw_only=True)
class Rig:
    """One loop on its wheels. Shafts by id, off the place the book has them in; early is positive [crank deg]."""

    ties: tuple[Tie, ...]
    slack_tie: int  # the run that the tensioner works on, by its place among the ties
    driving: str
    after_deg: Mapping[str, float]  # once the slack is taken up
    now_deg: Mapping[str, float]  # as they stand
    excess_deg: float | None  # of the whole loop without its tensioner; None while a length is not known
    mm_a_deg: float | None
    assumed_deg: float = 0.0  # slack on the tight side that was said and not counted


def mm_a_crank_deg(document: EngineDocument, loop: LoopStage) -> float | None:
    """Return how far a loop travels while the crank turns one degree.

    Returned: along its pitch line [mm]; None while pitch or teeth are not known.
    A pitch over what a pitch is worth.
    """
    pitch_deg = crank_deg_a_pitch(document, loop)
    return None if pitch_deg is None or loop.pitch_mm is None else loop.pitch_mm / pitch_deg


def bare_path(document: EngineDocument, loop: LoopStage, circles: Iterable[Circle]) -> LoopPath | None:
    """Return the taut way round without the tensioner's own pulley."""
    pulley = loop.tightened_by.shaft if loop.tightened_by else None
    left = [one for one in circles if pulley is None or document.drive.wheel(one.name).shaft != pulley]
    try:
        return tangent_loop(left, loop.pitch_mm or 0.0)
    except GeometryError:
        return None


def excess_mm(document: EngineDocument, loop: LoopStage) -> float | None:
    """Return how much longer a loop is than its taut way without the tensioner.

    Returned: what the tensioner has to take up [mm], never below 0; None while a length is not known, or its wheels alone give no way.
    Pitch times count, less the tangent loop round what is left when the tensioner's own pulley is out.
    """
    if loop.count is None or loop.pitch_mm is None or not stage_is_known(document, loop):
        return None
    bare = bare_path(document, loop, circles_of(document, loop))
    return None if bare is None else max(0.0, (loop.count - bare.pitches) * loop.pitch_mm)


@lru_cache(maxsize=64)
def _excess_kept(of: Same, loop_id: str) -> float | None:
    """The way round does not change while a loop is laid; it is asked for at every key."""
    return excess_mm(of.document, next(one for one in of.document.drive.stages if one.id == loop_id and isinstance(one, LoopStage)))


def laid_rig(document: EngineDocument, loop: LoopStage, counted: Mapping[str, float], *, slack_left: bool) -> Rig:
    """Return a loop as it was laid.

    Raises GeometryError if counts contradict each other, or no teeth are known.
    Rigid limits: as much as the latest shaft has to fall back lies on the tight side while its mark looks right.
    """
    pitch_deg, loads = crank_deg_a_pitch(document, loop), loads_of(document, loop)
    if pitch_deg is None or len(loads) < 2:
        raise GeometryError("loop", loop.id, f"no teeth are known of the wheels of {loop.name}: count them first")
    after = _everywhere(loads, laid_shafts(document, loop, counted))
    late_deg = max(0.0, -min(after.values()))
    driving, at = loads[0][1], _slack_tie(loop, loads)
    unit_mm, mm = mm_a_crank_deg(document, loop), _excess_kept(Same(document), loop.id)
    excess_deg = None if mm is None or unit_mm is None else mm / unit_mm
    extra_deg = (late_deg or min(pitch_deg, math.inf if excess_deg is None else excess_deg)) if slack_left else 0.0
    slack = [0.0] * len(loads)
    slack[at] = math.inf if excess_deg is None else max(0.0, excess_deg - extra_deg)
    if at != len(loads) - 1:
        slack[-1] = extra_deg
    names = [shaft for _, shaft in loads]
    return Rig(
        ties=tuple(Tie(begins=a, ends=b, slack_deg=own) for a, b, own in zip(names, [*names[1:], names[0]], slack, strict=True)),
        slack_tie=at,
        driving=driving,
        after_deg=after,
        now_deg={shaft: own if shaft == driving else own + extra_deg for shaft, own in after.items()},
        excess_deg=excess_deg,
        mm_a_deg=unit_mm,
        assumed_deg=extra_deg if slack_left and not late_deg else 0.0,
    )


def ties_with(document: EngineDocument, rig: Rig, loop: LoopStage, laid: Collection[str]) -> list[Tie]:
    """Return the runs of a loop together with those of the stages that are on already. Backlash of gears is left out."""
    bodies = {cam.id: f"{cam.id}/body" for cam in document.camshafts if cam.phaser and cam.phaser.travel_deg and not cam.phaser.pinned}
    ties = [_on_bodies(tie, bodies, loop, document) for tie in rig.ties]
    ties += [tie for cam in document.camshafts if cam.id in bodies for tie in _phaser_ties(cam, bodies[cam.id])]
    for stage in document.drive.stages:
        if stage.id == loop.id or (isinstance(stage, LoopStage) and stage.id not in laid):
            continue
        if isinstance(stage, LoopStage):
            names = [shaft for _, shaft in loads_of(document, stage)]
            pairs = list(zip(names, [*names[1:], *names[:1]], strict=True))
        else:
            meshed = [(document.drive.wheel(mesh.driver).shaft, document.drive.wheel(mesh.driven).shaft) for mesh in stage.meshes]
            pairs = [*meshed, *((driven, driver) for driver, driven in meshed)]
        ties += [_on_bodies(Tie(begins=begins, ends=ends, slack_deg=0.0), bodies, stage, document) for begins, ends in pairs]
    return ties


def _phaser_ties(cam: Camshaft, body: str) -> tuple[Tie, Tie]:
    """From the stop it rests on, a phaser lets its camshaft go on, or back, as far as the other."""
    travel_deg = (cam.phaser.travel_deg if cam.phaser else None) or 0.0
    rests_back = cam.phaser is not None and cam.phaser.rests == "retarded"
    on_deg, back_deg = (travel_deg, 0.0) if rests_back else (0.0, travel_deg)
    return Tie(begins=body, ends=cam.id, slack_deg=on_deg), Tie(begins=cam.id, ends=body, slack_deg=back_deg)


def _on_bodies(tie: Tie, bodies: Mapping[str, str], stage: Stage, document: EngineDocument) -> Tie:
    """What drives a phased camshaft lies on its phaser's body; what the camshaft drives itself hangs on the camshaft."""
    driver = document.drive.wheel(stage.wheel_ids[0]).shaft
    begins, ends = (name if name == driver else bodies.get(name, name) for name in (tie.begins, tie.ends))
    return replace(tie, begins=begins, ends=ends)


def _everywhere(loads: list[tuple[str, str]], known: Mapping[str, float]) -> dict[str, float]:
    """A shaft without a count stands as the next one down the loop does."""
    off, last = {}, 0.0
    for _, shaft in reversed(loads[1:]):
        last = known.get(shaft, last)
        off[shaft] = last
    return {loads[0][1]: known.get(loads[0][1], 0.0), **dict(reversed(off.items()))}


def _slack_tie(loop: LoopStage, loads: list[tuple[str, str]]) -> int:
    """Between which loads the tensioner works; the run after the driving wheel where there is none."""
    if loop.tightened_by is None or loop.tightened_by.after not in loop.wheel_ids:
        return 0
    wheels = list(loop.wheel_ids)
    reach = wheels.index(loop.tightened_by.after)
    before = [place for place, (wheel, _) in enumerate(loads) if wheels.index(wheel) <= reach]
    return before[-1] if before else 0
