"""What the run shows: loose ends, what holds back turning, how far it may be turned. Nothing is typed: all follows from what stands."""

__all__ = ["holds_of", "left_of", "loose_ends_of", "reach_of", "stands_of", "view_of", "wary_of"]

from collections.abc import Iterator, Sequence
from datetime import timedelta

from gurvo_core.engine import LoopStage, Thing, WorkStep
from gurvo_core.engine.drive import Stage
from gurvo_core.ledger import DONE_ELSEWHERE, MINUTES, Doing, Facts, Hold, LooseEnd, Reach, kept_with
from gurvo_core.motion.overlap import at_position, words_of_place
from gurvo_core.run.job.entries import MarksTaken, OilChange, ThingMoved, TroubleTold, TurnSeen
from gurvo_core.run.job.off import laid_off, off_said
from gurvo_core.run.job.standing import (
    cured_at,
    joint_stage,
    parts_ready,
    tensioner_at,
    title_of,
    unmet,
    whole_steps,
)
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.view import MarkSeen, PositionPlace, RunView, ShaftName
from gurvo_core.run.job.words import TROUBLES
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.scene import Brings, Stands, brought_by, part_stands
from gurvo_core.scene.asked import part_id
from gurvo_core.sentence import at_start, within

LAST: frozenset[Doing] = frozenset({"hand over"})
LATE: frozenset[Doing] = LAST | {"start"}
CLOSED: frozenset[Doing] = LATE | {"cover"}
STILL: frozenset[Doing] = LATE | {"turn"}


def loose_ends_of(now: RunState, facts: Facts) -> Sequence[LooseEnd]:
    """Everything temporary or unfinished."""
    return _loose_ends(now, facts.get(DONE_ELSEWHERE)) if now.plan.steps else ()


@kept_with
def _loose_ends(now: RunState, done_elsewhere: frozenset[str] | None) -> Sequence[LooseEnd]:
    things = _things(now, Facts({DONE_ELSEWHERE: done_elsewhere}))
    fittings = (*_hard_stop(now), *things, *_sealants(now), *_tensioners(now), *_marks(now), *_joints(now), *_parts(now))
    return (*fittings, *_inspected(now), *_hold_points(now), *_opened_steps(now), *_oil_change(now))


def _oil_change(now: RunState) -> Iterator[LooseEnd]:
    """Due from the first start on, also when the engine is handed over."""
    for one in now.plan.steps_with("oil_change_hours", "oil_change_days"):
        step, done = one.step, now.done.get(one.step.id)
        if done is None or now.oil_changed:
            continue
        due = done.at + timedelta(days=step.oil_change_days) if step.oil_change_days else None
        after = [f"after {step.oil_change_hours:g} running hours"] if step.oil_change_hours else []
        after += [f"by {due:%d %b %Y}"] if due else []
        yield LooseEnd(
            title="Early oil change",
            since=done.seq,
            holds_back=frozenset(),
            until=f"{' or '.join(after)}, whichever comes first: it carries the assembly lube away" if len(after) > 1 else after[0],
            ends_at=due,
            ends_with=OilChange(kind="oil_change", done=True),
            ends_as="It is done",
            waived_with=OilChange(kind="oil_change", done=False),
            is_after=True,
        )


def _hard_stop(now: RunState) -> Iterator[LooseEnd]:
    if now.hard_stop:
        what = TROUBLES[now.hard_stop.body.what] if isinstance(now.hard_stop.body, TroubleTold) else "hard stop"
        title, until = f"{at_start(what)} while turning", "look into it before anything is turned again"
        yield LooseEnd(title=title, since=now.hard_stop.seq, holds_back=STILL | {"tighten", "cover"}, until=until, kept_from="turning")
    if now.off and isinstance(now.off.body, TurnSeen):
        step = now.off.body.step
        lays = ", ".join(f"“{title_of(now, name)}”" for name in _lays(now))
        until = f"lay it again, then turn over until they meet ({lays})" if lays else "find out why, then turn over until they meet"
        yield LooseEnd(
            title=off_said(now.off),
            since=now.off.seq,
            holds_back=CLOSED,
            until=until,
            kept_from="covers, start, hand over",
            waived_with=MarksTaken(kind="marks_taken", step=step, reason="") if step in now.plan.by_id else None,
            waived_as="Take them as they are",
        )


