"""What a pull, a bolt taken out and a step opened again do to a joint."""

__all__ = ["hear_of_step", "news_of", "opened_again", "out_again", "take_pull", "weighed", "without_left"]

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import Pull
from gurvo_core.joints.job.figures import typed_angle_deg, typed_torque_nm
from gurvo_core.joints.job.judged import TURNED, judge_joint
from gurvo_core.joints.job.state import NEVER, JointsState, Left, Opened, Pulled
from gurvo_core.joints.sequence import ALL, Item
from gurvo_core.ledger import LedgerEntry, StepNews


def take_pull(now: JointsState, entry: LedgerEntry, body: Pull) -> JointsState:
    """One pull; whatever today's document no longer knows is left out."""
    joint = now.book.joint_of(body.step)
    item = joint.item(body.stage, body.turn, body.fastener) if joint else None
    if joint is None or item is None:
        return now
    figures, ready = joint.figures(item), now.ready.get(body.step)
    turned = typed_angle_deg(body.angle) if body.angle else figures.angle_deg if figures.does in TURNED else None
    per_set = ready.per_set if ready and body.trace is None else 1.0  # an instrument was told of its extension
    pull = Pulled(
        seq=entry.seq,
        at=entry.at,
        by=entry.by,
        torque_nm=typed_torque_nm(body.torque) * per_set if body.torque else None,
        angle_deg=turned,
        before_deg=typed_angle_deg(body.before) if body.before else None,
        angle_by=(body.angle_by or (ready.angle_by if ready else None)) if figures.does in TURNED else None,
        wrench=body.wrench or (ready.wrench if ready else None),
        because=entry.because,
        has_trace=body.trace is not None,
    )
    name = joint.joint.id
    pulls = {**now.pulls, name: {**now.of_joint(name), item.key: pull}}
    now = replace(now, pulls=pulls, left=without_left(now.left, body.step))
    return weighed(now, joint)


def news_of(before: JointsState, after: JointsState) -> Iterator[StepNews]:
    """Steps that have come to their end, and steps that are open again."""
    for step in sorted(after.complete - before.complete):
        yield StepNews(step=step, is_done=True)
    if after.opened is not before.opened:
        for step, opened in after.opened.items():
            if before.opened.get(step, NEVER).seq != opened.seq:
                yield StepNews(step=step, is_done=False, because=opened.because, alone=opened.alone)


def hear_of_step(now: JointsState, entry: LedgerEntry, news: StepNews) -> JointsState:
    """A step was opened with what it stands on: its pulls are gone. What was opened here is known already."""
    joint = now.book.joint_of(news.step)
    if joint is None or news.is_done or now.opened.get(news.step, NEVER).seq == entry.seq:
        return now
    keys = {item.key for item in now.book.segment(news.step)} & now.of_joint(joint.joint.id).keys()
    return _dropped(now, joint, keys) if keys or news.step in now.complete else now


def without_left(known: Mapping[str, Left], name: str) -> Mapping[str, Left]:
    """What is left on purpose, without one step."""
    return {key: value for key, value in known.items() if key != name} if name in known else known


def out_again(now: JointsState, entry: LedgerEntry, joint: PulledJoint, fastener: str, because: str) -> JointsState:
    """A fastener is open again from its first stage, and nothing that stands on it."""
    keys = {item.key for item in joint.items if item.fastener == fastener}
    return opened_again(now, entry, joint, keys, f"{joint.called(fastener)} {because}", alone=True)


def opened_again(
    now: JointsState, entry: LedgerEntry, joint: PulledJoint, keys: set[str], because: str, *, alone: bool = False
) -> JointsState:
    """Some pulls are gone, and the steps they were of are open again."""
    # of all its steps, so that what the run opens with them is known to have been opened here
    steps = [
        name
        for name, step in now.book.steps.items()
        if step.joint == joint.joint.id and any(item.key in keys for item in now.book.segment(name))
    ]
    opened = {**now.opened, **dict.fromkeys(steps, Opened(entry.seq, because, alone))}
    return _dropped(replace(now, opened=opened), joint, keys)


def _dropped(now: JointsState, joint: PulledJoint, keys: Iterable[str]) -> JointsState:
    """Without some pulls; one-time fasteners among them that were stretched are spent."""
    name, gone = joint.joint.id, set(keys)
    pulls = now.of_joint(name)
    spent = now.spent.get(name, frozenset())
    if joint.joint.one_time:
        stretched = {joint.by_key[key].fastener for key in gone & pulls.keys() if _stretches(joint, joint.by_key[key])}
        spent = spent | (stretched - {ALL})
    decided = {where: one for where, one in now.decided.items() if where[0] != name or where[1] not in gone}
    left = {key: pull for key, pull in pulls.items() if key not in gone}
    now = replace(now, pulls={**now.pulls, name: left}, spent={**now.spent, name: spent}, decided=decided)
    return weighed(now, joint)


def _stretches(joint: PulledJoint, item: Item) -> bool:
    return joint.figures(item).does in TURNED or item.stage == joint.joint.last_stage


def weighed(now: JointsState, joint: PulledJoint) -> JointsState:
    """The same with the joint judged anew, and which of its steps have come to their end."""
    name, pulls = joint.joint.id, now.of_joint(joint.joint.id)
    judged = judge_joint(joint, pulls)
    undecided = {one.item.key for one in judged if (name, one.item.key) not in now.decided}
    own = {step for step, planned in now.book.steps.items() if planned.joint == name}
    whole = {step for step in own if all(item.key in pulls and item.key not in undecided for item in now.book.segment(step))}
    return replace(now, judged={**now.judged, name: judged}, complete=(now.complete - own) | whole)
