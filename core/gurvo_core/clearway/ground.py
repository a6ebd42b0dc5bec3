"""Where shafts may stand: for every place of the crank and of each camshaft whether a valve meets its piston, or another valve.

A camshaft's place is the crank angle at which it would stand there as its card has it, 0 to 720. A map is a table over two places,
[first shaft, second shaft] in whole degrees, True where they must not stand together.
"""

__all__ = ["CYCLE", "LEVELS", "VALVES_LEAST_MM", "Ground", "Level", "Mask", "Spread", "just_outside"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

from gurvo_core.clearway.gaps import LIFT_STEP_MM, Disc, can_meet, disc_of, lift_table, side_by_side
from gurvo_core.clearway.valves import MovingValve, moving_valves
from gurvo_core.engine import EngineDocument
from gurvo_core.motion.frames import CycleFrames, cycle_frames
from gurvo_core.uncertainty import Estimate

CYCLE = 720
TURN = CYCLE // 2  # of the crank
VALVES_LEAST_MM = 1.5  # source: common practice; the least between two valves that builders want where their book names none
U_OF_HEADS_MM = 0.6  # expanded; a decision of ours: seats are cut and heads sink

Level = Literal["meets", "wanted"]  # they may meet, by all that is known; nearer than the book or the trade wants them
LEVELS: tuple[Level, ...] = ("wanted", "meets")
Mask = NDArray[np.bool_]


@dataclass(frozen=True)
class Spread:
    """How far shafts may stand from where they are said to stand, either way [deg]."""

    crank_deg: int = 0
    cam_deg: int = 0


@dataclass(frozen=True, kw_only=True, eq=False)
class Ground:
    """An engine's valves and pistons, and what of them may meet."""

    document: EngineDocument
    measured: Mapping[str, Estimate]
    spread: Spread = Spread()

    @cached_property
    def valves(self) -> tuple[MovingValve, ...]:
        """Those whose lift and head are known."""
        return moving_valves(self.document, self.measured)

    @cached_property
    def frames(self) -> CycleFrames:
        """Drops and lifts over a cycle."""
        return cycle_frames(self.document)

    @cached_property
    def camshafts(self) -> tuple[str, ...]:
        """Those of which all lobes are known, gap to the piston and all: of another nobody can say that it is clear."""
        known = {(one.camshaft, one.lobe) for one in self.valves if one.shut_mm is not None}
        cams = [cam for cam in self.document.camshafts if cam.lobes]
        return tuple(cam.id for cam in cams if all((cam.id, place) in known for place in range(len(cam.lobes))))

    def drop_mm(self, cylinder: int) -> NDArray[np.float64]:
        """Of a piston below its TDC, by the crank's degree [mm]."""
        return np.asarray(self.frames.drop_mm[self.frames.cylinders.index(cylinder)], dtype=np.float64)

    def lift_mm(self, valve: MovingValve) -> NDArray[np.float64]:
        """Of a valve, by its camshaft's place [mm]."""
        return np.asarray(self.frames.lift_mm[self.frames.valves.index((valve.camshaft, valve.lobe))], dtype=np.float64)

    def of_cam(self, camshaft: str) -> tuple[MovingValve, ...]:
        """A camshaft's valves."""
        return tuple(one for one in self.valves if one.camshaft == camshaft)

    def margin_mm(self, valve: MovingValve, level: Level) -> float:
        """What is kept between a valve and its piston."""
        assert valve.shut_mm is not None
        return valve.shut_mm.expanded if level == "meets" else max(valve.least_mm, valve.shut_mm.expanded)

    @property
    def heads_least_mm(self) -> float:
        """What is wanted between two valves: by the book, else by the trade."""
        gaps = self.document.least_gaps
        return VALVES_LEAST_MM if gaps is None or gaps.valves_mm is None else gaps.valves_mm

    def heads_margin_mm(self, level: Level) -> float:
        """What is kept between two valves."""
        return U_OF_HEADS_MM if level == "meets" else max(self.heads_least_mm, U_OF_HEADS_MM)

    def least_drop_mm(self, valve: MovingValve, level: Level) -> NDArray[np.float64]:
        """How far the piston must be down for a valve to be clear of it, by its camshaft's place [mm]; below 0 it always is."""
        assert valve.shut_mm is not None
        lift = _most_near(self.lift_mm(valve), self.spread.cam_deg)
        return np.asarray((lift + self.margin_mm(valve, level) - valve.shut_mm.value) / valve.falls, dtype=np.float64)

    @cached_property
    def _kept(self) -> dict[tuple[str, ...], Mask]:
        return {}

    def piston(self, camshaft: str, level: Level) -> Mask:
        """``piston_mask``, worked out once."""
        if (camshaft, level) not in self._kept:
            self._kept[camshaft, level] = self.piston_mask(camshaft, level)
        return self._kept[camshaft, level]

    def heads(self, first: str, second: str, level: Level) -> Mask:
        """``heads_mask``, worked out once."""
        if (first, second, level) not in self._kept:
            self._kept[first, second, level] = self.heads_mask(first, second, level)
        return self._kept[first, second, level]

    def piston_mask(self, camshaft: str, level: Level) -> Mask:
        """Where a valve of a camshaft comes too near its piston: [crank, camshaft]."""
        mask, seen = np.zeros((TURN, CYCLE), dtype=bool), set[tuple[int, bytes]]()
        for valve in self.of_cam(camshaft):
            least = self.least_drop_mm(valve, level).astype(np.float32)
            if (which := (valve.cylinder, least.tobytes())) in seen:
                continue  # twin valves do alike
            seen.add(which)
            drop = -_most_near(-self.drop_mm(valve.cylinder), self.spread.crank_deg)[:TURN].astype(np.float32)
            for begin, end in _stretches(least > 0):  # shut it is clear of every piston
                mask[:, begin:end] |= drop[:, None] < least[None, begin:end]
        return np.concatenate([mask, mask])  # a piston comes by on every turn

    def heads_mask(self, first: str, second: str, level: Level) -> Mask:
        """Where a valve of one camshaft comes too near one of another: [first, second]."""
        mask, seen = np.zeros((CYCLE, CYCLE), dtype=bool), set[tuple[Disc, Disc, bytes, bytes]]()
        for one, other in self.pairs(first, second):
            steps = self._steps(one), self._steps(other)
            # twin valves mirror each other along the engine, and are met alike
            discs = side_by_side(disc_of(one), disc_of(other))
            if (which := (*discs, steps[0].tobytes(), steps[1].tobytes())) in seen:
                continue
            seen.add(which)
            table = lift_table(*discs, *(10 * (int(one.max()) // 10 + 1) for one in steps))
            near = table < self.heads_margin_mm(level) + LIFT_STEP_MM
            mask |= near[steps[0]][:, steps[1]]
        cam_deg = self.spread.cam_deg
        return _most_near(_most_near(mask, cam_deg, 0), cam_deg, 1) if cam_deg else mask

    def edges(self, camshaft: str, level: Level) -> tuple[set[int], set[int]]:
        """Just outside of where each of a camshaft's valves is in the way of its piston: by the crank's place, and by its own."""
        by_crank, by_cam = set[int](), set[int]()
        for valve in self.of_cam(camshaft):
            least = self.least_drop_mm(valve, level)
            by_crank.update(just_outside(self.drop_mm(valve.cylinder) < least.max()))
            by_cam.update(just_outside(least > 0))
        return by_crank, by_cam

    def pairs(self, first: str, second: str) -> Iterator[tuple[MovingValve, MovingValve]]:
        """The valves of one chamber that two camshafts open and that could come near each other."""
        for one in self.of_cam(first):
            for other in self.of_cam(second):
                if one.cylinder == other.cylinder and can_meet(disc_of(one), disc_of(other)):
                    yield one, other

    def _steps(self, valve: MovingValve) -> NDArray[np.intp]:
        """Its lift by place, in steps of the table."""
        return np.rint(self.lift_mm(valve) / LIFT_STEP_MM).astype(np.intp)

    @cached_property
    def meeting(self) -> tuple[tuple[str, str], ...]:
        """The camshafts whose valves could meet each other."""
        return tuple(pair for pair in combinations(self.camshafts, 2) if any(True for _ in self.pairs(*pair)))


def _stretches(wanted: Mask) -> list[tuple[int, int]]:
    """Where something is so, from the begin of the cycle to its end."""
    edges = np.flatnonzero(np.diff(np.pad(wanted.astype(np.int8), 1)))
    return [(int(begin), int(end)) for begin, end in edges.reshape(-1, 2)]


def just_outside(blocked: Mask) -> Iterator[int]:
    """Return the free places next to each blocked stretch of a cycle."""
    yield from (int(at - 1) % CYCLE for at in np.flatnonzero(blocked & ~np.roll(blocked, 1)))
    yield from (int(at + 1) % CYCLE for at in np.flatnonzero(blocked & ~np.roll(blocked, -1)))


def _most_near(values: NDArray, deg: int, axis: int = 0) -> NDArray:  # type: ignore[type-arg]
    """The greatest within so many degrees either way, round the cycle."""
    return values if not deg else scipy.ndimage.maximum_filter1d(values, 2 * deg + 1, axis=axis, mode="wrap")
