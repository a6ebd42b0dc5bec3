"""Which way the valve springs push a camshaft where it stands: one that is let go turns that way by itself."""

__all__ = ["spring_way"]

import numpy as np
from numpy.typing import NDArray

from gurvo_core.engine import EngineDocument
from gurvo_core.motion.frames import frames_at

STEP_DEG = 1.0
STEADY_N_MM = 5.0  # of work a crank degree, some 0.6 N·m at the cam: less than this, friction holds it
# where no spring is known: nothing but preload, and nothing but rate, between which every spring lies [N, N/mm]
BETWEEN = ((200.0, 0.0), (0.0, 60.0))


def spring_way(document: EngineDocument, camshaft: str, crank_deg: float) -> int | None:
    """Return which way a camshaft would turn by itself.

    crank_deg: where the crank stands, everything on its marks [deg].
    Source: A spring gives what it holds: the work in it is preload times lift and half its rate times lift squared, each side's valves by
    springs of their own, and the cam turns to where all of it together is less.
    >>> spring_way(quern_4(), "cam", 360.0)
    0
    """
    cam = document.camshaft(camshaft)
    frames = frames_at(document, [crank_deg - STEP_DEG, crank_deg + STEP_DEG], {})
    own = [row for row, (name, _) in enumerate(frames.valves) if name == camshaft]
    if cam is None or not own or len(own) < len(cam.lobes):
        return None
    known = {spring.valve: (spring.preload_n, spring.rate_n_mm) for spring in document.springs}
    valves = [cam.lobes[lobe].valve for name, lobe in frames.valves if name == camshaft]
    could_be = [[known[valve] for valve in valves]] if known.keys() >= set(valves) else [[ends] * len(valves) for ends in BETWEEN]
    ways = {_way(frames.lift_mm[own], np.array(springs)) for springs in could_be}
    return ways.pop() if len(ways) == 1 else None


def _way(lift_mm: NDArray[np.float64], springs: NDArray[np.float64]) -> int:
    """By the work in all springs, a step before and a step after; a spring is its preload and its rate."""
    preload_n, rate_n_mm = springs[:, :1], springs[:, 1:]
    work = np.sum(preload_n * lift_mm + rate_n_mm * lift_mm**2 / 2, axis=0)
    grows = float(work[1] - work[0]) / (2 * STEP_DEG)
    return 0 if abs(grows) < STEADY_N_MM else -1 if grows > 0 else 1
