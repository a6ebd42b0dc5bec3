"""What is asked at a joint: what to look at first, the next pulls, what to do about one that stands apart."""

__all__ = ["ask_tighten"]

from functools import lru_cache

from gurvo_core.engine import JointStage
from gurvo_core.joints.job.book import JointBook, PulledJoint
from gurvo_core.joints.job.judged import TURNED, Judgement, window_of
from gurvo_core.joints.job.kinds.pull_decided import PullDecisionQuestion
from gurvo_core.joints.job.said import about_joint, torque_in, window_words
from gurvo_core.joints.job.state import JointsState, Ready
from gurvo_core.joints.job.view import JointReadyQuestion, PullQuestion, TorqueIn
from gurvo_core.joints.sequence import ALL, Figures, Item
from gurvo_core.ledger import STEPS_DONE, Asked, Facts, Question, Step, decisions, kept_with
from gurvo_core.sentence import at_start, within

AHEAD = 3  # pulls that a screen is told of, so that it need not wait for the next
ORDINALS = ("First", "Second", "Third", "Fourth", "Fifth", "Sixth", "Seventh", "Eighth", "Ninth", "Tenth", "Eleventh", "Twelfth")
COUNTS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
HINTS = {
    "hand": "All of them, by hand, until they lie on.",
    "torque": "One steady pull until it is there.",
    "torque_angle": "One steady pull to the torque, then the angle without stopping.",
    "angle": "One steady pull.",
    "loosen": "Back by so much, then it rests.",
    "draw_down": "A little at a time, evenly, so that nothing tilts.",
    "wait": "It settles; nothing is pulled meanwhile.",
    "said": "As the book has it, in words: no figure is asked.",
}


def ask_tighten(now: JointsState, step: Step, facts: Facts) -> Asked:
    """What one step that pulls a joint asks."""
    joint = now.book.joint_of(step.key)
    if joint is None:
        return Asked(questions=[])
    if step.key in (facts.get(STEPS_DONE) or ()):
        return _asked_quiet(now.book, step.key, is_done=True)
    if _is_quiet(now, joint, step.key):
        return _asked_quiet(now.book, step.key, is_done=False)
    segment = now.book.segment(step.key)
    done = now.of_joint(joint.joint.id)
    waiting = [item for item in segment if item.key not in done]
    ready, left = now.ready.get(step.key), now.left.get(step.key)
    looked = _ready(now.book, step.key, step.title, ready is not None)
    if ready is None and waiting == list(segment) and joint.at_once(segment):
        looked = looked.model_copy(update={"pulls": [_pull(now, joint, step, item, ready) for item in segment]})
    questions: list[Question] = [looked]
    questions += [_pull(now, joint, step, item, ready) for item in waiting[:AHEAD]] if ready else []
    questions += [_decide(step, one) for one in now.judged.get(joint.joint.id, ()) if _is_undecided(now, joint, one, segment)]
    if ready is not None and waiting:
        for question in questions:
            if isinstance(question, PullDecisionQuestion):
                question.status = "optional"  # asked once all are pulled; whoever wants to decide at once may
    if left is not None:
        questions = [question.model_copy(update={"later": True}) for question in questions]
    note = f"left until {left.until}" if left else f"{len(segment) - len(waiting)} / {len(segment)}" if len(waiting) < len(segment) else ""
    return Asked(questions=questions, note=note)


def _is_undecided(now: JointsState, joint: PulledJoint, one: Judgement, segment: tuple[Item, ...]) -> bool:
    return one.item in segment and (joint.joint.id, one.item.key) not in now.decided


@kept_with
def _is_quiet(now: JointsState, joint: PulledJoint, step_id: str) -> bool:
    """Whether a step is not begun, and nothing is said of it yet."""
    name = joint.joint.id
    is_begun = step_id in now.ready or step_id in now.left or bool(now.judged.get(name))
    if joint.at_once(now.book.segment(step_id)):  # its pulls are asked with what is looked at
        return False
    return not is_begun and not any(item.key in now.of_joint(name) for item in now.book.segment(step_id))


@lru_cache(maxsize=4096)
def _asked_quiet(book: JointBook, step_id: str, *, is_done: bool) -> Asked:
    """The same for every look at a step that is done, or not begun."""
    return Asked(questions=[_ready(book, step_id, book.steps[step_id].says.rstrip("."), is_done)])


@kept_with
def _ready(book: JointBook, step_id: str, title: str, is_done: bool) -> JointReadyQuestion:
    joint, planned = book.joint_of(step_id), book.steps[step_id]
    assert joint is not None
    figures = [joint.figures(item) for item in book.segment(step_id)]
    most = max((one.torque_nm for one in figures if one.torque_nm), default=None)
    return JointReadyQuestion.model_construct(
        key=step_id,
        kind="joint_ready",
        title=title,
        ask=f"{joint.joint.name}: ready to pull?",
        hint=at_start(f"{', '.join(about_joint(joint.joint))}. {planned.why}".strip()),
        status="done" if is_done else "open",
        group="",
        waits="",
        blocked="",
        doing="tighten",
        later=False,
        step=step_id,
        threads=joint.joint.thread_state,
        held_by=joint.joint.held_by,
        needs_torque=torque_in(most),
        needs_angle=any(one.does in TURNED for one in figures),
        cautions=list(planned.cautions),
        pulls=[],
    )


