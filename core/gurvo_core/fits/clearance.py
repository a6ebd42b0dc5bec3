"""Readings made into sizes at 20 °C and sizes into clearances, each with its standard uncertainty. Lengths mm, temperatures °C.

What one reading shares with every other of the same gauge (calibration, the standard it was set by, temperature) does not average, and
neither does its resolution at one spot; only scatter does.
"""

__all__ = ["REFERENCE_C", "Clearance", "ReadWith", "Size", "at_20_mm", "at_radius", "clearance_of", "size_of"]

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from gurvo_core.uncertainty import Estimate, extreme_u, repeats_estimate, root_sum_square

REFERENCE_C = 20.0  # ISO 1: dimensions hold at 20 °C
STEEL_UM_M_K = 11.5
KNOWN_K = 1 / math.sqrt(3)  # a thermometer in the shop tells part and gauge apart to a degree
UNKNOWN_K = 3 / math.sqrt(3)  # nobody looked: within three degrees of each other, as things are that lay side by side
UM = 1e-6
POOLED_FROM = 10  # repeats: fewer say too little of a gauge


@dataclass(frozen=True, kw_only=True)
class ReadWith:
    """With what a side is read: its gauge's step and calibration, the standard it was set by, and how warm all was."""

    resolution_mm: float
    calibration_mm: float  # expanded, k = 2
    standard_mm: float = 0.0  # expanded, k = 2, of the ring or rod that a comparator was set by
    part_c: float | None = None
    gauge_c: float | None = None
    part_um_m_k: float = STEEL_UM_M_K
    gauge_um_m_k: float = STEEL_UM_M_K
    scatter_mm: float = 0.0  # standard deviation of the shop's own repeats with that gauge
    scatter_of: int = 0  # how many repeats that rests on

    def scaled(self, scale: float) -> "ReadWith":
        """The same where what counts is so many times what the gauge shows."""
        grown = {name: getattr(self, name) * scale for name in ("resolution_mm", "calibration_mm", "scatter_mm")}
        return replace(self, **grown)

    def u_mm(self, size_mm: float) -> float:
        """Standard uncertainty of one reading of such a size, without scatter [mm]."""
        return root_sum_square(self.resolution_mm / math.sqrt(12), self.shared_mm(size_mm))

    def shared_mm(self, size_mm: float) -> float:
        """What of it all readings of the gauge have in common: all but its step [mm]."""
        kelvin = UNKNOWN_K if self.part_c is None else KNOWN_K
        warmth = abs(size_mm) * self.part_um_m_k * UM * kelvin
        return root_sum_square(self.calibration_mm / 2, self.standard_mm / 2, warmth)


@dataclass(frozen=True, kw_only=True)
class Size:
    """A size at one spot."""

    estimate: Estimate
    count: int
    scatter_mm: float = 0.0  # standard deviation of the repeats; 0 for a single one
    shared_mm: float = 0.0  # of its uncertainty, what it has in common with the other spots of its side


@dataclass(frozen=True, kw_only=True)
class Clearance:
    """The clearance of one place."""

    least: Estimate
    most: Estimate
    taper_mm: Mapping[str, float]  # by side, along the bore or shaft; only where more than one plane was read
    out_of_round_mm: Mapping[str, float]
    ends_mm: Mapping[str, float]  # the size that counts: smallest outer, largest inner


def at_20_mm(read_mm: float, read_with: ReadWith) -> float:
    """Return what a part measures at 20 °C.

    read_mm: as the gauge showed it [mm].
    read_with: with the temperatures of part and gauge [°C]; None = not looked at, taken as 20.
    Returned: a warm part is smaller at 20 °C, a warm gauge reads too little [mm].
    Source: ISO 1 for the reference temperature; linear expansion of part and gauge, the gauge of steel unless it says otherwise.
    >>> warm = ReadWith(resolution_mm=0.01, calibration_mm=0, part_c=30, gauge_c=20)
    >>> round(at_20_mm(100.0, warm), 4)
    99.9885
    """
    if read_with.part_c is None:
        return read_mm
    gauge_c = read_with.part_c if read_with.gauge_c is None else read_with.gauge_c
    gauge = 1 + read_with.gauge_um_m_k * UM * (gauge_c - REFERENCE_C)
    part = 1 + read_with.part_um_m_k * UM * (read_with.part_c - REFERENCE_C)
    return read_mm * gauge / part


def at_radius(radius_mm: float | None, read_at_mm: float | None, plunger_deg: float = 0.0) -> float:
    """Return what a backlash is at its own radius for each mm that a dial shows at another, its plunger set aslant.

    radius_mm: where its limits hold [mm].
    read_at_mm: where the dial stands [mm].
    plunger_deg: between the plunger and the way the tooth goes [deg]; below 90.
    Returned: 1 where one of the radii is not said and the plunger lies the way the tooth goes [-].
    Source: Geometry: a small angle is an arc over its radius, wherever it is measured; a plunger set aslant moves by the cosine alone.
    >>> at_radius(60.0, 120.0), at_radius(60.0, None)
    (0.5, 1.0)
    >>> round(at_radius(60.0, 60.0, 60.0), 9)
    2.0
    """
    aslant = math.cos(math.radians(plunger_deg))
    return (radius_mm / read_at_mm if radius_mm and read_at_mm else 1.0) / aslant


