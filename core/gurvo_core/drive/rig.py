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
    assumed_deg: float = 0.0  # slack on the pulled run that was said and not counted


def mm_a_crank_deg(document: EngineDocument, loop: LoopStage) -> float | None:
    """Return how far a loop travels while the crank turns one degree.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    loop : LoopStage
        One of its chains or belts.

    Returns
    -------
    mm : float or None
        Along its pitch line [mm]; None while pitch or teeth are not known.

    Source
    ------
    A pitch over what a pitch is worth.

    Example
    -------
    >>> round(mm_a_crank_deg(quern_4(), quern_4().drive.stages[0]), 4)  # 9.525 mm, 21 teeth
    0.5556
    """
    pitch_deg = crank_deg_a_pitch(document, loop)
    return None if pitch_deg is None or loop.pitch_mm is None else loop.pitch_mm / pitch_deg


def bare_path(document: EngineDocument, loop: LoopStage, circles: Iterable[Circle]) -> LoopPath | None:
    """Return the taut way round without the tensioner's own pulley.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    loop : LoopStage
        One of its chains or belts, its pitch known.
    circles : iterable of Circle
        Its wheels where they stand, in the order of travel.

    Returns
    -------
    path : LoopPath or None
        None where the other wheels alone give no way.

    Source
    ------
    ``drive.path``.

    Example
    -------
    >>> engine = family("sorrel-f4")
    >>> loop = engine.drive.stages[0]
    >>> len(bare_path(engine, loop, circles_of(engine, loop)).runs)
    2
    """
    pulley = loop.tightened_by.shaft if loop.tightened_by else None
    left = [one for one in circles if pulley is None or document.drive.wheel(one.name).shaft != pulley]
    try:
        return tangent_loop(left, loop.pitch_mm or 0.0)
    except GeometryError:
        return None


def excess_mm(document: EngineDocument, loop: LoopStage) -> float | None:
    """Return how much longer a loop is than its taut way without the tensioner.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    loop : LoopStage
        One of its chains or belts.

    Returns
    -------
    length_mm : float or None
        What the tensioner has to take up [mm], never below 0; None while a length is not known, or its wheels alone give no way.

    Source
    ------
    Pitch times count, less the tangent loop round what is left when the tensioner's own pulley is out.

    Example
    -------
    >>> round(excess_mm(quern_4(), quern_4().drive.stages[0]), 1)
    1.9
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

    Parameters
    ----------
    document : EngineDocument
        The engine.
    loop : LoopStage
        The chain or belt.
    counted : mapping of float
        Links or teeth by the key of their span.
    slack_left : bool
        Whether slack was left on the run that is pulled: marks then look right as far as they can.

    Returns
    -------
    rig : Rig
        Its ties in the order of travel, the first from the driving wheel. Where the counts are right and slack was left, a pitch of it is
        taken for a picture, or as much as there is.

    Raises
    ------
    GeometryError
        If counts contradict each other, or no teeth are known.

    Source
    ------
    Rigid limits: as much as the latest shaft has to fall back lies on the pulled run while its mark looks right.

    Example
    -------
    >>> engine = family("tarn-f4")
    >>> rig = laid_rig(engine, engine.drive.stages[0], {"line-crank": 62.5}, slack_left=True)
    >>> rig.now_deg["cam-left"], rig.after_deg["cam-left"]
    (0.0, -15.0)
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
    """Return the runs of a loop together with those of the stages that are on already.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    rig : Rig
        The loop as it was laid.
    loop : LoopStage
        The chain or belt.
    laid : collection of str
        Ids of other stages that are on, their tensioners let go: they turn as one. Gears mesh whenever they are there, and a phaser that
        nothing pins lets its camshaft go as far as its stops.

    Returns
    -------
    ties : list of Tie
        The loop's own first, in their order.

    Source
    ------
    Definition; backlash of gears is left out.

    Example
    -------
    >>> engine = family("corrie-v6")
    >>> loop = engine.drive.stages[0]
    >>> len(ties_with(engine, laid_rig(engine, loop, {}, slack_left=False), loop, {"secondary-a"}))
    4
    """
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
