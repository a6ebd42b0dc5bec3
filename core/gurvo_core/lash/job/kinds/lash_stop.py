"""The crank turned to one of the stops."""

__all__ = ["KIND", "LashStopQuestion"]

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from gurvo_core.engine import EngineDocument
from gurvo_core.lash.job.entries import LashReady, LashStopped
from gurvo_core.lash.job.rules import NO_SUCH, ONCE_DONE
from gurvo_core.lash.job.show import where_of
from gurvo_core.lash.job.state import LashState, begin_lash, stops_of
from gurvo_core.lash.job.take import take_ready
from gurvo_core.ledger import (
    Body,
    CrankTurned,
    Facts,
    Kind,
    LedgerEntry,
    Objection,
    PlainQuestion,
    Topic,
    Words,
    may_be_done,
    met_on_the_way,
    need,
)


class LashStopQuestion(PlainQuestion):
    """The crank turned to a stop."""

    kind: Literal["lash_stop"] = "lash_stop"
    step: str
    stop: int
    where: str
    sees: str
    valves: list[str]
    cautions: list[str]


TOPIC = Topic(
    id="lash_stop",
    title="A stop of the valve setting",
    drawing="turn",
    meant="The crank where several followers stand on the base circle at once: fewest turns for all valves.",
    by_hand=["Turn the way it runs until the named valves rock, or the named lobes point away."],
    goes_wrong=["A quarter turn off, and a follower already climbs: its gap looks too small."],
)


def _say(body: LashStopped) -> Words:
    """The crank turned on."""
    return Words(title=f"Crank at stop {body.stop}", detail=body.called or "")


def _check(now: LashState, body: LashStopped, facts: Facts) -> Iterator[Objection]:
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


def _take(now: LashState, entry: LedgerEntry, body: LashStopped) -> LashState:
    """The crank stands at a stop."""
    stops = stops_of(now, body.step)
    at = stops.stops[body.stop - 1].crank_deg if stops is not None and body.stop <= len(stops.stops) else None
    turned = CrankTurned(entry.seq, at) if at is not None else now.turned
    return replace(now, stop={**now.stop, body.step: body.stop}, turned=turned)


def _where(body: LashStopped, document: EngineDocument, before: Sequence[LedgerEntry]) -> Body:
    """Keep where the stop was, as it is called today."""
    if body.called is not None:
        return body
    now = begin_lash(document)
    ready = next((one for one in reversed(before) if isinstance(one.body, LashReady) and one.body.step == body.step), None)
    if ready is None or not isinstance(ready.body, LashReady):
        return body
    stops = stops_of(take_ready(now, ready, ready.body), body.step)
    if stops is None or body.stop > len(stops.stops):
        return body
    return body.model_copy(update={"called": where_of(document, stops.stops[body.stop - 1])})


KIND: Kind[LashStopped, LashState] = Kind(
    body=LashStopped, question=LashStopQuestion, topic=TOPIC, does="turn", completes=_where, words=_say, take=_take, check=_check
)
