"""The net in which a way is looked for: some places along each shaft, and the steps between neighbours that are clear."""

__all__ = ["CAM_SHARE", "MOST_NODES", "Net", "edges_of", "net_of", "steps_of"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import scipy
from numpy.typing import NDArray

from gurvo_core.clearway.ground import CYCLE, Ground, Level, Mask, just_outside
from gurvo_core.clearway.rest import SpringLoad
from gurvo_core.clearway.stands import Terrain

MOST_NODES = 40_000
GRIDS_DEG = (4, 6, 8, 10, 12, 15, 20, 30, 45, 60, 90, CYCLE)
CAM_SHARE = 0.5  # a camshaft turns half as far
HELD, SLIPS_INTO = 0.5, 20.0  # how much more a degree counts while another shaft is held, and while it would meet something


@dataclass(frozen=True, kw_only=True, eq=False)
class Net:
    """Places along each shaft [crank deg], growing."""

    places: tuple[NDArray[np.intp], ...]

    @property
    def shape(self) -> tuple[int, ...]:
        """How many along each."""
        return tuple(len(one) for one in self.places)

    @property
    def nodes(self) -> NDArray[np.intp]:
        """The number of every place of all shafts together."""
        return np.arange(np.prod(self.shape)).reshape(self.shape)

    def steps_deg(self, shaft: int) -> NDArray[np.intp]:
        """From each place to the next, round."""
        at = self.places[shaft]
        return (np.roll(at, -1) - at - 1) % CYCLE + 1

    def over_all(self, values: NDArray, *shafts: int) -> NDArray:  # type: ignore[type-arg]
        """A table over some shafts, in their order, as one over all."""
        return values.reshape([len(one) if n in shafts else 1 for n, one in enumerate(self.places)])

    def node(self, at: Sequence[int]) -> int:
        """The number of a place of all shafts."""
        return int(np.ravel_multi_index([self.index(n, place) for n, place in enumerate(at)], self.shape))

    def index(self, shaft: int, place: int) -> int:
        """Which of a shaft's places that is."""
        return int(np.searchsorted(self.places[shaft], place % CYCLE))


def edges_of(terrain: Terrain, ground: Ground, level: Level) -> list[set[int]]:
    """Return by shaft the places just outside of where something is in its way."""
    edges = [set[int]() for _ in terrain.shafts]
    for n, offsets in enumerate(terrain.offsets):
        for cam, on in offsets.items() if n else ():
            by_crank, by_cam = ground.edges(cam, level)
            edges[0] |= by_crank
            edges[n] |= {(at - on) % CYCLE for at in by_cam}
    edges[0] |= set(just_outside(terrain.own))
    for (one, other), mask in terrain.pairs.items():
        if one:
            edges[one] |= set(just_outside(np.any(mask, axis=1)))
            edges[other] |= set(just_outside(np.any(mask, axis=0)))
    return edges


def net_of(known: Sequence[set[int]], edges: Sequence[set[int] | None], most: int) -> Net:
    """Return a net of some places of each shaft, of its edges, and of a grid as fine as there is time for.

    known: by shaft the places that are in it whatever else is.
    edges: by shaft where things begin to be in the way; None for one that is not turned.
    most: nodes there may be; what a search takes grows with them.
    """
    for step in GRIDS_DEG:
        filled = [own if edge is None else own | edge | set(range(0, CYCLE, step)) for own, edge in zip(known, edges, strict=True)]
        if np.prod([len(one) for one in filled]) <= most:
            break
    return Net(places=tuple(np.array(sorted(one), dtype=np.intp) for one in filled))


def steps_of(terrain: Terrain, net: Net, loads: Mapping[str, SpringLoad], running_only: bool) -> Any:  # scipy says nothing of its types
    """Return what each clear step between neighbours costs: its degrees, and more while another shaft is held."""
    nodes, heavier = net.nodes, [_heavier(terrain, net, shaft, loads.get(name)) for shaft, name in enumerate(terrain.shafts)]
    begins, ends, costs = [], [], []
    for shaft in range(len(net.places)):
        clear = _clear_steps(terrain, net, shaft)
        share = 1.0 if shaft == 0 else CAM_SHARE
        others = sum((more for other, more in enumerate(heavier) if other != shaft), start=np.zeros((1,) * len(net.places)))
        cost = np.broadcast_to(net.over_all(net.steps_deg(shaft) * share, shaft) * (1 + others), net.shape)
        after = np.roll(nodes, -1, axis=shaft)
        ways = [(nodes, after)] if shaft == 0 and running_only else [(nodes, after), (after, nodes)]
        for begin, end in ways:
            begins.append(begin[clear])
            ends.append(end[clear])
            costs.append(cost[clear])
    data = np.concatenate(costs), (np.concatenate(begins), np.concatenate(ends))
    return scipy.sparse.csr_array(data, shape=(nodes.size, nodes.size))


def _heavier(terrain: Terrain, net: Net, shaft: int, load: SpringLoad | None) -> NDArray[np.float64]:
    """By how much a degree of any other shaft counts for more while a camshaft stands so, by the crank's place and its own."""
    if load is None or shaft == 0:
        return np.zeros((1,) * len(net.places))
    more = np.zeros((len(net.places[0]), len(net.places[shaft])))
    mask = terrain.pairs[0, shaft][net.places[0]]
    for n, place in enumerate(net.places[shaft].tolist()):
        rest = load.at(place)
        if rest.stays != "stays":
            swept = (place + rest.way * np.arange(abs(rest.swings_deg) + 1)) % CYCLE
            more[:, n] = np.where(mask[:, swept].any(axis=1), SLIPS_INTO, HELD)
    return net.over_all(more, 0, shaft)


def _clear_steps(terrain: Terrain, net: Net, shaft: int) -> Mask:
    """Whether the step from each place to the next along a shaft is clear, at every place of all others."""
    clear = np.ones(net.shape, dtype=bool)
    if len(net.places[shaft]) == 1:
        return ~clear
    if shaft == 0:
        clear &= net.over_all(~_swept(terrain.own[:, None], net.places[0])[:, 0], 0)
    for other, mask in terrain.beside(shaft):
        swept = ~_swept(mask[:, net.places[other]], net.places[shaft])
        clear &= net.over_all(swept if shaft < other else swept.T, shaft, other)
    return clear


def _swept(blocked: Mask, at: NDArray[np.intp]) -> Mask:
    """Whether anything is blocked from each place to the next, both included, by the places of another shaft."""
    begun = np.roll(blocked, -int(at[0]), axis=0)
    swept = np.logical_or.reduceat(begun, at - at[0], axis=0)
    return np.asarray(swept | blocked[np.roll(at, -1)], dtype=bool)
