"""One pull against its window and against its siblings on the same stage, with numbers and what to do."""

__all__ = ["FROM_SIBLINGS", "USUAL_BEFORE", "USUAL_END", "Family", "Window", "family_of", "outside", "read_to", "stands_apart"]

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

FROM_SIBLINGS = 4  # fewer do not make a family
NORMAL = 1.4826  # median absolute deviation to standard deviation, normal scatter
APART = 4.5  # of the family's scatter from the middle: of sound joints about one in a hundred is told of then
APART_FROM_REST = 5.5  # the same against those that lie nearer the middle: several that are bad alike widen the scatter of all
USUAL_END, USUAL_BEFORE = 0.03, 0.10  # of the middle: how torques at an end, and angles before a torque, scatter where all is well
USUAL_WEIGHT = 4.0  # what is usual counts as so many figures
MAD_FREEDOM = 0.37  # of a sample's freedom, as a median absolute deviation tells its scatter
# small-sample factors of the median absolute deviation, from memory of Croux and Rousseeuw; above nine n / (n - 0.8)
_SMALL = {2: 1.196, 3: 1.495, 4: 1.363, 5: 1.206, 6: 1.200, 7: 1.140, 8: 1.129, 9: 1.107}
STEPS = (5.0, 2.0, 1.0, 0.5, 0.2, 0.1)  # to which figures are read
ON_STEP = 1e-6


@dataclass(frozen=True)
class Window:
    """Limits; None on a side where there is none."""

    least: float | None
    most: float | None


@dataclass(frozen=True)
class Family:
    """The middle of siblings and how far they scatter, robustly."""

    count: int
    middle: float
    measured: float  # as these figures alone scatter
    scatter: float  # as they are judged by
    values: tuple[float, ...] = ()
    resolution: float = 0.0
    usual: float = USUAL_END

    def without_from(self, value: float) -> "Family | None":
        """Those that lie nearer the middle than a figure on its side; None where they are not most of them."""
        low = value < self.middle
        rest = [one for one in self.values if (one > value if low else one < value)]
        return family_of(rest, resolution=self.resolution, usual=self.usual) if 2 * len(rest) > self.count else None


def outside(value: float, window: Window) -> str:
    """Return on which side of a window a figure lies. value: the figure, in the window's unit [-]."""
    if window.least is not None and value < window.least:
        return "low"
    return "high" if window.most is not None and value > window.most else ""


def read_to(values: Sequence[float]) -> float:
    """Return to which step figures were read, as far as they tell.

    values: as they were read, all in one unit [-].
    Returned: the largest usual step that all of them are multiples of; 0 where there is none [-].
    Source: Common practice, no source.
    >>> read_to([30, 35, 40]), read_to([31, 35]), read_to([31.37])
    (5.0, 1.0, 0.0)
    """
    return next((step for step in STEPS if all(abs(value / step - round(value / step)) < ON_STEP for value in values)), 0.0)


def family_of(values: Sequence[float], *, resolution: float = 0.0, usual: float = USUAL_END) -> Family | None:
    """Return the middle and scatter of siblings.

    values: the same figure of each, all in one unit [-].
    resolution: smallest step of what they were read on, same unit [-].
    usual: how sound siblings scatter, as a share of the middle [-]: few of them tell little of it.
    Source: [robust-scale] in docs/sources.md: median, and median absolute deviation with its small-sample factor, weighed with what is
    usual by their degrees of freedom; a step of reading adds to it what both figures may be rounded by.
    >>> family = family_of([70, 72, 69, 54, 71, 70])
    >>> family.middle, round(family.scatter, 2)
    (70.0, 2.0)
    """
    count = len(values)
    if count < FROM_SIBLINGS:
        return None
    middle = median(values)
    factor = _SMALL.get(count, count / (count - 0.8))
    measured = NORMAL * factor * median(abs(value - middle) for value in values)
    freedom = MAD_FREEDOM * (count - 1)
    pooled = (USUAL_WEIGHT * (usual * middle) ** 2 + freedom * measured**2) / (USUAL_WEIGHT + freedom)
    scatter = math.sqrt(pooled + resolution**2 / 3)
    return Family(count, middle, measured, scatter, tuple(values), resolution, usual)


def stands_apart(value: float, family: Family | None) -> str:
    """Return whether a figure stands apart from its siblings.

    value: the figure, in the family's unit [-].
    Source: [robust-scale] in docs/sources.md: by simulation, of sound joints about one in a hundred has a bolt that stands so far apart.
    >>> stands_apart(54, family_of([70, 72, 69, 54, 71, 70]))
    'low'
    """
    if family is None:
        return ""
    is_apart = abs(value - family.middle) > APART * family.scatter
    if not is_apart:
        nearer = family.without_from(value)
        is_apart = nearer is not None and abs(value - nearer.middle) > APART_FROM_REST * nearer.scatter
    return ("low" if value < family.middle else "high") if is_apart else ""
