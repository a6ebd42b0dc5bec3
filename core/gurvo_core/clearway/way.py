"""The way from where shafts stand to where they must be: one shaft at a time, safest first, then shortest.

Safest: first with the gaps that are wanted, then with those that just do not meet. Turning one shaft while another is held against its
springs counts for more, and for much more where that one would meet something if it slipped. Camshafts of several banks are brought there
bank by bank: valves of different banks never meet.
"""

__all__ = ["Way", "at_least_deg", "find_way", "goals_of", "turned_deg"]

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise, permutations

import numpy as np
import scipy
from numpy.typing import NDArray

from gurvo_core.clearway.ground import CYCLE, LEVELS, Ground, Level
from gurvo_core.clearway.net import CAM_SHARE, MOST_NODES, Net, edges_of, net_of, steps_of
from gurvo_core.clearway.rest import SpringLoad
from gurvo_core.clearway.stands import CRANK, Move, Stands, Terrain, places_of, terrain_of

NEARLY = 1.25  # of what would have to be turned, were nothing in the way
MOST_AT_ONCE = 3  # shafts: the crank and the camshafts of one bank


@dataclass(frozen=True, kw_only=True)
class Way:
    """Moves that lead there, and what is kept clear on all of them."""

    moves: tuple[Move, ...]
    level: Level


def turned_deg(moves: Sequence[Move]) -> float:
    """Return what all shafts together are turned by, each in its own degrees."""
    return sum(abs(move.by) * (1.0 if move.shaft == CRANK else CAM_SHARE) for move in moves)


def find_way(ground: Ground, stands: Stands, goal: Mapping[str, int], loads: Mapping[str, SpringLoad]) -> Way | None:
    """Return the safest and then shortest way to where some shafts must be; None where none is found.

    goal: crank degrees by shaft; a shaft that is not named may end anywhere, but is not turned for nothing.
    """
    for level in LEVELS:
        moves = _in_turn(Search(ground=ground, goal=goal, loads=loads, level=level), stands)
        if moves is not None:
            terrain = terrain_of(ground, stands, level)
            return Way(moves=tuple(_fewest(terrain, tuple(places_of(terrain, stands)), moves)), level=level)
    return None


@dataclass(frozen=True, kw_only=True, eq=False)
class Search:
    """What is looked for, by what."""

    ground: Ground
    goal: Mapping[str, int]
    loads: Mapping[str, SpringLoad]
    level: Level

    def of(self, shafts: Sequence[str]) -> "Search":
        """The same for some of the shafts alone."""
        return replace(self, goal={shaft: at for shaft, at in self.goal.items() if shaft in shafts})


def _in_turn(search: Search, stands: Stands) -> list[Move] | None:
    """All at once where they are few; else bank by bank, in whichever order is shorter."""
    if len(stands.free) < MOST_AT_ONCE:
        return _found(search, stands, stands.free, MOST_NODES)
    ways: list[list[Move]] = []
    for order in permutations(_groups(search, stands)):
        way = _by_banks(search, stands, order)
        if way is not None:
            ways.append(way)
        if ways and turned_deg(ways[0]) <= NEARLY * at_least_deg(stands, search.goal):
            break  # another order cannot be much shorter
    return min(ways, key=turned_deg, default=None)


def _groups(search: Search, stands: Stands) -> list[tuple[str, ...]]:
    """Camshafts whose valves could meet each other, each with its like; a bank of which none has to be anywhere is left out."""
    groups: list[set[str]] = [{cam} for cam in stands.free]
    firsts = [(stands.first_of(one), stands.first_of(other)) for one, other in search.ground.meeting if {one, other} <= stands.cams.keys()]
    for one, other in firsts:
        if one != other and CRANK not in (one, other):
            joined = {cam for group in groups if group & {one, other} for cam in group}
            groups = [*(group for group in groups if not group & joined), joined]
    return [tuple(sorted(group)) for group in groups if group & search.goal.keys()] or [()]