def _lays(now: RunState) -> list[str]:
    """Ids of the steps that are laid again: those that the marks say are off, else all."""
    body = now.off.body if now.off is not None else None
    return list(laid_off(now, body)) if isinstance(body, TurnSeen) else []


def _step_that(now: RunState, does: str, **names: object) -> str:
    """The title of the step that ends something."""
    found = (one.step.id for one in now.has_still(does) if all(getattr(one.step, key) == value for key, value in names.items()))
    step = next(found, None)
    return f"“{title_of(now, step)}”" if step else ""


def _things(now: RunState, facts: Facts) -> Iterator[LooseEnd]:
    for name, places in now.on.items():
        thing = now.document.thing(name)
        for one in places:
            stops = thing is not None and thing.stops_turning
            step = _step_that(now, "take_off", thing=name)
            yield LooseEnd(
                title=f"{thing.name if thing else name} on{f', {one.place}' if one.place else ''}",
                since=one.seq,
                holds_back=STILL | {"cover"} if stops else CLOSED,
                until=_with_the_real_one(thing, one.place, step or "take it off"),
                ends_with=None if _comes_off_now(now, name, facts) else ThingMoved(kind="thing", thing=name, on=False, place=one.place),
                kept_from="turning, covers, start" if stops else "covers, start, hand over",
            )


def _with_the_real_one(thing: Thing | None, place: str, until: str) -> str:
    real = thing.stands_in(place) if thing is not None else ""
    return f"{until}, when {real} is in" if real else until


def _comes_off_now(now: RunState, thing: str, facts: Facts) -> bool:
    """Whether a step that takes it off can be done now."""
    off = [one for one in now.has_still("take_off") if one.step.thing == thing]
    return any(not list(unmet(now, one, facts)) for one in off)


def _sealants(now: RunState) -> Iterator[LooseEnd]:
    for one in now.plan.doing("seal"):
        step, opened = one.step, now.sealing.get(one.step.id)
        if opened is not None:
            ends_at = opened.at + timedelta(minutes=step.working_minutes) if step.working_minutes else None
            until = f"close it within {step.working_minutes:g} minutes" if step.working_minutes else "close it"
            yield LooseEnd(title=f"Sealant open: {step.says}", since=opened.seq, holds_back=LATE, until=until, ends_at=ends_at)
        done = now.done.get(step.id)
        if done and step.cure_minutes and not done.is_skipped and not _started(now):
            yield LooseEnd(
                title=f"Sealant curing: {step.says}",
                since=done.seq,
                holds_back=frozenset(),
                until=f"cured after {step.cure_minutes:g} minutes",
                kept_from="what needs it cured",
                ends_at=cured_at(now, step.id),
                clears=True,
            )


def _started(now: RunState) -> bool:
    return bool(now.did("prime", "first_start"))


def _tensioners(now: RunState) -> Iterator[LooseEnd]:
    for stage in now.document.drive.stages:
        reached = tensioner_at(now, stage.id)
        if (
            reached is None
            or _is_proven(now, stage, reached[0])
            or _is_left_out(now, now.plan.of_loop.get(stage.id, ()), "tension")
            or not any(one.step.loop == stage.id for one in now.plan.doing("tension"))
        ):
            continue
        if _waits_for_oil(stage):
            title, until = f"{stage.name}: tensioner not proven", "oil pressure at the first start proves it"
            yield LooseEnd(title=title, since=reached[1], holds_back=LAST, until=until, kept_from="hand over")
            continue
        how_far = "proven" if reached[0] == "armed" else "armed"
        until = _step_that(now, "tension", loop=stage.id, how_far=how_far) or f"see that it is {how_far}"
        yield LooseEnd(
            title=f"{stage.name}: tensioner not {how_far}", since=reached[1], holds_back=CLOSED, until=until, kept_from="covers, start"
        )


