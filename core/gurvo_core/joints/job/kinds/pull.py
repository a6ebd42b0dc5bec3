"""One fastener pulled at one stage, or all of them where they are not told apart."""

__all__ = ["KIND"]

from collections.abc import Iterator

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import Pull
from gurvo_core.joints.job.figures import pull_si
from gurvo_core.joints.job.named import named_today, wrench_named
from gurvo_core.joints.job.rules import NO_SUCH, ONCE_DONE, typed_objections, wrench_objections
from gurvo_core.joints.job.state import JointsState, next_item
from gurvo_core.joints.job.take import take_pull
from gurvo_core.joints.job.words import ANGLE_WORDS, bolt_called
from gurvo_core.joints.sequence import ALL, Figures, Item
from gurvo_core.ledger import NOW, TYPED, Facts, Kind, Objection, Words, may_be_done, need


def _say(body: Pull) -> Words:
    """One pull: what was asked, what was shown."""
    shown = [f"{body.torque.text} {body.torque.unit}"] if body.torque else []
    shown += [f"turned {body.angle}°"] if body.angle and f"{body.angle}°" not in (body.asked or "") else []
    again = f", round {body.turn}" if body.turn > 1 else ""
    by = [ANGLE_WORDS[body.angle_by]] if body.angle_by == "eye" else []
    before = [f"{body.before}° before it"] if body.before else []
    wrench = [f"wrench {body.wrench}"] if body.wrench else []
    trace = ["with its trace"] if body.trace else []
    return Words(
        title=f"{bolt_called(body.joint, body.step, body.fastener)}, stage {body.stage}{again}",
        value=" · ".join([body.asked or "done", *shown]),
        detail=", ".join([*before, *by, *wrench, *trace, *filter(None, [body.note])]),
    )


def _check(now: JointsState, body: Pull, facts: Facts) -> Iterator[Objection]:
    """The next pull, or another of the same stage for a reason; with figures that can be."""
    joint = now.book.joint_of(body.step)
    item = joint.item(body.stage, body.turn, body.fastener) if joint else None
    if joint is None:
        yield Objection("step", NO_SUCH)
        return
    if item is None or item not in now.book.segment(body.step):
        yield Objection("fastener", f"{joint.joint.name} has no such pull in this step; load the bench again")
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    yield from need(body.step in now.ready, "step", "first say how the threads are and which wrench it is")
    yield from _its_turn(now, joint, body, item)
    figures = joint.figures(item)
    if figures.does == "wait":
        yield from _has_rested(now, joint, item, facts)
    if item.fastener != ALL:
        yield from _another_wrench(now, body, figures, facts)
        yield from _with_one_wrench(now, joint, body, item)
    yield from typed_objections(body, item, figures)


def _its_turn(now: JointsState, joint: PulledJoint, body: Pull, item: Item) -> Iterator[Objection]:
    pulls, called = now.of_joint(joint.joint.id), joint.called(item.fastener)
    rule = f"{called} is new every time and has been pulled already: put in a new one, and say that it was replaced"
    yield from need(item.fastener not in now.spent.get(joint.joint.id, ()), "fastener", rule)
    rule = f"{called} has been pulled at this stage; strike that pull if it was wrong, or say that it was found loose"
    yield from need(item.key not in pulls, "fastener", rule)
    following = next_item(now, body.step)
    if following is None or following == item:
        return
    if joint.joint.one_after_another and ALL not in (following.fastener, item.fastener):
        yield from _its_turn_alone(now, joint, body.step, item, following)
        return
    is_same = (following.stage, following.turn) == (item.stage, item.turn)
    words = joint.joint.stage_words(following.stage - 1, following.stage)
    before = f"{joint.called(following.fastener)} still has “{words}” to come: no fastener is more than one stage ahead of another"
    yield from need(is_same, "stage", before)
    yield from need(not is_same, "fastener", f"{joint.called(following.fastener)} is next in the order: why {item.fastener} now?", "reason")


def _its_turn_alone(now: JointsState, joint: PulledJoint, step_id: str, item: Item, following: Item) -> Iterator[Objection]:
    """Each fastener to its end before the next: another may only be begun where none is half-way, and from its first stage."""
    pulls, called = now.of_joint(joint.joint.id), joint.called(following.fastener)
    is_begun = any(one.fastener == following.fastener and one.key in pulls for one in now.book.segment(step_id))
    words = joint.joint.stage_words(following.stage - 1, following.stage)
    rule = f"{called} still has “{words}” to come: here each is tightened to its end before the next"
    yield from need(not is_begun and (item.stage, item.turn) == (following.stage, following.turn), "fastener", rule)
    yield from need(is_begun, "fastener", f"{called} is next in the order: why {item.fastener} now?", "reason")


def _has_rested(now: JointsState, joint: PulledJoint, item: Item, facts: Facts) -> Iterator[Objection]:
    """It settles for as long as the book has it, from its last pull on."""
    clock = facts.get(TYPED) or facts.get(NOW)
    last = max((pull.at for pull in now.of_joint(joint.joint.id).values()), default=None)
    minutes = joint.joint.figures[item.stage - 1].minutes
    if clock is None or last is None or minutes is None:
        return
    rested = (clock - last).total_seconds() / 60
    yield from need(rested >= minutes, "step", f"it has rested {rested:.0f} minutes of {minutes:g}: leave it, or say why not", "reason")


def _another_wrench(now: JointsState, body: Pull, figures: Figures, facts: Facts) -> Iterator[Objection]:
    """A wrench other than the one that was looked at before the first pull is looked at now."""
    ready = now.ready.get(body.step)
    if ready is not None and body.wrench is not None and body.wrench != ready.wrench:
        yield from wrench_objections(body.wrench, [figures] if figures.torque_nm else [], 1 / ready.per_set, facts)


def _with_one_wrench(now: JointsState, joint: PulledJoint, body: Pull, item: Item) -> Iterator[Objection]:
    same = [
        (one, pull)
        for one in joint.items
        if (one.stage, one.turn) == (item.stage, item.turn) and (pull := now.of_joint(joint.joint.id).get(one.key)) and pull.wrench
    ]
    other = next((one for one, pull in same if pull.wrench != body.wrench), None)
    if other is not None and body.wrench is not None:
        rule = (
            f"{joint.called(other.fastener)} was pulled with another wrench: finish a stage with the one it was begun with, or say why not"
        )
        yield Objection("wrench", rule, "reason")


def _si(now: JointsState, body: Pull) -> dict[str, float]:
    ready = now.ready.get(body.step)
    return pull_si(ready.per_set if ready else 1.0, body)


KIND: Kind[Pull, JointsState] = Kind(
    body=Pull,
    does="tighten",
    completes=named_today,
    words=_say,
    take=take_pull,
    check=_check,
    gauges=wrench_named,
    si_values=_si,
)
