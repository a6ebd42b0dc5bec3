"""What the valve clearances show: stops, valves, loose ends. All follows from what stands."""

__all__ = ["advice_for", "facts_of", "lash_view", "limits_words", "loose_ends_of", "says_of", "sees_of", "tells_of", "view_of", "where_of"]

from collections.abc import Iterator, Mapping
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.lash.adjust import screw_turn
from gurvo_core.lash.job.book import LashValve
from gurvo_core.lash.job.entries import LashDecided
from gurvo_core.lash.job.state import LashState, stops_of, valves_left
from gurvo_core.lash.job.view import LashView, StopView, ValveView
from gurvo_core.lash.stops import LashStops, Stop
from gurvo_core.ledger import CRANK_AT_STOP, CURRENT_STEP, Doing, Fact, Facts, LooseEnd, Step
from gurvo_core.motion.twin import words_at
from gurvo_core.sentence import at_start, fine

LATE: frozenset[Doing] = frozenset({"start", "hand over"})


def limits_words(one: LashValve) -> str:
    """The limits of a valve's clearance."""
    if one.lash is not None and one.lash.set_by == "hydraulic":
        return "hydraulic, no clearance"
    low, high = one.limits_mm
    if low is None or high is None:
        return "no limit known"
    return f"{fine(low)} to {fine(high)}"


def where_of(document: EngineDocument, stop: Stop) -> str:
    """Where the crank stands at a stop, in words."""
    if stop.cylinder is not None:
        return f"cylinder {stop.cylinder} at firing TDC"
    first = document.firing_order[0] if document.firing_order else document.reference_cylinder
    return f"{stop.crank_deg or 0:.0f}° after the firing TDC of cylinder {first}"


def sees_of(document: EngineDocument, stop: Stop) -> str:
    """What marks and cams show there."""
    return words_at(document, stop.crank_deg, {}) if stop.crank_deg is not None and document.is_timed else ""


def advice_for(now: LashState, name: str, one: LashValve) -> str:
    """What to do after the last reading; empty where it is in."""
    read = now.reads.get(name)
    if read is None or read.lash is None or one.lash is None or read.verdict == "in":
        return ""
    wanted = one.lash.wanted_mm
    if wanted is None or one.is_guessed:
        return ""
    if read.verdict == "can't tell":
        return "It lies too near a limit to be told: set it nearer the middle, or read it with finer leaves."
    if one.lash.set_by == "screw" and one.lash.pitch_mm:
        turn = screw_turn(read.lash.value, wanted, pitch_mm=one.lash.pitch_mm, acts_by=one.lash.acts_by)
        return f"{at_start(turn.words)}, then read it again."
    return "Set it, then read it again." if one.lash.set_by == "screw" else ""


def loose_ends_of(now: LashState, _facts: Facts) -> Iterator[LooseEnd]:
    """Valves that are out or cannot be told, and shims that were changed and not read again."""
    for step in now.book.steps:
        for name, one in now.book.valves(step).items():
            read, shim = now.reads.get(name), now.shims.get(name)
            called = at_start(one.key.words)
            if read is not None and shim is not None and shim.is_changed and shim.seq > read.seq:
                title = f"{called}: another shim, not read again"
                yield LooseEnd(title=title, since=shim.seq, holds_back=LATE, until="its clearance is read", kept_from="start, hand over")
            elif read is not None and not now.is_settled(name):
                title = f"{called} {'is out' if read.verdict == 'out' else 'cannot be told'}"
                until = "it is set and read again, or the lead accepts it"
                yield LooseEnd(
                    title=title,
                    since=read.seq,
                    holds_back=LATE,
                    until=until,
                    kept_from="start, hand over",
                    waived_with=LashDecided(kind="lash_decided", step=step, valve=name),
                    waived_as="Accept it",
                )


def facts_of(now: LashState, _facts: Facts) -> Mapping[Fact[Any], Any]:
    """Where the crank was turned to."""
    return {CRANK_AT_STOP: now.turned} if now.turned else {}


def view_of(now: LashState, facts: Facts) -> LashView | None:
    """The step that is to be done, where it sets valves."""
    step = facts.get(CURRENT_STEP) or ""
    return lash_view(now, step) if now.book.valves(step) else None


def lash_view(now: LashState, step_id: str) -> LashView:
    """One step as it stands."""
    stops = stops_of(now, step_id) or now.book.stops(step_id, "fewest", 0.0)
    left, at = set(valves_left(now, step_id)), now.stop.get(step_id)
    return LashView.model_construct(
        step=step_id,
        way=stops.words,
        stops=[_stop(now.document, n, stop, left, is_now=n == at) for n, stop in enumerate(stops.stops, 1)],
        valves=[_valve(now, name, one, stops) for name, one in now.book.valves(step_id).items()],
    )


def _stop(document: EngineDocument, number: int, stop: Stop, left: set[str], *, is_now: bool) -> StopView:
    return StopView.model_construct(
        number=number,
        crank_deg=stop.crank_deg,
        where=where_of(document, stop),
        sees=sees_of(document, stop),
        valves=[key.id for key in stop.valves],
        is_now=is_now,
        left=sum(key.id in left for key in stop.valves),
    )


def _valve(now: LashState, name: str, one: LashValve, stops: LashStops) -> ValveView:
    read, shim, found, decided = now.reads.get(name), now.shims.get(name), now.found.get(name), now.decided.get(name)
    low, high = one.limits_mm
    is_pending = shim is not None and shim.is_changed and (read is None or shim.seq > read.seq)
    return ValveView.model_construct(
        id=name,
        words=one.key.words,
        cylinder=one.key.cylinder,
        valve=one.key.valve,
        place=one.key.place,
        stop=next((n for n, stop in enumerate(stops.stops, 1) if one.key in stop.valves), None),
        verdict=read.verdict if read else None,
        lash_mm=round(read.lash.value, 6) if read and read.lash else None,
        u_mm=round(read.lash.expanded, 6) if read and read.lash else None,
        found_mm=round(found.lash.value, 6) if found and found.lash and read and found.seq != read.seq else None,
        shim_mm=shim.shim_mm if shim else read.shim_mm if read else None,
        is_pending=is_pending,
        advice=advice_for(now, name, one),
        decided=f"accepted by the lead: {decided[1]}" if decided else "",
        low_mm=low,
        high_mm=high,
    )


def says_of(now: LashState) -> Iterator[str]:
    """How the valves came out."""
    for step in now.book.steps:
        yield from _said_of(now, step)


def tells_of(now: LashState, step: Step) -> Iterator[str]:
    """How the valves of one step came out."""
    if step.key in now.book.steps:
        yield from _said_of(now, step.key)


def _said_of(now: LashState, step: str) -> Iterator[str]:
    valves = now.book.valves(step)
    reads = [now.reads[name] for name in valves if name in now.reads]
    if reads:
        verdicts = [read.verdict for read in reads]
        counts = ", ".join(f"{verdicts.count(one)} {one}" for one in dict.fromkeys(verdicts))
        yield f"Valve clearances: {counts} of {len(valves)}"
