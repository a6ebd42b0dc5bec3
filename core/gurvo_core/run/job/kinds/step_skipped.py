"""The lead leaves a step out."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import StepSkipped
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.rules import planned_or_not
from gurvo_core.run.job.standing import is_done
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.job.take import without
from gurvo_core.run.job.words import called


def _check(now: RunState, body: StepSkipped, facts: Facts) -> Iterator[Objection]:
    """A step that is open, and a reason."""
    planned = planned_or_not(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    yield from need(not is_done(now, body.step, facts), "step", "this step is done already")
    yield from need(bool(body.reason), "reason", "say why it is left out")


def _take(now: RunState, entry: LedgerEntry, body: StepSkipped) -> RunState:
    """Left out by the lead."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=body.reason, is_skipped=True, signed=entry.seq)
    off = now.off if now.off is not None and getattr(now.off.body, "step", "") != body.step else None
    now = replace(now, opened=without(now.opened, [body.step]), stops=without(now.stops, [body.step]))
    return replace(now, done={**now.done, body.step: done}, off=off, sealing=without(now.sealing, [body.step]))


KIND: Kind[StepSkipped, RunState] = Kind(
    body=StepSkipped,
    happening="left out",
    completes=named_today,
    does="decide",
    words=lambda body: Words(title=called(body.step, body.title), value="left out", detail=body.reason, look_again=True),
    take=_take,
    check=_check,
    by="lead",
)
