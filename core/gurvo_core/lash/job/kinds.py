"""The kinds of entries about valve clearances, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.lash.job import rules, take, words
from gurvo_core.lash.job.entries import LashDecided, LashReading, LashReady, LashShims, LashStopped
from gurvo_core.lash.job.figures import lash_si
from gurvo_core.lash.job.show import where_of
from gurvo_core.lash.job.state import LashState, begin_lash, stops_of
from gurvo_core.ledger import LENGTH_GAUGES, Body, Kind, LedgerEntry, NamedGauge


def _where(body: LashStopped, document: EngineDocument, before: Sequence[LedgerEntry]) -> Body:
    """Keep where the stop was, as it is called today."""
    if body.called is not None:
        return body
    now = begin_lash(document)
    ready = next((one for one in reversed(before) if isinstance(one.body, LashReady) and one.body.step == body.step), None)
    if ready is None or not isinstance(ready.body, LashReady):
        return body
    stops = stops_of(take.take_ready(now, ready, ready.body), body.step)
    if stops is None or body.stop > len(stops.stops):
        return body
    return body.model_copy(update={"called": where_of(document, stops.stops[body.stop - 1])})


def _gauge(body: LashReady | LashReading) -> tuple[NamedGauge, ...]:
    return (NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "set of feelers"),) if body.gauge else ()


KINDS: tuple[Kind[Any, LashState], ...] = (
    Kind(body=LashReady, does="look", words=words.say_ready, take=take.take_ready, check=rules.check_ready, gauges=_gauge),
    Kind(body=LashStopped, does="turn", settle=_where, words=words.say_stop, take=take.take_stop, check=rules.check_stop),
    Kind(
        body=LashReading,
        does="look",
        words=words.say_reading,
        take=take.take_reading,
        check=rules.check_reading,
        gauges=_gauge,
        si_values=lambda _now, body: lash_si(body),
    ),
    Kind(body=LashShims, does="decide", words=words.say_shims, take=take.take_shims, check=rules.check_shims, asks_stock=True),
    Kind(
        body=LashDecided,
        happening="valve gap decided",
        does="decide",
        words=words.say_decided,
        take=take.take_decided,
        check=rules.check_decided,
    ),
)
