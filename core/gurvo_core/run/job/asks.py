"""What the run asks in each step."""

__all__ = ["ask_step", "ask_variant", "blocks_step", "plan_facts"]

from collections.abc import Mapping
from functools import lru_cache, partial
from typing import Any, NamedTuple

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import (
    CAM_PROOFS,
    DONE_ELSEWHERE,
    DRIVE_TOUCHED,
    OPENED_LAST,
    PLAN,
    PLUGS_OUT,
    PROOF_TO_COME,
    SHAFTS,
    STEPS_DONE,
    WHY_STEP_WAITS,
    Asked,
    Fact,
    Facts,
    PlainAnswer,
    Step,
    kept_last,
    kept_with,
)
from gurvo_core.ledger.room import Status
from gurvo_core.motion.clock import mark_clock_deg
from gurvo_core.run.job.asked import FieldOption
from gurvo_core.run.job.asked_first import asked_first
from gurvo_core.run.job.kinds.variant import VariantQuestion
from gurvo_core.run.job.meet_again import meet_again_words
from gurvo_core.run.job.proof import proofs_of, touched_of
from gurvo_core.run.job.rules import looks_at_stop, looks_of, step_doing
from gurvo_core.run.job.said import said_of
from gurvo_core.run.job.shafts import shafts_of
from gurvo_core.run.job.show import stands_of
from gurvo_core.run.job.standing import (
    facts_done_elsewhere,
    minutes_of,
    not_there,
    not_whole,
    unmet,
    whole_steps,
)
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.view import (
    HoldQuestion,
    LookView,
    MarkSeen,
    StepQuestion,
    TurnQuestion,
)
from gurvo_core.run.job.words import in_its_own_words
from gurvo_core.run.looks import LookAt
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.sentence import RUNNING, listed, within

VARIANT = "variant:"
MOVES = frozenset({"park", "turn_over", "lay", "tension", "fit", "take_off"})  # where something may be met or heard
_BUTTONS = {
    "ready": "All ticked",
    "inspect": "Record",
    "fit": "Fitted",
    "put_on": "It is on",
    "take_off": "It is off",
    "plugs_out": "Out and locked",
    "plugs_in": "They are in",
    "as_found": "Record",
    "park": "Parked",
    "lay": "Laid",
    "tighten": "Tightened",
    "measure": "Record",
    "prime": "Record",
    "first_start": "Record",
}
_HOW_FAR = {"fitted": "Fitted", "armed": "Armed", "proven": "Proven"}


PROVING = ("turn_over", "degree")


def plan_facts(now: RunState, _facts: Facts) -> Mapping[Fact[Any], Any]:
    """The run as steps that every room may see to; variants are told apart before anything else."""
    return _plan_facts(now)


@kept_with
def _plan_facts(now: RunState) -> Mapping[Fact[Any], Any]:
    if not now.plan.steps:
        return {}
    skipped = frozenset(name for name, done in now.done.items() if done.is_skipped)
    plugs: dict[Fact[Any], Any] = {PLUGS_OUT: now.plugs_out} if now.plan.asks_plugs else {}
    return plugs | {
        PLAN: _steps_of(now.plan, skipped),
        STEPS_DONE: now.done,
        OPENED_LAST: now.opened_last,
        WHY_STEP_WAITS: partial(_why_it_waits, now),
        CAM_PROOFS: proofs_of(now),
        DRIVE_TOUCHED: touched_of(now),
        SHAFTS: shafts_of(now, stands_of(now)),
        PROOF_TO_COME: frozenset(one.step.does for one in now.has_still(*PROVING)),
    }


@lru_cache(maxsize=256)
def _steps_of(plan: Plan, skipped: frozenset[str]) -> tuple[Step, ...]:
    """The steps of a plan. One that a room of its own craft sees to is asked for there, all others, and what is left out, here."""
    first = plan.steps[0].stage
    groups = [Step(key=f"{VARIANT}{group.id}", title=group.name, does="variant", stage=first) for group in plan.document.variants]
    steps = [
        Step(
            key=one.step.id,
            title=one.title,
            does=one.step.does if one.is_elsewhere and one.step.id not in skipped else "run",
            stage=one.stage,
        )
        for one in plan.steps
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
        answers=[
            PlainAnswer(title=one.name, detail=one.told_by, entry={"kind": "variant", "group": group.id, "option": one.id})
            for one in group.options
        ],
    )
    return Asked(questions=[question], note=name)


def ask_step(now: RunState, step: Step, facts: Facts) -> Asked:
    """What one step asks: that it is done, its next stop, its signature. Kept as long as nothing it rests on has changed."""
    asked = _at_rest(now, facts).get(step.key)
    if asked is None:
        asked = _asked_in(now, step.key, facts.get(DONE_ELSEWHERE), minutes_of(now.plan.by_id[step.key].step, facts))
    first = asked_first(now, now.plan.by_id[step.key]) if now.hard_stop is not None or not now.plugs_out else ()
    return Asked(questions=[*first, *asked.questions]) if first else asked


