"""What the run asks in each step."""

__all__ = ["ask_step", "ask_variant", "blocks_step", "plan_facts"]

from collections.abc import Mapping
from fractions import Fraction
from functools import lru_cache, partial
from math import lcm
from typing import Any, NamedTuple

from gurvo_core.engine import EngineDocument, LoopStage, WorkStep
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import (
    DONE_ELSEWHERE,
    PLAN,
    PLUGS_OUT,
    STEPS_DONE,
    WHY_STEP_WAITS,
    Asked,
    Fact,
    Facts,
    Step,
    kept_with,
)
from gurvo_core.ledger.room import Status
from gurvo_core.motion.clock import mark_clock_deg
from gurvo_core.run.job.asked import FieldOption
from gurvo_core.run.job.rules import goes_in, step_doing
from gurvo_core.run.job.said import said_of, where_of
from gurvo_core.run.job.standing import facts_done_elsewhere, is_done, minutes_of, not_whole, unmet, whole_steps
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.view import HardStopQuestion, HoldQuestion, MarkSeen, StepQuestion, TurnQuestion, VariantQuestion
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.sentence import RUNNING

VARIANT = "variant:"
_BUTTONS = {
    "ready": "All ticked",
    "inspect": "Record",
    "fit": "Fitted",
    "put_on": "On",
    "take_off": "Off",
    "plugs_out": "Out and locked",
    "park": "Parked",
    "lay": "Laid",
    "tighten": "Tightened",
    "measure": "Record",
    "prime": "Record",
    "first_start": "Record",
}
_HOW_FAR = {"fitted": "Fitted", "armed": "Armed", "proven": "Proven"}


def plan_facts(now: RunState, _facts: Facts) -> Mapping[Fact[Any], Any]:
    """The run as steps that every room may see to; variants are told apart before anything else."""
    return _plan_facts(now)


@kept_with
def _plan_facts(now: RunState) -> Mapping[Fact[Any], Any]:
    if not now.plan.steps:
        return {}
    known: dict[Fact[Any], Any] = {PLAN: _steps_of(now.plan), STEPS_DONE: now.done, WHY_STEP_WAITS: partial(_why_it_waits, now)}
    if any(one.step.does == "plugs_out" for one in now.plan.steps):
        known[PLUGS_OUT] = now.plugs_out
    return known


@lru_cache(maxsize=256)
def _steps_of(plan: Plan) -> tuple[Step, ...]:
    """The steps of a plan. One that a room of its own craft sees to is asked for there, all others here."""
    first = plan.steps[0].stage
    groups = [Step(key=f"{VARIANT}{group.id}", title=group.name, does="variant", stage=first) for group in plan.document.variants]
    steps = [
        Step(key=one.step.id, title=one.title, does=one.step.does if one.is_elsewhere else "run", stage=one.stage) for one in plan.steps
    ]
    return (*groups, *steps)


def ask_variant(now: RunState, step: Step, _facts: Facts) -> Asked:
    """Which of its variants the engine is."""
    group = next(group for group in now.document.variants if step.key == f"{VARIANT}{group.id}")
    chosen = now.options.get(group.id)
    name = next((option.name for option in group.options if option.id == chosen), "")
    question = VariantQuestion(
        key=step.key,
        title=group.name,
        ask=f"{group.name}: which is it?",
        hint="By what is seen on the engine, before anything is fitted.",
        status="done" if chosen else "open",
        group_id=group.id,
        options=[FieldOption(value=option.id, label=option.name, detail=option.told_by) for option in group.options],
    )
    return Asked(questions=[question], note=name)


def ask_step(now: RunState, step: Step, facts: Facts) -> Asked:
    """What one step asks: that it is done, its next stop, its signature. Kept as long as nothing it rests on has changed."""
    one, done = now.plan.by_id[step.key], now.done.get(step.key)
    if done is not None and step.key in now.plan.simply_done:
        return _asked_done(now.plan, step.key, minutes_of(one.step, facts), done.is_skipped)
    done_elsewhere, before = facts.get(DONE_ELSEWHERE), now.plan.waits_for_steps.get(step.key)
    if before and done is None and not now.opened:
        whole = whole_steps(now, done_elsewhere)
        missing = tuple(name for name in before if name not in whole)
        if missing and step.key not in whole:
            unsigned = tuple(name for name in missing if name in now.done)
            return _asked_waiting(now.plan, step.key, minutes_of(one.step, facts), missing, unsigned)
    return _asked_in(now, step.key, done_elsewhere, minutes_of(one.step, facts))


@kept_with
def _asked_done(plan: Plan, step_id: str, minutes: float | None, is_skipped: bool) -> Asked:
    """What is asked in a step that is done: most of a long run, and the same for every engine of its plan."""
    return _asked_of(plan, step_id, minutes, _Standing(is_whole=True, note="left out" if is_skipped else ""))


