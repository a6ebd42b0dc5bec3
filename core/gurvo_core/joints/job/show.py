"""What the joints show: loose ends, the joint that is worked on, every pull for the paper. All follows from what stands."""

__all__ = ["joint_pictures", "joint_view", "loose_ends_of", "pull_lines", "says_of", "tells_of", "view_of"]

from collections.abc import Container, Iterator

from gurvo_core.engine import EngineDocument
from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.entries import BoltFound, PullDecided
from gurvo_core.joints.job.judged import TURNED, Judgement, window_of
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.job.said import about_joint, window_words
from gurvo_core.joints.job.state import JointsState, begin_joints, next_item
from gurvo_core.joints.job.view import Flagged, JointsView, JointView, PullLine, Sibling, SpotView, StageView
from gurvo_core.joints.job.words import ANGLE_WORDS, DECIDED
from gurvo_core.joints.judge import FROM_SIBLINGS
from gurvo_core.joints.sequence import ALL, Item
from gurvo_core.ledger import CURRENT_STEP, STEPS_DONE, Doing, Facts, LooseEnd, Step, kept_with

LATE: frozenset[Doing] = frozenset({"start", "hand over"})


def loose_ends_of(now: JointsState, facts: Facts) -> Iterator[LooseEnd]:
    """Pulls that stand apart until the lead accepts them or they are pulled anew; joints left on purpose; one-time bolts that are out."""
    for name, judged in now.judged.items():
        for one in judged:
            decision = now.decided.get((name, one.item.key))
            if decision is not None and decision.decision == "accepted":
                continue
            until = "take it out and look, or let the lead decide" if decision is None else "the lead accepts it, or it is pulled anew"
            item = one.item
            step = now.book.step_of(name, item)
            about = {"stage": item.stage, "turn": item.turn, "fastener": item.fastener}
            accepted = PullDecided.model_validate({"kind": "pull_decided", "step": step, "decision": "accepted", **about}) if step else None
            yield LooseEnd(
                title=one.title,
                since=one.seq,
                holds_back=LATE,
                until=until,
                kept_from="start, hand over",
                waived_with=accepted,
                waived_as="Accept it",
            )
    for step, left in now.left.items():
        joint = now.book.joint_of(step)
        if joint is not None and step not in (facts.get(STEPS_DONE) or ()):
            yield LooseEnd(
                title=f"{joint.joint.name} left as it is", since=left.seq, holds_back=LATE, until=left.until, kept_from="start, hand over"
            )
    for name, spent in now.spent.items():
        since = max((one.seq for step, one in now.opened.items() if now.book.steps[step].joint == name), default=0)
        for fastener in sorted(spent):
            title = f"{now.book.joints[name].called(fastener)} must be new"
            step = next((step for step, planned in now.book.steps.items() if planned.joint == name), None)
            yield LooseEnd(
                title=title,
                since=since,
                holds_back=LATE,
                until="put in a new one and say so",
                kept_from="start, hand over",
                ends_with=BoltFound(kind="bolt", step=step, fastener=fastener, found="replaced") if step else None,
                ends_as="A new one is in",
            )


def view_of(now: JointsState, facts: Facts) -> JointsView:
    """The joint of the step that is to be done."""
    return JointsView(joint=joint_view(now, facts.get(CURRENT_STEP) or ""))


def joint_view(now: JointsState, step_id: str) -> JointView | None:
    """One joint as it stands; None where the step pulls none."""
    joint = now.book.joint_of(step_id)
    return _view(now, joint, step_id) if joint is not None else None


def joint_pictures(document: EngineDocument) -> list[JointView]:
    """Every joint of a document that is pulled bolt by bolt, before anything is done: its order is looked at before it is used."""
    now = begin_joints(document)
    return [_view(now, joint, "") for joint in now.book.joints.values()]


def _view(now: JointsState, joint: PulledJoint, step_id: str) -> JointView:
    name, pulls = joint.joint.id, now.of_joint(joint.joint.id)
    item = next_item(now, step_id)
    shown = item or _last(joint, now)
    flagged = now.judged.get(name, ())
    apart = {one.item.key for one in flagged}
    undecided = {one.item.fastener for one in flagged if (name, one.item.key) not in now.decided}
    figures = joint.figures(shown)
    is_turned = figures.does in TURNED
    figure = "torque_nm" if is_turned or figures.does == "torque" else "before_deg"
    same = [one for one in joint.items if (one.stage, one.turn) == (shown.stage, shown.turn) and one.key in pulls]
    window = window_of(figures)
    known = [one for one in same if getattr(pulls[one.key], figure) is not None]
    siblings = [_sibling(pulls[one.key], figure, one.fastener, one.key in apart) for one in known]
    return JointView.model_construct(
        id=name,
        name=joint.joint.name,
        step=step_id,
        about=about_joint(joint.joint),
        spots=_spots(joint, pulls.keys(), item, undecided),
        is_to_scale=bool(joint.joint.bolts or joint.joint.pattern),
        stages=_stages(joint, pulls.keys(), item),
        siblings_are="Torque at the end" if is_turned else "Torque" if figure == "torque_nm" else "Angle before its torque",
        siblings=siblings,
        siblings_tell=_what_they_tell([one.value for one in siblings], "N·m" if figure == "torque_nm" else "°"),
        unit="N·m" if figure == "torque_nm" else "°",
        least=window.least,
        most=window.most,
        flagged=[_flagged(now, name, one) for one in flagged],
        spent=sorted(now.spent.get(name, ())),
        loaded=[f"cylinder {one}, by {lift_mm:g} mm" for one, lift_mm in sorted(joint.loaded.items())],
    )


