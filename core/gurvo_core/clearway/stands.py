"""Where shafts stand to each other, and what of them turns together: the ground on which a way is looked for."""

__all__ = ["CRANK", "Move", "Stands", "Terrain", "places_of", "terrain_of"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from itertools import combinations

import numpy as np

from gurvo_core.clearway.ground import CYCLE, Ground, Level, Mask

CRANK = "crank"


@dataclass(frozen=True, kw_only=True)
class Stands:
    """Places of crank and camshafts in whole crank degrees; camshafts that are in, and those that turn with the crank."""

    crank: int
    cams: Mapping[str, int]
    coupled: frozenset[str] = frozenset()
    held: frozenset[str] = frozenset()  # shafts that something keeps where they are
    running_only: bool = False  # what turns with the crank is laid: it is turned the running way alone

    @property
    def free(self) -> tuple[str, ...]:
        """The camshafts that turn by themselves."""
        return tuple(cam for cam in self.cams if cam not in self.coupled)

    def moved(self, move: "Move") -> "Stands":
        """Where they stand after a move."""
        if move.shaft != CRANK:
            return replace(self, cams={**self.cams, move.shaft: (self.cams[move.shaft] + move.by) % CYCLE})
        along = {cam: (at + move.by) % CYCLE if cam in self.coupled else at for cam, at in self.cams.items()}
        return replace(self, crank=(self.crank + move.by) % CYCLE, cams=along)

    def place(self, shaft: str) -> int:
        """Of one of them."""
        return self.crank if shaft == CRANK else self.cams[shaft]


@dataclass(frozen=True, kw_only=True)
class Move:
    """One shaft turned by so many crank degrees, positive the way the engine runs; the crank with whatever is coupled to it."""

    shaft: str
    by: int


@dataclass(frozen=True, kw_only=True, eq=False)
class Terrain:
    """Maps over every two of the shafts that can be turned by themselves: first the crank with what turns with it, then each free cam."""

    shafts: tuple[str, ...]
    own: Mask  # of the crank with what is coupled to it, by the crank's place
    pairs: Mapping[tuple[int, int], Mask]  # by two places in ``shafts``, the first the smaller

    def beside(self, shaft: int) -> Iterator[tuple[int, Mask]]:
        """Each other shaft with the map of the two: [this one, the other]."""
        for (one, other), mask in self.pairs.items():
            if shaft == one:
                yield other, mask
            elif shaft == other:
                yield one, mask.T

    def blocked(self, at: tuple[int, ...], shaft: int) -> Mask:
        """By its place, where a shaft must not stand while all others stay."""
        blocked = self.own.copy() if shaft == 0 else np.zeros(CYCLE, dtype=bool)
        for other, mask in self.beside(shaft):
            blocked |= mask[:, at[other]]
        return blocked

    def is_clear(self, at: tuple[int, ...], shaft: int, by: int) -> bool:
        """Whether a shaft can be turned by so many degrees while all others stay, both ends included."""
        on = (at[shaft] + int(np.sign(by)) * np.arange(abs(by) + 1)) % CYCLE
        return not self.blocked(at, shaft)[on].any()

    def reach(self, at: tuple[int, ...], shaft: int, way: int) -> int:
        """How many degrees a shaft can be turned one way while all others stay; a whole cycle where nothing stops it."""
        stops = np.flatnonzero(self.blocked(at, shaft)[(at[shaft] + way * np.arange(CYCLE)) % CYCLE])
        return int(stops[0]) - 1 if stops.size else CYCLE


def terrain_of(ground: Ground, stands: Stands, level: Level) -> Terrain:
    """Return the maps for shafts that stand so: what is coupled keeps its angle to the crank."""
    shafts = (CRANK, *stands.free)
    offsets = {cam: (stands.cams[cam] - stands.crank) % CYCLE for cam in stands.coupled}
    pairs = {(0, n): _with_crank(ground, cam, offsets, level) for n, cam in enumerate(shafts) if n}
    for (n, one), (m, other) in combinations(enumerate(shafts[1:], 1), 2):
        mask = _heads(ground, one, other, level)
        if mask is not None:
            pairs[n, m] = mask
    return Terrain(shafts=shafts, own=_own(ground, offsets, level), pairs=pairs)


def _heads(ground: Ground, one: str, other: str, level: Level) -> Mask | None:
    if (one, other) in ground.meeting:
        return ground.heads(one, other, level)
    return ground.heads(other, one, level).T if (other, one) in ground.meeting else None


def _with_crank(ground: Ground, cam: str, offsets: Mapping[str, int], level: Level) -> Mask:
    mask = ground.piston(cam, level)
    for other, offset in offsets.items():
        heads = _heads(ground, other, cam, level)
        if heads is not None:
            mask = mask | np.roll(heads, -offset, axis=0)
    return mask


def _own(ground: Ground, offsets: Mapping[str, int], level: Level) -> Mask:
    at, own = np.arange(CYCLE), np.zeros(CYCLE, dtype=bool)
    for cam, offset in offsets.items():
        own |= ground.piston(cam, level)[at, (at + offset) % CYCLE]
    for one, other in combinations(offsets, 2):
        heads = _heads(ground, one, other, level)
        if heads is not None:
            own |= heads[(at + offsets[one]) % CYCLE, (at + offsets[other]) % CYCLE]
    return own


def places_of(terrain: Terrain, stands: Stands) -> Iterator[int]:
    """Where each of a terrain's shafts stands."""
    return (stands.place(shaft) for shaft in terrain.shafts)
