"""Which shim goes to which valve."""

__all__ = ["KIND"]

from collections.abc import Iterator, Mapping
from dataclasses import replace

from gurvo_core.engine import Select
from gurvo_core.lash.job.book import shim_sorts
from gurvo_core.lash.job.entries import LashShims
from gurvo_core.lash.job.kept import new_shims
from gurvo_core.lash.job.rules import NO_SUCH, ONCE_DONE
from gurvo_core.lash.job.state import LashState, ShimIn
from gurvo_core.lash.job.take import weighed
from gurvo_core.lash.job.words import valve_called
from gurvo_core.ledger import STOCK, Facts, Kind, LedgerEntry, Objection, Words, may_be_done, need
from gurvo_core.units import read_figure

SAME_MM = 1e-6


def _say(body: LashShims) -> Words:
    """All that were put in."""
    listed = "; ".join(f"{valve_called(valve)}: {text}" for valve, text in body.shims.items())
    return Words(title="Shims put in", value=str(len(body.shims)), detail=listed + (f"; lot {body.lot}" if body.lot else ""))


def _check(now: LashState, body: LashShims, facts: Facts) -> Iterator[Objection]:
    """Shims that are made, or are the engine's own, each of its own sort; and that no other engine has taken."""
    valves = now.book.valves(body.step)
    sorts = shim_sorts(valves)
    of_valve = {name: (select, names) for select, names in sorts for name in names}
    yield from need(bool(valves), "step", NO_SUCH)
    yield from may_be_done(body.step, facts, ONCE_DONE)
    for name, text in body.shims.items():
        if name not in valves:
            yield Objection(f"shims.{name}", "this step sets no such valve")
            continue
        yield from need(name in now.reads, f"shims.{name}", f"{valves[name].key.words} has not been read yet")
        thickness, (select, names) = read_figure(text, f"shims.{name}"), of_valve[name]
        own = [round(read.shim_mm, 6) for other, read in now.found.items() if other in names and read.shim_mm is not None]
        made = sorted(one.size_mm for one in select.classes) if select else []
        is_there = not made or any(abs(thickness - one) < SAME_MM for one in (*made, *own))
        near = ", ".join(f"{one:g}" for one in sorted(made, key=lambda one: abs(one - thickness))[:2])
        yield from need(is_there, f"shims.{name}", f"a shim of {thickness:g} mm is not made: there are {near}")
    for select, names in sorts:
        yield from _there_are(now, {name: text for name, text in body.shims.items() if name in names}, select, facts)


def _there_are(now: LashState, shims: Mapping[str, str], select: Select | None, facts: Facts) -> Iterator[Objection]:
    stock = facts.get(STOCK)
    if stock is None or select is None:
        return
    free = stock.get(select.part, {})
    try:
        chosen = {name: read_figure(text) for name, text in shims.items()}
    except ValueError:
        return
    for size, count in sorted(new_shims(now, select, chosen).items()):
        there = free.get(size, 0)
        needed, free_now = "one is" if count == 1 else "ones are", "is" if there == 1 else "are"
        rule = f"{select.part} {size}: {count} new {needed} needed and {there} {free_now} free"
        yield from need(count <= there, "shims", f"{rule}: choose others, or say where they come from", "reason")


def _take(now: LashState, entry: LedgerEntry, body: LashShims) -> LashState:
    """Shims put in; those that were changed are read again."""
    known = now.book.valves(body.step)
    shims = dict(now.shims)
    for name, text in body.shims.items():
        read = now.reads.get(name)
        if name not in known or read is None:
            continue
        thickness = read_figure(text)
        is_changed = read.shim_mm is None or abs(thickness - read.shim_mm) > SAME_MM
        shims[name] = ShimIn(seq=entry.seq, shim_mm=thickness, is_changed=is_changed)
    return weighed(replace(now, shims=shims), body.step)


KIND: Kind[LashShims, LashState] = Kind(body=LashShims, does="decide", words=_say, take=_take, check=_check, asks_stock=True)
