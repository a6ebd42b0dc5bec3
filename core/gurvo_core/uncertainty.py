"""Figures with their standard uncertainty, as the GUM has it. Expanded uncertainty U is always 2u here.

Repeats at one place average scatter only: a scale that is read to a step, or off by its calibration, is off by the same at every
repeat there. Readings at different places have errors of their own, and those do average.
"""

__all__ = [
    "COVERAGE",
    "Estimate",
    "GaugeUncertainty",
    "extreme_u",
    "repeats_estimate",
    "root_sum_square",
    "shares_of",
    "standard_uncertainty",
    "weighted_estimate",
]

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

COVERAGE = 2.0
SMALLEST_U = 1e-9  # a gauge without any uncertainty would outweigh all others
WITHIN_A_STEP = 1.001  # but for rounding
FAR = 6.0  # standard uncertainties between two figures, beyond which the larger cannot be the smaller
MIN_FOR_SCATTER = 3  # two figures say too little of how figures scatter


@dataclass(frozen=True, kw_only=True)
class Estimate:
    """A figure and its standard uncertainty, in the same unit."""

    value: float
    u: float

    @property
    def expanded(self) -> float:
        """Expanded uncertainty U = 2u."""
        return COVERAGE * self.u


@dataclass(frozen=True)
class GaugeUncertainty:
    """What resolution and calibration each give one reading of a gauge, as standard uncertainties in its unit."""

    resolution: float
    calibration: float = 0.0

    @property
    def u(self) -> float:
        """Both together."""
        return root_sum_square(self.resolution, self.calibration)

    @property
    def step(self) -> float:
        """The step it is read to."""
        return self.resolution * math.sqrt(12)


def standard_uncertainty(resolution: float, expanded: float) -> GaugeUncertainty:
    """Return the standard uncertainties of one reading of a gauge.

    resolution: smallest step read [unit of the gauge].
    expanded: expanded uncertainty (k = 2) of its calibration [same unit].
    Returned: of its step and of its calibration [same unit].
    Source: [gum] JCGM 100:2008, 4.3.7 and F.2.2.1: a reading to a step d adds d / sqrt(12).
    >>> round(standard_uncertainty(0.5, 0.2).u, 4)
    0.1756
    """
    return GaugeUncertainty(resolution / math.sqrt(12), expanded / COVERAGE)


def root_sum_square(*parts: float) -> float:
    """Return independent standard uncertainties combined.

    parts: standard uncertainties, all in the unit of the result [same unit].
    Returned: their root sum of squares [same unit].
    Source: [gum] 5.1.2, uncorrelated inputs.
    >>> root_sum_square(3.0, 4.0)
    5.0
    """
    return math.hypot(*parts)


def repeats_estimate(values: Sequence[float] | Mapping[float, int], u_place: float, grain: float = 0.0) -> Estimate:
    """Return the mean of figures repeated at one place.

    u_place: standard uncertainty that the gauges give a figure at this place: resolution and calibration [same unit].
    grain: the step a figure is read to: repeats that lie within it scatter no more than reading to a step makes them [same unit].
    Source: [gum] 4.2.3 for the scatter of a mean, 5.1.2 for adding what does not average.
    >>> repeats_estimate([1.0, 3.0], 0.0) == repeats_estimate({3.0: 1, 1.0: 1}, 0.0)
    True
    >>> repeats_estimate([1.0, 3.0], 0.0), repeats_estimate([2.0, 2.0, 2.0], 0.3).u
    (Estimate(value=2.0, u=1.0), 0.3)
    """
    often = Counter(values)  # a gauge is read to its step, so many repeats are few figures
    count = often.total()
    mean = math.fsum(value * times for value, times in often.items()) / count
    if max(often) - min(often) <= grain * WITHIN_A_STEP:
        return Estimate(value=mean, u=u_place)
    variance = math.fsum(times * (value - mean) ** 2 for value, times in often.items()) / (count - 1)
    return Estimate(value=mean, u=root_sum_square(u_place, math.sqrt(variance / count)))


def weighted_estimate(estimates: Sequence[Estimate]) -> Estimate:
    """Return the mean of independent figures of the same thing, the surer ones counting more.

    Source: [weighted-mean] inverse-variance weights and the Birge ratio.
    >>> weighted_estimate([Estimate(value=1.0, u=1.0), Estimate(value=4.0, u=2.0)]).value
    1.6
    """
    weights, shares = [_weight(estimate) for estimate in estimates], shares_of(estimates)
    mean = math.fsum(share * estimate.value for share, estimate in zip(shares, estimates, strict=True))
    u = 1 / math.sqrt(math.fsum(weights))
    if len(estimates) < MIN_FOR_SCATTER:
        return Estimate(value=mean, u=u)
    chi_square = math.fsum(weight * (estimate.value - mean) ** 2 for weight, estimate in zip(weights, estimates, strict=True))
    return Estimate(value=mean, u=u * max(1.0, math.sqrt(chi_square / (len(estimates) - 1))))


def _weight(estimate: Estimate) -> float:
    return 1 / max(estimate.u, SMALLEST_U) ** 2


def shares_of(estimates: Sequence[Estimate]) -> list[float]:
    """What each figure counts in a weighted mean of them; together they are one."""
    whole = math.fsum(_weight(estimate) for estimate in estimates)
    return [_weight(estimate) / whole for estimate in estimates]


def extreme_u(figures: Sequence[Estimate]) -> float:
    """Return the standard uncertainty of the smallest of several figures, taken as it was read.

    Returned: root mean square of how far the smallest true one may be from the smallest that was read [same unit].
    Source: [extremes] in docs/sources.md: mean and variance of the smaller of two normal figures, one after the other; checked against the
    Monte Carlo method of the GUM's first supplement.
    >>> one = Estimate(value=0.0, u=1.0)
    >>> [round(extreme_u([one] * count), 2) for count in (1, 2, 9)]
    [1.0, 1.0, 1.59]
    """
    ordered = sorted(figures, key=lambda one: one.value)
    least, variance = ordered[0].value, ordered[0].u ** 2
    for one in ordered[1:]:
        apart = math.sqrt(variance + one.u**2)
        if apart == 0 or one.value - least > FAR * apart:
            continue
        z = (one.value - least) / apart
        above, density = 0.5 * math.erfc(z / math.sqrt(2)), math.exp(-(z**2) / 2) / math.sqrt(2 * math.pi)
        first = least * (1 - above) + one.value * above - apart * density
        second = (least**2 + variance) * (1 - above) + (one.value**2 + one.u**2) * above - (least + one.value) * apart * density
        least, variance = first, max(0.0, second - first**2)
    return math.sqrt(variance + (least - ordered[0].value) ** 2)