@kept_with
def _asked_waiting(plan: Plan, step_id: str, minutes: float | None, missing: tuple[str, ...], unsigned: tuple[str, ...]) -> Asked:
    """What is asked in a step that waits for others and for nothing else: most of what is left of a long run, and told by their names."""
    blocked = "; ".join(not_whole(plan, name, is_unsigned=name in unsigned) for name in missing)
    return _asked_of(plan, step_id, minutes, _Standing(is_whole=False, blocked=blocked, note=_minutes(minutes)))


@kept_with
def _asked_in(now: RunState, step_id: str, done_elsewhere: frozenset[str] | None, minutes: float | None) -> Asked:
    one, done = now.plan.by_id[step_id], now.done.get(step_id)
    facts = facts_done_elsewhere(done_elsewhere)
    is_whole = is_done(now, step_id, facts)
    blocked, note = "" if is_whole else "; ".join(unmet(now, one, facts)), _note(now, one, minutes)
    if one.step.does == "turn_over":
        stands = _Standing(is_whole=done is not None, blocked=blocked, note=note)
        asked = _asked_turn(now.plan, step_id, len(now.stops.get(step_id, ())), stands)
        hard_stop = [_hard_stop(step_id)] if now.hard_stop is not None and done is None else []
    else:
        opened = now.opened.get(step_id)
        stands = _Standing(
            is_whole=done is not None,
            blocked=blocked,
            opened=opened.because if opened else "",
            is_closing=step_id in now.sealing,
            next_step=None if done is not None or blocked else _next_step(now, one, facts),
            note=note,
        )
        asked, hard_stop = _asked_of(now.plan, step_id, minutes, stands), []
    signs = [_hold(one.step, done.by, is_signed=bool(done.signed))] if one.step.hold_point and done is not None else []
    return Asked(questions=[*hard_stop, *asked.questions, *signs], note=note) if hard_stop or signs else asked


class _Standing(NamedTuple):
    """All that is said of a step beside what its run plans."""

    is_whole: bool
    blocked: str = ""
    opened: str = ""  # why it is open again
    is_closing: bool = False  # a sealed face that is open
    next_step: str | None = None
    note: str = ""


@lru_cache(maxsize=16_384)
def _asked_of(plan: Plan, step_id: str, minutes: float | None, stands: _Standing) -> Asked:
    """What is asked in a step that stands so; one entry changes few steps of a long run, and all others are said as before."""
    return Asked(questions=[_step(plan, plan.by_id[step_id], minutes, stands)], note=stands.note)


@lru_cache(maxsize=4096)
def _asked_turn(plan: Plan, step_id: str, seen: int, stands: _Standing) -> Asked:
    """What is asked where the crank is turned over and so many stops have been seen."""
    return Asked(questions=[_turn(plan, plan.by_id[step_id], seen, stands)], note=stands.note)


def blocks_step(now: RunState, step: Step, facts: Facts) -> str:
    """Why a planned step that another room asks for cannot be done yet."""
    return _why_it_is_blocked(now, step.key, facts.get(DONE_ELSEWHERE))


@kept_with
def _why_it_is_blocked(now: RunState, step_id: str, done_elsewhere: frozenset[str] | None) -> str:
    return _why_it_waits(now, step_id, Facts({DONE_ELSEWHERE: done_elsewhere}))


def _why_it_waits(now: RunState, step_id: str, facts: Facts) -> str:
    one = now.plan.by_id.get(step_id)
    return "; ".join(unmet(now, one, facts)) if one is not None else ""


def _note(now: RunState, one: PlanStep, minutes: float | None) -> str:
    done, opened = now.done.get(one.step.id), now.opened.get(one.step.id)
    if done is not None:
        return "left out" if done.is_skipped else ""
    if opened is not None:
        return "open again"
    return _minutes(minutes)


def _minutes(minutes: float | None) -> str:
    return f"{minutes:.0f} min" if minutes else ""


def _step(plan: Plan, one: PlanStep, minutes: float | None, stands: _Standing) -> StepQuestion:
    step, said = one.step, said_of(plan, one.step.id)
    return StepQuestion.model_construct(
        key=step.id,
        kind="step_done",
        title=one.title,
        ask=step.says,
        hint=f"Open again: {stands.opened}." if stands.opened else said.hint,
        status=_status(stands.is_whole),
        group="",
        waits="",
        blocked=stands.blocked,
        doing=step_doing(step),
        step=step.id,
        does=step.does,
        fields=said.fields,
        button=_button(step, stands.is_closing),
        cautions=list(step.cautions),
        position=step.position,
        minutes=minutes,
        loop=step.loop,
        shafts=said.shafts,
        thing=said.thing,
        next_step=stands.next_step,
        parts=said.parts,
    )


