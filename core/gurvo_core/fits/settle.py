"""What would settle a clearance that cannot be told: which gauge, how many repeats, which other part. Worked out, each with its figure."""

__all__ = ["Settling", "Way", "brings_in", "is_too_coarse", "settle"]

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from gurvo_core.fits.clearance import ReadWith
from gurvo_core.sentence import fine
from gurvo_core.uncertainty import COVERAGE, Estimate, root_sum_square
from gurvo_core.verdict import DecisionRule, guard_band, judge_size, largest_telling_u

MOST_REPEATS = 12  # beyond it nobody reads the same spot again


@dataclass(frozen=True, kw_only=True)
class Settling:
    """One place that cannot be told: its figure, what each side was read with, and how its repeats scatter."""

    figure: Estimate
    low_mm: float | None
    high_mm: float | None
    sides: Mapping[str, ReadWith]
    sizes_mm: Mapping[str, float]
    scatter_mm: Mapping[str, float]
    counts: Mapping[str, int]
    called: Mapping[str, str]  # what each side is called
    gauge: Mapping[str, str]  # the code of what each was read with
    rule: DecisionRule = "U"

    @property
    def needed_mm(self) -> float | None:
        """The U that would tell, if the figure stays where it is [mm]; None where there is no limit."""
        away = [abs(self.figure.value - limit) for limit in (self.low_mm, self.high_mm) if limit is not None]
        return largest_telling_u(min(away), *_open_ended(self.low_mm, self.high_mm), self.rule) if away else None


@dataclass(frozen=True, kw_only=True)
class Way:
    """One way to settle it, and what U it would come to."""

    words: str
    u_mm: float | None = None
    settles: bool = True


def _open_ended(low_mm: float | None, high_mm: float | None) -> tuple[float, float]:
    return -math.inf if low_mm is None else low_mm, math.inf if high_mm is None else high_mm


def is_too_coarse(u_mm: float, low_mm: float | None, high_mm: float | None, rule: DecisionRule = "U") -> bool:
    """Return whether gauges are not good enough for a fit: with them nothing could ever be in.

    u_mm: standard uncertainty of a clearance measured with them [mm].
    low_mm, high_mm: limits [mm].
    Source: [decision-rule] ISO 14253-1: the zone that is in shrinks by the guard band at either end.
    >>> is_too_coarse(0.008, 0.03, 0.06), is_too_coarse(0.002, 0.03, 0.06)
    (True, False)
    """
    low, high = _open_ended(low_mm, high_mm)
    return guard_band(COVERAGE * u_mm, low, high, rule) > (high - low) / 2


def settle(case: Settling, shelf: Mapping[str, ReadWith], sizes: Sequence[tuple[str, float]] = ()) -> list[Way]:
    """Return what would settle a clearance that cannot be told.

    sizes: other sizes of the part that sets it: what they are called and the clearance they would give [mm].
    Source: [gum] 5.1.2: of the parts of an uncertainty only scatter falls with repeats.
    >>> coarse, better = (ReadWith(resolution_mm=step, calibration_mm=step, part_c=20) for step in (0.01, 0.001))
    >>> case = Settling(
    ...     figure=Estimate(value=0.055, u=0.0058), low_mm=0.03, high_mm=0.06, sides={"gap": coarse}, sizes_mm={"gap": 0.055},
    ...     scatter_mm={"gap": 0.0}, counts={"gap": 1}, called={"gap": "gap"}, gauge={"gap": "M2"})
    >>> settle(case, {"gap:M3": better})[0].words
    'Read the gap again with M3: U falls to {fine:0.0012}.'
    """
    needed = case.needed_mm
    ways = [*_gauges(case, shelf, needed), *_repeats(case, needed), *_parts(case, sizes)]
    if not ways:
        ways = [Way(words=f"No gauge on the shelf is finer than {_used(case)}: borrow one, or let the lead decide.", settles=False)]
    return sorted(ways, key=lambda way: not way.settles)


