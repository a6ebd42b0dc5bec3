"""What the run's entries may say, in the light of what stands."""

__all__ = [
    "check_done",
    "check_hard_stop",
    "check_hold",
    "check_oil_change",
    "check_opened",
    "check_skipped",
    "check_thing",
    "check_turn",
    "check_variant",
    "doing_of",
    "goes_in",
    "step_doing",
]

from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, LoopStage, Thing, WorkStep
from gurvo_core.ledger import MAKER, NOW, TYPED, Doing, Facts, Objection, need
from gurvo_core.run.job.entries import (
    HardStopSeen,
    HoldSigned,
    OilChange,
    Reopened,
    StepDone,
    StepSkipped,
    ThingMoved,
    TurnSeen,
    VariantChosen,
)
from gurvo_core.run.job.fields import check_answers
from gurvo_core.run.job.standing import is_done, is_on_at, parts_ready, unmet
from gurvo_core.run.job.state import RunState
from gurvo_core.run.plan import PlanStep

Objections = Iterator[Objection]
_DOING: dict[str, Doing] = {"park": "turn", "turn_over": "turn", "tighten": "tighten", "prime": "start", "first_start": "start"}


def doing_of(now: RunState, body: StepDone) -> Doing:
    """What a step does, as the gate asks."""
    planned = now.plan.by_id.get(body.step)
    if planned is None:
        return "look"
    return step_doing(planned.step)


def step_doing(step: WorkStep) -> Doing:
    """What a step does, by the document."""
    return _DOING.get(step.does, "cover" if step.covers else "look")


def _planned(now: RunState, step: str) -> PlanStep | Objection:
    planned = now.plan.by_id.get(step)
    return planned or Objection("step", f"this engine's run has no step {step}; load the bench again")


