"""Sizes from stock: which shell, washer or piston goes to which place, so that all clearances lie close about the one that is wanted."""

__all__ = ["Bare", "Chosen", "choose"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

OUT_OF_LIMITS = 1e3  # dearer than any spread within them, in squares of the tolerance
SMALLEST_TOLERANCE_MM = 1e-3
ROUNDING_MM = 1e-9


@dataclass(frozen=True, kw_only=True)
class Bare:
    """One place and its clearance with a part of no size at all [mm]: the middle, and how far least and most lie from that."""

    place: str
    bare_mm: float
    half_mm: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Chosen:
    """What goes to one place."""

    place: str
    size: str
    gives_mm: float  # in the middle
    half_mm: float = 0.0  # its least and most lie so far from that

    @property
    def ends_mm(self) -> tuple[float, float]:
        """Least and most."""
        return self.gives_mm - self.half_mm, self.gives_mm + self.half_mm


def choose(
    needs: Sequence[Bare],
    sizes_mm: Mapping[str, float],
    counts: Mapping[str, int],
    *,
    takes: float,
    wanted_mm: float,
    limits_mm: tuple[float | None, float | None] = (None, None),
) -> list[Chosen] | None:
    """Return the sizes with the least spread about the wanted clearance.

    sizes_mm: sizes by name [mm].
    takes: clearance lost for each mm of size [-].
    wanted_mm: what is aimed at [mm].
    limits_mm: least and most [mm]: a size with which a place's own least or most lies beyond them is taken only where no other is left.
    Source: Least squares over an assignment: scipy's linear_sum_assignment, each size as often as it is there.
    >>> needs = [Bare(place="main 1", bare_mm=4.05), Bare(place="main 2", bare_mm=4.06)]
    >>> found = choose(needs, {"green": 2.000, "blue": 2.005}, {"green": 2, "blue": 1}, takes=2, wanted_mm=0.05)
    >>> [(one.size, round(one.gives_mm, 3)) for one in found]
    [('green', 0.05), ('blue', 0.05)]
    """
    columns = [name for name, count in counts.items() for _ in range(min(count, len(needs))) if name in sizes_mm]
    if len(columns) < len(needs):
        return None
    bare = np.array([need.bare_mm for need in needs])
    sizes = np.array([sizes_mm[name] for name in columns])
    gives: NDArray[np.float64] = bare[:, None] - takes * sizes[None, :]
    low = -np.inf if limits_mm[0] is None else limits_mm[0]
    high = np.inf if limits_mm[1] is None else limits_mm[1]
    width = high - low if np.isfinite(high - low) else 2 * max(abs(wanted_mm), SMALLEST_TOLERANCE_MM)
    cost = ((gives - wanted_mm) / max(width, SMALLEST_TOLERANCE_MM)) ** 2
    half = np.array([need.half_mm for need in needs])[:, None]
    cost[(gives - half < low - ROUNDING_MM) | (gives + half > high + ROUNDING_MM)] += OUT_OF_LIMITS
    rows, chosen = scipy.optimize.linear_sum_assignment(cost)
    return [
        Chosen(place=needs[row].place, size=columns[column], gives_mm=float(gives[row, column]), half_mm=needs[row].half_mm)
        for row, column in zip(rows, chosen, strict=True)
    ]