def _what_they_tell(values: list[float], unit: str) -> str:
    if not values:
        return ""
    if len(values) < FROM_SIBLINGS:
        spread = f"; these lie within {max(values) - min(values):.3g} {unit}" if len(values) > 1 else ""
        return f"Too few to tell one apart: they are compared from {FROM_SIBLINGS} on{spread}."
    return "Of sound joints about one in a hundred has a bolt that is told of by chance."


@kept_with
def _sibling(pull: Pulled, figure: str, fastener: str, is_apart: bool) -> Sibling:
    return Sibling.model_construct(fastener=fastener, value=round(getattr(pull, figure), 2), is_apart=is_apart)


def _last(joint: PulledJoint, now: JointsState) -> Item:
    done = [item for item in joint.items if item.key in now.of_joint(joint.joint.id)]
    return done[-1] if done else joint.items[0]


def _flagged(now: JointsState, name: str, one: Judgement) -> Flagged:
    decision = now.decided.get((name, one.item.key))
    decided = f"{DECIDED[decision.decision]}: {decision.reason}" if decision else ""
    return Flagged.model_construct(fastener=one.item.fastener, title=one.title, sentence=one.sentence, decided=decided)


def _spots(joint: PulledJoint, done: Container[str], item: Item | None, flagged: set[str]) -> list[SpotView]:
    own = _keys(joint)

    def is_done(keys: tuple[str, ...]) -> bool:
        return keys[0] in done if len(keys) == 1 else bool(keys) and all(key in done for key in keys)

    now = item.fastener if item is not None else ""
    return [
        _spot(joint, place, tuple(map(is_done, own[spot.id])), now in (spot.id, ALL), spot.id in flagged)
        for place, spot in enumerate(joint.spots)
    ]


@kept_with
def _keys(joint: PulledJoint) -> dict[str, list[tuple[str, ...]]]:
    """The keys of each fastener's pulls, stage by stage; where nothing is told apart, of all of them."""
    own: dict[tuple[int, str], tuple[str, ...]] = {}
    for one in joint.items:
        own[one.stage, one.fastener] = (*own.get((one.stage, one.fastener), ()), one.key)
    stages = range(1, len(joint.joint.stages) + 1)
    return {spot.id: [own.get((stage, spot.id)) or own.get((stage, ALL)) or () for stage in stages] for spot in joint.spots}


@kept_with
def _spot(joint: PulledJoint, place: int, done: tuple[bool, ...], is_now: bool, is_flagged: bool) -> SpotView:
    spot = joint.spots[place]
    return SpotView.model_construct(
        id=spot.id,
        order=place + 1,
        x_mm=spot.x_mm,
        y_mm=spot.y_mm,
        done=list(done),
        is_now=is_now,
        is_flagged=is_flagged,
        is_loaded=spot.cylinder in joint.loaded,
    )


def _stages(joint: PulledJoint, done: Container[str], item: Item | None) -> list[StageView]:
    views = []
    for number in range(1, len(joint.joint.stages) + 1):
        keys = [one.key for one in joint.items if one.stage == number]
        views.append(
            StageView.model_construct(
                number=number,
                words=joint.joint.stage_words(number - 1, number),
                done=sum(key in done for key in keys),
                of=len(keys),
                is_now=item is not None and item.stage == number,
            )
        )
    return views


def pull_lines(now: JointsState) -> list[PullLine]:
    """Every pull that stands, joint by joint in the order of the pulls, for the paper."""
    lines = []
    for name, pulls in now.pulls.items():
        joint = now.book.joints.get(name)
        if joint is None:
            continue
        apart = {one.item.key for one in now.judged.get(name, ())}
        for item in joint.items:
            pull = pulls.get(item.key)
            if pull is None:
                continue
            figures = joint.figures(item)
            lines.append(
                PullLine(
                    joint=joint.joint.name,
                    stage=item.stage,
                    turn=item.turn,
                    fastener="all" if item.fastener == ALL else item.fastener,
                    asked=f"{figures.torque_nm:g} N·m" if figures.is_generic else joint.joint.stage_words(item.stage - 1, item.stage),
                    torque_nm=pull.torque_nm,
                    angle_deg=pull.angle_deg,
                    before_deg=pull.before_deg,
                    window=window_words(window_of(figures), " N·m"),
                    wrench=pull.wrench or "",
                    angle_by=ANGLE_WORDS.get(pull.angle_by or "", ""),
                    by=pull.by,
                    is_apart=item.key in apart,
                    is_generic=figures.is_generic,
                )
            )
    return lines


def says_of(now: JointsState) -> Iterator[str]:
    """How many pulls of each joint stand, and what stands apart."""
    for name, pulls in now.pulls.items():
        joint = now.book.joints.get(name)
        if joint is None or not pulls:
            continue
        apart = [one.title for one in now.judged.get(name, ())]
        yield "; ".join([f"{joint.joint.name}: {len(pulls)} of {len(joint.items)} pulls", *apart])


def tells_of(now: JointsState, step: Step) -> Iterator[str]:
    """How far each stage of a step's joint has come, and what stands apart."""
    view = joint_view(now, step.key)
    if view is None:
        return
    for stage in view.stages:
        yield f"{view.name}, {stage.words}: {stage.done} of {stage.of}"
    yield from (one.title for one in view.flagged)
