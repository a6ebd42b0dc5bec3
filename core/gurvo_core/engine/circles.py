"""Pitch circles of the drive's wheels, and how fast each shaft turns for one turn of the crank.

Speeds are signed: positive turns the crank's way, negative against it.
"""

__all__ = ["Speeds", "pitch_radius_mm", "shaft_speeds"]

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

from gurvo_core.engine.drive import Drive, GearStage, LoopStage, Sprocket, Stage

SMOOTH_DENOMINATOR = 10_000  # a smooth wheel's speed only has to look right


@dataclass(kw_only=True)
class Speeds:
    """Turns of each shaft for one of the crank, and where two ways round the drive disagree."""

    turns: dict[str, Fraction] = field(default_factory=dict)
    conflicts: list[tuple[int, str, Fraction, Fraction]] = field(default_factory=list)


def pitch_radius_mm(stage: Stage, wheel: Sprocket) -> float:
    """Return the radius of the circle on which a wheel's pitch line runs.

    Returned: pitch radius [mm]; 0 while it is not known.
    Source: Pitch circles in docs/sources.md: chain p / (2 sin(pi/N)); belt N p / (2 pi); gear m N / 2.
    >>> drive = quern_4().drive
    >>> round(pitch_radius_mm(drive.stages[0], drive.wheels[0]), 3)
    31.954
    """
    if wheel.teeth is None:
        return (wheel.diameter_mm or 0.0) / 2
    if isinstance(stage, GearStage):
        return (stage.module_mm or 0.0) * wheel.teeth / 2
    if stage.pitch_mm is None:
        return 0.0
    if stage.kind == "belt":
        return wheel.teeth * stage.pitch_mm / (2 * math.pi)
    return stage.pitch_mm / (2 * math.sin(math.pi / wheel.teeth))


def shaft_speeds(drive: Drive) -> Speeds:
    """Return how fast every shaft turns that the crank reaches through the stages.

    A chain or belt has one speed, meshing teeth have one speed; a back-side wheel and a mesh turn the other way.
    """
    wheels = {wheel.id: wheel for wheel in drive.wheels}
    speeds = Speeds(turns={shaft.id: Fraction(1) for shaft in drive.shafts if shaft.kind == "crank"})
    waiting = list(enumerate(drive.stages))
    while waiting:
        ready = [item for item in waiting if any(_shaft(wheels, name) in speeds.turns for name in item[1].wheel_ids)]
        if not ready:
            break
        for at, stage in ready:
            _turn(speeds, at, stage, wheels)
        waiting = [item for item in waiting if item not in ready]
        _couple(drive, speeds)
    _couple(drive, speeds)
    return speeds


def _couple(drive: Drive, speeds: Speeds) -> None:
    """Shafts that are coupled turn as one."""
    for coupling in drive.couplings:
        if coupling.driver in speeds.turns:
            speeds.turns.setdefault(coupling.driven, speeds.turns[coupling.driver])


def _shaft(wheels: dict[str, Sprocket], wheel_id: str) -> str | None:
    return wheels[wheel_id].shaft if wheel_id in wheels else None


def _turn(speeds: Speeds, at: int, stage: Stage, wheels: dict[str, Sprocket]) -> None:
    """Carry speed from the shafts that turn to all others of a stage."""
    for wheel, turns in _loop_turns(speeds, stage, wheels) if isinstance(stage, LoopStage) else _gear_turns(speeds, stage, wheels):
        known = speeds.turns.setdefault(wheel.shaft, turns)
        if known != turns and wheel.teeth is not None:
            speeds.conflicts.append((at, wheel.shaft, known, turns))


def _loop_turns(speeds: Speeds, stage: LoopStage, wheels: dict[str, Sprocket]) -> Iterator[tuple[Sprocket, Fraction]]:
    on_back = {step.wheel for step in stage.path if step.side == "back"}
    steps = [(wheels[name], -1 if name in on_back else 1) for name in stage.wheel_ids if name in wheels]
    driving = next(((w, s) for w, s in steps if w.teeth is not None and w.shaft in speeds.turns), None)
    if driving is None or driving[0].teeth is None:
        return
    pitches = speeds.turns[driving[0].shaft] * driving[0].teeth * driving[1]  # pitches that pass for one crank turn
    for wheel, way in steps:
        if wheel.teeth is not None:
            yield wheel, pitches * way / wheel.teeth
        elif wheel.diameter_mm and stage.pitch_mm:
            around = Fraction(math.pi * wheel.diameter_mm / stage.pitch_mm).limit_denominator(SMOOTH_DENOMINATOR)
            if around:
                yield wheel, (pitches * way / around).limit_denominator(SMOOTH_DENOMINATOR)


def _gear_turns(speeds: Speeds, stage: GearStage, wheels: dict[str, Sprocket]) -> Iterator[tuple[Sprocket, Fraction]]:
    meshes = [(wheels[mesh.driver], wheels[mesh.driven]) for mesh in stage.meshes if mesh.driver in wheels and mesh.driven in wheels]
    for _ in meshes:  # as many passes as meshes, whatever their order
        for driver, driven in meshes:
            if driver.shaft in speeds.turns and driver.teeth and driven.teeth:
                yield driven, -speeds.turns[driver.shaft] * driver.teeth / driven.teeth
