"""Verdicts by the guard-band rule: nothing is called in or out unless the figure's own uncertainty allows it."""

__all__ = ["DecisionRule", "Judgement", "Verdict", "guard_band", "judge", "judge_size", "judged_by", "largest_telling_u"]

import math
from dataclasses import dataclass
from typing import Literal

from gurvo_core.uncertainty import Estimate

Verdict = Literal["in", "out", "can't tell", "no limit known"]
DecisionRule = Literal["U", "0.83 U", "4:1"]
ONE_SIDED = 0.83  # 1.65 u over 2 u: a normal error passes it on one side once in twenty
FOUR_TO_ONE = 8  # limits at least four times as far apart as the 2 U between -U and +U
ROUNDING = 1e-9  # a distance that differs from U by rounding alone counts as equal to it


@dataclass(frozen=True, kw_only=True)
class Judgement:
    """A verdict and, when it cannot tell, what would settle it."""

    verdict: Verdict
    settles: str = ""


def guard_band(expanded: float, low: float, high: float, rule: DecisionRule) -> float:
    """Return how far inside its limits a figure must lie to be in, or outside to be out.

    expanded: expanded uncertainty U = 2u [unit].
    low, high: limits, infinite where there is none [unit].
    Returned: width of the guard band [unit]; nothing under 4:1 where the gauge is good enough for it, else U.
    Source: [decision-rule] ISO 14253-1:1998 and ILAC-G8 (U), ISO 14253-1:2017 (1.65 u at a single limit), ASME B89.7.3.1 (4:1), from
    memory.
    >>> guard_band(0.4, 106, 110, "U"), guard_band(0.4, 106, 110, "4:1"), guard_band(0.6, 106, 110, "4:1")
    (0.4, 0.0, 0.6)
    """
    if rule == "0.83 U":
        return ONE_SIDED * expanded
    return 0.0 if rule == "4:1" and FOUR_TO_ONE * expanded <= high - low < math.inf else expanded


def judged_by(rule: DecisionRule) -> str:
    """How a decision rule is named beside verdicts; nothing for U, which is the usual one."""
    return {
        "U": "",
        "0.83 U": "guard band 0.83 U (ISO 14253-1:2017)",
        "4:1": "4:1 (ASME B89.7.3.1): no guard band where the limits lie eight U apart, else U",
    }[rule]


def largest_telling_u(away: float, low: float, high: float, rule: DecisionRule) -> float:
    """Return the largest U with which a figure so far from a limit is told apart from it.

    away: how far it lies from the limit [unit].
    low, high: the limits, infinite where there is none [unit].
    Returned: U [unit].
    """
    if rule == "4:1" and high - low < math.inf:
        return max(away, (high - low) / FOUR_TO_ONE)
    return away / ONE_SIDED if rule == "0.83 U" else away


def judge(figure: Estimate, low: float | None, high: float | None, unit: str, rule: DecisionRule = "U") -> Judgement:
    """Return whether a figure is inside its limits.

    figure: the figure and its standard uncertainty [unit].
    low, high: limits [unit]; None = not known.
    Source: [decision-rule] ISO 14253-1, from memory: acceptance zone = specification less the guard band either side.
    >>> judge(Estimate(value=106.5, u=0.2), 106.0, 110.0, "°").verdict
    'in'
    """
    if low is None or high is None:
        return Judgement(verdict="no limit known")
    inside = min(figure.value - low, high - figure.value)
    guard = guard_band(figure.expanded, low, high, rule)
    needed = guard - ROUNDING
    if inside > 0 and inside >= needed:
        return Judgement(verdict="in")
    if inside < 0 and -inside >= needed:
        return Judgement(verdict="out")
    band = f"{'0.83 ' if rule == '0.83 U' else ''}U = {guard:.2f}{unit}"
    if guard > (high - low) / 2:
        settles = f"{band} is more than half the tolerance: these gauges cannot settle it, use finer ones."
    else:
        settles = f"It lies {abs(inside):.2f}{unit} from a limit and {band}: take more readings or use a finer gauge."
    return Judgement(verdict="can't tell", settles=settles)


def judge_size(figure: Estimate, low_mm: float | None, high_mm: float | None, rule: DecisionRule = "U") -> Verdict:
    """Return whether a size lies inside its limits.

    figure: the size [mm].
    low_mm, high_mm: limits [mm]; None = no limit on that side.
    Source: [decision-rule] ISO 14253-1.
    >>> judge_size(Estimate(value=0.30, u=0.01), None, 0.35), judge_size(Estimate(value=0.34, u=0.01), None, 0.35)
    ('in', "can't tell")
    """
    if low_mm is None and high_mm is None:
        return "no limit known"
    low, high = -math.inf if low_mm is None else low_mm, math.inf if high_mm is None else high_mm
    return judge(figure, low, high, " mm", rule).verdict