def _at_rest(now: RunState, facts: Facts) -> Mapping[str, Asked]:
    """What is asked in steps that are done and ask nothing more, or wait for others and for nothing else: most of a long run."""
    return kept_last(now, "at rest", facts, partial(_asked_at_rest, now, facts))


def _asked_at_rest(now: RunState, facts: Facts) -> dict[str, Asked]:
    plan, whole = now.plan, whole_steps(now, facts.get(DONE_ELSEWHERE))
    takes = partial(minutes_of, facts=facts)
    ended = [name for name in now.done.keys() & plan.simply_done if not _is_asked_again(now, name)]
    found = {name: _asked_done(plan, name, takes(plan.by_id[name].step), now.done[name].is_skipped) for name in ended}
    for name, before in plan.waits_for_steps.items() if not now.opened else ():
        missing = tuple(other for other in before if other not in whole) if name not in now.done and name not in whole else ()
        if missing:
            unsigned = tuple(other for other in missing if other in now.done)
            found[name] = _asked_waiting(plan, name, takes(plan.by_id[name].step), missing, unsigned)
    return found


def _is_asked_again(now: RunState, step_id: str) -> bool:
    """Whether a step that was done is asked once more: what was looked at is not good, what was heard is a noise, a part was missing."""
    done = now.done.get(step_id)
    return done is not None and (done.is_not_good or bool(not_there(now, step_id)))


@kept_with
def _asked_done(plan: Plan, step_id: str, minutes: float | None, is_skipped: bool) -> Asked:
    """What is asked in a step that is done: most of a long run, and the same for every engine of its plan."""
    return _asked_of(plan, step_id, minutes, _Standing(is_whole=True, note="left out" if is_skipped else ""))


@kept_with
def _asked_waiting(plan: Plan, step_id: str, minutes: float | None, missing: tuple[str, ...], unsigned: tuple[str, ...]) -> Asked:
    """What is asked in a step that waits for others and for nothing else: most of what is left of a long run, and told by their names."""
    blocked = "; ".join(not_whole(plan, name, is_unsigned=name in unsigned) for name in plan.nearest(missing))
    return _asked_of(plan, step_id, minutes, _Standing(is_whole=False, blocked=blocked, note=_minutes(minutes)))


@kept_with
def _asked_in(now: RunState, step_id: str, done_elsewhere: frozenset[str] | None, minutes: float | None) -> Asked:
    one, done = now.plan.by_id[step_id], now.done.get(step_id)
    facts = facts_done_elsewhere(done_elsewhere)
    is_whole = step_id in whole_steps(now, done_elsewhere)
    lacks = not_there(now, step_id) if done is not None else ()
    again = done is not None and (done.is_not_good or bool(lacks))
    blocked, note = "" if is_whole else "; ".join(unmet(now, one, facts)), _note(now, one, minutes)
    if one.step.does == "turn_over" and not (done and done.is_skipped):
        turn, seen = _Standing(is_whole=done is not None, blocked=blocked, note=note), len(now.stops.get(step_id, ()))
        asked = _asked_turn(now.plan, step_id, seen, _stop_looks(now, one, seen), turn)
    else:
        opened = now.opened.get(step_id)
        stands = _Standing(
            is_whole=done is not None and not again,
            blocked=blocked,
            opened=_why_again(now, step_id) if again and not opened else opened.because if opened else "",
            later=bool(lacks),
            is_closing=step_id in now.sealing,
            next_step=None if done is not None or blocked else _next_step(now, one, facts),
            note=note,
            looks=looks_of(now, one.step),
        )
        asked = _asked_of(now.plan, step_id, minutes, stands)
    signs = [_hold(one.step, done.by, is_signed=bool(done.signed))] if one.step.hold_point and done is not None else []
    return Asked(questions=[*asked.questions, *signs], note=note) if signs else asked


def _why_again(now: RunState, step_id: str) -> str:
    lacks = [part.name for part in now.document.kit if part.id in not_there(now, step_id)]
    return f"{within(listed(lacks))} not on the bench yet" if lacks else "it was not good; say what was done about it"


def _stop_looks(now: RunState, one: PlanStep, seen: int) -> tuple[LookAt, ...]:
    return looks_at_stop(now, one.step, min(seen + 1, len(one.step.stops)))


class _Standing(NamedTuple):
    """All that is said of a step beside what its run plans."""

    is_whole: bool
    blocked: str = ""
    opened: str = ""  # why it is open again
    is_closing: bool = False  # a sealed face that is open
    next_step: str | None = None
    note: str = ""
    looks: tuple[LookAt, ...] = ()
    later: bool = False  # it keeps nothing else waiting


