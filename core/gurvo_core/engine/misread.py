"""Points of a measured lift table that look mis-read, by the second difference."""

__all__ = ["Suspect", "suspects_in"]

from collections.abc import Sequence
from statistics import median

from pydantic import BaseModel, ConfigDict

NEIGHBOURS = 2
MIN_MM = 0.02  # two steps of a common dial; less is no mis-reading
TIMES_USUAL = 6.0


class Suspect(BaseModel):
    """A point that its neighbours do not expect."""

    model_config = ConfigDict(extra="forbid")

    line: int
    cam_deg: float
    lobe_lift_mm: float
    expected_mm: float
    sentence: str


def suspects_in(points: Sequence[tuple[int, float, float]]) -> list[Suspect]:
    """Return the points of a lift table that look mis-read.

    points: line of the file, cam angle [deg], lobe lift [mm], in order.
    Source: A wrong reading d in an even table stands out as d, -2d, d in the second differences; compared with the cubic through the two
    points either side, its own share is d. Shown when it is far above what is usual in the table.
    >>> lifts = [n * n + (0.5 if n == 6 else 0.0) for n in range(14)]
    >>> [suspect.line for suspect in suspects_in([(n, float(n), lift) for n, lift in enumerate(lifts)])]
    [6]
    """
    inner = range(NEIGHBOURS, len(points) - NEIGHBOURS)
    off = {n: points[n][2] - _expected_mm(points, n) for n in inner}
    if not off:
        return []
    usual = median(abs(value) for value in off.values())
    found = []
    for n, value in off.items():
        worst = max(abs(off[other]) for other in range(n - NEIGHBOURS, n + NEIGHBOURS + 1) if other in off)
        if abs(value) > max(MIN_MM, TIMES_USUAL * usual) and abs(value) == worst:
            line, cam_deg, lift_mm = points[n]
            expected = lift_mm - value
            sentence = f"Line {line}, {cam_deg:g}°: {lift_mm:.3f} mm looks mis-read; its neighbours expect about {expected:.3f} mm."
            found.append(Suspect(line=line, cam_deg=cam_deg, lobe_lift_mm=lift_mm, expected_mm=expected, sentence=sentence))
    return found


def _expected_mm(points: Sequence[tuple[int, float, float]], n: int) -> float:
    """The cubic through two points either side, at the point between (Lagrange)."""
    at = points[n][1]
    others = [points[n + step] for step in (-2, -1, 1, 2)]
    total = 0.0
    for one in others:
        share = one[2]
        for other in others:
            if other is not one:
                gap = one[1] - other[1]
                share *= (at - other[1]) / gap if gap else 0.0
        total += share
    return total
