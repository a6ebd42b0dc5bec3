"""A lead, not the one who did it, has looked at a step and lets the work go on."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import MAKER, Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import HoldSigned
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.words import called


def _check(now: RunState, body: HoldSigned, facts: Facts) -> Iterator[Objection]:
    """A hold point that was done, by somebody else."""
    planned, done = now.plan.by_id.get(body.step), now.done.get(body.step)
    yield from need(planned is not None and planned.step.hold_point, "step", "this step is no hold point")
    yield from need(done is not None, "step", "this step is not done yet; sign it when it is")
    if done is not None:
        yield from need(not done.signed, "step", "this hold point is signed already")
        yield from need(done.by != facts.get(MAKER), "step", "whoever did a step does not sign it: hand it to another lead")


def _take(now: RunState, entry: LedgerEntry, body: HoldSigned) -> RunState:
    """Signed: what stands on it may go on."""
    done = now.done.get(body.step)
    return replace(now, done={**now.done, body.step: replace(done, signed=entry.seq)}) if done else now


KIND: Kind[HoldSigned, RunState] = Kind(
    body=HoldSigned,
    completes=named_today,
    does="decide",
    words=lambda body: Words(title=f"{called(body.step, body.title)}, hold point", value="signed", detail=body.remark),
    take=_take,
    check=_check,
    by="lead",
    confirmed=True,
)
