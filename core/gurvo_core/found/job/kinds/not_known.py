"""Asked, and not known: the work goes on without it."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.found.filled import is_open
from gurvo_core.found.job.entries import NotKnown
from gurvo_core.found.job.state import FoundState
from gurvo_core.found.job.values import named_today
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need


def _take(now: FoundState, _entry: LedgerEntry, body: NotKnown) -> FoundState:
    return replace(now, unknown=now.unknown | {body.pointer, *body.more})


def _check(now: FoundState, body: NotKnown, _facts: Facts) -> Iterator[Objection]:
    yield from need(is_open(now.document, body.pointer), "pointer", "it is known already")
    for at, pointer in enumerate(body.more):
        yield from need(is_open(now.document, pointer), f"more.{at}", "it is known already")


KIND: Kind[NotKnown, FoundState] = Kind(
    body=NotKnown,
    does="look",
    completes=named_today,
    words=lambda body: Words(title="; ".join([body.called or body.pointer, *body.called_more]), value="not known"),
    take=_take,
    check=_check,
)
