"""What an engine came to, figure by figure, for looking back over many of a family."""

__all__ = ["CameTo", "Spread", "spread_of"]

import math
from collections.abc import Sequence
from statistics import median
from typing import Literal, NamedTuple

from gurvo_core.units import Unit

Sort = Literal["clearance", "valve gap", "timing", "pull"]


class CameTo(NamedTuple):
    """One figure that stands, in mm, degrees or N·m."""

    sort: Sort
    of: str  # of which fit, joint or camshaft, by id
    name: str  # the same in words
    place: str
    value: float
    unit: Unit
    gauge: str  # with what it was read, empty where nobody said
    seq: int  # the entry by which it is so
    least: float | None = None
    most: float | None = None


class Spread(NamedTuple):
    """How figures lie: how many, their middle, and how far apart."""

    times: int
    mean: float
    median: float
    scatter: float | None  # standard deviation; None of a single one
    least: float
    most: float


def spread_of(values: Sequence[float]) -> Spread:
    """Return how figures lie; all in one unit.

    Raises ValueError where there is none.
    Source: [gum] 4.2.2: the experimental standard deviation.
    >>> spread_of([0.04, 0.05, 0.06]).scatter
    0.01
    """
    if not values:
        raise ValueError("there are no figures to look at")
    mean = math.fsum(values) / len(values)
    squares = math.fsum((value - mean) ** 2 for value in values)
    scatter = round(math.sqrt(squares / (len(values) - 1)), 9) if len(values) > 1 else None
    return Spread(len(values), mean, median(values), scatter, min(values), max(values))
