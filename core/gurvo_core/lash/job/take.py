"""What several entries about valve clearances do: which way they are reached, and what becomes of a step."""

__all__ = ["BY_NOTHING", "hear_of_step", "news_of", "read_by", "take_ready", "weighed"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.lash.job.entries import LashReady
from gurvo_core.lash.job.figures import typed_deg
from gurvo_core.lash.job.state import LashIsReady, LashState, ShimIn
from gurvo_core.ledger import LedgerEntry, StepNews
from gurvo_core.uncertainty import GaugeUncertainty, standard_uncertainty

BY_NOTHING = GaugeUncertainty(0.05 / 12**0.5)  # leaves of an unnamed set are taken as a twentieth apart


def read_by(entry: LedgerEntry, code: str | None) -> GaugeUncertainty | None:
    """How sure a reading with a gauge is; None where none is named."""
    gauge = entry.gauge_of(code)
    return standard_uncertainty(gauge.resolution, gauge.expanded_uncertainty) if gauge else None


def take_ready(now: LashState, entry: LedgerEntry, body: LashReady) -> LashState:
    """Which way, with what."""
    ready = LashIsReady(
        seq=entry.seq,
        way=body.way,
        begin_deg=typed_deg(body.stands_deg),
        gauge=body.gauge,
        read_with=read_by(entry, body.gauge) or BY_NOTHING,
        engine_is=body.engine_is,
    )
    return replace(now, ready={**now.ready, body.step: ready}, stop={key: at for key, at in now.stop.items() if key != body.step})


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
    return weighed(replace(now, reads=reads, found=found, shims=shims, ready=ready, decided=decided, stop=stop), news.step)


def weighed(now: LashState, step: str) -> LashState:
    """The same with whether a step has come to its end."""
    valves = now.book.valves(step)
    is_whole = bool(valves) and all(now.is_settled(valve) for valve in valves)
    complete = now.complete | {step} if is_whole else now.complete - {step}
    return now if complete == now.complete else replace(now, complete=complete)
