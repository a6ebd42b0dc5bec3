"""Something was undone: a step is open again, and everything that stands on it."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import Reopened
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.take import opened_again
from gurvo_core.run.job.words import called


def _check(now: RunState, body: Reopened, _facts: Facts) -> Iterator[Objection]:
    """A step that was done, and a reason."""
    yield from need(body.step in now.done, "step", "this step is open already")
    yield from need(bool(body.reason), "reason", "say what was undone")


def _take(now: RunState, entry: LedgerEntry, body: Reopened) -> RunState:
    """Open again, with everything that stands on it; a drive that is laid anew has not been found off yet."""
    title = now.plan.by_id[body.step].step.says if body.step in now.plan.by_id else body.step
    above = now.plan.above(body.step)
    now = opened_again(now, entry, [body.step], body.reason)
    said = {name: replace(one, because=f"stands on “{title}”") if name in above else one for name, one in now.opened.items()}
    return replace(now, opened=said)


KIND: Kind[Reopened, RunState] = Kind(
    body=Reopened,
    happening="opened again",
    completes=named_today,
    does="decide",
    words=lambda body: Words(title=called(body.step, body.title), value="open again", detail=body.reason, look_again=True),
    take=_take,
    check=_check,
)
