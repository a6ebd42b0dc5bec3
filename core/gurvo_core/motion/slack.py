"""What moves when one shaft of a drive is turned, and where its slack goes: rigid links, and shafts that stay where they are left.

Every shaft's turning is said in crank degrees, so that a drive which is taut all round moves by one figure. Between two shafts that
a run joins, the one the run goes to may lead the one it comes from by no more than the slack in that run, and pulls it along after that.
"""

__all__ = ["Tie", "TurnedOne", "slack_after", "turn_one", "turned_by"]

import heapq
import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray


@dataclass(frozen=True, kw_only=True)
class Tie:
    """A run between two shafts, the way the chain or belt travels: how much it is too long for where they stand [crank deg]."""

    begins: str
    ends: str
    slack_deg: float


@dataclass(frozen=True, kw_only=True)
class TurnedOne:
    """What came of turning one shaft."""

    moved_deg: Mapping[str, float]
    stopped_by: str | None


def _reach_deg(ties: Sequence[Tie], shaft: str, way: int) -> dict[str, float]:
    """How far a shaft turns before each of the others comes along: the least slack on any way from it.

    Turned on, it pulls what its run comes from; turned back, what its run goes to.
    """
    pulls: dict[str, list[tuple[str, float]]] = {}
    for tie in ties:
        leads, follows = (tie.ends, tie.begins) if way > 0 else (tie.begins, tie.ends)
        pulls.setdefault(leads, []).append((follows, max(0.0, tie.slack_deg)))
    reach, waiting = {shaft: 0.0}, [(0.0, shaft)]
    while waiting:
        far_deg, at = heapq.heappop(waiting)
        if far_deg > reach[at]:
            continue
        for follows, slack_deg in pulls.get(at, ()):
            if far_deg + slack_deg < reach.get(follows, math.inf):
                reach[follows] = far_deg + slack_deg
                heapq.heappush(waiting, (far_deg + slack_deg, follows))
    return reach


def turn_one(ties: Sequence[Tie], shaft: str, by_deg: float, held: Collection[str] = ()) -> TurnedOne:
    """Return what moves when one shaft is turned by hand and all others stay where they are until they are pulled.

    by_deg: how far; negative is against the running direction [crank deg].
    Source: [slack]: each run is a difference constraint, and the least movement that keeps them all is a shortest path.
    >>> run = Tie(begins="cam", ends="crank", slack_deg=18.0)
    >>> turn_one([run], "crank", 30.0).moved_deg
    {'crank': 30.0, 'cam': 12.0}
    """
    reach = _reach_deg(ties, shaft, 1 if by_deg > 0 else -1)
    stop = min((name for name in reach if name in held), key=lambda name: reach[name], default=None)
    far_deg = abs(by_deg) if stop is None else min(abs(by_deg), reach[stop])
    sign = 1.0 if by_deg > 0 else -1.0
    moved = {name: sign * (far_deg - own_deg) for name, own_deg in reach.items() if far_deg > own_deg or name == shaft}
    return TurnedOne(moved_deg=moved, stopped_by=stop if far_deg < abs(by_deg) else None)


def turned_by(ties: Sequence[Tie], shaft: str, by_deg: ArrayLike) -> dict[str, NDArray[np.float64]]:
    """Return what moves for many angles of one shaft at once, none held; for a whole turn that is looked at beforehand.

    by_deg: how far, each from where everything stands now [crank deg].
    """
    angles = np.asarray(by_deg, dtype=np.float64)
    on, back = _reach_deg(ties, shaft, 1), _reach_deg(ties, shaft, -1)
    return {
        name: np.maximum(0.0, angles - on.get(name, math.inf)) + np.minimum(0.0, angles + back.get(name, math.inf))
        for name in {**on, **back}
    }


def slack_after(tie: Tie, moved_deg: Mapping[str, float]) -> float:
    """Return how much slack a run has once its shafts have moved.

    moved_deg: by shaft [crank deg]; those left out stayed.
    Returned: what it then has too much [crank deg].
    What comes into the run less what goes out of it.
    """
    return tie.slack_deg + moved_deg.get(tie.begins, 0.0) - moved_deg.get(tie.ends, 0.0)
