"""A step is done, with what was asked of it."""

__all__ = ["KIND"]

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import NOW, PICTURES_OWED, TYPED, Doing, Facts, Kind, LedgerEntry, Objection, Words, met_on_the_way, need
from gurvo_core.run.job.entries import MarkLook, StepDone, TurnSeen
from gurvo_core.run.job.fields import check_answers
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.off import laid_off
from gurvo_core.run.job.rules import check_looks, check_put_on, looks_of, planned_or_not, step_doing
from gurvo_core.run.job.shafts import forget_laid
from gurvo_core.run.job.standing import is_on_at, parts_ready, unmet
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.job.take import crank_moved, opened_again, thing_moved, touched_again, without
from gurvo_core.run.job.tension import turned_on_deg
from gurvo_core.run.job.words import called, looks_words, plain
from gurvo_core.run.looks import is_off, off_words
from gurvo_core.sentence import listed

SLACK = {"tight": "pulled tight", "left": "slack left on the tight side"}


def _say(body: StepDone) -> Words:
    """A step, with its answers."""
    answers = _answers_words(body.answers)
    seen = looks_words(body.looks)
    said = " · ".join(filter(None, (answers, seen, body.note)))
    off = any(is_off(look.saw) for look in body.looks)
    return Words(title=called(body.step, body.title), value="" if answers else "done", detail=said, look_again=off)


def _one_answer(key: str, value: str) -> str:
    if key == "slack":
        return SLACK.get(value, value)
    asked, _, of = key.partition("-")
    return f"{plain(of).lower()} line {value}" if asked == "line" and of else f"{plain(key).lower()} {value}"


def _answers_words(answers: Mapping[str, str]) -> str:
    """Each answer by what it was asked of; pieces that were looked at one by one are told by what was found."""
    pieces: dict[str, list[str]] = {}
    stages: list[str] = []
    said = []
    for key, value in answers.items():
        asked, _, piece = key.partition(".")
        if value and asked == "stage":
            stages.append(piece)
        elif value and piece and asked == "found":
            pieces.setdefault(value.replace("_", " "), []).append(piece)
        elif value:
            said.append(_one_answer(key, value.replace("_", " ")))
    each = [f"all {len(own)} {found}" if len(pieces) == 1 and len(own) > 1 else f"{found}: {listed(own)}" for found, own in pieces.items()]
    gone_through = [f"stage {listed(stages)} done"] if stages else []
    return ", ".join([*gone_through, *each, *said])


def _doing_of(now: RunState, body: StepDone) -> Doing:
    """What a step does, as the gate asks."""
    planned = now.plan.by_id.get(body.step)
    if planned is None:
        return "look"
    return step_doing(planned.step)


def _check(now: RunState, body: StepDone, facts: Facts) -> Iterator[Objection]:
    """Its needs are met, and its answers can be."""
    planned = planned_or_not(now, body.step)
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
            yield from check_put_on(now, step.thing or "")
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


def _none_off(now: RunState, step: WorkStep, looks: Sequence[MarkLook]) -> Iterator[Objection]:
    """What is off while it is laid or parked is put right there and then, or the lead says why it stays."""
    names = {one.id: one.name for one in looks_of(now, step)}
    again = {"lay": "lay it again", "park": "turn on until it does, or look at what moved"}.get(step.does, "put it right")
    for look in looks:
        if is_off(look.saw) and look.of in names:
            rule = f"{names[look.of]} {off_words(look.saw, look.teeth, look.way)}: {again}"
            yield Objection(f"looks.{look.of}", rule, "lead and reason")


def _check_closed_in_time(now: RunState, step: WorkStep, facts: Facts) -> Iterator[Objection]:
    """A bead that was closed too late has skinned over: wiped off and laid anew, unless the lead takes it."""
    opened, clock = now.sealing.get(step.id), facts.get(TYPED) or facts.get(NOW)
    if opened is None or clock is None or not step.working_minutes:
        return
    minutes = (clock - opened.at).total_seconds() / 60
    rule = f"the bead was opened {minutes:.0f} minutes ago and works for {step.working_minutes:g}: wipe it off and lay it anew"
    yield from need(minutes <= step.working_minutes, "step", rule, "lead and reason")


def _take(now: RunState, entry: LedgerEntry, body: StepDone) -> RunState:
    """A step is done. One that is no longer in the document stays as it was entered."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, answers=body.answers, because=entry.because)
    planned = now.plan.by_id.get(body.step)
    if planned is None:
        return replace(now, done={**now.done, body.step: done}, opened=without(now.opened, [body.step]))
    step = planned.step
    if step.does == "seal":
        if body.step in now.done:
            return now  # closed already: what had opened it was struck
        if body.step not in now.sealing:
            return replace(now, sealing={**now.sealing, body.step: done})
        done = replace(done, opened=now.sealing[body.step].at)
        now = replace(now, sealing=without(now.sealing, [body.step]))
    done = replace(done, looks={look.of: look for look in body.looks})
    if step.does == "lay":
        bolts = now.plan.above(body.step) & now.plan.reported & now.done.keys()
        now = opened_again(now, entry, bolts, "laid again")  # what was pulled on it before is pulled again
    if body.step in now.plan.touching:
        now = touched_again(now, entry, body.step)
    now = replace(now, done={**now.done, body.step: done}, opened=without(now.opened, [body.step]))
    if step.does == "lay":
        now = forget_laid(replace(now, off=_still_off(now, step), turned_alone={}), step.loop)
    if step.does == "park":
        return replace(crank_moved(now, step.position), parked_at=entry.seq)
    if step.does in ("plugs_out", "plugs_in"):
        return replace(now, plugs_out=step.does == "plugs_out")
    if step.does == "first_start" and body.answers.get("heard") in (None, "", "sound", "cured"):
        return replace(now, started=entry.seq)
    if step.does in ("put_on", "take_off") and step.thing:
        place = step.place or body.answers.get("place", "")
        return thing_moved(now, entry, step.thing, is_on=step.does == "put_on", place=place)
    return now


def _still_off(now: RunState, step: WorkStep) -> LedgerEntry | None:
    """Marks that did not meet: once all that was off is laid again, it is for the next turn to say."""
    if now.off is None or not isinstance(now.off.body, TurnSeen) or not now.off.body.looks:
        return now.off
    waiting = {name for name in laid_off(now, now.off.body) if name not in now.done} - {step.id}
    return now.off if waiting else None


KIND: Kind[StepDone, RunState] = Kind(
    body=StepDone, does="look", completes=named_today, doing=_doing_of, words=_say, take=_take, check=_check
)