def _waits_for_oil(stage: Stage) -> bool:
    """Whether a tensioner is freed by oil pressure: nobody can arm or prove it before the first start."""
    return isinstance(stage, LoopStage) and stage.tightened_by is not None and stage.tightened_by.kind == "oil_fed"


def _is_proven(now: RunState, stage: Stage, reached: str) -> bool:
    return reached == "proven" or (_waits_for_oil(stage) and _started(now))


def _marks(now: RunState) -> Iterator[LooseEnd]:
    """A drive that was touched again after its marks had met; before the first turn, turning over is simply still to come."""
    for one in now.plan.steps if now.opened else ():
        opened = now.opened.get(one.step.id)
        if one.step.does == "turn_over" and opened:
            title = "Marks not seen again since the drive was touched"
            yield LooseEnd(
                title=title, since=opened.seq, holds_back=CLOSED, until=f"“{title_of(now, one.step.id)}” again", kept_from="covers, start"
            )


def _is_left_out(now: RunState, steps: Sequence[WorkStep], does: str) -> bool:
    """Whether the lead has left out what would end something, for good and with his reason: nothing else comes back to it."""
    own = [step.id for step in steps if step.does == does]
    return bool(own) and all(name in now.done for name in own) and any(now.done[name].is_skipped for name in own)


def _joints(now: RunState) -> Iterator[LooseEnd]:
    for joint in now.document.joints:
        reached, last = joint_stage(now, joint.id), joint.last_stage
        if reached is None or reached[0] >= last or _is_left_out(now, now.plan.of_joint.get(joint.id, ()), "tighten"):
            continue
        stage, seq = reached
        left = next((s.step.until for s in now.plan.steps_with("until") if s.step.joint == joint.id and s.step.id in now.done), None)
        how = f"at stage {stage} of {last}" if stage else "finger tight"
        purpose = (
            f"left so on purpose until “{title_of(now, left)}”" if left else _step_that(now, "tighten", joint=joint.id) or "tighten them"
        )
        # the bolts of one cover do not keep the next one off
        is_cover = any(s.step.joint == joint.id for s in now.plan.steps_with("covers"))
        holds_back, kept_from = (LATE, "start, hand over") if is_cover else (CLOSED, "covers, start")
        yield LooseEnd(title=f"{joint.name}: {how}", since=seq, holds_back=holds_back, until=purpose, kept_from=kept_from)


def _parts(now: RunState) -> Iterator[LooseEnd]:
    said = parts_ready(now)
    to_fit = {part for one in now.has_still("fit") for part in one.step.parts}
    ready_at = {part: now.done[one.step.id].seq for one in now.did("ready") for part in one.step.parts}
    for part in now.document.kit:
        if said.get(part.id) == "missing":
            title, until = f"Missing: {part.name}", "tick it when it is on the bench"
            yield LooseEnd(title=title, since=ready_at[part.id], holds_back=LATE, until=until, kept_from="the steps that use it")
        if part.returns and part.id in to_fit and part.id in ready_at:
            title, until = f"{at_start(part.name)}: not back in their own places", "fit each where it came from"
            yield LooseEnd(title=title, since=ready_at[part.id], holds_back=LATE, until=until, kept_from="start, hand over")


def _inspected(now: RunState) -> Iterator[LooseEnd]:
    for one in now.plan.steps:
        done = now.done.get(one.step.id)
        if done and done.is_not_good:
            is_start = one.step.does == "first_start"
            until = (
                "find it and cure it, then start again" if is_start else "replaced, put right, or used as it is by the lead: in that step"
            )
            holds_back, kept_from = (LAST, "hand over") if is_start else (CLOSED, "what stands on it, covers, start")
            yield LooseEnd(title=f"Not good: {one.step.says}", since=done.seq, holds_back=holds_back, until=until, kept_from=kept_from)


