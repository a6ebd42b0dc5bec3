"""What the entries about valve clearances may say, in the light of what stands."""

__all__ = ["check_decided", "check_reading", "check_ready", "check_shims", "check_stop"]

from collections.abc import Iterator, Mapping

from gurvo_core.engine import Select
from gurvo_core.lash.job.book import LashValve, shim_sorts
from gurvo_core.lash.job.entries import LashDecided, LashReading, LashReady, LashShims, LashStopped
from gurvo_core.lash.job.figures import typed_deg, typed_turns
from gurvo_core.lash.job.kept import new_shims
from gurvo_core.lash.job.state import LashState, stops_of
from gurvo_core.lash.job.take import SAME_MM, valve_id
from gurvo_core.ledger import STOCK, Facts, Objection, known_gauge, may_be_done, met_on_the_way, need
from gurvo_core.units import read_figure

Objections = Iterator[Objection]
ONCE_DONE = "open it again first"
NO_SUCH = "this engine's run has no step that sets valve clearances by that name; load the bench again"
MOST_MM, THICKEST_SHIM_MM = 3.0, 12.0
TENTH_OF_A_TURN = 0.125


def check_ready(now: LashState, body: LashReady, facts: Facts) -> Objections:
    """The engine as the book has it, feelers of the shelf, a way that there is."""
    valves = now.book.valves(body.step)
    if not valves:
        yield Objection("step", NO_SUCH)
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    typed_deg(body.stands_deg)
    asked = {one.lash.engine_is for one in valves.values() if one.lash}
    rule = f"the book has the clearances of a {' and a '.join(sorted(asked))} engine: wait, or say why not"
    yield from need(not asked or body.engine_is in asked, "engine_is", rule, "reason")
    yield from need(body.way != "book" or bool(now.document.lash_stops), "way", "this document has no stops of its own: take the fewest")
    if body.gauge is None:
        hydraulic = all(one.lash is not None and one.lash.set_by == "hydraulic" for one in valves.values())
        yield from need(hydraulic, "gauge", "no feelers are named: take a set of the shelf, or say by what it is read", "reason")
        return
    gauge = known_gauge(facts, body.gauge)
    if gauge is None:
        return  # the gate says so
    narrow = _narrowest(list(valves.values()))
    rule = f"leaves of {gauge.id} are {gauge.resolution:g} mm apart and the limits only {narrow or 0:g}: nothing could be in"
    fine_enough = narrow is None or 2 * (gauge.resolution / 12**0.5) <= narrow / 2
    yield from need(fine_enough, "gauge", f"{rule}; take finer ones, or say why not", "reason")


def _narrowest(valves: list[LashValve]) -> float | None:
    widths = [high - low for low, high in (one.limits_mm for one in valves) if low is not None and high is not None and high > low]
    return min(widths) if widths else None


def check_stop(now: LashState, body: LashStopped, facts: Facts) -> Objections:
    """A stop that there is."""
    stops = stops_of(now, body.step)
    if body.step not in now.book.steps:
        yield Objection("step", NO_SUCH)
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    yield from need(stops is not None, "step", "first say which way the valves are reached")
    if stops is None:
        return
    yield from need(body.stop <= len(stops.stops), "stop", f"there are only {len(stops.stops)} stops")
    to_deg = stops.stops[body.stop - 1].crank_deg if body.stop <= len(stops.stops) else None
    if to_deg is not None:
        yield from met_on_the_way(facts, "stop", lambda clear: clear.crank_to(to_deg))


def check_reading(now: LashState, body: LashReading, facts: Facts) -> Objections:
    """A valve on its base circle, and figures that can be."""
    name = valve_id(body)
    one = now.book.valves(body.step).get(name)
    if one is None:
        yield Objection("valve", "this step sets no such valve; load the bench again")
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    stops, stop = stops_of(now, body.step), now.stop.get(body.step)
    if stops is None:
        yield Objection("step", "first say which way the valves are reached")
        return
    if stop is None or stop > len(stops.stops):
        yield Objection("step", "first turn the crank to the stop, and say so")
        return
    if not now.book.may_be_set(body.step, name, stops, stop):
        own = next((n for n, at in enumerate(stops.stops, 1) if one.key in at.valves), None)
        where = f": it is set at stop {own}, turn on first" if own else ""
        yield Objection("valve", f"{one.key.words} is not on its base circle at stop {stop}{where}")
    yield from _figures(now, body, one)


def _figures(now: LashState, body: LashReading, one: LashValve) -> Objections:
    lash = one.lash
    if lash is not None and lash.set_by == "hydraulic":
        if body.turns is None:
            yield Objection("turns", "say how far the screw was turned after zero lash")
            return
        turns = typed_turns(body.turns)
        asked = lash.turns
        rule = f"the book turns it {asked or 0:g} after zero lash and this was {turns:g}: set it again, or say why"
        yield from need(asked is None or abs(turns - asked) <= TENTH_OF_A_TURN, "turns", rule, "reason")
        return
    if body.goes is None:
        yield Objection("goes", "say the thickest leaf that goes")
        return
    goes = body.goes.inside("length", "goes.text")
    yield from _can_be(goes, one)
    if body.not_goes is not None:
        thicker = body.not_goes.inside("length", "not_goes.text")
        yield from need(thicker > goes, "not_goes.text", f"the leaf that does not go is thicker than the {goes:g} mm that goes")
    if lash is not None and lash.set_by == "shim":
        name = one.key.id
        read, shim = now.reads.get(name), now.shims.get(name)
        known = shim is not None or (read is not None and read.shim_mm is not None)
        yield from need(known or body.shim is not None, "shim", "say which shim is in: its thickness")
        if body.shim is not None:
            thickness = body.shim.inside("length", "shim.text")
            yield from need(0.1 <= thickness <= THICKEST_SHIM_MM, "shim.text", f"{thickness:g} mm is no shim: check the point")


def _can_be(goes_mm: float, one: LashValve) -> Objections:
    yield from need(0 <= goes_mm <= MOST_MM, "goes.text", f"{goes_mm:g} mm is no valve clearance: check the point and the unit")
    high = one.limits_mm[1]
    if high and goes_mm > 4 * high:
        tenth = goes_mm / 10
        ask = f"did you mean {tenth:g}?" if tenth <= 2 * high else "try the leaf again"
        yield Objection("goes.text", f"{goes_mm:g} mm is far beyond {high:g} mm: {ask}", "reason")


def check_shims(now: LashState, body: LashShims, facts: Facts) -> Objections:
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


def _there_are(now: LashState, shims: Mapping[str, str], select: Select | None, facts: Facts) -> Objections:
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


def check_decided(now: LashState, body: LashDecided, _facts: Facts) -> Objections:
    """A valve that was read and is not in; the lead alone."""
    one, read = now.book.valves(body.step).get(body.valve), now.reads.get(body.valve)
    if one is None or read is None:
        yield Objection("valve", "this valve has not been read; there is nothing to accept")
        return
    yield from need(bool(body.reason), "reason", "say why it may stay so")
    yield from need(read.verdict in ("out", "can't tell"), "decision", "it is neither out nor untold; there is nothing to accept")
    said = "is out" if read.verdict == "out" else "cannot be told"
    yield Objection("decision", f"{one.key.words} {said}: only the lead accepts that, with the reason", "lead and reason")
