"""In which order the fasteners of a joint are pulled: written down, or worked out from where they stand.

Places in mm, seen as the drawing shows them: x to the right, y down. The same places give the same order, always.
"""

__all__ = ["Rule", "order_of"]

import math
from collections.abc import Sequence
from typing import Literal

Rule = Literal["middle_outward", "crosswise", "opposing", "round"]
Place = tuple[float, float]
SAME_MM = 1e-6


def order_of(places: Sequence[Place], rule: Rule) -> list[int]:
    """Return the order in which fasteners are pulled.

    places: where each stands, x and y [mm].
    Source: Common practice, no source.
    Four in a square, crosswise: the second stands across from the first.
    >>> order_of([(0, 0), (10, 0), (10, 10), (0, 10)], "crosswise")
    [0, 2, 1, 3]
    """
    if not places:
        return []
    return {"middle_outward": _middle_outward, "crosswise": _crosswise, "opposing": _opposing, "round": _round}[rule](places)


def _far(a: Place, b: Place) -> float:
    return math.dist(a, b)


def _middle(places: Sequence[Place]) -> Place:
    xs, ys = [x for x, _ in places], [y for _, y in places]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


def _middle_outward(places: Sequence[Place]) -> list[int]:
    """Ring by ring along the longer side; within a ring across to the farthest left."""
    mid = _middle(places)
    along = 0 if _spread(places, 0) >= _spread(places, 1) else 1
    rings: dict[float, list[int]] = {}
    for n, place in enumerate(places):
        rings.setdefault(round(abs(place[along] - mid[along]), 3), []).append(n)
    order: list[int] = []
    for _, ring in sorted(rings.items()):
        order += _across(places, ring, order[-1] if order else None)
    return order


def _spread(places: Sequence[Place], axis: int) -> float:
    return max(place[axis] for place in places) - min(place[axis] for place in places)


def _across(places: Sequence[Place], ring: list[int], last: int | None) -> list[int]:
    left, order = list(ring), list[int]()
    while left:
        before = order[-1] if order else last
        chosen = left[0] if before is None else max(left, key=lambda n: (round(_far(places[n], places[before]), 6), -n))
        order.append(chosen)
        left.remove(chosen)
    return order


def _crosswise(places: Sequence[Place]) -> list[int]:
    """Each across from the one before; of those, the one farthest from all that are pulled already."""
    left, order = list(range(1, len(places))), [0]
    while left:
        if len(order) % 2:  # across from the one before
            chosen = max(left, key=lambda n: (round(_far(places[n], places[order[-1]]), 6), -n))
        else:  # midway between those that are pulled
            chosen = max(left, key=lambda n: (round(min(_far(places[n], places[one]) for one in order), 6), -n))
        order.append(chosen)
        left.remove(chosen)
    return order


def _opposing(places: Sequence[Place]) -> list[int]:
    """The first and the one across, then the next round and the one across from it."""
    left, order = _round(places), list[int]()
    while left:
        first = left.pop(0)
        order.append(first)
        if left:
            across = max(left, key=lambda n: (round(_far(places[n], places[first]), 6), -n))
            order.append(across)
            left.remove(across)
    return order


def _round(places: Sequence[Place]) -> list[int]:
    """Once round, clockwise as drawn, from the first."""
    x, y = _middle(places)
    begin = math.atan2(places[0][1] - y, places[0][0] - x)

    def turned(n: int) -> float:
        angle = (math.atan2(places[n][1] - y, places[n][0] - x) - begin) % math.tau
        return 0.0 if math.tau - angle < SAME_MM else round(angle, 9)

    return sorted(range(len(places)), key=lambda n: (turned(n), n))