def _by_banks(search: Search, stands: Stands, order: Sequence[tuple[str, ...]]) -> list[Move] | None:
    moves: list[Move] = []
    for n, group in enumerate(order):
        last = (CRANK,) if n == len(order) - 1 else ()
        found = _found(search.of((*group, *last)), stands, group, MOST_NODES // len(order))
        if found is None:
            return None
        for move in found:
            stands = stands.moved(move)
        moves += found
    return moves


def _found(search: Search, stands: Stands, turning: Sequence[str], most: int) -> list[Move] | None:
    """Crank and some camshafts; all others stay where they are."""
    terrain = terrain_of(search.ground, stands, search.level)
    at, goal = tuple(places_of(terrain, stands)), search.goal
    if any(terrain.blocked(at, shaft)[at[shaft]] for shaft in range(len(at))):
        return None
    goals = {name: goals_of(stands, name, goal[name]) for name in terrain.shafts if name in goal}
    known = [{place} | goals.get(name, set()) for place, name in zip(at, terrain.shafts, strict=True)]
    edges = zip(terrain.shafts, edges_of(terrain, search.ground, search.level), strict=True)
    turns = {CRANK, *turning} - stands.held
    net = net_of(known, [edge if name in turns else None for name, edge in edges], most)
    graph = steps_of(terrain, net, search.loads, stands.running_only)
    length, before = scipy.sparse.csgraph.dijkstra(graph, indices=net.node(at), return_predecessors=True)
    ends = _ends(net, terrain, goals)
    node = int(ends[np.argmin(length[ends])])
    if not np.isfinite(length[node]):
        return None
    nodes = [node]
    while (node := int(before[node])) >= 0:
        nodes.append(node)
    return list(_moves(net, terrain, [np.unravel_index(one, net.shape) for one in reversed(nodes)]))


def at_least_deg(stands: Stands, goal: Mapping[str, int]) -> float:
    """Return the least that has to be turned, were nothing in the way, each shaft in its own degrees [deg]."""
    return sum(
        min(turned_deg([Move(shaft=shaft, by=by)]) for place in goals_of(stands, shaft, to) for by in _both_ways(stands, shaft, place))
        for shaft, to in goal.items()
    )


def _both_ways(stands: Stands, shaft: str, place: int) -> tuple[int, int]:
    on = (place - stands.place(shaft)) % CYCLE
    return on, CYCLE - on


def goals_of(stands: Stands, shaft: str, place: int) -> set[int]:
    """Return the places at which a shaft is where it must be: a crank that takes no camshaft along, on either stroke."""
    either = shaft == CRANK and not stands.coupled
    return {place % CYCLE, (place + CYCLE // 2) % CYCLE} if either else {place % CYCLE}


def _ends(net: Net, terrain: Terrain, goals: Mapping[str, set[int]]) -> NDArray[np.intp]:
    which = [
        [net.index(n, place) for place in goals[name]] if name in goals else range(len(net.places[n]))
        for n, name in enumerate(terrain.shafts)
    ]
    return np.asarray(net.nodes[np.ix_(*which)]).ravel()


def _moves(net: Net, terrain: Terrain, at: Sequence[tuple[np.intp, ...]]) -> Iterator[Move]:
    """Steps from place to place, those of one shaft the same way joined."""
    last: Move | None = None
    for one, other in pairwise(at):
        shaft = next(n for n in range(len(one)) if one[n] != other[n])
        begin, end = int(one[shaft]), int(other[shaft])
        steps = net.steps_deg(shaft)
        is_on = end == (begin + 1) % len(steps)
        if is_on and begin == (end + 1) % len(steps):  # of two places each is next to the other: the shorter arc
            is_on = steps[begin] <= steps[end]
        move = Move(shaft=terrain.shafts[shaft], by=int(steps[begin]) if is_on else -int(steps[end]))
        if last is not None and last.shaft == move.shaft and (last.by > 0) == (move.by > 0):
            last = Move(shaft=last.shaft, by=last.by + move.by)
            continue
        if last is not None:
            yield last
        last = move
    if last is not None:
        yield last


def _fewest(terrain: Terrain, at: tuple[int, ...], moves: Sequence[Move]) -> Sequence[Move]:
    """The same turns in fewer moves, where one order of them is clear: a way that winds is hard to follow at the bench."""
    best = list(moves)
    for size in range(len(best), 2, -1):
        for first in range(len(best) - size + 1):
            window = best[first : first + size]
            shorter = _joined(terrain, _after(terrain, at, best[:first]), window)
            if shorter is not None:
                return _fewest(terrain, at, [*best[:first], *shorter, *best[first + size :]])
    return best


def _after(terrain: Terrain, at: tuple[int, ...], moves: Sequence[Move]) -> tuple[int, ...]:
    now = list(at)
    for move in moves:
        shaft = terrain.shafts.index(move.shaft)
        now[shaft] = (now[shaft] + move.by) % CYCLE
    return tuple(now)


def _joined(terrain: Terrain, at: tuple[int, ...], window: Sequence[Move]) -> list[Move] | None:
    turned: dict[str, int] = {}
    for move in window:
        turned[move.shaft] = turned.get(move.shaft, 0) + move.by
    joined = [Move(shaft=shaft, by=by) for shaft, by in turned.items() if by]
    if len(joined) >= len(window):
        return None
    return next((list(order) for order in permutations(joined) if _is_clear(terrain, at, order)), None)


def _is_clear(terrain: Terrain, at: tuple[int, ...], moves: Sequence[Move]) -> bool:
    stands = [_after(terrain, at, moves[:n]) for n in range(len(moves))]
    return all(terrain.is_clear(here, terrain.shafts.index(move.shaft), move.by) for here, move in zip(stands, moves, strict=True))
