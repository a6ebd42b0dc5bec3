"""What is asked while valve clearances are set: which way, the next stop, its valves, shims, what is done about one that is not in."""

__all__ = ["ask_lash"]

from functools import lru_cache

from gurvo_core.engine import WorkStep
from gurvo_core.lash.job.book import LashBook, shim_sorts
from gurvo_core.lash.job.kinds.lash_decided import LashDecisionQuestion
from gurvo_core.lash.job.kinds.lash_stop import LashStopQuestion
from gurvo_core.lash.job.show import advice_for, limits_words, sees_of, where_of
from gurvo_core.lash.job.state import LashState, stops_of, valves_left
from gurvo_core.lash.job.view import (
    LashReadingQuestion,
    LashReadyQuestion,
    LashShimsQuestion,
    WayOfStops,
)
from gurvo_core.lash.stops import LashStops
from gurvo_core.ledger import STEPS_DONE, Asked, Facts, PlainAnswer, Question, Step
from gurvo_core.sentence import at_start, listed

AHEAD = 4
WITH_FEEL = "The largest leaf that goes with a light drag; then the next that does not."
OVER_BRIDGE = "The bridge first: both its ends on their stems, then the clearance over it."


def ask_lash(now: LashState, step: Step, facts: Facts) -> Asked:
    """What one step that sets valve clearances asks."""
    valves = now.book.valves(step.key)
    if not valves:
        return Asked(questions=[])
    if step.key in (facts.get(STEPS_DONE) or ()):
        return _asked_quiet(now.book, step.key, is_done=True)
    if step.key not in now.ready and not now.reads.keys() & valves.keys():
        return _asked_quiet(now.book, step.key, is_done=False)
    planned, stops = now.book.steps[step.key], stops_of(now, step.key)
    questions: list[Question] = [_ready(now.book, step, is_done=stops is not None)]
    left = valves_left(now, step.key)
    if stops is not None:
        questions += _at_stops(now, step, planned, stops, left)
    if not left:
        questions += _shims(now, step)
        questions += [_decide(step, name, now) for name in valves if not now.is_settled(name)]
    done = len(valves) - len(left)
    return Asked(questions=questions, note=f"{done} / {len(valves)}" if now.reads else "")


@lru_cache(maxsize=1024)
def _asked_quiet(book: LashBook, step_id: str, *, is_done: bool) -> Asked:
    """The same for every look at a step that is done, or not begun."""
    plain = Step(key=step_id, title=book.steps[step_id].says.rstrip("."), does="lash")
    return Asked(questions=[_ready(book, plain, is_done=is_done)])


def _ready(book: LashBook, step: Step, *, is_done: bool) -> LashReadyQuestion:
    valves = list(book.valves(step.key).values())
    ways = ["fewest", *(["book"] if book.document.lash_stops else []), "firing"]
    found = [] if is_done else [book.stops(step.key, way, 0.0) for way in ways]
    offered = {one.way: WayOfStops(way=one.way, stops=len(one.stops), words=one.words) for one in found}
    said = {f"{one.key.valve} {limits_words(one)}" for one in valves}
    asked = next((one.lash.engine_is for one in valves if one.lash), None)
    planned = book.steps[step.key]
    return LashReadyQuestion.model_construct(
        key=step.key,
        kind="lash_ready",
        title=step.title,
        ask=f"{step.title}: ready?",
        hint="; ".join(sorted(said, reverse=True)) + (f". {planned.why}" if planned.why else "."),
        status="done" if is_done else "open",
        group="",
        waits="",
        blocked="",
        doing="",
        later=False,
        step=step.key,
        ways=list(offered.values()),
        engine_is=asked,
        limits="; ".join(sorted(said, reverse=True)),
        needs_feelers=any(one.lash is None or one.lash.set_by != "hydraulic" for one in valves),
        cautions=list(planned.cautions),
    )


def _at_stops(now: LashState, step: Step, planned: WorkStep, stops: LashStops, left: list[str]) -> list[Question]:
    """The valves of the stop where the crank stands; else the next stop that has some left, in the running way."""
    at = now.stop.get(step.key)
    waiting = {n: [key.id for key in stop.valves if key.id in left] for n, stop in enumerate(stops.stops, 1)}
    if at is not None and waiting.get(at):
        return [_reading(now, step, planned, at, name) for name in waiting[at][:AHEAD]]
    order = [*range((at or 0) + 1, len(stops.stops) + 1), *range(1, (at or 0) + 1)]
    following = next((n for n in order if waiting[n]), None)
    return [_turn(now, step, stops, following, waiting[following])] if following is not None else []


