"""What shims would give: the engine's own moved about, then stock, then what is to be bought."""

__all__ = ["lash_sheet"]

from collections.abc import Mapping, Sequence

from gurvo_core.engine import Select
from gurvo_core.lash.job.book import LashValve, shim_sorts
from gurvo_core.lash.job.state import LashState
from gurvo_core.lash.job.view import LashSheet, ShimRow
from gurvo_core.lash.shims import Measured, Shimmed, ShimPlan, plan_shims
from gurvo_core.sentence import fine, listed


def lash_sheet(now: LashState, step_id: str, stock: Mapping[str, Mapping[str, int]] | None = None) -> LashSheet:
    """Return what shims would give for a step's valves."""
    valves = now.book.valves(step_id)
    sorts = shim_sorts(valves)
    selects = [select for select, _ in sorts if select is not None]
    sizes, part = [one.id for select in selects for one in select.classes], listed([select.part for select in selects])
    measured = {name: found for name, one in valves.items() if (found := _measured(now, name, one)) is not None}
    if not measured or len(measured) < len(valves):
        return LashSheet(rows=[], words="All valves are read first, each with the shim that is in.", part=part, sizes=sizes)
    plans = [_plan(select, [measured[name] for name in names], stock or {}) for select, names in sorts]
    rows = {one.valve: _row(valves, measured[one.valve], one) for plan in plans for one in plan.shims}
    ordered = [rows[name] for name in valves]
    return LashSheet(rows=ordered, words=_words(plans, ordered), part=part, sizes=sizes)


def _plan(select: Select | None, measured: Sequence[Measured], stock: Mapping[str, Mapping[str, int]]) -> ShimPlan:
    """Shims of one sort go to its own valves, and change places among them alone."""
    free = stock.get(select.part, {}) if select else {}
    by_size = {one.size_mm: free.get(one.id, 0) for one in select.classes} if select else {}
    return plan_shims(measured, by_size, sorted(by_size))


def _measured(now: LashState, name: str, one: LashValve) -> Measured | None:
    """A valve that was read with its shim; None while something is missing."""
    read, lash = now.reads.get(name), one.lash
    if read is None or read.lash is None or read.shim_mm is None or lash is None or lash.wanted_mm is None:
        return None
    limits = (lash.least_mm or 0.0, lash.most_mm or 0.0)
    # what cannot be told is not called in: a shim is looked for that brings it far enough inside to be told
    told = (limits[0] + read.lash.expanded, limits[1] - read.lash.expanded)
    return Measured(
        valve=name,
        shim_mm=read.shim_mm,
        lash_mm=read.lash.value,
        wanted_mm=lash.wanted_mm,
        limits_mm=told if told[0] < told[1] else limits,
        acts_by=lash.acts_by,
    )


def _row(valves: Mapping[str, LashValve], was: Measured, one: Shimmed) -> ShimRow:
    came_from = one.came_from if one.came_from != one.valve else ""
    return ShimRow(
        valve=one.valve,
        words=valves[one.valve].key.words,
        shim_now_mm=was.shim_mm,
        lash_now_mm=round(was.lash_mm, 6),
        shim_mm=one.shim_mm,
        lash_mm=round(one.lash_mm, 6),
        source=one.source,
        came_from=valves[came_from].key.words if came_from else "",
        is_in=one.is_in,
    )


def _words(plans: Sequence[ShimPlan], rows: Sequence[ShimRow]) -> str:
    moved, new, to_buy = (sum(counts) for counts in zip(*((plan.moved, plan.new, plan.to_buy) for plan in plans), strict=True))
    said = [f"{moved} moved within the engine", f"{new - to_buy} from stock", f"{to_buy} to buy"]
    beyond = next((row for row in rows if not row.is_in), None)
    tail = f" Nothing that is made brings {beyond.words} in: {fine(beyond.lash_mm)}." if beyond else ""
    return f"{', '.join(said)}.{tail}"