def size_of(readings_mm: Sequence[float], read_with: ReadWith) -> Size:
    """Return the size at one spot from its readings.

    readings_mm: repeats at the spot, at 20 °C [mm]; at least one.
    Returned: their mean, with an uncertainty in which scatter alone averages [mm]. One reading says nothing of how it scatters: what the
        shop's own repeats with that gauge have shown stands in for it, and is pooled with the repeats of this spot.
    Source: [gum] 4.2.3, 4.2.4 (pooled from earlier readings) and 5.1.2. What reading to a step scatters by is in the step already.
    >>> fine = ReadWith(resolution_mm=0.001, calibration_mm=0.002, part_c=20)
    >>> round(size_of([57.968], fine).estimate.u, 5)
    0.00111
    """
    mean = math.fsum(readings_mm) / len(readings_mm)
    count = len(readings_mm)
    squares = math.fsum((one - mean) ** 2 for one in readings_mm)
    spread = math.sqrt(squares / (count - 1)) if count > 1 else 0.0
    if read_with.scatter_of >= POOLED_FROM:
        pooled = (squares + read_with.scatter_of * read_with.scatter_mm**2) / (count - 1 + read_with.scatter_of)
        beyond = math.sqrt(max(0.0, pooled - read_with.resolution_mm**2 / 12))
        estimate = Estimate(value=mean, u=root_sum_square(read_with.u_mm(mean), beyond / math.sqrt(count)))
    else:
        estimate = repeats_estimate(readings_mm, read_with.u_mm(mean), read_with.resolution_mm)
    return Size(estimate=estimate, count=count, scatter_mm=spread, shared_mm=read_with.shared_mm(mean))


Sized = Mapping[tuple[str, str], Size]  # by plane and axis


def clearance_of(outer: Sized, inner: Sized) -> Clearance:
    """Return the clearance between two sides.

    Returned: least = smallest outer less largest inner, most the other way round [mm]. Of several spots the one that reads least is likely
        to be one that was read too low: the uncertainty says so.
    Source: Practice: the least clearance is where a shaft runs tight, not the difference of means. Uncertainty: ``uncertainty.extreme_u``.
    >>> one = lambda mm: Size(estimate=Estimate(value=mm, u=0.001), count=1)
    >>> made = clearance_of({("front", "up"): one(58.024), ("rear", "up"): one(58.026)}, {("front", "up"): one(57.968)})
    >>> round(made.least.value, 4), round(made.most.value, 4), round(made.taper_mm["outer"], 4)
    (0.056, 0.058, 0.002)
    """
    sides = {"outer": outer, "inner": inner}
    low = _end(outer, lowest=True)
    high = _end(outer, lowest=False)
    large, small = (_end(inner, lowest=False), _end(inner, lowest=True)) if inner else (Estimate(value=0, u=0), Estimate(value=0, u=0))
    ends = {"outer": low.value, **({"inner": large.value} if inner else {})}
    return Clearance(
        least=Estimate(value=low.value - large.value, u=root_sum_square(low.u, large.u)),
        most=Estimate(value=high.value - small.value, u=root_sum_square(high.u, small.u)),
        taper_mm={key: value for key, side in sides.items() if (value := _spread(side, by=0)) is not None},
        out_of_round_mm={key: value for key, side in sides.items() if (value := _spread(side, by=1)) is not None},
        ends_mm=ends,
    )


def _end(side: Sized, *, lowest: bool) -> Estimate:
    """The smallest or largest of a side, with an uncertainty that knows of how many spots it is the extreme."""
    pick, sign = (min, 1.0) if lowest else (max, -1.0)
    end = pick((size.estimate for size in side.values()), key=lambda one: one.value)
    if len(side) == 1:
        return end
    shared = max(size.shared_mm for size in side.values())
    own = [Estimate(value=sign * size.estimate.value, u=math.sqrt(max(0.0, size.estimate.u**2 - shared**2))) for size in side.values()]
    return Estimate(value=end.value, u=root_sum_square(extreme_u(_drawn_in(own)), shared))


def _drawn_in(spots: list[Estimate]) -> list[Estimate]:
    """The same without as much of their spread as reading them makes: what was read apart need not be apart."""
    middle = math.fsum(one.value for one in spots) / len(spots)
    spread = math.fsum((one.value - middle) ** 2 for one in spots) / (len(spots) - 1)
    read = math.fsum(one.u**2 for one in spots) / len(spots)
    left = math.sqrt(max(0.0, 1 - read / spread)) if spread else 0.0
    return [Estimate(value=middle + left * (one.value - middle), u=one.u) for one in spots]


def _spread(side: Sized, *, by: int) -> float | None:
    """The largest difference between planes on one axis (taper) or between axes in one plane (out of round)."""
    groups: dict[str, list[float]] = {}
    for where, size in side.items():
        groups.setdefault(where[1 - by], []).append(size.estimate.value)
    spreads = [max(values) - min(values) for values in groups.values() if len(values) > 1]
    return max(spreads) if spreads else None
