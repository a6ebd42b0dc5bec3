"""Torque over angle of made-up bolts: however long run down, free or binding, elastic or bent."""

from dataclasses import dataclass

import numpy as np

from gurvo_core.joints.trace import Trace

READ_NM = 0.15  # how far a torque is off by chance
RUNS_DEG = (0, 40, 100, 400, 1200)


@dataclass(frozen=True)
class Turned:
    """One bolt, and what is true of it."""

    trace: Trace
    snug_deg: float
    yield_deg: float | None
    binds: bool


def turned(chance: np.random.Generator) -> Turned:
    """Any of them."""
    run_deg, work_deg = float(chance.choice(RUNS_DEG)) + chance.uniform(0, 20), chance.uniform(50, 150)
    stiff, hardens = chance.uniform(0.4, 1.5), chance.uniform(0.05, 0.3)
    bends = chance.uniform(0.35, 0.8) * work_deg if chance.random() < 0.5 else None
    angle = np.arange(0, run_deg + work_deg, chance.choice([0.1, 0.25, 0.5, 1.0]))
    clamped = np.maximum(0, angle - run_deg)
    straight = clamped if bends is None else np.minimum(clamped, bends) + hardens * np.maximum(0, clamped - bends)
    binds = bool(chance.random() < 0.25) and run_deg > 30  # a bolt that binds is seen to only while it runs down
    of_peak = chance.uniform(0.28, 0.5) if binds else 0.0
    peak_nm = stiff * float(straight.max())
    run_down_nm = of_peak * peak_nm / (1 - of_peak) if binds else chance.uniform(0, 0.12) * peak_nm
    torque = stiff * straight + run_down_nm * np.minimum(1, angle / 8) + chance.normal(0, READ_NM, angle.size)
    return Turned(Trace(angle, torque), run_deg, None if bends is None else run_deg + bends, binds)
