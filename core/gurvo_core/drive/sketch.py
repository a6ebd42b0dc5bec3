"""A drive of which not all lengths are known, laid out by itself: what goes round what is right, no length is.

Wheels of a loop stand round a circle in the order of travel, those on its back a little outside; gears stand where their marks say
that they mesh. A drive that is known in full is left as it is.
"""

__all__ = ["is_to_scale", "laid_out", "stage_is_known"]

import math
from itertools import pairwise

from gurvo_core.engine import EngineDocument, GearStage, LoopStage, Sprocket, Stage
from gurvo_core.engine.circles import pitch_radius_mm
from gurvo_core.engine.drive import Drive, Shaft

PITCH_MM, MODULE_MM = 9.0, 3.0
UNKNOWN_MM = 24.0  # radius of a wheel of which neither teeth nor size is known
ROOM_BETWEEN = 1.8  # of the wheels' own widths, along the circle
BACK_IN = 0.3  # of its radius, how far a wheel on the back bends the run in
STEEP = 0.95  # of the sine of how far a run may lean
FAN_DEG = 60.0  # either way, between the loops that the crank drives
SPREAD_DEG = 50.0  # between gears that one gear drives

Places = dict[str, tuple[float, float]]


def stage_is_known(document: EngineDocument, stage: Stage) -> bool:
    """Return whether a stage's way can be worked out."""
    wheels = [document.drive.wheel(name) for name in stage.wheel_ids]
    if isinstance(stage, LoopStage) and not stage.path:
        return False
    unit = stage.pitch_mm if isinstance(stage, LoopStage) else stage.module_mm
    return unit is not None and all(_is_known(wheel) and document.drive.shaft(wheel.shaft).place for wheel in wheels)


def _is_known(wheel: Sprocket) -> bool:
    return wheel.teeth is not None or wheel.diameter_mm is not None


def is_to_scale(document: EngineDocument) -> bool:
    """Return whether the whole front can be drawn to scale."""
    drive = document.drive
    return bool(drive.stages) and all(shaft.place for shaft in drive.shafts) and all(stage_is_known(document, s) for s in drive.stages)


def laid_out(document: EngineDocument) -> EngineDocument:
    """Return a document whose drive can be drawn, with lengths of its own where they are not known."""
    if is_to_scale(document):
        return document
    stages = tuple(_with_lengths(stage) for stage in document.drive.stages)
    wheels = tuple(w if _is_known(w) else w.model_copy(update={"diameter_mm": 2 * UNKNOWN_MM}) for w in document.drive.wheels)
    drive = document.drive.model_copy(update={"stages": stages, "wheels": wheels})
    places = _placed(drive, 1 if document.rotation_sign > 0 else -1)
    shafts = tuple(_at(shaft, places[shaft.id]) for shaft in drive.shafts)
    return document.model_copy(update={"drive": drive.model_copy(update={"shafts": shafts})})


def _with_lengths(stage: Stage) -> Stage:
    if isinstance(stage, LoopStage):
        return stage.model_copy(update={"pitch_mm": stage.pitch_mm or PITCH_MM})
    return stage.model_copy(update={"module_mm": stage.module_mm or MODULE_MM})


def _at(shaft: Shaft, place: tuple[float, float]) -> Shaft:
    return shaft.model_copy(update={"x_mm": place[0], "y_mm": place[1]})


def _placed(drive: Drive, way: int) -> Places:
    crank = next((shaft.id for shaft in drive.shafts if shaft.kind == "crank"), drive.shafts[0].id)
    places: Places = {crank: (0.0, 0.0)}
    waiting = list(drive.stages)
    while waiting:
        stage = next((s for s in waiting if any(drive.wheel(name).shaft in places for name in s.wheel_ids)), waiting[0])
        waiting.remove(stage)
        if isinstance(stage, LoopStage):
            _place_loop(drive, stage, way, places)
        else:
            _place_gears(drive, stage, places)
    _place_rest(drive, places)
    return places


