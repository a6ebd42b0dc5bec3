"""What the run's entries may say, in the light of what stands."""

__all__ = [
    "check_done",
    "check_hard_stop",
    "check_hold",
    "check_looks",
    "check_marks_taken",
    "check_oil_change",
    "check_opened",
    "check_own_mark",
    "check_plugs",
    "check_shaft",
    "check_skipped",
    "check_thing",
    "check_trouble",
    "check_turn",
    "check_variant",
    "doing_of",
    "looks_at_stop",
    "looks_of",
    "step_doing",
]

from collections.abc import Iterator, Sequence

from gurvo_core.clocks import read_clock
from gurvo_core.engine import WorkStep
from gurvo_core.errors import ReadingError
from gurvo_core.ledger import MAKER, NOW, PICTURES_OWED, TYPED, Doing, Facts, Objection, met_on_the_way, need
from gurvo_core.motion.told import told_by
from gurvo_core.run.job.entries import (
    HardStopSeen,
    HoldSigned,
    MarkLook,
    MarksTaken,
    OilChange,
    OwnMark,
    Plugs,
    Reopened,
    ShaftAt,
    ShaftSeen,
    StepDone,
    StepSkipped,
    ThingMoved,
    TroubleTold,
    TurnedAlone,
    TurnSeen,
    VariantChosen,
)
from gurvo_core.run.job.fields import check_answers
from gurvo_core.run.job.lay import held_by
from gurvo_core.run.job.off import own_looks
from gurvo_core.run.job.standing import is_done, is_on_at, parts_ready, unmet
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.tension import turned_on_deg
from gurvo_core.run.looks import LookAt, is_off, looks_at_turn, looks_while_laying, looks_while_parking, off_words
from gurvo_core.run.plan import PlanStep
from gurvo_core.sentence import listed

Objections = Iterator[Objection]
FULL_TURN_DEG = 360
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
    # what was missing comes, what was not good is put right, a noise is cured
    is_again = step.does in ("ready", "inspect", "first_start")
    already = "this step is done already; open it again first if it has to be done anew"
    yield from need(is_again or body.step not in now.done, "step", already)
    for reason in unmet(now, planned, facts):
        yield Objection("step", f"not yet: {reason}")
    owed = body.step in (facts.get(PICTURES_OWED) or ())
    yield from need(not owed, "step", "a picture is needed before this is done: take it, or the lead says why it is done without")
    if step.does == "put_on":
        place = step.place or body.answers.get("place", "")
        if not is_on_at(now, step.thing or "", place):  # what is there already is there
            yield from _check_put_on(now, step.thing or "")
    if step.does != "ready":
        ready = parts_ready(now)
        for part in now.document.kit:
            if part.id in step.parts and part.one_time and ready.get(part.id) != "new":
                yield Objection("step", f"{part.name} are used once: confirm them new when the kit is laid out")
    if step.does == "park" and step.position is not None and now.document.is_placed(step.position):
        place_deg = now.document.position_deg(step.position)
        yield from met_on_the_way(facts, "step", lambda clear: clear.crank_to(place_deg))
    on_deg = turned_on_deg(now.document, step)
    if on_deg:
        yield from met_on_the_way(facts, "step", lambda clear: clear.crank_by(on_deg))
    yield from _check_closed_in_time(now, step, facts)
    yield from check_answers(now.plan, step, body.answers)
    yield from check_looks(looks_of(now, step), body.looks)
    yield from _none_off(now, step, body.looks)


def _none_off(now: RunState, step: WorkStep, looks: Sequence[MarkLook]) -> Objections:
    """What is off while it is laid or parked is put right there and then, or the lead says why it stays."""
    names = {one.id: one.name for one in looks_of(now, step)}
    again = {"lay": "lay it again", "park": "turn on until it does, or look at what moved"}.get(step.does, "put it right")
    for look in looks:
        if is_off(look.saw) and look.of in names:
            rule = f"{names[look.of]} {off_words(look.saw, look.teeth, look.way)}: {again}"
            yield Objection(f"looks.{look.of}", rule, "lead and reason")


