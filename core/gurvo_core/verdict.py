"""Verdicts by the guard-band rule: nothing is called in or out unless the figure's own uncertainty allows it."""

__all__ = ["Judgement", "Verdict", "judge", "judge_size"]

import math
from dataclasses import dataclass
from typing import Literal

from gurvo_core.uncertainty import Estimate

Verdict = Literal["in", "out", "can't tell", "no limit known"]
ROUNDING = 1e-9  # a distance that differs from U by rounding alone counts as equal to it


@dataclass(frozen=True, kw_only=True)
class Judgement:
    """A verdict and, when it cannot tell, what would settle it."""

    verdict: Verdict
    settles: str = ""


def judge(figure: Estimate, low: float | None, high: float | None, unit: str) -> Judgement:
    """Return whether a figure is inside its limits.

    Parameters
    ----------
    figure : Estimate
        The figure and its standard uncertainty [unit].
    low, high : float or None
        Limits [unit]; None = not known.
    unit : str
        As it is said, such as ``°``.

    Returns
    -------
    judgement : Judgement
        ``in`` when inside by at least U, ``out`` when outside by at least U, otherwise ``can't tell``; on a limit it can't tell. Without
        limits ``no limit known``.

    Source
    ------
    [decision-rule] ISO 14253-1, from memory: acceptance zone = specification less U either side.

    Example
    -------
    >>> judge(Estimate(value=106.5, u=0.2), 106.0, 110.0, "°").verdict
    'in'
    """
    if low is None or high is None:
        return Judgement(verdict="no limit known")
    inside = min(figure.value - low, high - figure.value)
    needed = figure.expanded - ROUNDING
    if inside > 0 and inside >= needed:
        return Judgement(verdict="in")
    if inside < 0 and -inside >= needed:
        return Judgement(verdict="out")
    if figure.expanded > (high - low) / 2:
        settles = f"U = {figure.expanded:.2f}{unit} is more than half the tolerance: these gauges cannot settle it, use finer ones."
    else:
        settles = (
            f"It lies {abs(inside):.2f}{unit} from a limit and U = {figure.expanded:.2f}{unit}: take more readings or use a finer gauge."
        )
    return Judgement(verdict="can't tell", settles=settles)


def judge_size(figure: Estimate, low_mm: float | None, high_mm: float | None) -> Verdict:
    """Return whether a size lies inside its limits.

    Parameters
    ----------
    figure : Estimate
        The size [mm].
    low_mm, high_mm : float or None
        Limits [mm]; None = no limit on that side.

    Returns
    -------
    verdict : Verdict
        ``no limit known`` where there is none at all.

    Source
    ------
    [decision-rule] ISO 14253-1.

    Example
    -------
    >>> judge_size(Estimate(value=0.30, u=0.01), None, 0.35), judge_size(Estimate(value=0.34, u=0.01), None, 0.35)
    ('in', "can't tell")
    """
    if low_mm is None and high_mm is None:
        return "no limit known"
    low, high = -math.inf if low_mm is None else low_mm, math.inf if high_mm is None else high_mm
    return judge(figure, low, high, " mm").verdict
