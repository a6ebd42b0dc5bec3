"""What the entries at a joint may say, in the light of what stands. Each rule yields its objections; nothing is changed."""

__all__ = ["check_anew", "check_bolt", "check_decided", "check_left", "check_pull", "check_ready"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import BoltFound, JointAnew, JointLeft, JointReady, Pull, PullDecided
from gurvo_core.joints.job.figures import per_set_of, pulls_of, typed_angle_deg, typed_torque_nm
from gurvo_core.joints.job.judged import TURNED, window_of
from gurvo_core.joints.job.kept import open_trace
from gurvo_core.joints.job.state import JointsState, next_item
from gurvo_core.joints.meaning import lubrication_warning
from gurvo_core.joints.sequence import ALL, Figures, Item, bolt_facts
from gurvo_core.joints.wrench import Wrench, unit_meant, wrench_doubts
from gurvo_core.ledger import NOW, STEPS_DONE, TYPED, Facts, Objection, known_gauge, may_be_done, need
from gurvo_core.units import read_figure

Objections = Iterator[Objection]
ONCE_DONE = "say that a bolt was found loose, or begin it anew"
MOST_DEG = 2000.0
NO_SUCH = "this engine's run has no step that pulls a joint by that name; load the bench again"


def check_ready(now: JointsState, body: JointReady, facts: Facts) -> Objections:
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
        yield from _wrench(body.wrench, torques, 1 / per_set_of(body), facts)
    if body.pulls:
        yield from _at_once(now, joint, body)


def _at_once(now: JointsState, joint: PulledJoint, body: JointReady) -> Objections:
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
        for found in _typed(pull, item, joint.figures(item)):
            yield replace(found, field=f"pulls.{at}.{found.field}")


def _surfaces(joint: PulledJoint, body: JointReady) -> Objections:
    facts = bolt_facts(joint.joint)
    stated = joint.joint.thread_state
    if stated is None or body.threads is None or body.threads == stated:
        return
    torque = max((stage.torque_nm for stage in joint.joint.figures if stage.torque_nm), default=None)
    warning = lubrication_warning(torque, facts, body.threads) if facts and torque else ""
    yield Objection("threads", warning or f"the book has them {stated}: clean them so, or say why not", "reason")


def _wrench(code: str, torques: list[Figures], per_bolt: float, facts: Facts) -> Objections:
    gauge = known_gauge(facts, code)
    if gauge is None:
        return  # the gate says so
    clock = facts.get(NOW)
    today = clock.date() if clock else None
    wrench = Wrench(name=gauge.id, least_nm=gauge.least, most_nm=gauge.most, resolution_nm=gauge.resolution, pulls=gauge.pulls)
    said = set()
    for figures in torques:
        window = window_of(figures)
        width = (window.most - window.least) if window.least is not None and window.most is not None else None
        for sentence, cannot in wrench_doubts(wrench, (figures.torque_nm or 0) * per_bolt, window_nm=width):
            if sentence not in said:
                yield Objection("wrench", sentence, "none" if cannot else "reason")
            said.add(sentence)
    if gauge.kind == "bar":
        rule = f"{gauge.id} goes by air pressure: check it against a wrench today, and write that down under Gauges"
        yield from need(gauge.checked is not None and gauge.checked == today, "wrench", rule, "reason")


def check_pull(now: JointsState, body: Pull, facts: Facts) -> Objections:
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
    yield from _typed(body, item, figures)


def _its_turn(now: JointsState, joint: PulledJoint, body: Pull, item: Item) -> Objections:
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


def _its_turn_alone(now: JointsState, joint: PulledJoint, step_id: str, item: Item, following: Item) -> Objections:
    """Each fastener to its end before the next: another may only be begun where none is half-way, and from its first stage."""
    pulls, called = now.of_joint(joint.joint.id), joint.called(following.fastener)
    is_begun = any(one.fastener == following.fastener and one.key in pulls for one in now.book.segment(step_id))
    words = joint.joint.stage_words(following.stage - 1, following.stage)
    rule = f"{called} still has “{words}” to come: here each is tightened to its end before the next"
    yield from need(not is_begun and (item.stage, item.turn) == (following.stage, following.turn), "fastener", rule)
    yield from need(is_begun, "fastener", f"{called} is next in the order: why {item.fastener} now?", "reason")


def _has_rested(now: JointsState, joint: PulledJoint, item: Item, facts: Facts) -> Objections:
    """It settles for as long as the book has it, from its last pull on."""
    clock = facts.get(TYPED) or facts.get(NOW)
    last = max((pull.at for pull in now.of_joint(joint.joint.id).values()), default=None)
    minutes = joint.joint.figures[item.stage - 1].minutes
    if clock is None or last is None or minutes is None:
        return
    rested = (clock - last).total_seconds() / 60
    yield from need(rested >= minutes, "step", f"it has rested {rested:.0f} minutes of {minutes:g}: leave it, or say why not", "reason")


def _another_wrench(now: JointsState, body: Pull, figures: Figures, facts: Facts) -> Objections:
    """A wrench other than the one that was looked at before the first pull is looked at now."""
    ready = now.ready.get(body.step)
    if ready is not None and body.wrench is not None and body.wrench != ready.wrench:
        yield from _wrench(body.wrench, [figures] if figures.torque_nm else [], 1 / ready.per_set, facts)


def _with_one_wrench(now: JointsState, joint: PulledJoint, body: Pull, item: Item) -> Objections:
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


def _typed(body: Pull, item: Item, figures: Figures) -> Objections:
    is_pull = figures.does in ("torque", "torque_angle", "angle")
    if not is_pull or item.fastener == ALL:
        yield from need(
            body.torque is None and body.angle is None and body.before is None, "torque", "nothing is measured here; leave it empty"
        )
        return
    if body.torque is not None:
        shown = typed_torque_nm(body.torque)
        yield from need(shown > 0, "torque.text", "a torque is above 0")
        meant = unit_meant(read_figure(body.torque.text), body.torque.unit, figures.torque_nm or 0) if figures.does == "torque" else None
        if meant is not None:
            asked = f"{body.torque.text} {body.torque.unit} is {shown:.3g} N·m and {meant.asked_nm:g} was asked"
            yield Objection("torque.unit", f"{asked}; in {meant.unit} it would be right: did you mean {meant.unit}?", "reason")
    for text, field in ((body.angle, "angle"), (body.before, "before")):
        if text:
            yield from need(0 < typed_angle_deg(text, field) <= MOST_DEG, field, f"a pull turns more than 0° and no more than {MOST_DEG:g}")
    if body.trace is not None:
        open_trace(body.trace)
    rule = "an angle is said only where one is turned; leave it empty"
    yield from need(not body.angle or figures.does in TURNED, "angle", rule)


def check_decided(now: JointsState, body: PullDecided, _facts: Facts) -> Objections:
    """A pull that stands apart, and who may say what of it."""
    joint = now.book.joint_of(body.step)
    key = Item(stage=body.stage, turn=body.turn, fastener=body.fastener).key
    found = next((one for one in now.judged.get(joint.joint.id, ()) if one.item.key == key), None) if joint else None
    yield from need(found is not None, "fastener", "this pull does not stand apart; there is nothing to decide")
    yield from need(body.decision == "take_out" or bool(body.reason), "reason", "say why it may stay")
    if found is not None and body.decision == "accepted":
        yield Objection("decision", f"{found.title}: only the lead accepts that, with the reason", "lead and reason")


def check_bolt(now: JointsState, body: BoltFound, facts: Facts) -> Objections:
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


def check_anew(now: JointsState, body: JointAnew, facts: Facts) -> Objections:
    """Begun already, and a reason."""
    joint = now.book.joint_of(body.step)
    begun = joint is not None and any(item.key in now.of_joint(joint.joint.id) for item in now.book.segment(body.step))
    yield from need(begun or body.step in (facts.get(STEPS_DONE) or ()), "step", "this sequence has not been begun")
    yield from need(bool(body.reason), "reason", "say why it is begun anew")


def check_left(now: JointsState, body: JointLeft, facts: Facts) -> Objections:
    """Not at its end yet, and until what."""
    yield from need(now.book.joint_of(body.step) is not None, "step", NO_SUCH)
    yield from need(body.step not in (facts.get(STEPS_DONE) or ()), "step", "this joint is tight already")
    yield from need(bool(body.until), "until", "say until what it stays so")
