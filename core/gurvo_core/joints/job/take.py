"""What stands after each entry at a joint."""

__all__ = ["hear_of_step", "news_of", "take_anew", "take_bolt", "take_decided", "take_left", "take_pull", "take_ready"]

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import BoltFound, JointAnew, JointLeft, JointReady, Pull, PullDecided
from gurvo_core.joints.job.figures import per_set_of, pulls_of, typed_angle_deg, typed_torque_nm
from gurvo_core.joints.job.judged import TURNED, judge_joint
from gurvo_core.joints.job.state import NEVER, Decision, JointsState, Left, Opened, Pulled, Ready
from gurvo_core.joints.sequence import ALL, Item
from gurvo_core.ledger import LedgerEntry, StepNews

OPENED = {"loose": "was found loose", "taken_out": "was taken out", "replaced": "was replaced"}


def take_ready(now: JointsState, entry: LedgerEntry, body: JointReady) -> JointsState:
    """What was looked at before the first pull."""
    extension = f"{body.extension_mm:g} mm at {body.extension_deg:g}°" if body.extension_mm else ""
    ready = Ready(
        seq=entry.seq,
        threads=body.threads,
        wrench=body.wrench,
        angle_by=body.angle_by,
        per_set=per_set_of(body),
        extension=extension,
    )
    now = replace(now, ready={**now.ready, body.step: ready}, left=_without(now.left, body.step))
    for pull in pulls_of(now.book, body):
        now = take_pull(now, entry, pull)
    return now


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
    now = replace(now, pulls=pulls, left=_without(now.left, body.step))
    return _weighed(now, joint)


def take_decided(now: JointsState, entry: LedgerEntry, body: PullDecided) -> JointsState:
    """Gone on with, accepted by the lead, or taken out: then it is pulled again."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        return now
    key = Item(stage=body.stage, turn=body.turn, fastener=body.fastener).key
    decision = Decision(seq=entry.seq, decision=body.decision, reason=body.reason, by=entry.by)
    now = replace(now, decided={**now.decided, (joint.joint.id, key): decision})
    if body.decision == "take_out":
        return _out(now, entry, joint, body.fastener, "was taken out to be looked at")
    return _weighed(now, joint)


def take_bolt(now: JointsState, entry: LedgerEntry, body: BoltFound) -> JointsState:
    """A fastener is open again from its first stage; a new one may be pulled."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        return now
    now = _out(now, entry, joint, body.fastener, OPENED[body.found])
    if body.found != "replaced":
        return now
    spent = now.spent.get(joint.joint.id, frozenset()) - {body.fastener}
    return replace(now, spent={**now.spent, joint.joint.id: spent})


def take_anew(now: JointsState, entry: LedgerEntry, body: JointAnew) -> JointsState:
    """All pulls of a step are gone; so are those of later steps of the same joint."""
    joint = now.book.joint_of(body.step)
    return now if joint is None else _opened(now, entry, joint, _from_step(now, body.step), f"begun anew: {body.reason}")


def take_left(now: JointsState, entry: LedgerEntry, body: JointLeft) -> JointsState:
    """Left on purpose, until something."""
    return replace(now, left={**now.left, body.step: Left(seq=entry.seq, until=body.until)})


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


def _without(known: Mapping[str, Left], name: str) -> Mapping[str, Left]:
    return {key: value for key, value in known.items() if key != name} if name in known else known


def _from_step(now: JointsState, step_id: str) -> set[str]:
    joint = now.book.joint_of(step_id)
    first = min(item.stage for item in now.book.segment(step_id))
    return {item.key for item in joint.items if item.stage >= first} if joint else set()


def _out(now: JointsState, entry: LedgerEntry, joint: PulledJoint, fastener: str, because: str) -> JointsState:
    keys = {item.key for item in joint.items if item.fastener == fastener}
    return _opened(now, entry, joint, keys, f"{joint.called(fastener)} {because}", alone=True)


def _opened(now: JointsState, entry: LedgerEntry, joint: PulledJoint, keys: set[str], because: str, *, alone: bool = False) -> JointsState:
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
    return _weighed(now, joint)


def _stretches(joint: PulledJoint, item: Item) -> bool:
    return joint.figures(item).does in TURNED or item.stage == joint.joint.last_stage


def _weighed(now: JointsState, joint: PulledJoint) -> JointsState:
    """The same with the joint judged anew, and which of its steps have come to their end."""
    name, pulls = joint.joint.id, now.of_joint(joint.joint.id)
    judged = judge_joint(joint, pulls)
    undecided = {one.item.key for one in judged if (name, one.item.key) not in now.decided}
    own = {step for step, planned in now.book.steps.items() if planned.joint == name}
    whole = {step for step in own if all(item.key in pulls and item.key not in undecided for item in now.book.segment(step))}
    return replace(now, judged={**now.judged, name: judged}, complete=(now.complete - own) | whole)
