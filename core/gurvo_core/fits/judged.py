"""Is a clearance in? Both of its ends against both limits, by the guard-band rule; a limit that is not known is none."""

__all__ = ["JudgedEnd", "judge_clearance"]

from dataclasses import dataclass

from gurvo_core.fits.clearance import Clearance
from gurvo_core.uncertainty import Estimate
from gurvo_core.verdict import DecisionRule, Verdict, judge_size

WORST: tuple[Verdict, ...] = ("out", "can't tell", "in", "no limit known")


@dataclass(frozen=True, kw_only=True)
class JudgedEnd:
    """The end of a clearance that decides, and what is said of the whole."""

    end: str  # least or most
    figure: Estimate
    verdict: Verdict


def judge_clearance(clearance: Clearance, low_mm: float | None, high_mm: float | None, rule: DecisionRule = "U") -> JudgedEnd:
    """Return what is said of a clearance, and which of its ends says it.

    clearance: least and most [mm].
    low_mm, high_mm: limits [mm]; None = no limit on that side.
    Source: [decision-rule] ISO 14253-1, asked of the tightest and of the loosest spot.
    >>> ends = {"least": Estimate(value=0.04, u=0.002), "most": Estimate(value=0.059, u=0.002)}
    >>> made = Clearance(**ends, taper_mm={}, out_of_round_mm={}, ends_mm={})
    >>> judged = judge_clearance(made, 0.03, 0.06)
    >>> judged.end, judged.verdict
    ('most', "can't tell")
    """
    ends = [
        JudgedEnd(end=end, figure=figure, verdict=judge_size(figure, low_mm, high_mm, rule))
        for end, figure in (("least", clearance.least), ("most", clearance.most))
    ]

    def margin(one: JudgedEnd) -> float:
        away = [one.figure.value - low_mm] if low_mm is not None else []
        away += [high_mm - one.figure.value] if high_mm is not None else []
        return min(away, default=0.0)

    return min(ends, key=lambda one: (WORST.index(one.verdict), margin(one)))