def brings_in(
    figure: Estimate,
    limits_mm: tuple[float | None, float | None],
    *,
    wanted_mm: float | None = None,
    is_filed: bool = False,
    sizes: Sequence[tuple[str, float]] = (),
    rule: DecisionRule = "U",
) -> list[Way]:
    """Return what would bring a clearance in that is out.

    figure: the clearance [mm].
    limits_mm: least and most [mm].
    wanted_mm: what is aimed at [mm].
    sizes: other sizes of the part that sets it: what they are called and the clearance they would give [mm].
    Common practice files ring gaps to the middle.
    """
    low, high = limits_mm
    is_tight = low is not None and figure.value < low
    limit = low if is_tight else high
    ways = [Way(words=f"It is {fine(abs(figure.value - limit))} too {'tight' if is_tight else 'wide'}.")] if limit is not None else []
    if is_filed and is_tight and wanted_mm is not None:
        ways.append(Way(words=f"File the ring by {fine(wanted_mm - figure.value)} and read it again."))
    ways += [
        Way(words=f"{name} would give {fine(value)}, which is in.")
        for name, value in sizes
        if judge_size(Estimate(value=value, u=figure.u), low, high, rule) == "in"
    ]
    return ways


def _used(case: Settling) -> str:
    return " and ".join(dict.fromkeys(case.gauge.values())) or "what was used"


def _u_of(case: Settling, sides: Mapping[str, ReadWith], counts: Mapping[str, int]) -> float:
    parts = [side.u_mm(case.sizes_mm[key]) for key, side in sides.items()]
    scatter = [case.scatter_mm[key] / math.sqrt(counts[key]) for key in sides if case.scatter_mm.get(key)]
    return root_sum_square(*parts, *scatter)


def _gauges(case: Settling, shelf: Mapping[str, ReadWith], needed: float | None) -> Iterator[Way]:
    now = COVERAGE * _u_of(case, case.sides, case.counts)
    for key in case.sides:
        better = []
        for name, read_with in shelf.items():
            side, code = name.split(":", 1)
            if side != key or code == case.gauge.get(key):
                continue
            own = replace(
                read_with, part_c=case.sides[key].part_c, gauge_c=case.sides[key].gauge_c, part_um_m_k=case.sides[key].part_um_m_k
            )
            u_mm = COVERAGE * _u_of(case, {**case.sides, key: own}, case.counts)
            if u_mm < now:
                better.append((u_mm, code))
        if better:
            u_mm, code = min(better)
            settles = needed is not None and u_mm <= needed
            tail = "" if settles else f"; {fine(needed)} is needed" if needed else ""
            yield Way(words=f"Read the {case.called[key]} again with {code}: U falls to {fine(u_mm)}{tail}.", u_mm=u_mm, settles=settles)


def _repeats(case: Settling, needed: float | None) -> Iterator[Way]:
    floor = COVERAGE * root_sum_square(*(side.u_mm(case.sizes_mm[key]) for key, side in case.sides.items()))
    scattered = [key for key in case.sides if case.scatter_mm.get(key)]
    if not scattered or needed is None:
        return
    if floor >= needed:
        yield Way(words=f"More repeats would not settle it: U stays above {fine(floor)} with these gauges.", u_mm=floor, settles=False)
        return
    for count in range(2, MOST_REPEATS + 1):
        u_mm = COVERAGE * _u_of(case, case.sides, {key: max(count, case.counts[key]) for key in case.sides})
        if u_mm <= needed:
            which = " and the ".join(case.called[key] for key in scattered)
            yield Way(words=f"Read the {which} until there are {count} of each: U falls to {fine(u_mm)}.", u_mm=u_mm)
            return


def _parts(case: Settling, sizes: Sequence[tuple[str, float]]) -> Iterator[Way]:
    for name, value_mm in sizes:
        if judge_size(Estimate(value=value_mm, u=case.figure.u), case.low_mm, case.high_mm, case.rule) == "in":
            yield Way(words=f"{name} would give {fine(value_mm)}, which is in.")
