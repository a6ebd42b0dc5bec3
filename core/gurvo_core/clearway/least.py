"""The least gap on a move, worked out ten times finer than ways are looked for, and what may have met at a dead stop."""

__all__ = ["Gap", "Meeting", "drop_at", "gaps_at", "least_on", "lift_at", "likely_meetings"]

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.clearway.gaps import can_meet, disc_of, pair_gap_mm, piston_gap_mm
from gurvo_core.clearway.ground import CYCLE, U_OF_HEADS_MM, Ground
from gurvo_core.clearway.stands import CRANK, Move, Stands
from gurvo_core.clearway.valves import MovingValve
from gurvo_core.motion.clock import nose_crank_deg
from gurvo_core.motion.crank import drop_mm
from gurvo_core.motion.frames import slider_of
from gurvo_core.motion.lobe import valve_lift_mm
from gurvo_core.uncertainty import Estimate

FINE_DEG = 0.1
Floats = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class Gap:
    """The least there is between a valve and its piston, or another valve, and how far into a move that is."""

    gap: Estimate
    valve: MovingValve
    against: MovingValve | None  # None: its piston
    least_mm: float  # that is wanted there
    after_deg: float = 0.0
    phased_deg: float = 0.0  # how far off its rest a phaser then stands, positive = advanced [crank deg]

    @property
    def words(self) -> str:
        """What comes near what."""
        return f"{self.valve.spoken} to {f'piston {self.valve.cylinder}' if self.against is None else self.against.spoken}"

    @property
    def meets(self) -> str:
        """What would meet what."""
        return self.words.replace(" to ", " meets ")

    @property
    def may_touch(self) -> bool:
        """Whether they may, by all that is known."""
        return self.gap.value < self.gap.expanded

    @property
    def spare_mm(self) -> float:
        """What is left above what is wanted [mm]."""
        return self.gap.value - self.least_mm


def lift_at(ground: Ground, valve: MovingValve, places: Floats) -> Floats:
    """Return a valve's lift.

    places: of its camshaft, in any fractions of a degree [crank deg].
    Returned: how far it is open [mm].
    """
    whole = np.rint(places)
    if np.array_equal(whole, places):
        return ground.lift_mm(valve)[whole.astype(np.intp) % CYCLE]
    cam = ground.document.camshaft(valve.camshaft)
    assert cam is not None  # a moving valve comes from one
    lobe = cam.lobes[valve.lobe]
    profile = ground.document.shape(cam, lobe)
    assert profile is not None  # and from a lobe whose shape is known
    return valve_lift_mm((places - nose_crank_deg(ground.document, lobe)) / 2, profile, cam, lobe)


def drop_at(ground: Ground, cylinder: int, crank_deg: Floats) -> Floats:
    """Return how far a piston is below TDC at crank angles [mm]."""
    slider = slider_of(ground.document, cylinder)
    assert slider is not None  # else its valves have no gap to it
    return drop_mm(crank_deg - ground.document.firing_deg[cylinder], slider)


def _along(ground: Ground, stands: Stands, shaft: str | None, by: Floats) -> Iterator[tuple[MovingValve, MovingValve | None, Floats]]:
    """Every gap that a turn of one shaft changes, at each of some turns; of no shaft, every gap there is."""

    def place(name: str) -> Floats:
        return stands.place(name) + (by if name in moving and shaft else np.zeros_like(by))

    moving = {shaft, *stands.along(shaft)} if shaft else {CRANK, *stands.cams}
    own = [one for one in ground.valves if one.camshaft in stands.cams]
    lifts = {one.key: lift_at(ground, one, place(one.camshaft)) for one in own}
    for one in own:
        if one.shut_mm is not None and moving & {CRANK, one.camshaft}:
            yield one, None, piston_gap_mm(drop_at(ground, one.cylinder, place(CRANK)), lifts[one.key], one)
    for one, other in _pairs(own):
        if moving & {one.camshaft, other.camshaft}:
            yield one, other, pair_gap_mm(one, other, lifts[one.key], lifts[other.key])


def _pairs(valves: Sequence[MovingValve]) -> Iterator[tuple[MovingValve, MovingValve]]:
    """An intake and an exhaust valve of one chamber that could come near each other."""
    for one in valves:
        for other in valves:
            is_pair = one.valve == "intake" and other.valve == "exhaust" and one.cylinder == other.cylinder
            # valves of one camshaft keep to each other as they were made
            if is_pair and one.camshaft != other.camshaft and can_meet(disc_of(one), disc_of(other)):
                yield one, other


def least_on(ground: Ground, stands: Stands, move: Move, step_deg: float = FINE_DEG) -> Gap | None:
    """Return the gap with least to spare while a shaft is turned; None where nothing that is known comes near anything.

    step_deg: how finely it is looked at [crank deg].
    """
    count = max(2, round(abs(move.by) / step_deg) + 1)
    by = np.linspace(0, move.by, count)
    gaps = [_least(ground, found, by) for found in _along(ground, stands, move.shaft, by)]
    return min(gaps, key=lambda gap: gap.spare_mm, default=None)


def _least(ground: Ground, found: tuple[MovingValve, MovingValve | None, Floats], by: Floats) -> Gap:
    one, other, gaps = found
    at = int(np.argmin(gaps))
    u = U_OF_HEADS_MM / 2 if other is not None or one.shut_mm is None else one.shut_mm.u
    least_mm = one.least_mm if other is None else ground.heads_least_mm
    return Gap(gap=Estimate(value=float(gaps[at]), u=u), valve=one, against=other, least_mm=least_mm, after_deg=float(by[at]))


def gaps_at(ground: Ground, stands: Stands, shaft: str | None = None) -> list[Gap]:
    """Return every gap as the shafts stand, least first; of one shaft those that turning it changes."""
    here = np.zeros(1)
    found = [_least(ground, one, here) for one in _along(ground, stands, shaft, here)]
    return sorted(found, key=lambda gap: gap.gap.value)


@dataclass(frozen=True, kw_only=True)
class Meeting:
    """What may have met what, and how many crank degrees further on the model has them meet."""

    valve: MovingValve
    against: MovingValve | None
    off_deg: float  # of the shaft that was turned, the way it was turned; below 0 it should have met before
    near_mm: float  # the gap that the model has there

    @property
    def words(self) -> str:
        """As one says it."""
        return f"{self.valve.spoken} on {f'piston {self.valve.cylinder}' if self.against is None else self.against.spoken}"


def likely_meetings(ground: Ground, stands: Stands, shaft: str, way: int, within_deg: int = 40) -> list[Meeting]:
    """Return what may have stopped a shaft where it stands, likeliest first: what may meet, by all that is known, nearest to there.

    way: which way it was turned, +1 or -1.
    within_deg: how far off the model may be [crank deg].
    """
    by = way * np.arange(-within_deg, within_deg + 1, 0.5)
    found = []
    for one, other, gaps in _along(ground, stands, shaft, by):
        u = U_OF_HEADS_MM if other is not None or one.shut_mm is None else one.shut_mm.expanded
        meets = np.flatnonzero(gaps <= u)
        here = float(gaps[len(by) // 2])
        if meets.size:
            nearest = int(meets[np.argmin(np.abs(by[meets]))])
            found.append(Meeting(valve=one, against=other, off_deg=float(way * by[nearest]), near_mm=here))
    return sorted(found, key=lambda one: (abs(one.off_deg), one.near_mm))
