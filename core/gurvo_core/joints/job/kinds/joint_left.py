"""A joint left as it is on purpose."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.joints.job.entries import JointLeft
from gurvo_core.joints.job.named import named_today
from gurvo_core.joints.job.rules import NO_SUCH
from gurvo_core.joints.job.state import JointsState, Left
from gurvo_core.ledger import STEPS_DONE, Facts, Kind, LedgerEntry, Objection, Words, need


def _say(body: JointLeft) -> Words:
    """Left on purpose."""
    return Words(title=body.joint or body.step, value="left as it is", detail=f"until {body.until}")


def _check(now: JointsState, body: JointLeft, facts: Facts) -> Iterator[Objection]:
    """Not at its end yet, and until what."""
    yield from need(now.book.joint_of(body.step) is not None, "step", NO_SUCH)
    yield from need(body.step not in (facts.get(STEPS_DONE) or ()), "step", "this joint is tight already")
    yield from need(bool(body.until), "until", "say until what it stays so")


def _take(now: JointsState, entry: LedgerEntry, body: JointLeft) -> JointsState:
    """Left on purpose, until something."""
    return replace(now, left={**now.left, body.step: Left(seq=entry.seq, until=body.until)})


KIND: Kind[JointLeft, JointsState] = Kind(body=JointLeft, does="decide", completes=named_today, words=_say, take=_take, check=_check)
