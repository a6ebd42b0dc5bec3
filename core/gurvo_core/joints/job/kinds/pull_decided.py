"""What is done about a pull that stands apart."""

__all__ = ["KIND", "PullDecisionQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.joints.job.entries import PullDecided
from gurvo_core.joints.job.named import named_today
from gurvo_core.joints.job.state import Decision, JointsState
from gurvo_core.joints.job.take import out_again, weighed
from gurvo_core.joints.job.words import DECIDED, bolt_called
from gurvo_core.joints.sequence import Item
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need


class PullDecisionQuestion(PlainQuestion):
    """What is done about a pull that stands apart."""

    kind: Literal["pull_decided"] = "pull_decided"
    step: str
    stage: int
    turn: int
    fastener: str
    sentence: str


TOPIC = Topic(
    id="pull_decided",
    title="A pull that was off",
    drawing="angle",
    meant="A bolt did not come to its figure, or not as its siblings did. What is to become of it?",
    by_hand=["Out with it, look at thread and head, a new one in, and its stages from the beginning."],
    goes_wrong=["It is turned a little more until the figure is there."],
)


def _say(body: PullDecided) -> Words:
    """What is done about a pull that stands apart."""
    title = f"{bolt_called(body.joint, body.step, body.fastener)}, stage {body.stage}"
    return Words(title=title, value=DECIDED[body.decision], detail=body.reason, look_again=body.decision != "accepted")


def _check(now: JointsState, body: PullDecided, _facts: Facts) -> Iterator[Objection]:
    """A pull that stands apart, and who may say what of it."""
    joint = now.book.joint_of(body.step)
    key = Item(stage=body.stage, turn=body.turn, fastener=body.fastener).key
    found = next((one for one in now.judged.get(joint.joint.id, ()) if one.item.key == key), None) if joint else None
    yield from need(found is not None, "fastener", "this pull does not stand apart; there is nothing to decide")
    yield from need(body.decision == "take_out" or bool(body.reason), "reason", "say why it may stay")
    if found is not None and body.decision == "accepted":
        yield Objection("decision", f"{found.title}: only the lead accepts that, with the reason", "lead and reason")


def _take(now: JointsState, entry: LedgerEntry, body: PullDecided) -> JointsState:
    """Gone on with, accepted by the lead, or taken out: then it is pulled again."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        return now
    key = Item(stage=body.stage, turn=body.turn, fastener=body.fastener).key
    decision = Decision(seq=entry.seq, decision=body.decision, reason=body.reason, by=entry.by)
    now = replace(now, decided={**now.decided, (joint.joint.id, key): decision})
    if body.decision == "take_out":
        return out_again(now, entry, joint, body.fastener, "was taken out to be looked at")
    return weighed(now, joint)


KIND: Kind[PullDecided, JointsState] = Kind(
    body=PullDecided,
    question=PullDecisionQuestion,
    topic=TOPIC,
    happening="pull that was off",
    does="decide",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
)