def _next_step(now: RunState, one: PlanStep, facts: Facts) -> str | None:
    """The first step that nothing but this one keeps waiting; None where this one asks for more, or another room sees to the next."""
    if one.step.hold_point or (one.step.does == "seal" and one.step.id not in now.sealing):
        return None
    done = whole_steps(now, facts.get(DONE_ELSEWHERE)) | {one.step.id}
    after = next((s for s in now.plan.steps if s.step.id not in done and s.needs <= done), None)
    return after.step.id if after is not None and not after.is_elsewhere else None


def _status(is_whole: bool) -> Status:
    return "done" if is_whole else "open"


def _button(step: WorkStep, is_closing: bool) -> str:
    if step.does == "seal":
        return "Closed" if is_closing else "Opened"
    if step.does == "tension":
        return _HOW_FAR[step.how_far or "fitted"]
    return _BUTTONS.get(step.does, "Done")


def _turn(plan: Plan, one: PlanStep, seen: int, stands: _Standing) -> TurnQuestion:
    step, document, is_whole = one.step, plan.document, stands.is_whole
    at = min(seen, len(step.stops) - 1)
    stop = step.stops[at]
    # it ends at its position; a stop before that is so many turns short of it
    back_deg = 360 * (step.stops[-1].turns - stop.turns)
    crank_deg = (document.position_deg(step.position) - back_deg) % CYCLE_DEG if step.position else None
    locks = [] if is_whole else goes_in(document, step, at)
    turned = f"{_turns(stop.turns)} done." if not is_whole else "Turned over."
    return TurnQuestion.model_construct(
        key=step.id,
        kind="turn_seen",
        title=one.title,
        ask=f"{turned} What do the marks say?" if not is_whole else step.says,
        hint=f"Slowly, by hand, the running way only: {RUNNING}. {step.why}".strip(),
        status=_status(is_whole),
        group="",
        waits="turning over by hand",
        blocked=stands.blocked,
        doing=step_doing(step),
        step=step.id,
        stop=at + 1,
        of=len(step.stops),
        turns=stop.turns,
        turns_in_all=step.stops[-1].turns,
        see=list(stop.see),
        crank_deg=crank_deg,
        marks=[] if crank_deg is None or is_whole else _marks_at(document, crank_deg),
        after_note=_meet_again(document),
        goes_in=[FieldOption(value=one.id, label=one.name, detail=where_of(one)) for one in locks],
    )


def _marks_at(document: EngineDocument, crank_deg: float) -> list[MarkSeen]:
    """Where the marks stand at a crank angle."""
    return [
        MarkSeen(
            position=mark.position,
            name=mark.name,
            clock_deg=round(float(mark_clock_deg(document, mark, crank_deg, {})), 1),
            decides=mark.decides,
        )
        for mark in document.drive.marks
        if not mark.decoy and document.is_placed(mark.position)
    ]


def _turns(turns: float) -> str:
    return "One turn" if turns == 1 else f"{turns:g} turns"


def _meet_again(document: EngineDocument) -> str:
    """When painted links or printed lines come back to their marks: after lcm(links, crank teeth) / crank teeth turns."""
    said = []
    for stage in document.drive.stages:
        if not isinstance(stage, LoopStage) or not stage.marked:
            continue
        first = document.drive.wheel(stage.path[0].wheel)
        if not first.teeth or stage.count is None:
            continue
        turns = Fraction(lcm(stage.count, first.teeth), first.teeth) * _slower(document, first.shaft)
        if turns > 2:
            again = f"The marks on {stage.name.lower()} meet again only after {float(turns):g} turns of the crank"
            said.append(f"{again}; until then the wheels' own marks count.")
    return " ".join(said)


def _slower(document: EngineDocument, shaft: str) -> Fraction:
    """Turns of the crank for one of a shaft."""
    turns = abs(document.turns_clockwise[shaft])
    return Fraction(1 / turns).limit_denominator(1000)


def _hard_stop(step_id: str) -> HardStopQuestion:
    return HardStopQuestion(
        key=f"{step_id}:hard",
        title="Hard stop",
        ask="What was the hard stop?",
        hint="Do not force it. A dead stop is a valve on a piston, something in the cylinder, or a lock left in; springy is compression.",
        status="open",
        waits="somebody to look into a hard stop",
    )


def _hold(step: WorkStep, done_by: str, *, is_signed: bool) -> HoldQuestion:
    return HoldQuestion(
        key=f"{step.id}:hold",
        title="Lead signs it",
        ask=f"Hold point: {step.says}",
        hint=f"Done by {done_by}. A lead who did not do it looks, and signs with his PIN or password.",
        status=_status(is_signed),
        waits="a lead at a hold point",
        step=step.id,
        done_by=done_by,
    )
