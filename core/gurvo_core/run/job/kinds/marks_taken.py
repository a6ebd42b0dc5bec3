"""The lead takes marks that do not meet as they are."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import MarksTaken
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.job.take import without
from gurvo_core.run.job.words import called


def _check(now: RunState, body: MarksTaken, _facts: Facts) -> Iterator[Objection]:
    """There are marks that do not meet, and a reason."""
    off = now.off is not None and getattr(now.off.body, "step", "") == body.step
    yield from need(off, "step", "no marks are off at this step")
    yield from need(bool(body.reason), "reason", "say why they may stay as they are")


def _take(now: RunState, entry: LedgerEntry, body: MarksTaken) -> RunState:
    """The lead takes marks as they are: the turn is done, and the record says on whose word."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=body.reason, is_taken=True, signed=entry.seq)
    again = {**now.off_undid} | ({body.step: done} if body.step in now.plan.by_id else {})
    opened, stops = without(now.opened, again), without(now.stops, [body.step])
    return replace(now, done={**now.done, **again}, off=None, off_undid={}, opened=opened, stops=stops)


KIND: Kind[MarksTaken, RunState] = Kind(
    body=MarksTaken,
    completes=named_today,
    does="decide",
    words=lambda body: Words(title=called(body.step, body.title), value="marks taken as they are", detail=body.reason, look_again=True),
    take=_take,
    check=_check,
    by="lead",
)