def _hold_points(now: RunState) -> Iterator[LooseEnd]:
    for one in now.plan.steps_with("hold_point"):
        done = now.done.get(one.step.id)
        if done and not done.signed:
            title, until = f"Hold point: {one.step.says}", "a lead who did not do it signs"
            yield LooseEnd(title=title, since=done.seq, holds_back=LATE, until=until, kept_from="what stands on it")


def _opened_steps(now: RunState) -> Iterator[LooseEnd]:
    """What was done is open again: said, so that nobody takes it for done; what one entry opened is one line."""
    by_entry: dict[int, list[PlanStep]] = {}
    for one in now.plan.steps if now.opened else ():
        opened = now.opened.get(one.step.id)
        if opened and one.step.does != "turn_over":
            by_entry.setdefault(opened.seq, []).append(one)
    for seq, steps in by_entry.items():
        more = f" and {len(steps) - 1} more" if len(steps) > 1 else ""
        # what was undone itself comes first, a loop before whatever it needs; what stands on it is named by it
        first = min(steps, key=lambda one: (now.opened[one.step.id].because.startswith("stands on"), one.step.does != "lay"))
        title, until = f"Open again: {first.title}{more}", now.opened[first.step.id].because
        yield LooseEnd(title=title, since=seq, holds_back=LAST, until=until, kept_from="hand over")


def holds_of(now: RunState, facts: Facts) -> Iterator[Hold]:
    """Nobody turns with the plugs in, nothing is handed over with a step open."""
    if not now.plan.steps:
        return
    if not now.plugs_out and now.plan.asks_plugs:
        is_in = bool(now.did("plugs_in"))
        reason = "plugs are in: only starting is allowed" if is_in else "plugs not out and stand not locked yet"
        yield Hold(holds_back=frozenset({"turn"}), reason=reason)
    open_ones = [one.step.says for one in _open_steps(now, facts.get(DONE_ELSEWHERE))]
    if open_ones:
        count = f"{len(open_ones)} steps are open" if len(open_ones) > 1 else "one step is open"
        yield Hold(holds_back=frozenset({"hand over"}), reason=f"{count}, first “{open_ones[0].rstrip('.')}”")


def wary_of(now: RunState, _facts: Facts) -> Iterator[str]:
    """What is on and does not stop the crank, and a drive that nothing holds tight yet."""
    for name, places in now.on.items():
        thing = now.document.thing(name)
        if thing is not None and not thing.stops_turning:
            yield from (f"{within(thing.name)} is on{f', {one.place}' if one.place else ''}" for one in places)
    for stage in now.document.drive.stages:
        reached = tensioner_at(now, stage.id)
        own = any(one.does == "tension" for one in now.plan.of_loop.get(stage.id, ()))
        if own and reached is not None and reached[0] in ("laid", "fitted") and not _waits_for_oil(stage):
            yield f"the tensioner of {within(stage.name)} is not armed"
    if now.off is not None:
        yield within(off_said(now.off))
    yield from _loose(now)
    yield from _not_along(now)


def _loose(now: RunState) -> Iterator[str]:
    """Joints that are not tight and let something move: caps, sprockets; and wheels that their bolt's torque alone would hold."""
    for joint in now.document.joints:
        reached = joint_stage(now, joint.id)
        is_cover = any(one.covers for one in now.plan.of_joint.get(joint.id, ()))
        if reached is not None and reached[0] < joint.last_stage and not is_cover:
            yield f"{within(joint.name)}: {f'at stage {reached[0]} of {joint.last_stage}' if reached[0] else 'finger tight'}"


def _not_along(now: RunState) -> Iterator[str]:
    """With one chain or belt on, the camshafts of another that is still to come do not turn along."""
    lays = [one.step for one in now.plan.doing("lay") if one.step.loop]
    if any(step.id in now.done for step in lays):
        names = {stage.id: stage.name for stage in now.document.drive.stages}
        yield from (f"{names[step.loop or '']} is not on yet: what it drives stays behind" for step in lays if step.id not in now.done)


