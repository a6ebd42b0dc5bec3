"""What stands after each entry about a valve's clearance."""

__all__ = ["hear_of_step", "news_of", "take_decided", "take_reading", "take_ready", "take_shims", "take_stop", "valve_id"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.lash.adjust import lash_by_feelers
from gurvo_core.lash.job.entries import LashDecided, LashReading, LashReady, LashShims, LashStopped
from gurvo_core.lash.job.figures import typed_deg, typed_turns
from gurvo_core.lash.job.state import LashIsReady, LashRead, LashState, ShimIn, stops_of
from gurvo_core.lash.windows import ValveKey
from gurvo_core.ledger import CrankTurned, LedgerEntry, StepNews
from gurvo_core.uncertainty import Estimate, GaugeUncertainty, standard_uncertainty
from gurvo_core.units import read_figure
from gurvo_core.verdict import judge_size

BY_NOTHING = GaugeUncertainty(0.05 / 12**0.5)  # leaves of an unnamed set are taken as a twentieth apart
SAME_MM = 1e-6


def _read_with(entry: LedgerEntry, code: str | None) -> GaugeUncertainty | None:
    gauge = entry.gauge_of(code)
    return standard_uncertainty(gauge.resolution, gauge.expanded_uncertainty) if gauge else None


def take_ready(now: LashState, entry: LedgerEntry, body: LashReady) -> LashState:
    """Which way, with what."""
    ready = LashIsReady(
        seq=entry.seq,
        way=body.way,
        begin_deg=typed_deg(body.stands_deg),
        gauge=body.gauge,
        read_with=_read_with(entry, body.gauge) or BY_NOTHING,
        engine_is=body.engine_is,
    )
    return replace(now, ready={**now.ready, body.step: ready}, stop={key: at for key, at in now.stop.items() if key != body.step})


def take_stop(now: LashState, entry: LedgerEntry, body: LashStopped) -> LashState:
    """The crank stands at a stop."""
    stops = stops_of(now, body.step)
    at = stops.stops[body.stop - 1].crank_deg if stops is not None and body.stop <= len(stops.stops) else None
    turned = CrankTurned(entry.seq, at) if at is not None else now.turned
    return replace(now, stop={**now.stop, body.step: body.stop}, turned=turned)


def valve_id(body: LashReading) -> str:
    """What the valve of a reading is kept under."""
    return ValveKey(body.cylinder, body.valve, body.camshaft, body.place).id


def take_reading(now: LashState, entry: LedgerEntry, body: LashReading) -> LashState:
    """One valve read; the last reading counts."""
    name = valve_id(body)
    one, ready = now.book.valves(body.step).get(name), now.ready.get(body.step)
    if one is None:
        return now
    read_with = _read_with(entry, body.gauge) or (ready.read_with if ready else BY_NOTHING)
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
    return _weighed(now, body.step)


def _lash(body: LashReading, read_with: GaugeUncertainty) -> Estimate | None:
    """None for a hydraulic lifter, which takes up its own."""
    if body.goes is None:
        return None
    goes = body.goes.inside("length", "goes.text")
    return lash_by_feelers(goes, body.not_goes.inside("length", "not_goes.text") if body.not_goes else None, read_with)


def take_shims(now: LashState, entry: LedgerEntry, body: LashShims) -> LashState:
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
    return _weighed(replace(now, shims=shims), body.step)


def take_decided(now: LashState, entry: LedgerEntry, body: LashDecided) -> LashState:
    """Accepted by the lead."""
    return _weighed(replace(now, decided={**now.decided, body.valve: (entry.seq, body.reason)}), body.step)


def news_of(before: LashState, after: LashState) -> Iterator[StepNews]:
    """Steps that have come to their end, and steps that are open again."""
    for step in sorted(after.complete - before.complete):
        yield StepNews(step=step, is_done=True)
    for step in sorted(before.complete - after.complete):
        yield StepNews(step=step, is_done=False, because=after.opened.get(step, (0, "a valve of it is read again"))[1])


def hear_of_step(now: LashState, _entry: LedgerEntry, news: StepNews) -> LashState:
    """A step was opened with what it stands on: what was read no longer holds; the shims are still in."""
    valves = now.book.valves(news.step)
    if not valves or news.is_done or news.step not in now.complete:
        return now
    gone = set(valves)
    reads = {key: read for key, read in now.reads.items() if key not in gone}
    found = {key: read for key, read in now.found.items() if key not in gone}
    shims = {key: ShimIn(seq=shim.seq, shim_mm=shim.shim_mm, is_changed=False) if key in gone else shim for key, shim in now.shims.items()}
    ready = {key: one for key, one in now.ready.items() if key != news.step}
    decided = {key: why for key, why in now.decided.items() if key not in gone}
    stop = {key: at for key, at in now.stop.items() if key != news.step}
    return _weighed(replace(now, reads=reads, found=found, shims=shims, ready=ready, decided=decided, stop=stop), news.step)


def _weighed(now: LashState, step: str) -> LashState:
    valves = now.book.valves(step)
    is_whole = bool(valves) and all(now.is_settled(valve) for valve in valves)
    complete = now.complete | {step} if is_whole else now.complete - {step}
    return now if complete == now.complete else replace(now, complete=complete)
