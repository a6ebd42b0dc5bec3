"""A dead stop, a stiffness or a noise while something was moved: nothing goes on before it is looked into."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import TroubleTold
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.rules import planned_or_not
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.words import TROUBLES, called


def _say(body: TroubleTold) -> Words:
    """What was met or heard while something was moved."""
    return Words(title=called(body.step, body.title), value=TROUBLES[body.what], detail=body.note, look_again=True)


def _check(now: RunState, body: TroubleTold, _facts: Facts) -> Iterator[Objection]:
    """Of a step that there is; a stiffness or a noise with a word on it."""
    planned = planned_or_not(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    yield from need(now.hard_stop is None, "kind", "what was met before is not looked into yet; say first what that was")
    yield from need(body.what == "dead_stop" or bool(body.note), "note", "say where, and what it was like")


def _take(now: RunState, entry: LedgerEntry, _body: TroubleTold) -> RunState:
    """Something was met or heard while something was moved: it waits to be looked into."""
    return replace(now, hard_stop=entry)


KIND: Kind[TroubleTold, RunState] = Kind(
    body=TroubleTold,
    happening="trouble",
    does="look",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
)