def check_done(now: RunState, body: StepDone, facts: Facts) -> Objections:
    """Its needs are met, and its answers can be."""
    planned = _planned(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    step = planned.step
    yield from need(not planned.is_elsewhere and step.does != "turn_over", "step", "this step is done by its readings, not by saying so")
    is_again = step.does in ("ready", "inspect")  # what was missing comes, what was not good is replaced
    already = "this step is done already; open it again first if it has to be done anew"
    yield from need(is_again or body.step not in now.done, "step", already)
    for reason in unmet(now, planned, facts):
        yield Objection("step", f"not yet: {reason}")
    if step.does == "put_on":
        place = step.place or body.answers.get("place", "")
        if not is_on_at(now, step.thing or "", place):  # what is there already is there
            yield from _check_put_on(now, step.thing or "")
    if step.does != "ready":
        ready = parts_ready(now)
        for part in now.document.kit:
            if part.id in step.parts and part.one_time and ready.get(part.id) != "new":
                yield Objection("step", f"{part.name} are used once: confirm them new when the kit is laid out")
    yield from _check_closed_in_time(now, step, facts)
    yield from check_answers(now.plan, step, body.answers)


def _check_closed_in_time(now: RunState, step: WorkStep, facts: Facts) -> Objections:
    """A bead that was closed too late has skinned over: wiped off and laid anew, unless the lead takes it."""
    opened, clock = now.sealing.get(step.id), facts.get(TYPED) or facts.get(NOW)
    if opened is None or clock is None or not step.working_minutes:
        return
    minutes = (clock - opened.at).total_seconds() / 60
    rule = f"the bead was opened {minutes:.0f} minutes ago and works for {step.working_minutes:g}: wipe it off and lay it anew"
    yield from need(minutes <= step.working_minutes, "step", rule, "lead and reason")


def _check_put_on(now: RunState, thing_id: str) -> Objections:
    thing = now.document.thing(thing_id)
    if thing is None:
        yield Objection("thing", f"this engine's book has no thing {thing_id}")
        return
    on = now.on.get(thing_id, ())
    where = f" at {on[-1].place}" if on and on[-1].place else ""
    yield from need(len(on) < thing.count, "step", f"{thing.name} is on{where} already: take it off there first, then move it over")


def check_thing(now: RunState, body: ThingMoved, _facts: Facts) -> Objections:
    """It can go on, or is there to come off."""
    if body.on:
        yield from need(not is_on_at(now, body.thing, body.place), "thing", f"{body.thing} is on there already")
        yield from _check_put_on(now, body.thing)
    else:
        yield from need(body.thing in now.on, "thing", f"{body.thing} is not on")


def check_turn(now: RunState, body: TurnSeen, facts: Facts) -> Objections:
    """The next stop of a step that turns, with what was seen there in full."""
    planned = _planned(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    stops, seen = planned.step.stops, now.stops.get(body.step, ())
    if planned.step.does != "turn_over":
        yield Objection("step", "this step does not turn the engine over")
        return
    yield from need(body.step not in now.done, "step", "this step is done already; open it again first if it has to be done anew")
    for reason in unmet(now, planned, facts):
        yield Objection("step", f"not yet: {reason}")
    rule = f"stop {len(seen) + 1} of {len(stops)} is next; stop {body.stop} was seen by somebody else or is still to come"
    yield from need(body.stop == len(seen) + 1, "stop", rule)
    if body.saw == "meets" and body.stop <= len(stops):
        for thing in goes_in(now.document, planned.step, body.stop - 1):
            rule = f"try {thing.name} in its place: it must go in again here; say that it does, or what is off"
            yield from need(thing.id in body.went_in, "went_in", rule)
    is_off = body.saw == "off"
    yield from need(not is_off or (body.teeth is not None and body.way is not None), "teeth", "say by how many teeth, and which way")
    yield from need(is_off or (body.teeth is None and body.way is None), "teeth", "teeth are said only of marks that are off")
    most = _most_teeth(now)
    if body.teeth is not None:
        yield from need(body.teeth <= most, "teeth", f"no wheel here has {body.teeth:g} teeth; the largest has {most}")


def goes_in(document: EngineDocument, step: WorkStep, at: int) -> list[Thing]:
    """Locks and pins that must go in again at a stop, counted from 0: after every turn, or every two."""
    turns = step.stops[at].turns
    every = {"every_turn": 1, "every_two": 2}
    return [one for one in document.things if one.fits_again and turns % every[one.fits_again] == 0]


def _most_teeth(now: RunState) -> int:
    names = {name for stage in now.document.drive.stages if isinstance(stage, LoopStage) for name in stage.wheel_ids}
    return max((wheel.teeth or 0 for wheel in now.document.drive.wheels if wheel.id in names or not names), default=0)


def check_hard_stop(now: RunState, body: HardStopSeen, _facts: Facts) -> Objections:
    """There was one, and something is said of it."""
    yield from need(now.hard_stop is not None, "kind", "no hard stop waits to be looked into")
    yield from need(bool(body.found), "found", "say what it was: look for a valve on a piston, something in the cylinder, a tool left in")


def check_hold(now: RunState, body: HoldSigned, facts: Facts) -> Objections:
    """A hold point that was done, by somebody else."""
    planned, done = now.plan.by_id.get(body.step), now.done.get(body.step)
    yield from need(planned is not None and planned.step.hold_point, "step", "this step is no hold point")
    yield from need(done is not None, "step", "this step is not done yet; sign it when it is")
    if done is not None:
        yield from need(not done.signed, "step", "this hold point is signed already")
        yield from need(done.by != facts.get(MAKER), "step", "whoever did a step does not sign it: hand it to another lead")


def check_skipped(now: RunState, body: StepSkipped, facts: Facts) -> Objections:
    """A step that is open, and a reason."""
    planned = _planned(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    yield from need(
        not planned.is_elsewhere or body.step in now.plan.reported, "step", "this step is decided in its own place; it is not left out"
    )
    yield from need(not is_done(now, body.step, facts), "step", "this step is done already")
    yield from need(bool(body.reason), "reason", "say why it is left out")


def check_opened(now: RunState, body: Reopened, _facts: Facts) -> Objections:
    """A step that was done, and a reason."""
    yield from need(body.step in now.done, "step", "this step is open already")
    yield from need(bool(body.reason), "reason", "say what was undone")


def check_oil_change(now: RunState, body: OilChange, _facts: Facts) -> Objections:
    """It is due, and only the lead does without, saying why."""
    due = any(one.step.does == "first_start" and one.step.id in now.done for one in now.plan.steps)
    yield from need(due, "kind", "no oil change is due before the first start")
    yield from need(not now.oil_changed, "kind", "the early oil change is done or waived already")
    rule = "an early oil change carries the assembly lube away: only the lead waives it, with the reason"
    yield from need(body.done or bool(body.reason), "reason", "say why it is waived")
    yield from need(body.done, "done", rule, "lead and reason")


def check_variant(now: RunState, body: VariantChosen, _facts: Facts) -> Objections:
    """One of the options; once parts are fitted only the lead changes it."""
    group = next((group for group in now.document.variants if group.id == body.group), None)
    if group is None:
        yield Objection("group", f"this engine's book has no choice called {body.group}")
        return
    named = [option.id for option in group.options]
    yield from need(body.option in named, "option", f"choose one of {', '.join(named)}")
    fitted = [one.step.id for one in now.plan.steps if one.step.does == "fit" and one.step.id in now.done]
    changes = now.options.get(body.group) not in (None, body.option)
    rule = "parts have been fitted for the other variant: the lead changes it, with the reason"
    yield from need(not (changes and fitted), "option", rule, "lead and reason")