def check_looks(asked: Sequence[LookAt], looks: Sequence[MarkLook]) -> Objections:
    """Each is looked at by its name, once; how far off is said only of what is off."""
    names, said = {one.id: one for one in asked}, {look.of: look for look in looks}
    yield from need(len(said) == len(looks), "looks", "one thing is said twice; say of each what was seen last")
    for name in said.keys() - names.keys():
        yield Objection(f"looks.{name}", f"nothing called {name} is looked at here; leave it out")
    for name, one in names.items():
        look = said.get(name)
        if look is None:
            yield Objection(f"looks.{name}", f"say what is seen of {one.name}: it {one.asks}, it is off, or it cannot be seen")
            continue
        yield from need(look.saw != "tool" or one.kind == "tool", f"looks.{name}", f"{one.name} is no tool: say whether it {one.asks}")
        far = look.teeth is not None or look.way is not None
        yield from need(look.saw in ("off", "less") or not far, f"looks.{name}", "how far is said only of what is off")
        yield from need(look.saw != "less" or look.teeth is None, f"looks.{name}", "less than a tooth is no count of teeth")


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
    if body.saw in ("meets", "off") and body.stop <= len(stops):
        yield from _check_seen(now, planned.step, body)
        yield from met_on_the_way(facts, "stop", lambda clear: clear.crank_by(FULL_TURN_DEG))
    yield from _check_far(now, body)


def _check_seen(now: RunState, step: WorkStep, body: TurnSeen) -> Objections:
    """What was seen of each mark and tool, and that it comes to what is said of all of them."""
    asked = looks_at_stop(now, step, body.stop)
    yield from check_looks(asked, body.looks)
    for one in asked:
        look = next((look for look in body.looks if look.of == one.id), None)
        if one.kind == "tool" and body.saw == "meets" and (look is None or look.saw != "tool"):
            rule = f"try {one.name} in its place: it must go in again here; say that it does, or what is off"
            yield from need(one.id in body.went_in, "went_in", rule)
    is_off_seen = [look for look in body.looks if is_off(look.saw)]
    names = {one.id: one.name for one in asked}
    if body.saw == "meets":
        for look in is_off_seen:
            rule = f"{names.get(look.of, look.of)} {off_words(look.saw, look.teeth, look.way)}: then they do not meet; say that it is off"
            yield Objection("saw", rule)
        seen = [look for look in body.looks if look.saw == "meets"]
        yield from need(
            bool(seen) or not asked, "looks", "nothing of it could be seen: bring one of them into sight, or say why not", "reason"
        )
        touched = now.off is not None and max(now.touched.values(), default=0) > now.off.seq
        rule = "marks were off and nothing has been done since: what makes them meet now?"
        yield from need(now.off is None or touched, "saw", rule, "reason")
    elif asked:
        yield from need(bool(is_off_seen), "looks", "say which of them is off")


def _check_far(now: RunState, body: TurnSeen) -> Objections:
    yield from need(body.saw == "off" or (body.teeth is None and body.way is None), "teeth", "teeth are said only of marks that are off")
    said = [teeth for teeth in (body.teeth, *(look.teeth for look in body.looks)) if teeth is not None]
    most = max((wheel.teeth or 0 for wheel in now.document.drive.wheels), default=0)
    for teeth in said:
        yield from need(not most or teeth <= most, "teeth", f"no wheel here has {teeth:g} teeth; the largest has {most}")


def looks_of(now: RunState, step: WorkStep) -> tuple[LookAt, ...]:
    """What is looked at by name in a step that lays or parks: marks, coloured links, marks of one's own."""
    position = now.plan.position_at(step.id)
    if step.does == "lay":
        return (*looks_while_laying(now.document, step.loop, position), *own_looks(now))
    return looks_while_parking(now.document, position) if step.does == "park" else ()


def looks_at_stop(now: RunState, step: WorkStep, stop: int) -> tuple[LookAt, ...]:
    """What is looked at by name at a stop of turning over, counted from 1; marks of one's own where it ends."""
    turns, in_all = step.stops[stop - 1].turns, step.stops[-1].turns
    own = own_looks(now) if turns == in_all else ()
    return (*looks_at_turn(now.document, now.plan.position_at(step.id), in_all - turns, turns), *own)


