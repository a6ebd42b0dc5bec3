"""What is left at the timing an engine has: the least gap of each camshaft, and how far it may still be moved before that is gone."""

__all__ = ["MOST_DEG", "STEP_DEG", "TURN", "Curve", "Spare", "curve_of", "least_gaps", "spare_of", "until"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from gurvo_core.clearway.gaps import disc_of, pair_gap_mm, piston_gap_mm, side_by_side
from gurvo_core.clearway.ground import CYCLE, U_OF_HEADS_MM, Ground
from gurvo_core.clearway.least import Gap, drop_at, lift_at
from gurvo_core.clearway.valves import MovingValve
from gurvo_core.uncertainty import Estimate

STEP_DEG = 0.5
MOST_DEG = 60.0  # nobody moves a camshaft further by correcting it
TURN = np.arange(0, CYCLE, STEP_DEG)
Floats = NDArray[np.float64]
Steps = NDArray[np.intp]


@dataclass(frozen=True, kw_only=True)
class Spare:
    """One camshaft with everything turning together: its least gap, and how far it may be moved until that is no more than wanted."""

    camshaft: str
    least: Gap
    advance_deg: float | None  # crank degrees from where it stands; None: further than anybody moves it
    retard_deg: float | None


def spare_of(ground: Ground, camshaft: str, advances_deg: Mapping[str, float]) -> Spare | None:
    """Return what is left for a camshaft; None where its gaps are not known.

    advances_deg: how far each camshaft is off its card, positive = advanced [crank deg]; 0 where it is not named.
    """
    if camshaft not in ground.camshafts:
        return None
    curve = curve_of(ground, camshaft, advances_deg.get(camshaft, 0.0), advances_deg)
    here = len(curve.spare_mm) // 2
    return Spare(
        camshaft=camshaft,
        least=curve.least(here),
        advance_deg=until(curve.spare_mm[here:]),
        retard_deg=until(curve.spare_mm[here::-1]),
    )


@dataclass(frozen=True, kw_only=True, eq=False)
class Curve:
    """What a camshaft has to spare by how far it is moved, from ``MOST_DEG`` back to as much on, every ``STEP_DEG``.

    With a phaser it has at each place the least of all that lie between the phaser's stops.
    """

    gaps: tuple[tuple[Gap, Floats, Floats, Floats], ...]  # each gap, its least at each place, where that is, and how far phased
    spare_mm: Floats

    def least(self, at: int) -> Gap:
        """The gap with least to spare at a place."""
        gap, leasts, where, phased = min(self.gaps, key=lambda one: float(one[1][at]) - one[0].least_mm)
        return replace(gap, gap=Estimate(value=float(leasts[at]), u=gap.gap.u), after_deg=float(where[at]), phased_deg=float(phased[at]))


def curve_of(ground: Ground, camshaft: str, begin_deg: float, others_deg: Mapping[str, float]) -> Curve:
    """Return what a camshaft of which all is known has to spare, moved from some advance.

    begin_deg: the advance in the middle, positive = advanced [crank deg].
    others_deg: how far the others are off their cards [crank deg].
    """
    most, (later, earlier) = round(MOST_DEG / STEP_DEG), _phased(ground, camshaft)
    found = _gaps(ground, camshaft, begin_deg, np.arange(later - most, most + earlier + 1), others_deg)
    gaps = tuple((gap, *_between_stops(curve, later, earlier)) for gap, curve in found)
    return Curve(gaps=gaps, spare_mm=np.min([one[1] - one[0].least_mm for one in gaps], axis=0))


def _phased(ground: Ground, camshaft: str) -> tuple[int, int]:
    """How far its phaser moves a camshaft from its rest, later (below 0) and earlier, in steps; none where nobody knows its other stop."""
    cam = ground.document.camshaft(camshaft)
    other = cam.phaser.other_stop_deg if cam is not None and cam.phaser is not None else None
    steps = round((other or 0.0) / STEP_DEG)
    return min(steps, 0), max(steps, 0)


def _between_stops(curve: Floats, later: int, earlier: int) -> tuple[Floats, Floats, Floats]:
    """The least between a phaser's stops for each place it may rest at, where in the cycle, and how far off its rest [crank deg]."""
    leasts, where = curve.min(axis=1), TURN[curve.argmin(axis=1)]
    windows = np.lib.stride_tricks.sliding_window_view(leasts, earlier - later + 1)
    which = windows.argmin(axis=1)
    return windows.min(axis=1), where[np.arange(len(which)) + which], (which + later) * STEP_DEG


def least_gaps(ground: Ground, advances_deg: Mapping[str, float]) -> list[Gap]:
    """Return the least gap of every valve over a cycle with everything turning together, nearest first.

    advances_deg: how far each camshaft is off its card, positive = advanced [crank deg]; 0 where it is not named.
    """
    found = [one for cam in ground.camshafts for one in _least_of(ground, cam, advances_deg)]
    once = {frozenset((gap.valve.spoken, gap.against.spoken if gap.against else "")): gap for gap in found}
    return sorted(once.values(), key=lambda gap: gap.spare_mm)


def _least_of(ground: Ground, cam: str, advances_deg: Mapping[str, float]) -> Iterator[Gap]:
    """The least of each of a camshaft's gaps, wherever between its stops a phaser stands."""
    later, earlier = _phased(ground, cam)
    for gap, curve in _gaps(ground, cam, advances_deg.get(cam, 0.0), np.arange(later, earlier + 1), advances_deg):
        least, where, phased = (float(one[0]) for one in _between_stops(curve, later, earlier))
        yield replace(gap, gap=Estimate(value=least, u=gap.gap.u), after_deg=where, phased_deg=phased)


def until(spare_mm: Floats) -> float | None:
    """Return how far until nothing is to spare, from the first of these on [crank deg]. spare_mm: at every ``STEP_DEG`` [mm]."""
    gone = np.flatnonzero(spare_mm < 0)
    return max(0.0, (int(gone[0]) - 1) * STEP_DEG) if gone.size else None


def _gaps(ground: Ground, camshaft: str, begin_deg: float, off: Steps, others_deg: Mapping[str, float]) -> Iterator[tuple[Gap, Floats]]:
    """Every gap of its valves over a cycle, at each step from where it stands: [step, crank]. Twin valves that do alike are taken once."""
    at, seen = (np.arange(len(TURN)) + off[:, None]) % len(TURN), set[tuple[object, ...]]()
    for one in ground.of_cam(camshaft):
        assert one.shut_mm is not None  # else the camshaft would not be among those that are known
        lift = lift_at(ground, one, TURN + begin_deg)
        which = (one.cylinder, one.head, one.shut_mm, lift.tobytes())
        if which not in seen:
            seen.add(which)
            gap = Gap(gap=one.shut_mm, valve=one, against=None, least_mm=one.least_mm)
            yield gap, piston_gap_mm(drop_at(ground, one.cylinder, TURN)[None, :], lift[at], one)
        for other in _beside(ground, one):
            stops = {0.0, *(steps * STEP_DEG for steps in _phased(ground, other.camshaft))}  # a head beside it may be phased as well
            besides = [lift_at(ground, other, TURN + others_deg.get(other.camshaft, 0.0) + stop) for stop in sorted(stops)]
            pair = (one.cylinder, *side_by_side(disc_of(one), disc_of(other)), lift.tobytes(), *(beside.tobytes() for beside in besides))
            if pair not in seen:
                seen.add(pair)
                gap = Gap(gap=Estimate(value=0.0, u=U_OF_HEADS_MM / 2), valve=one, against=other, least_mm=ground.heads_least_mm)
                yield gap, np.min([pair_gap_mm(one, other, lift[at], beside[None, :]) for beside in besides], axis=0)


def _beside(ground: Ground, valve: MovingValve) -> Iterator[MovingValve]:
    """The valves of other camshafts that could meet this one."""
    for pair in ground.meeting:
        for cam in pair if valve.camshaft in pair else ():
            if cam != valve.camshaft:
                yield from (other for one, other in ground.pairs(valve.camshaft, cam) if one is valve)
