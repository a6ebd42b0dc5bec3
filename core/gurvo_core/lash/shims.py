"""Which shim goes to which valve: the engine's own first, then stock, then to be bought; the fewest new ones, and lash near the middle."""

__all__ = ["Measured", "ShimPlan", "Shimmed", "plan_shims"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second

SOURCES = ("own", "stock", "to buy")
# each is dearer than all before it together could be, so that the count of new ones decides first
MOVED, NEW, BOUGHT, BEYOND = 2.0, 1e3, 1e6, 1e9


@dataclass(frozen=True, kw_only=True)
class Measured:
    """One valve: the shim that is in and the lash measured with it [mm]."""

    valve: str
    shim_mm: float
    lash_mm: float
    wanted_mm: float
    limits_mm: tuple[float, float]
    acts_by: float = 1.0

    def lash_with(self, shim_mm: float) -> float:
        """The lash with another shim [mm]."""
        return self.lash_mm + self.acts_by * (self.shim_mm - shim_mm)


@dataclass(frozen=True, kw_only=True)
class Shimmed:
    """What goes to one valve."""

    valve: str
    shim_mm: float
    source: str  # own, stock or to buy
    came_from: str  # the valve its own shim came from; empty for a new one
    lash_mm: float
    is_in: bool


@dataclass(frozen=True, kw_only=True)
class ShimPlan:
    """All of them, and how many are moved or new."""

    shims: tuple[Shimmed, ...]
    moved: int
    new: int
    to_buy: int


def plan_shims(measured: Sequence[Measured], stock: Mapping[float, int], made_mm: Sequence[float]) -> ShimPlan:
    """Return which shim goes to which valve.

    measured: every valve, with the shim that is in [mm].
    stock: how many of each thickness are in stock [mm].
    made_mm: the thicknesses that are made [mm].
    Source: Assignment of least cost, scipy's linear_sum_assignment.
    >>> limits = {"wanted_mm": 0.2, "limits_mm": (0.15, 0.25)}
    >>> two = [Measured(valve="a", shim_mm=2.40, lash_mm=0.30, **limits), Measured(valve="b", shim_mm=2.50, lash_mm=0.10, **limits)]
    >>> plan = plan_shims(two, {}, [2.40, 2.45, 2.50])
    >>> [(one.shim_mm, one.source, round(one.lash_mm, 2)) for one in plan.shims], plan.new
    ([(2.5, 'own', 0.2), (2.4, 'own', 0.2)], 0)
    """
    if not measured:
        return ShimPlan(shims=(), moved=0, new=0, to_buy=0)
    count = len(measured)
    in_stock = [size for size, there in sorted(stock.items()) for _ in range(min(there, count))]
    made = np.asarray(sorted(made_mm), dtype=np.float64)
    own = np.array([one.shim_mm for one in measured])
    sizes = np.concatenate([own, np.asarray(in_stock, dtype=np.float64)])
    cost = np.full((count, len(sizes) + count), np.inf)
    for row, one in enumerate(measured):
        cost[row, : len(sizes)] = _cost(one, sizes)
        cost[row, :count] += np.where(np.arange(count) == row, 0.0, MOVED)
        cost[row, count : len(sizes)] += NEW
        if made.size:
            # of each valve's own column: the best there is to buy
            cost[row, len(sizes) + row] = BOUGHT + float(np.min(_cost(one, made)))
    rows, columns = scipy.optimize.linear_sum_assignment(np.where(np.isfinite(cost), cost, BEYOND * BEYOND))
    shims = tuple(_shimmed(measured, row, column, (sizes, made)) for row, column in zip(rows, columns, strict=True))
    return ShimPlan(
        shims=shims,
        moved=sum(one.source == "own" and one.came_from != one.valve for one in shims),
        new=sum(one.source != "own" for one in shims),
        to_buy=sum(one.source == "to buy" for one in shims),
    )


def _cost(one: Measured, sizes: "np.typing.NDArray[np.float64]") -> "np.typing.NDArray[np.float64]":
    """How far from the middle the lash would be, from 0 to 1 within the limits; dearest beyond them."""
    lash = one.lash_mm + one.acts_by * (one.shim_mm - sizes)
    low, high = one.limits_mm
    half = max((high - low) / 2, 1e-3)
    off = ((lash - one.wanted_mm) / half) ** 2
    slack = half * 1e-6  # a lash on its limit but for rounding
    return np.asarray(np.where((lash < low - slack) | (lash > high + slack), BEYOND + off, np.minimum(off, 1.0)), dtype=np.float64)


def _shimmed(measured: Sequence[Measured], row: int, column: int, there: "tuple[np.typing.NDArray[np.float64], ...]") -> Shimmed:
    sizes, made = there
    one, count = measured[row], len(measured)
    size = float(sizes[column]) if column < len(sizes) else float(made[int(np.argmin(_cost(one, made)))])
    source = SOURCES[0] if column < count else SOURCES[1] if column < len(sizes) else SOURCES[2]
    lash = one.lash_with(size)
    slack = 1e-9
    is_in = one.limits_mm[0] - slack <= lash <= one.limits_mm[1] + slack
    came_from = measured[column].valve if column < count else ""
    return Shimmed(valve=one.valve, shim_mm=size, source=source, came_from=came_from, lash_mm=lash, is_in=is_in)