def _pull(now: JointsState, joint: PulledJoint, step: Step, item: Item, ready: Ready | None) -> PullQuestion:
    figures, done = joint.figures(item), now.of_joint(joint.joint.id)
    is_pull = figures.does in ("torque", "torque_angle", "angle") and item.fastener != ALL
    same = [one.fastener for one in now.book.segment(step.key) if (one.stage, one.turn) == (item.stage, item.turn) and one.key not in done]
    set_nm = figures.torque_nm / ready.per_set if ready and figures.torque_nm and ready.per_set != 1 else None
    return PullQuestion.model_construct(
        key=f"{step.key}:{item.key}",
        kind="pull",
        title=f"{joint.called(item.fastener)}, stage {item.stage}",
        ask=f"{joint.called(item.fastener)}: {_order(joint, item, figures)}",
        hint=_hint(joint, item, figures, now),
        status="open",
        group="",
        waits=f"{within(joint.joint.name)} to be pulled",
        blocked="",
        doing="tighten",
        later=False,
        step=step.key,
        joint=joint.joint.id,
        fastener=item.fastener,
        stage=item.stage,
        turn=item.turn,
        does=figures.does,
        target=torque_in(figures.torque_nm) if figures.does in ("torque", "torque_angle") else [],
        book=_as_booked(joint.joint.figures[item.stage - 1], figures),
        target_deg=figures.angle_deg if figures.does in (*TURNED, "loosen", "draw_down") else None,
        set_to=torque_in(set_nm),
        window=_window(figures),
        asks_torque=is_pull,
        asks_angle=is_pull and figures.does in TURNED,
        is_generic=figures.is_generic,
        wrench=ready.wrench if ready else None,
        angle_by=ready.angle_by if ready else None,
        left_hand=joint.joint.hand == "left",
        fasteners=same,
        cautions=list(now.book.steps[step.key].cautions),
    )


def _as_booked(stage: JointStage, figures: Figures) -> TorqueIn | None:
    quoted = next(iter(stage.quoted), None)
    if quoted is None or figures.torque_nm != stage.torque_nm or figures.does not in ("torque", "torque_angle"):
        return None
    return TorqueIn(unit=quoted.unit, text=f"{quoted.value:g}")


def _order(joint: PulledJoint, item: Item, figures: Figures) -> str:
    """What is to be done, as one would say it."""
    torque = f"{figures.torque_nm:g} N·m" if figures.torque_nm else "tight, by feel: no figure is known"
    generic = ", a generic figure" if figures.is_generic else ""
    said = {
        "hand": "finger tight, all of them",
        "torque": f"{torque}{generic}",
        "torque_angle": f"{torque}{generic}, then {f'{figures.angle_deg:g}°' if figures.angle_deg else 'an angle: none is known'}",
        "angle": f"turn it {figures.angle_deg:g}°" if figures.angle_deg else "turn it on: no angle is known",
        "loosen": f"back {figures.angle_deg:g}°" if figures.angle_deg else "loosen it fully",
        "draw_down": f"each down by {figures.angle_deg or 0:g}°, in their order",
        "wait": f"leave it {joint.joint.figures[item.stage - 1].minutes or 0:g} minutes",
        "said": within(joint.joint.figures[item.stage - 1].said),
    }
    return said[figures.does]


def _hint(joint: PulledJoint, item: Item, figures: Figures, now: JointsState) -> str:
    count = len(joint.joint.stages)
    said = [f"{ORDINALS[item.stage - 1]} of {COUNTS[count - 1]} stages." if count > 1 else "One stage."]
    turns = joint.turns_of(item)
    said += [f"Round {item.turn} of {turns}: a little each time, so that all go evenly."] if turns > 1 else []
    said.append(HINTS[figures.does])
    said += ["Left-hand thread: it tightens the other way round."] if joint.joint.hand == "left" else []
    if figures.does == "draw_down" and joint.loaded:
        said.append(f"Springs push up at {', '.join(f'cylinder {one}' for one in sorted(joint.loaded))}.")
    reached = joint.joint.reached_at_once
    at = [spot.id for spot in joint.spots].index(item.fastener) if item.fastener != ALL else 0
    if reached and at and at % reached == 0 and item.fastener != ALL:
        said.append("Turn the engine to reach the next ones.")
    said += ["A new one goes in here."] if item.fastener in now.spent.get(joint.joint.id, ()) else []
    return " ".join(said)


@lru_cache(maxsize=4096)
def _window(figures: Figures) -> str:
    torque = window_words(window_of(figures), " N·m")
    least, most = figures.least_deg, figures.most_deg
    if figures.does == "torque":
        return torque if figures.least_nm is not None or figures.most_nm is not None else f"{torque}, as wrenches go" if torque else ""
    angle = f"{least:g} to {most:g}°" if least is not None and most is not None else ""
    at_end = f"torque at the end {torque}" if torque else ""
    return ", ".join(filter(None, [angle, at_end]))


WHAT_IS_DONE = (
    ("take_out", "Take it out and look", "it is pulled again, or a new one", "A remark, if any"),
    ("go_on", "Go on", "it stays a loose end; say why", "Why may it stay?"),
    ("accepted", "Accepted by the lead", "a concession, with the reason", "Why may it stay?"),
)


def _decide(step: Step, one: Judgement) -> PullDecisionQuestion:
    at = {"kind": "pull_decided", "step": step.key, "stage": one.item.stage, "turn": one.item.turn, "fastener": one.item.fastener}
    return PullDecisionQuestion(
        key=f"{step.key}:decide:{one.item.key}",
        title=one.title,
        ask=f"{one.title}.",
        hint=one.sentence,
        status="open",
        waits="a bolt that stands apart to be decided",
        step=step.key,
        stage=one.item.stage,
        turn=one.item.turn,
        fastener=one.item.fastener,
        sentence=one.sentence,
        answers=decisions(at, WHAT_IS_DONE),
    )
