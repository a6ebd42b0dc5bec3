"""Figures with their standard uncertainty, as the GUM has it. Expanded uncertainty U is always 2u here."""

__all__ = ["COVERAGE", "Estimate", "mean_estimate", "root_sum_square", "standard_uncertainty"]

import math
from collections.abc import Sequence
from dataclasses import dataclass

COVERAGE = 2.0


@dataclass(frozen=True, kw_only=True)
class Estimate:
    """A figure and its standard uncertainty, in the same unit."""

    value: float
    u: float

    @property
    def expanded(self) -> float:
        """Expanded uncertainty U = 2u."""
        return COVERAGE * self.u


def standard_uncertainty(resolution: float, expanded: float) -> float:
    """Return the standard uncertainty of one reading of a gauge.

    Parameters
    ----------
    resolution : float
        Smallest step read [unit of the gauge].
    expanded : float
        Expanded uncertainty (k = 2) of its calibration [same unit].

    Returns
    -------
    u : float
        Standard uncertainty [same unit].

    Source
    ------
    [gum] JCGM 100:2008, 4.3.7 and F.2.2.1: a reading to a step d adds d / sqrt(12).

    Example
    -------
    >>> round(standard_uncertainty(0.5, 0.2), 4)
    0.1756
    """
    return root_sum_square(resolution / math.sqrt(12), expanded / COVERAGE)


def root_sum_square(*parts: float) -> float:
    """Return independent standard uncertainties combined.

    Parameters
    ----------
    *parts : float
        Standard uncertainties, already in the unit of the result.

    Returns
    -------
    u : float
        Their root sum of squares [same unit].

    Source
    ------
    [gum] 5.1.2, uncorrelated inputs.

    Example
    -------
    >>> root_sum_square(3.0, 4.0)
    5.0
    """
    return math.hypot(*parts)


def mean_estimate(values: Sequence[float], u_each: float) -> Estimate:
    """Return the mean of repeated figures.

    Parameters
    ----------
    values : sequence of float
        The figures; at least one.
    u_each : float
        Standard uncertainty that the gauge alone gives each of them [same unit].

    Returns
    -------
    estimate : Estimate
        Mean, and the larger of what the gauge and what the spread say of it. Few readings that happen to agree do not make
        a gauge better than it is.

    Source
    ------
    [gum] 4.2.3 for the spread; taking the larger is our choice.

    Example
    -------
    >>> mean_estimate([1.0, 3.0], 0.1)
    Estimate(value=2.0, u=1.0)
    """
    count = len(values)
    mean = math.fsum(values) / count
    from_gauge = u_each / math.sqrt(count)
    if count == 1:
        return Estimate(value=mean, u=from_gauge)
    variance = math.fsum((value - mean) ** 2 for value in values) / (count - 1)
    return Estimate(value=mean, u=max(from_gauge, math.sqrt(variance / count)))