def check_trouble(now: RunState, body: TroubleTold, _facts: Facts) -> Objections:
    """Of a step that there is; a stiffness or a noise with a word on it."""
    planned = _planned(now, body.step)
    if isinstance(planned, Objection):
        yield planned
        return
    yield from need(now.hard_stop is None, "kind", "what was met before is not looked into yet; say first what that was")
    yield from need(body.what == "dead_stop" or bool(body.note), "note", "say where, and what it was like")


def check_marks_taken(now: RunState, body: MarksTaken, _facts: Facts) -> Objections:
    """There are marks that do not meet, and a reason."""
    off = now.off is not None and getattr(now.off.body, "step", "") == body.step
    yield from need(off, "step", "no marks are off at this step")
    yield from need(bool(body.reason), "reason", "say why they may stay as they are")


def doing_alone(now: RunState, body: TurnedAlone) -> Doing:
    """What a shaft turned by itself does: with nothing laid on it, it turns without the crank, whatever keeps that still."""
    wheels = now.document.drive.wheels_on(body.shaft)
    laid = {one.step.loop for one in now.plan.steps_with("loop") if one.step.does == "lay" and one.step.id in now.done}
    is_on = any(wheels & set(stage.wheel_ids) for stage in now.document.drive.stages if stage.id in laid)
    is_cam = any(cam.id == body.shaft for cam in now.document.camshafts)
    return "look" if is_cam and not is_on else "turn"


def check_shaft(now: RunState, body: TurnedAlone, facts: Facts) -> Objections:
    """A shaft that there is and that nothing holds."""
    known = {shaft.id: shaft.name for shaft in now.document.drive.shafts}
    yield from need(body.shaft in known, "shaft", f"this engine has no shaft {body.shaft}; choose one of {', '.join(known)}")
    holder = held_by(now).get(body.shaft)
    yield from need(now.hard_stop is None, "kind", "something was met: look into that before anything is turned")
    yield from need(holder is None, "shaft", f"{known.get(body.shaft, body.shaft)} is held by {holder}: take that off first")

    if body.at is not None:
        yield from _check_at(now, body.shaft, body.at)
    by_deg = body.by_deg
    if by_deg is not None and body.then == "stands":
        yield from met_on_the_way(facts, "by_deg", lambda clear: clear.turning(body.shaft, by_deg))


def check_seen(now: RunState, body: ShaftSeen, _facts: Facts) -> Objections:
    """A shaft that there is, and something on it that tells."""
    known = {shaft.id for shaft in now.document.drive.shafts}
    yield from need(body.shaft in known, "shaft", f"this engine has no shaft {body.shaft}; choose one of {', '.join(sorted(known))}")
    yield from _check_at(now, body.shaft, body.at)


def _check_at(now: RunState, shaft: str, at: ShaftAt) -> Objections:
    ways = told_by(now.document, shaft)
    names = listed([one.name for one in ways]) or "nothing yet: its marks have no clock position in the document"
    yield from need(at.of in {one.of for one in ways}, "at.of", f"where it stands is told by {names}")
    try:
        read_clock(at.clock)
    except ReadingError as error:
        yield Objection("at.clock", error.rule)


def check_own_mark(now: RunState, body: OwnMark, _facts: Facts) -> Objections:
    """A name that is not taken."""
    taken = any(getattr(entry.body, "name", "") == body.name for entry in now.own_marks)
    yield from need(not taken, "name", f"there is a mark called {body.name} already; give another name")


def check_plugs(now: RunState, body: Plugs, _facts: Facts) -> Objections:
    """Only where the run has no step for it, and it is another state than before."""
    planned = any(one.step.does in ("plugs_out", "plugs_in") and one.step.id not in now.done for one in now.plan.steps)
    yield from need(not planned, "kind", "the run of work has a step for it: do that")
    yield from need(body.out != now.plugs_out, "out", f"they are {'out' if now.plugs_out else 'in'} already")


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