@lru_cache(maxsize=16_384)
def _asked_of(plan: Plan, step_id: str, minutes: float | None, stands: _Standing) -> Asked:
    """What is asked in a step that stands so; one entry changes few steps of a long run, and all others are said as before."""
    return Asked(questions=[_step(plan, plan.by_id[step_id], minutes, stands)], note=stands.note)


@lru_cache(maxsize=4096)
def _asked_turn(plan: Plan, step_id: str, seen: int, looks: tuple[LookAt, ...], stands: _Standing) -> Asked:
    """What is asked where the crank is turned over and so many stops have been seen."""
    return Asked(questions=[_turn(plan, plan.by_id[step_id], seen, looks, stands)], note=stands.note)


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
        hint=f"Open again: {stands.opened}. {said.hint}".strip() if stands.opened else said.hint,
        status=_status(stands.is_whole),
        group="",
        waits="",
        blocked=stands.blocked,
        later=stands.later,
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
        looks=_look_views(plan, stands.looks),
        tools=list(step.tools),
        moves=step.does in MOVES,
        way=_way_words(step),
    )


@kept_with
def _guessed_marks(plan: Plan) -> frozenset[str]:
    """Ids of the marks of which the document says that they are guesses."""
    document = plan.document
    return frozenset(mark.id for at, mark in enumerate(document.drive.marks) if document.is_guessed(f"/drive/marks/{at}"))


def _look_views(plan: Plan, looks: tuple[LookAt, ...]) -> list[LookView]:
    guessed = _guessed_marks(plan)
    return [
        LookView.model_construct(
            of=one.id,
            name=one.name,
            kind=one.kind,
            asks=one.asks,
            beside=one.beside,
            clock_deg=None if one.id in guessed else one.clock_deg,
        )
        for one in looks
    ]


def _way_words(step: WorkStep) -> str:
    """Which way a step turns, as its book has it; empty where it turns nothing or says nothing."""
    return {"running": "the running way only", "back": "back", "either": "either way, gently"}.get(step.way or "", "")


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
        return "It is closed" if is_closing else "Begin the bead: its time runs"
    if step.does == "tension":
        return _HOW_FAR[step.how_far or "fitted"]
    return in_its_own_words(step) or _BUTTONS.get(step.does, "Done")


def _turn(plan: Plan, one: PlanStep, seen: int, looks: tuple[LookAt, ...], stands: _Standing) -> TurnQuestion:
    step, document, is_whole = one.step, plan.document, stands.is_whole
    at = min(seen, len(step.stops) - 1)
    stop = step.stops[at]
    # it ends at its position; a stop before that is so many turns short of it
    back_deg = 360 * (step.stops[-1].turns - stop.turns)
    crank_deg = (document.position_deg(step.position) - back_deg) % CYCLE_DEG if step.position else None
    before = step.stops[at - 1].turns if at and not is_whole else 0.0
    way = f"the running way only, {RUNNING}" if step.way in (None, "running") else _way_words(step)
    return TurnQuestion.model_construct(
        key=step.id,
        kind="turn_seen",
        title=one.title,
        ask=_turn_ask(stop.turns - before, before, bool(looks)) if not is_whole else step.says,
        hint=f"Slowly, by hand, {way if document.running_direction else 'the way the engine runs'}. {step.why}".strip(),
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
        marks=[] if crank_deg is None or is_whole or not document.is_placed(step.position or "") else _marks_at(document, crank_deg),
        after_note=meet_again_words(document),
        looks=[] if is_whole else _look_views(plan, looks),
        turned_ask=f"Turned {_turns(stop.turns)}? Then say what is seen." if not looks else "What do the marks say?",
        cautions=list(step.cautions),
        tools=list(step.tools),
    )


def _turn_ask(turns: float, before: float, is_looked: bool) -> str:
    """What is asked at a stop: turn so far, then look."""
    return f"Turn it {_more(turns, before)}, by hand. {'Where do the marks stand then?' if is_looked else 'Does it turn freely?'}"


def _more(turns: float, before: float) -> str:
    """How far it is turned from where it stands."""
    said = "once" if turns == 1 else "twice" if turns == 2 else f"{turns:g} turns"
    return f"{said} more" if before else said


def _marks_at(document: EngineDocument, crank_deg: float) -> list[MarkSeen]:
    """Where the marks stand at a crank angle, as far as that is known; a guess is not shown."""
    return [
        MarkSeen(
            position=mark.position,
            name=mark.name,
            clock_deg=round(float(mark_clock_deg(document, mark, crank_deg, {})), 1),
            decides=mark.decides,
        )
        for at, mark in enumerate(document.drive.marks)
        if not mark.decoy
        and mark.clock_deg is not None
        and document.is_placed(mark.position)
        and not document.is_guessed(f"/drive/marks/{at}")
    ]


def _turns(turns: float) -> str:
    return "one turn" if turns == 1 else f"{turns:g} turns"


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