def reach_of(now: RunState, facts: Facts) -> Iterator[Reach]:
    """Back where the book says so; while the crank is parked for laying the drive, no further than its place."""
    next_one = next((one for one in _open_steps(now, facts.get(DONE_ELSEWHERE)) if not list(unmet(now, one, facts))), None)
    if next_one is not None and next_one.step.way in ("back", "either"):
        yield Reach(way=f"{'back' if next_one.step.way == 'back' else 'either way, gently'}, for “{next_one.title}” alone")
    if now.parked and now.plan.steps and not now.did("lay"):
        name = next((one.name for one in now.document.timing_positions if one.id == now.parked), now.parked)
        yield Reach(how_far=f"no further than where it is parked: {name}")


def left_of(now: RunState, facts: Facts) -> float:
    """What is left, by the shop's own times where it has any, else by the document's [min]."""
    minutes = facts.get(MINUTES) or {}
    return sum(minutes.get(step_id, by_book) for step_id, by_book in _open_minutes(now, facts.get(DONE_ELSEWHERE)))


@kept_with
def _open_minutes(now: RunState, done_elsewhere: frozenset[str] | None) -> Sequence[tuple[str, float]]:
    return tuple((one.step.id, one.step.minutes or 0) for one in _open_steps(now, done_elsewhere))


@kept_with
def _open_steps(now: RunState, done_elsewhere: frozenset[str] | None) -> Sequence[PlanStep]:
    """The steps that are not done yet."""
    whole = whole_steps(now, done_elsewhere)
    return tuple(one for one in now.plan.steps if one.step.id not in whole)


def view_of(now: RunState, facts: Facts) -> RunView:
    """The run as a whole."""
    return RunView(
        is_planned=bool(now.plan.steps),
        positions=_positions(now.plan) if _has_head(now) else _positions_below(now.plan),
        left_minutes=left_of(now, facts),
        marks=_marks_seen(now.plan),
        shafts=_shafts(now.plan),
        former=[name for name in now.done if name not in now.plan.by_id],
        stands=stands_of(now),
    )


@kept_with
def stands_of(now: RunState) -> dict[str, Stands]:
    """Return how far each part of the engine has come."""
    done = {name for name, one in now.done.items() if not one.is_skipped}
    on = {name: [one.place for one in places if one.place] for name, places in now.on.items()}
    return part_stands(now.document, _brought(now.plan), done, now.opened, on)


@kept_with
def _brought(plan: Plan) -> Brings:
    return brought_by(plan.document, [one.step for one in plan.steps])


@kept_with
def _marks_seen(plan: Plan) -> list[MarkSeen]:
    return [
        MarkSeen(position=seen.position, name=mark.name, clock_deg=seen.clock_deg, decides=mark.decides)
        for mark in plan.document.drive.marks
        for seen in mark.stands
        if plan.steps and not mark.decoy and seen.clock_deg is not None and plan.document.is_placed(seen.position)
    ]


@kept_with
def _shafts(plan: Plan) -> list[ShaftName]:
    turned = [shaft for shaft in plan.document.drive.shafts if shaft.kind not in ("idler", "tensioner")]
    return [ShaftName(id=shaft.id, name=shaft.name) for shaft in turned if plan.steps]


def _has_head(now: RunState) -> bool:
    return any(stands_of(now).get(part_id("heads", bank.id)) in ("in", "loose") for bank in now.document.banks)


@kept_with
def _positions_below(plan: Plan) -> list[PositionPlace]:
    """The same before a head is on: no valve can meet a piston, and no spring presses."""
    return [one.model_copy(update={"here": []}) for one in _positions(plan)]


@kept_with
def _positions(plan: Plan) -> list[PositionPlace]:
    return [
        PositionPlace(
            position=one.id,
            name=one.name,
            crank_deg=plan.document.position_deg(one.id),
            here=words_of_place(at_position(plan.document, one)),
        )
        for one in plan.document.timing_positions
        if plan.steps and plan.document.is_placed(one.id)
    ]
