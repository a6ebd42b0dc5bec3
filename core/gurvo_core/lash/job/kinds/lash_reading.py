"""One valve's clearance: the largest leaf that goes, and the smallest that does not."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.lash.adjust import lash_by_feelers
from gurvo_core.lash.job.book import LashValve
from gurvo_core.lash.job.entries import LashReading
from gurvo_core.lash.job.figures import lash_si, typed_turns
from gurvo_core.lash.job.named import feelers_named
from gurvo_core.lash.job.rules import ONCE_DONE
from gurvo_core.lash.job.state import LashRead, LashState, stops_of
from gurvo_core.lash.job.take import BY_NOTHING, read_by, weighed
from gurvo_core.lash.windows import ValveKey
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, may_be_done, need
from gurvo_core.uncertainty import Estimate, GaugeUncertainty
from gurvo_core.verdict import judge_size

MOST_MM, THICKEST_SHIM_MM = 3.0, 12.0
TENTH_OF_A_TURN = 0.125


def _say(body: LashReading) -> Words:
    """One valve."""
    value = f"{body.goes.text} {body.goes.unit} goes" if body.goes else f"{body.turns or '0'} turns after zero"
    detail = [f"{body.not_goes.text} {body.not_goes.unit} does not"] if body.not_goes else []
    detail += [f"shim {body.shim.text} {body.shim.unit}"] if body.shim else []
    detail += [f"feelers {body.gauge}"] if body.gauge else []
    place = f", {body.place}" if body.place else ""
    return Words(title=f"Cylinder {body.cylinder} {body.valve}{place}", value=value, detail=", ".join(detail))


def _check(now: LashState, body: LashReading, facts: Facts) -> Iterator[Objection]:
    """A valve on its base circle, and figures that can be."""
    name = _valve_id(body)
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


def _figures(now: LashState, body: LashReading, one: LashValve) -> Iterator[Objection]:
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


def _can_be(goes_mm: float, one: LashValve) -> Iterator[Objection]:
    yield from need(0 <= goes_mm <= MOST_MM, "goes.text", f"{goes_mm:g} mm is no valve clearance: check the point and the unit")
    high = one.limits_mm[1]
    if high and goes_mm > 4 * high:
        tenth = goes_mm / 10
        ask = f"did you mean {tenth:g}?" if tenth <= 2 * high else "try the leaf again"
        yield Objection("goes.text", f"{goes_mm:g} mm is far beyond {high:g} mm: {ask}", "reason")


def _valve_id(body: LashReading) -> str:
    """What the valve of a reading is kept under."""
    return ValveKey(body.cylinder, body.valve, body.camshaft, body.place).id


def _take(now: LashState, entry: LedgerEntry, body: LashReading) -> LashState:
    """One valve read; the last reading counts."""
    name = _valve_id(body)
    one, ready = now.book.valves(body.step).get(name), now.ready.get(body.step)
    if one is None:
        return now
    read_with = read_by(entry, body.gauge) or (ready.read_with if ready else BY_NOTHING)
    shim, before = now.shims.get(name), now.reads.get(name)
    in_now = body.shim.inside("length", "shim.text") if body.shim else shim.shim_mm if shim else before.shim_mm if before else None
    lash = _lash(body, read_with)
    read = LashRead(
        seq=entry.seq,
        lash=lash,
        verdict=judge_size(lash, *one.limits_mm, now.document.decision_rule) if lash else "in",
        shim_mm=in_now,
        turns=typed_turns(body.turns) if body.turns else None,
        gauge=body.gauge or (ready.gauge if ready else None),
        by=entry.by,
        because=entry.because,
    )
    decided = {key: why for key, why in now.decided.items() if key != name}
    now = replace(now, reads={**now.reads, name: read}, found={name: read, **now.found}, decided=decided)
    return weighed(now, body.step)


def _lash(body: LashReading, read_with: GaugeUncertainty) -> Estimate | None:
    """None for a hydraulic lifter, which takes up its own."""
    if body.goes is None:
        return None
    goes = body.goes.inside("length", "goes.text")
    return lash_by_feelers(goes, body.not_goes.inside("length", "not_goes.text") if body.not_goes else None, read_with)


KIND: Kind[LashReading, LashState] = Kind(
    body=LashReading,
    does="look",
    words=_say,
    take=_take,
    check=_check,
    gauges=feelers_named,
    si_values=lambda _now, body: lash_si(body),
)