def _place_loop(drive: Drive, stage: LoopStage, way: int, places: Places) -> None:
    """Its wheels round a circle that begins at the one that stands already, away from the crank; those on its back along the runs."""
    on_back = {step.wheel for step in stage.path if step.side == "back"}
    steps = [(drive.wheel(name), name in on_back) for name in stage.wheel_ids]
    begin = next((n for n, (wheel, _) in enumerate(steps) if wheel.shaft in places), 0)
    steps = steps[begin:] + steps[:begin]
    base = steps[0][0].shaft
    from_xy = places.setdefault(base, (_right_of(places), 0.0))
    out = math.radians(_out_deg(drive, stage, base, from_xy))
    radius = {wheel.id: pitch_radius_mm(stage, wheel) for wheel, _ in steps}
    round_it = [n for n, (_, on_back) in enumerate(steps) if not on_back]
    # a wheel needs room for itself and for those on the back of the run after it
    widths = [sum(2 * radius[wheel.id] * ROOM_BETWEEN for wheel, _ in steps[a:b]) for a, b in pairwise([*round_it, len(steps)])]
    # every wheel touches one circle from inside, so that none hides behind larger neighbours
    rim_mm = max(sum(widths) / (2 * math.pi), max(radius.values()) * 2.2) + max(radius.values())
    first_mm = rim_mm - radius[steps[0][0].id]
    middle = (from_xy[0] + first_mm * math.sin(out), from_xy[1] + first_mm * math.cos(out))
    at = out + math.pi
    for place, n in enumerate(round_it):
        in_mm = rim_mm - radius[steps[n][0].id]
        places.setdefault(steps[n][0].shaft, (middle[0] + in_mm * math.sin(at), middle[1] + in_mm * math.cos(at)))
        at += way * math.pi * (widths[place] + widths[(place + 1) % len(widths)]) / sum(widths)
    for a, b in pairwise([*round_it, len(steps)]):
        along = [wheel for wheel, _ in steps[a + 1 : b]]
        _place_on_back(places, radius, (steps[a][0], steps[b % len(steps)][0]), along, way)


def _place_on_back(places: Places, radius: dict[str, float], run: tuple[Sprocket, Sprocket], along: list[Sprocket], way: int) -> None:
    """Wheels that the back of a run from one wheel to another bends over: a little into it, from outside."""
    first, last = run
    (x0, y0), (x1, y1) = places[first.shaft], places[last.shaft]
    apart_mm = math.hypot(x1 - x0, y1 - y0) or 1.0
    left = (-(y1 - y0) / apart_mm * way, (x1 - x0) / apart_mm * way)  # outside lies to the left of a clockwise loop
    lean = math.cos(math.asin(max(-STEEP, min(STEEP, (radius[first.id] - radius[last.id]) / apart_mm))))
    for n, wheel in enumerate(along, 1):
        share = n / (len(along) + 1)
        run_mm = radius[first.id] * (1 - share) + radius[last.id] * share
        off_mm = (run_mm + radius[wheel.id] * (1 - BACK_IN)) / lean  # the run leans from a large wheel to a small one
        places.setdefault(wheel.shaft, (x0 + (x1 - x0) * share + left[0] * off_mm, y0 + (y1 - y0) * share + left[1] * off_mm))


def _out_deg(drive: Drive, stage: LoopStage, base: str, at: tuple[float, float]) -> float:
    """Which way a loop leads from its first shaft: away from the crank, several of them spread, whatever shaft they begin at."""
    own = drive.wheels_on(base)
    # what drives a shaft comes from the crank's side, what it drives in turn leads away
    here = [one.id for one in drive.stages if isinstance(one, LoopStage) and own & set(one.wheel_ids[: None if not any(at) else 1])]
    away_deg = math.degrees(math.atan2(at[0], at[1])) if any(at) else 0.0
    nth = here.index(stage.id) if stage.id in here else 0
    return away_deg + (FAN_DEG * (2 * nth / (len(here) - 1) - 1) if len(here) > 1 else 0.0)


def _place_gears(drive: Drive, stage: GearStage, places: Places) -> None:
    """Each driven gear beside its driver, where their marks meet, else upwards and spread."""
    driven_by: dict[str, int] = {}
    for _ in stage.meshes:  # as many passes as meshes, whatever their order
        for mesh in stage.meshes:
            driver, driven = drive.wheel(mesh.driver), drive.wheel(mesh.driven)
            if driver.shaft not in places or driven.shaft in places:
                continue
            nth = driven_by[driver.id] = driven_by.get(driver.id, -1) + 1
            at = math.radians(_meets_at_deg(drive, driver.id, driven.id) or SPREAD_DEG * ((nth + 1) // 2) * (-1) ** nth)
            apart_mm = pitch_radius_mm(stage, driver) + pitch_radius_mm(stage, driven)
            x_mm, y_mm = places[driver.shaft]
            places[driven.shaft] = (x_mm + apart_mm * math.sin(at), y_mm + apart_mm * math.cos(at))


def _meets_at_deg(drive: Drive, driver: str, driven: str) -> float | None:
    wheel_of = {mark.id: mark.wheel for mark in drive.marks}
    return next((m.clock_deg for m in drive.marks if m.wheel == driver and wheel_of.get(m.meets or "") == driven), None)


def _place_rest(drive: Drive, places: Places) -> None:
    """Shafts that no stage reaches stand in a row above everything else."""
    above_mm = max(y for _, y in places.values()) + 5 * UNKNOWN_MM
    rest = [shaft.id for shaft in drive.shafts if shaft.id not in places]
    for n, shaft in enumerate(rest):
        places[shaft] = ((n - (len(rest) - 1) / 2) * 4 * UNKNOWN_MM, above_mm)


def _right_of(places: Places) -> float:
    return max(x for x, _ in places.values()) + 6 * UNKNOWN_MM
