"""A fastener found loose, taken out or replaced: it is pulled again, and what stands on it is done again."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.joints.job.entries import BoltFound
from gurvo_core.joints.job.named import named_today
from gurvo_core.joints.job.rules import NO_SUCH
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.job.take import out_again
from gurvo_core.joints.job.words import bolt_called
from gurvo_core.ledger import STEPS_DONE, Facts, Kind, LedgerEntry, Objection, Words, need

FOUND = {"loose": "found loose", "taken_out": "taken out", "replaced": "replaced"}
OPENED = {"loose": "was found loose", "taken_out": "was taken out", "replaced": "was replaced"}


def _say(body: BoltFound) -> Words:
    """A fastener that is open again."""
    return Words(title=bolt_called(body.joint, body.step, body.fastener), value=FOUND[body.found], detail=body.note, look_again=True)


def _check(now: JointsState, body: BoltFound, facts: Facts) -> Iterator[Objection]:
    """A fastener of the joint that has been pulled, or must be replaced."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        yield Objection("step", NO_SUCH)
        return
    known = {spot.id for spot in joint.spots}
    yield from need(body.fastener in known, "fastener", f"{joint.joint.name} has no fastener {body.fastener}")
    pulled = any(key.endswith(f".{body.fastener}") for key in now.of_joint(joint.joint.id))
    spent = body.fastener in now.spent.get(joint.joint.id, ())
    is_done = body.step in (facts.get(STEPS_DONE) or ())
    yield from need(pulled or is_done or (spent and body.found == "replaced"), "fastener", "it has not been pulled yet")
    yield from need(body.found != "loose" or bool(body.note), "note", "say how it was found")


def _take(now: JointsState, entry: LedgerEntry, body: BoltFound) -> JointsState:
    """A fastener is open again from its first stage; a new one may be pulled."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        return now
    now = out_again(now, entry, joint, body.fastener, OPENED[body.found])
    if body.found != "replaced":
        return now
    spent = now.spent.get(joint.joint.id, frozenset()) - {body.fastener}
    return replace(now, spent={**now.spent, joint.joint.id: spent})


KIND: Kind[BoltFound, JointsState] = Kind(
    body=BoltFound,
    happening="bolt looked at",
    does="look",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
)
