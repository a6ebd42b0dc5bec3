"""The drive's wheels: one crank, teeth or diameter, cam ratio through every stage, centre distances, wheels that overlap."""

__all__ = ["wheel_faults"]

import math
from collections.abc import Iterator
from fractions import Fraction
from itertools import combinations

from gurvo_core.engine.circles import pitch_radius_mm, shaft_speeds
from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.drive import Drive, GearStage, Shaft, Sprocket
from gurvo_core.errors import Fault

HALF = Fraction(1, 2)
CENTRES_WITHIN = 0.1  # of the module
TOUCH_MM = 0.01


def wheel_faults(document: EngineDocument) -> list[Fault]:
    """Return faults of the drive's shafts and wheels.

    Source: Geometry of pitch circles; a four-stroke's camshaft turns once for two turns of the crank.
    >>> wheel_faults(quern_4())
    []
    """
    return [*_wheels(document.drive), *_speeds(document), *_places(document.drive)]


def _wheels(drive: Drive) -> Iterator[Fault]:
    cranks = [(at, shaft) for at, shaft in enumerate(drive.shafts) if shaft.kind == "crank"]
    if len(cranks) != 1:
        yield Fault(path="drive.shafts", sentence=f"There must be one shaft of the kind “crank”, not {len(cranks)}.")
    for at, shaft in cranks:
        if shaft.place != (0, 0):
            yield Fault(path=f"drive.shafts.{at}", sentence="Places count from the crank's axis, so the crank stands at 0, 0.")
    for at, wheel in enumerate(drive.wheels):
        if wheel.teeth is not None and wheel.diameter_mm is not None:
            yield Fault(path=f"drive.wheels.{at}", sentence=f"Wheel {wheel.id} has teeth, or a diameter when it is smooth; not both.")
    wheels = {wheel.id: wheel for wheel in drive.wheels}
    for at, stage in enumerate(drive.stages):
        if isinstance(stage, GearStage):
            for n, mesh in enumerate(stage.meshes):
                smooth = [name for name in (mesh.driver, mesh.driven) if name in wheels and wheels[name].diameter_mm is not None]
                if smooth:
                    yield Fault(path=f"drive.stages.{at}.meshes.{n}", sentence=f"Gear {smooth[0]} needs its teeth to mesh.")
        elif len(stage.wheel_ids) < 2:
            sentence = f"{stage.name} goes over at least two wheels: list its path, or what it goes over where the way round is not known."
            yield Fault(path=f"drive.stages.{at}.path", sentence=sentence)
        elif len(set(stage.wheel_ids)) != len(stage.wheel_ids):
            yield Fault(path=f"drive.stages.{at}.path", sentence=f"{stage.name} goes round one wheel twice; list each wheel once.")


def _speeds(document: EngineDocument) -> Iterator[Fault]:
    drive = document.drive
    speeds = shaft_speeds(drive)
    names = {shaft.id: shaft.name for shaft in drive.shafts}
    for at, shaft, one, other in dict.fromkeys(speeds.conflicts):
        sentence = f"{names.get(shaft, shaft)} would turn {one} and {other} of a turn for one of the crank: correct the tooth counts."
        yield Fault(path=f"drive.stages.{at}", sentence=sentence)
    for at, cam in enumerate(document.camshafts):
        turns = speeds.turns.get(cam.id)
        if cam.id not in names:
            continue
        if turns is None and all(wheel.teeth or wheel.diameter_mm for wheel in drive.wheels) and drive.stages:
            yield Fault(path=f"camshafts.{at}", sentence=f"Nothing drives {cam.name}: no stage leads from the crank to a wheel on it.")
        elif turns is not None and abs(turns) != HALF:
            sentence = f"{cam.name} turns {abs(turns)} of a turn for one of the crank; it must be 1/2: correct the tooth counts."
            yield Fault(path=_stage_of(drive, cam.id), sentence=sentence)


def _stage_of(drive: Drive, shaft_id: str) -> str:
    """Path of the first stage with a wheel on that shaft."""
    mine = drive.wheels_on(shaft_id)
    for at, stage in enumerate(drive.stages):
        if mine & set(stage.wheel_ids):
            return f"drive.stages.{at}"
    return "drive.stages"


def _places(drive: Drive) -> Iterator[Fault]:
    shafts, wheels = {shaft.id: shaft for shaft in drive.shafts}, {wheel.id: wheel for wheel in drive.wheels}
    for at, stage in enumerate(drive.stages):
        here = [wheels[name] for name in dict.fromkeys(stage.wheel_ids) if name in wheels and wheels[name].shaft in shafts]
        meshing = {frozenset((mesh.driver, mesh.driven)) for mesh in stage.meshes} if isinstance(stage, GearStage) else set()
        if isinstance(stage, GearStage):
            yield from _meshes(stage, at, wheels, shafts)
        for a, b in combinations(here, 2):
            if frozenset((a.id, b.id)) in meshing:
                continue
            apart_mm = _apart_mm(shafts[a.shaft], shafts[b.shaft])
            least_mm = pitch_radius_mm(stage, a) + pitch_radius_mm(stage, b)
            if apart_mm is not None and apart_mm < least_mm - TOUCH_MM:
                sentence = f"{a.id} and {b.id} overlap: their axes are {apart_mm:.1f} mm apart, their pitch circles need {least_mm:.1f} mm."
                yield Fault(path=f"drive.stages.{at}", sentence=sentence)


def _apart_mm(a: Shaft, b: Shaft) -> float | None:
    return None if a.place is None or b.place is None else math.dist(a.place, b.place)


def _meshes(stage: GearStage, at: int, wheels: dict[str, Sprocket], shafts: dict[str, Shaft]) -> Iterator[Fault]:
    for n, mesh in enumerate(stage.meshes):
        pair = [wheels[name] for name in (mesh.driver, mesh.driven) if name in wheels and wheels[name].shaft in shafts]
        if len(pair) < 2 or any(wheel.teeth is None for wheel in pair):
            continue
        apart_mm = _apart_mm(shafts[pair[0].shaft], shafts[pair[1].shaft])
        right_mm = pitch_radius_mm(stage, pair[0]) + pitch_radius_mm(stage, pair[1])
        if stage.module_mm and apart_mm is not None and abs(apart_mm - right_mm) > CENTRES_WITHIN * stage.module_mm:
            sentence = (
                f"{mesh.driver} and {mesh.driven} do not mesh: their axes are {apart_mm:.2f} mm apart; "
                f"with module {stage.module_mm:g} it must be {right_mm:.2f} mm."
            )
            yield Fault(path=f"drive.stages.{at}.meshes.{n}", sentence=sentence)
        if mesh.least_backlash_mm is not None and mesh.most_backlash_mm is not None and mesh.least_backlash_mm > mesh.most_backlash_mm:
            yield Fault(
                path=f"drive.stages.{at}.meshes.{n}.most_backlash_mm", sentence="The most backlash is less than the least; swap them."
            )