def _turn(now: LashState, step: Step, stops: LashStops, number: int, left: list[str]) -> LashStopQuestion:
    stop = stops.stops[number - 1]
    where = where_of(now.document, stop)
    valves = [now.book.valves(step.key)[name].key.words for name in left]
    sees = sees_of(now.document, stop)
    return LashStopQuestion(
        key=f"{step.key}:stop:{number}",
        title=f"Stop {number}",
        ask=f"Turn the crank to {where}.",
        hint=f"Stop {number} of {len(stops.stops)}, the running way. To set there: {len(valves)}.",
        status="open",
        waits="valve clearances to be set",
        doing="turn",
        step=step.key,
        stop=number,
        where=where,
        sees=sees,
        valves=valves,
        cautions=list(now.book.steps[step.key].cautions),
        answers=[PlainAnswer(title="It stands there", entry={"kind": "lash_stop", "step": step.key, "stop": number})],
        said=f"{at_start(sees or 'plugs out, by hand, the running way').rstrip('.')}. To set: {'; '.join(valves)}.",
    )


def _reading(now: LashState, step: Step, planned: WorkStep, stop: int, name: str) -> LashReadingQuestion:
    one = now.book.valves(step.key)[name]
    read, shim, ready = now.reads.get(name), now.shims.get(name), now.ready.get(step.key)
    set_by = one.lash.set_by if one.lash else "screw"
    called = at_start(one.key.words)
    advice = advice_for(now, name, one)
    in_now = shim.shim_mm if shim else read.shim_mm if read else None
    again = ": read it again" if read else ": what is its clearance?"
    bridge = f" {OVER_BRIDGE}" if one.lash and one.lash.bridge else ""
    turns = one.lash.turns if one.lash else None
    turned = f"Zero lash felt, then {turns:g} turns more." if turns is not None else "Zero lash felt, then on."
    return LashReadingQuestion.model_construct(
        key=f"{step.key}:{name}",
        kind="lash_reading",
        title=called,
        ask=f"{called}: how far was it turned?" if set_by == "hydraulic" else f"{called}{again}",
        hint=turned if set_by == "hydraulic" else f"{advice or WITH_FEEL}{bridge}",
        status="open",
        group=f"Stop {stop}",
        waits="valve clearances to be set",
        blocked="",
        doing="",
        later=False,
        step=step.key,
        stop=stop,
        camshaft=one.key.camshaft,
        cylinder=one.key.cylinder,
        valve=one.key.valve,
        place=one.key.place,
        id=name,
        set_by=set_by,
        limits=limits_words(one),
        gauge=ready.gauge if ready else None,
        asks_shim=set_by == "shim" and in_now is None,
        shim_mm=in_now,
        turns=turns,
        advice=advice,
        is_again=read is not None,
        cautions=list(planned.cautions),
    )


def _shims(now: LashState, step: Step) -> list[Question]:
    own = now.book.valves(step.key)
    part = listed([select.part for select, _ in shim_sorts(own) if select is not None])
    by_shim = part or any(one.lash is not None and one.lash.set_by == "shim" for one in own.values())
    if not by_shim or all(now.is_settled(name) for name in own):
        return []
    return [
        LashShimsQuestion(
            key=f"{step.key}:shims",
            title="Shims",
            ask="Which shim goes where?",
            hint="The engine's own first, then stock; those that are changed are read once more.",
            status="open",
            waits="shims to be changed",
            step=step.key,
            part=part,
        )
    ]


def _decide(step: Step, name: str, now: LashState) -> LashDecisionQuestion:
    one, read = now.book.valves(step.key)[name], now.reads[name]
    called = at_start(one.key.words)
    said = "is out" if read.verdict == "out" else "cannot be told"
    entry = {"kind": "lash_decided", "step": step.key, "valve": name, "decision": "accepted"}
    return LashDecisionQuestion(
        key=f"{step.key}:{name}:decide",
        title=f"{called} {said}",
        ask=f"{called} {said}. Does the lead accept it?",
        hint="Otherwise set it, and read it again.",
        status="optional",
        step=step.key,
        valve=name,
        verdict=read.verdict,
        answers=[PlainAnswer(title="Accepted by the lead", entry=entry, words="reason", asks="Why may it stay so?")],
    )
