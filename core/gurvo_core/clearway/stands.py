"""Where shafts stand to each other, and what of them turns together: the ground on which a way is looked for."""

__all__ = ["CRANK", "Move", "Stands", "Terrain", "places_of", "terrain_of"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import reduce
from itertools import combinations, product

import numpy as np

from gurvo_core.clearway.ground import CYCLE, Ground, Level, Mask

CRANK = "crank"


@dataclass(frozen=True, kw_only=True)
class Stands:
    """Places of crank and camshafts in whole crank degrees; camshafts that are in, and those that turn with the crank."""

    crank: int
    cams: Mapping[str, int]
    coupled: frozenset[str] = frozenset()
    tied: tuple[tuple[str, ...], ...] = ()  # camshafts that turn with each other and not with the crank; the first speaks for them
    held: frozenset[str] = frozenset()  # shafts that something keeps where they are
    running_only: bool = False  # what turns with the crank is laid: it is turned the running way alone

    @property
    def free(self) -> tuple[str, ...]:
        """The camshafts that turn by themselves; of those that are tied to each other the first."""
        taken = {cam for group in self.tied for cam in group[1:]}
        return tuple(cam for cam in self.cams if cam not in self.coupled and cam not in taken)

    def along(self, shaft: str) -> tuple[str, ...]:
        """The camshafts that turn where a shaft is turned."""
        if shaft == CRANK:
            return tuple(cam for cam in self.cams if cam in self.coupled)
        return next((group for group in self.tied if shaft in group), (shaft,))

    def first_of(self, shaft: str) -> str:
        """The one that speaks for a shaft."""
        return CRANK if shaft == CRANK or shaft in self.coupled else self.along(shaft)[0]

    def without(self, shaft: str) -> "Stands":
        """The same with a camshaft out, and whatever turns with it."""
        gone = set(self.along(shaft))
        tied = tuple(group for group in self.tied if not gone & set(group))
        return replace(self, cams={cam: at for cam, at in self.cams.items() if cam not in gone}, tied=tied)

    def moved(self, move: "Move") -> "Stands":
        """Where they stand after a move."""
        turned = set(self.along(move.shaft))
        cams = {cam: (at + move.by) % CYCLE if cam in turned else at for cam, at in self.cams.items()}
        return replace(self, crank=(self.crank + move.by) % CYCLE if move.shaft == CRANK else self.crank, cams=cams)

    def place(self, shaft: str) -> int:
        """Of one of them."""
        return self.crank if shaft == CRANK else self.cams[shaft]


@dataclass(frozen=True, kw_only=True)
class Move:
    """One shaft turned by so many crank degrees, positive the way the engine runs, with whatever turns with it."""

    shaft: str
    by: int


@dataclass(frozen=True, kw_only=True, eq=False)
class Terrain:
    """Maps over every two of the shafts that turn by themselves: first the crank, then each free cam, with what turns along."""

    shafts: tuple[str, ...]
    offsets: tuple[Mapping[str, int], ...]  # of each shaft: the camshafts that turn with it, by how far each is on from it
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
    """Return the maps for shafts that stand so: what turns together keeps its angles."""
    shafts = (CRANK, *stands.free)
    offsets = tuple({cam: (stands.cams[cam] - stands.place(shaft)) % CYCLE for cam in stands.along(shaft)} for shaft in shafts)
    pairs = {(0, n): _with_crank(ground, offsets[0], offsets[n], level) for n in range(1, len(shafts))}
    for n, m in combinations(range(1, len(shafts)), 2):
        mask = _between(ground, offsets[n], offsets[m], level)
        if mask is not None:
            pairs[n, m] = mask
    return Terrain(shafts=shafts, offsets=offsets, own=_own(ground, offsets[0], level), pairs=pairs)


def _heads(ground: Ground, one: str, other: str, level: Level) -> Mask | None:
    if (one, other) in ground.meeting:
        return ground.heads(one, other, level)
    return ground.heads(other, one, level).T if (other, one) in ground.meeting else None


def _between(ground: Ground, offsets: Mapping[str, int], others: Mapping[str, int], level: Level) -> Mask | None:
    """Where a valve of some camshafts comes too near one of others, by what each of the two groups turns with; None where none could."""
    found = None
    for (one, on), (other, off) in product(offsets.items(), others.items()):
        heads = _heads(ground, one, other, level)
        if heads is not None:
            turned = np.roll(heads, (-on, -off), axis=(0, 1)) if on or off else heads
            found = turned if found is None else found | turned
    return found


def _with_crank(ground: Ground, offsets: Mapping[str, int], others: Mapping[str, int], level: Level) -> Mask:
    """The crank and what turns with it, by camshafts that turn by themselves."""
    pistons = [np.roll(ground.piston(cam, level), -on, axis=1) if on else ground.piston(cam, level) for cam, on in others.items()]
    mask = reduce(np.logical_or, pistons)
    between = _between(ground, offsets, others, level)
    mask = mask if between is None else mask | between
    return mask | _each_other(ground, others, level)[None, :] if len(others) > 1 else mask


def _own(ground: Ground, offsets: Mapping[str, int], level: Level) -> Mask:
    at, own = np.arange(CYCLE), _each_other(ground, offsets, level)
    for cam, offset in offsets.items():
        own |= ground.piston(cam, level)[at, (at + offset) % CYCLE]
    return own


def _each_other(ground: Ground, offsets: Mapping[str, int], level: Level) -> Mask:
    """Where valves of camshafts that turn together come too near each other."""
    at, met = np.arange(CYCLE), np.zeros(CYCLE, dtype=bool)
    for one, other in combinations(offsets, 2):
        heads = _heads(ground, one, other, level)
        if heads is not None:
            met |= heads[(at + offsets[one]) % CYCLE, (at + offsets[other]) % CYCLE]
    return met


def places_of(terrain: Terrain, stands: Stands) -> Iterator[int]:
    """Where each of a terrain's shafts stands."""
    return (stands.place(shaft) for shaft in terrain.shafts)
