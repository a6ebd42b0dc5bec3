"""The sequence of a step begun anew."""

__all__ = ["KIND"]

from collections.abc import Iterator

from gurvo_core.joints.job.entries import JointAnew
from gurvo_core.joints.job.named import named_today
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.job.take import opened_again
from gurvo_core.ledger import STEPS_DONE, Facts, Kind, LedgerEntry, Objection, Words, need


def _say(body: JointAnew) -> Words:
    """Begun anew."""
    return Words(title=body.joint or body.step, value="begun anew", detail=body.reason, look_again=True)


def _check(now: JointsState, body: JointAnew, facts: Facts) -> Iterator[Objection]:
    """Begun already, and a reason."""
    joint = now.book.joint_of(body.step)
    begun = joint is not None and any(item.key in now.of_joint(joint.joint.id) for item in now.book.segment(body.step))
    yield from need(begun or body.step in (facts.get(STEPS_DONE) or ()), "step", "this sequence has not been begun")
    yield from need(bool(body.reason), "reason", "say why it is begun anew")


def _take(now: JointsState, entry: LedgerEntry, body: JointAnew) -> JointsState:
    """All pulls of a step are gone; so are those of later steps of the same joint."""
    joint = now.book.joint_of(body.step)
    return now if joint is None else opened_again(now, entry, joint, _from_step(now, body.step), f"begun anew: {body.reason}")


def _from_step(now: JointsState, step_id: str) -> set[str]:
    joint = now.book.joint_of(step_id)
    first = min(item.stage for item in now.book.segment(step_id))
    return {item.key for item in joint.items if item.stage >= first} if joint else set()


KIND: Kind[JointAnew, JointsState] = Kind(
    body=JointAnew,
    happening="opened again",
    does="decide",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
)
