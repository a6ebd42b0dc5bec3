"""What was looked at before the first pull of a step; of a joint of one bolt its pulls too."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import JointReady, OnePull
from gurvo_core.joints.job.figures import per_set_of, pull_si, pulls_of
from gurvo_core.joints.job.judged import TURNED
from gurvo_core.joints.job.named import named_today, wrench_named
from gurvo_core.joints.job.rules import NO_SUCH, ONCE_DONE, typed_objections, wrench_objections
from gurvo_core.joints.job.state import JointsState, Ready
from gurvo_core.joints.job.take import take_pull, without_left
from gurvo_core.joints.job.words import ANGLE_WORDS
from gurvo_core.joints.meaning import lubrication_warning
from gurvo_core.joints.sequence import bolt_facts
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, may_be_done, need


def _say(body: JointReady) -> Words:
    """What was looked at."""
    said = [f"threads {body.threads or 'not looked at'}", *(["held against the wrench"] if body.held else [])]
    said += [f"wrench {body.wrench}"] if body.wrench else ["no wrench with a scale"]
    said += [f"extension {body.extension_mm:g} mm at {body.extension_deg:g}°"] if body.extension_mm else []
    said += [f"angle {ANGLE_WORDS[body.angle_by]}"] if body.angle_by else []
    if not body.pulls:
        return Words(title=f"{body.joint or body.step}, before the first pull", detail=", ".join(said))
    return Words(title=body.joint or body.step, value=" · ".join(map(_pulled, body.pulls)), detail=", ".join(said))


def _pulled(pull: OnePull) -> str:
    shown = [f"{pull.torque.text} {pull.torque.unit}"] if pull.torque else []
    shown += [f"{pull.angle}°"] if pull.angle and f"{pull.angle}°" not in (pull.asked or "") else []
    return f"{pull.asked or 'done'} ({', '.join(shown)})" if shown else pull.asked or "done"


def _check(now: JointsState, body: JointReady, facts: Facts) -> Iterator[Objection]:
    """Threads as the figure presumes, held against the wrench, and a wrench that is good enough for every figure of the step."""
    joint = now.book.joint_of(body.step)
    if joint is None:
        yield Objection("step", NO_SUCH)
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    yield from need((body.lever_mm is None) == (body.extension_mm is None), "extension_mm", "an extension needs the wrench's lever too")
    per_set_of(body)
    held_by = joint.joint.held_by
    yield from need(body.held or not held_by, "held", f"first let {held_by} hold against the wrench")
    yield from need(body.threads is not None, "threads", "say how threads and heads are left: look at them first")
    yield from _surfaces(joint, body)
    figures = [joint.figures(item) for item in now.book.segment(body.step)]
    needs_angle = any(one.does in TURNED for one in figures)
    yield from need(not needs_angle or body.angle_by is not None, "angle_by", "say by what the angle is read; by eye is an answer too")
    torques = [one for one in figures if one.torque_nm is not None]
    if torques and body.wrench is None:
        yield Objection("wrench", "no wrench is named: take one with a scale, or say why not", "reason")
    elif body.wrench is not None:
        yield from wrench_objections(body.wrench, torques, 1 / per_set_of(body), facts)
    if body.pulls:
        yield from _at_once(now, joint, body)


def _at_once(now: JointsState, joint: PulledJoint, body: JointReady) -> Iterator[Objection]:
    """What was pulled is all that the step pulls, of one bolt, as the figures of single pulls must be."""
    segment = now.book.segment(body.step)
    is_all = [(pull.stage, pull.turn) for pull in body.pulls] == [(item.stage, item.turn) for item in segment]
    begun = any(item.key in now.of_joint(joint.joint.id) for item in segment)
    rule = f"{joint.joint.name} is not pulled at once: say that it is ready, then pull by pull"
    yield from need(is_all and not begun and joint.at_once(segment), "pulls", rule)
    spent = now.spent.get(joint.joint.id, ())
    rule = f"{joint.joint.name} is new every time and has been pulled already: put in a new one, and say that it was replaced"
    yield from need(joint.spots[0].id not in spent, "pulls", rule)
    for at, (pull, item) in enumerate(zip(pulls_of(now.book, body), segment, strict=False)):
        for found in typed_objections(pull, item, joint.figures(item)):
            yield replace(found, field=f"pulls.{at}.{found.field}")


def _surfaces(joint: PulledJoint, body: JointReady) -> Iterator[Objection]:
    facts = bolt_facts(joint.joint)
    stated = joint.joint.thread_state
    if stated is None or body.threads is None or body.threads == stated:
        return
    torque = max((stage.torque_nm for stage in joint.joint.figures if stage.torque_nm), default=None)
    warning = lubrication_warning(torque, facts, body.threads) if facts and torque else ""
    yield Objection("threads", warning or f"the book has them {stated}: clean them so, or say why not", "reason")


def _take(now: JointsState, entry: LedgerEntry, body: JointReady) -> JointsState:
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
    now = replace(now, ready={**now.ready, body.step: ready}, left=without_left(now.left, body.step))
    for pull in pulls_of(now.book, body):
        now = take_pull(now, entry, pull)
    return now


def _si_at_once(now: JointsState, body: JointReady) -> dict[str, float]:
    """Of a joint of one bolt: the figures of its pulls, by their place."""
    pulls = enumerate(pulls_of(now.book, body))
    return {f"pulls.{at}.{name}": value for at, pull in pulls for name, value in pull_si(per_set_of(body), pull).items()}


KIND: Kind[JointReady, JointsState] = Kind(
    body=JointReady,
    does="look",
    doing=lambda _now, body: "tighten" if body.pulls else "look",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
    si_values=_si_at_once,
    gauges=wrench_named,
)
