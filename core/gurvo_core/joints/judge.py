"""One pull against its window and against its siblings on the same stage, with numbers and what to do."""

__all__ = ["FROM_SIBLINGS", "Family", "Window", "family_of", "outside", "stands_apart"]

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

FROM_SIBLINGS = 4  # fewer do not make a family
NORMAL = 1.4826  # median absolute deviation to standard deviation, normal scatter
APART = 3.5  # robust standard deviations from the middle
# small-sample factors of the median absolute deviation, from memory of Croux and Rousseeuw; above nine n / (n - 0.8)
_SMALL = {2: 1.196, 3: 1.495, 4: 1.363, 5: 1.206, 6: 1.200, 7: 1.140, 8: 1.129, 9: 1.107}
LEAST_SHARE = 0.02  # of the middle: pulls that agree better than any hand does make no family narrower than this


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
    scatter: float


def outside(value: float, window: Window) -> str:
    """Return on which side of a window a figure lies.

    Parameters
    ----------
    value : float
        The figure, in the window's unit [-].
    window : Window
        Its limits.

    Returns
    -------
    side : {"", "low", "high"}
        Empty inside.

    Source
    ------
    Arithmetic.

    Example
    -------
    >>> outside(96, Window(85, 95))
    'high'
    """
    if window.least is not None and value < window.least:
        return "low"
    return "high" if window.most is not None and value > window.most else ""


def family_of(values: Sequence[float], *, resolution: float = 0.0) -> Family | None:
    """Return the middle and scatter of siblings.

    Parameters
    ----------
    values : sequence of float
        The same figure of each, all in one unit [-].
    resolution : float
        Smallest step of what they were read on, same unit [-]; scatter is never taken as less.

    Returns
    -------
    family : Family or None
        None as long as there are too few.

    Source
    ------
    [robust-scale] in docs/sources.md: median, and median absolute deviation with its small-sample factor.

    Example
    -------
    >>> family = family_of([70, 72, 69, 54, 71, 70])
    >>> family.middle, round(family.scatter, 2)
    (70.0, 1.78)
    """
    count = len(values)
    if count < FROM_SIBLINGS:
        return None
    middle = median(values)
    deviation = median(abs(value - middle) for value in values)
    factor = _SMALL.get(count, count / (count - 0.8))
    least = max(resolution, LEAST_SHARE * abs(middle) / 2)
    return Family(count=count, middle=middle, scatter=max(NORMAL * factor * deviation, least))


def stands_apart(value: float, family: Family | None) -> str:
    """Return whether a figure stands apart from its siblings.

    Parameters
    ----------
    value : float
        The figure, in the family's unit [-].
    family : Family or None
        Its siblings, itself among them.

    Returns
    -------
    side : {"", "low", "high"}
        Empty where it belongs to them, or where there are too few to tell.

    Source
    ------
    [robust-scale] in docs/sources.md: three and a half robust standard deviations.

    Example
    -------
    >>> stands_apart(54, family_of([70, 72, 69, 54, 71, 70]))
    'low'
    """
    if family is None or abs(value - family.middle) <= APART * family.scatter:
        return ""
    return "low" if value < family.middle else "high"
