"""What the run's state comes to: what is done, how far joints and tensioners are, which need is not met and why."""

__all__ = [
    "cured_at",
    "facts_done_elsewhere",
    "is_done",
    "is_on_at",
    "joint_stage",
    "minutes_of",
    "not_there",
    "not_whole",
    "parts_ready",
    "tensioner_at",
    "title_of",
    "unmet",
    "whole_steps",
]

from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Any

from gurvo_core.engine import Thing, WorkStep
from gurvo_core.ledger import DONE_ELSEWHERE, MINUTES, NOW, Facts, kept_with
from gurvo_core.run.job.state import RunState
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.sentence import at_place

FINGER_TIGHT = 0
_HOW_FAR = ("laid", "fitted", "armed", "proven")


def title_of(now: RunState, step_id: str) -> str:
    """Return what a step is called."""
    planned = now.plan.by_id.get(step_id)
    return planned.title if planned else step_id


def is_done(now: RunState, step_id: str, facts: Facts) -> bool:
    """Return whether a step is done, and signed where it is a hold point.

    Source: Practice: nothing goes on over a hold point that is not signed.
    >>> is_done(begin_run(quern_4()), "gone", Facts())
    False
    """
    planned, done = now.plan.by_id.get(step_id), now.done.get(step_id)
    if done is not None:
        is_signed = planned is None or not planned.step.hold_point or bool(done.signed)
        return is_signed and not done.is_not_good
    return planned is not None and planned.step.does in (facts.get(DONE_ELSEWHERE) or ())


def not_there(now: RunState, step_id: str) -> tuple[str, ...]:
    """Parts that were missing when they were laid out, and have not come since."""
    done = now.done.get(step_id)
    if done is None or done.is_skipped or now.plan.by_id[step_id].step.does != "ready":
        return ()
    return tuple(part for part in now.plan.by_id[step_id].step.parts if done.answers.get(part) == "missing")


@lru_cache(maxsize=64)
def facts_done_elsewhere(done_elsewhere: frozenset[str] | None) -> Facts:
    """Return all that the needs of a step ask of other rooms, as facts. Rooms hear of each other by facts."""
    return Facts({DONE_ELSEWHERE: done_elsewhere})


@kept_with
def whole_steps(now: RunState, done_elsewhere: frozenset[str] | None) -> frozenset[str]:
    """Return the steps that are done, and signed where they are hold points.

    Source: Practice: as ``is_done``, of all of them at once.
    >>> whole_steps(begin_run(quern_4()), None)
    frozenset()
    """
    plan, done = now.plan, now.done
    open_again = {name for name, one in done.items() if one.is_not_good or (name in plan.hold_points and not one.signed)}
    return frozenset(
        (done.keys() & plan.by_id.keys()) - open_again
        | {one.step.id for one in plan.doing(*(done_elsewhere or ())) if one.step.id not in done}
    )


def is_on_at(now: RunState, thing: str, place: str) -> bool:
    """Return whether a thing is on at a place.

    Source: Practice: one tool with two places is moved over.
    >>> is_on_at(begin_run(quern_4()), "pin", "")
    False
    """
    return any(one.place == place for one in now.on.get(thing, ()))


def minutes_of(step: WorkStep, facts: Facts) -> float | None:
    """Return how long a step takes. Returned: the shop's own median, else the document's; None where nobody knows [min]."""
    return (facts.get(MINUTES) or {}).get(step.id, step.minutes)


def joint_stage(now: RunState, joint: str) -> tuple[int, int] | None:
    """Return how far a joint is tightened.

    Source: Practice: finger tight first, all of them, then the stages.
    >>> joint_stage(begin_run(quern_4()), "head") is None
    True
    """
    named, found = now.document.joint(joint), None
    last = named.last_stage if named else 1
    for step in now.plan.of_joint.get(joint, ()):
        done = now.done.get(step.id)
        if done and not done.is_skipped:
            found = ((step.stage or last) if step.does == "tighten" else FINGER_TIGHT, done.seq)
    return found


def tensioner_at(now: RunState, loop: str) -> tuple[str, int] | None:
    """Return how far a chain or belt and its tensioner are.

    Source: Practice: a tensioner is fitted, armed, and proven.
    >>> tensioner_at(begin_run(quern_4()), "chain") is None
    True
    """
    found = None
    for step in now.plan.of_loop.get(loop, ()):
        done = now.done.get(step.id)
        reached = "laid" if step.does == "lay" else step.how_far
        if done and not done.is_skipped and reached and (found is None or _HOW_FAR.index(reached) >= _HOW_FAR.index(found[0])):
            found = (reached, done.seq)
    return found


@kept_with
def parts_ready(now: RunState) -> dict[str, str]:
    """Return what was said of each part when the kit was laid out.

    Source: Practice: one-time parts are new, and the record says so.
    >>> parts_ready(begin_run(quern_4()))
    {}
    """
    said: dict[str, str] = {}
    for step in now.plan.laying_out:
        done = now.done.get(step.id)
        if done:
            said |= {part: done.answers.get(part, "") for part in step.parts}
    return said


def cured_at(now: RunState, step_id: str) -> datetime | None:
    """Return when a sealant is cured.

    Source: Practice: it is closed within its working time and then left alone.
    >>> cured_at(begin_run(quern_4()), "gone") is None
    True
    """
    done, planned = now.done.get(step_id), now.plan.by_id.get(step_id)
    if done is None or planned is None:
        return None
    return done.at + timedelta(minutes=planned.step.cure_minutes or 0)


def unmet(now: RunState, one: PlanStep, facts: Facts) -> Iterator[str]:
    """Yield why a step cannot be done yet."""
    for key, named, place in one.given:
        if key in _AT_A_PLACE:
            yield from _AT_A_PLACE[key](now, named, place)
        elif key != "done":
            yield from _WHY_NOT.get(key, _nothing)(now, named, facts)
    yield from _not_done_yet(now, one, facts)
    # what was undone below it is done again first, even where nothing else would say so
    if now.opened:
        named_already = one.implied | {need.done for need in one.step.needs}
        yield from (f"“{title_of(now, name)}” again first" for name in sorted(one.stands_on & now.opened.keys() - named_already))
    parts = now.plan.parts_before.get(one.step.id)
    if parts:
        ready = parts_ready(now)
        yield from (f"{part.name} not on the bench yet" for part in parts if ready.get(part.id) not in ("new", "there"))


def _not_done_yet(now: RunState, one: PlanStep, facts: Facts) -> Iterator[str]:
    """The steps that a step names and that are not done: of those that wait for each other the one that is next."""
    whole = whole_steps(now, facts.get(DONE_ELSEWHERE))
    missing = [name for name in now.plan.named_before.get(one.step.id, ()) if name not in whole]
    for name in now.plan.nearest(missing) if len(missing) > 1 else missing:
        yield from _not_done(now, name, facts)


def _not_done(now: RunState, step_id: str, facts: Facts) -> Iterator[str]:
    if step_id in now.plan.by_id and not is_done(now, step_id, facts):
        yield not_whole(now.plan, step_id, is_unsigned=step_id in now.done)


def not_whole(plan: Plan, step_id: str, *, is_unsigned: bool) -> str:
    """Return what is said of a step that another waits for."""
    return f"“{plan.by_id[step_id].title}” {'waits for its signature' if is_unsigned else 'first'}"


def _not_decided(now: RunState, _camshaft: str, facts: Facts) -> Iterator[str]:
    for one in now.plan.doing("degree"):
        yield from _not_done(now, one.step.id, facts)


def _not_parked(now: RunState, position: str, _facts: Facts) -> Iterator[str]:
    if now.parked != position:
        yield f"the crank is not parked {at_place(_called(now.document.timing_positions, position))}"


def _not_on(now: RunState, thing: str, place: str | None) -> Iterator[str]:
    if not _is_on(now, thing, place):
        yield f"{_called(now.document.things, thing)} is not on{f', {place}' if place else ''}"


def _still_on(now: RunState, thing: str, place: str | None) -> Iterator[str]:
    if _is_on(now, thing, place):
        yield f"{_called(now.document.things, thing)} is still on{f', {place}' if place else ''}"


def _is_on(now: RunState, thing: str, place: str | None) -> bool:
    return any(place in (None, one.place) for one in now.on.get(thing, ()))


def _not_tight(now: RunState, wanted: Any, _facts: Facts) -> Iterator[str]:
    reached = joint_stage(now, wanted.joint)
    if reached is None or reached[0] < wanted.stage:
        yield f"{_called(now.document.joints, wanted.joint)} not tightened to stage {wanted.stage} yet"


def _not_held(now: RunState, shaft: str, place: str | None) -> Iterator[str]:
    """A lock for timing is no counter-hold unless the book says that it may be pulled against."""
    on = [thing for thing in now.document.things if _is_on(now, thing.id, place) and shaft in _held_by(now, thing)]
    if not any(thing.counter_hold for thing in on):
        lock = f"; {on[0].name} is a lock for timing and may not be pulled against" if on else ""
        where = f", {place}," if place else ""
        yield f"nothing holds {_called(now.document.drive.shafts, shaft)}{where} against the wrench{lock}"


def _held_by(now: RunState, thing: Thing) -> Sequence[str]:
    """The shafts that a thing holds where it is: one that is moved over holds one after the other."""
    if len(thing.places) != len(thing.holds):
        return thing.holds
    where = {one.place for one in now.on[thing.id]}
    return [shaft for shaft, place in zip(thing.holds, thing.places, strict=True) if place in where]


def _not_tensioned(now: RunState, loop: str, _facts: Facts) -> Iterator[str]:
    if (tensioner_at(now, loop) or ("",))[0] not in ("armed", "proven"):
        yield f"the tensioner of {_called(now.document.drive.stages, loop)} is not armed yet"


def _not_proven(now: RunState, loop: str, _facts: Facts) -> Iterator[str]:
    if (tensioner_at(now, loop) or ("",))[0] != "proven":
        yield f"the tensioner of {_called(now.document.drive.stages, loop)} is not proven yet"


def _not_cured(now: RunState, step_id: str, facts: Facts) -> Iterator[str]:
    cured, clock = cured_at(now, step_id), facts.get(NOW)
    if cured is None:
        yield f"“{title_of(now, step_id)}” first"
    elif clock is not None and clock < cured:
        yield f"“{title_of(now, step_id)}” cures for another {max(1, round((cured - clock).total_seconds() / 60))} minutes"


def _nothing(_now: RunState, _named: Any, _facts: Facts) -> Iterator[str]:
    yield from ()


def _called(parts: Iterable[Any], name: str) -> str:
    """What something is called, by its id."""
    return next((part.name for part in parts if part.id == name), name)


_AT_A_PLACE: dict[str, Callable[[RunState, str, str | None], Iterator[str]]] = {"on": _not_on, "off": _still_on, "held": _not_held}
_WHY_NOT: dict[str, Callable[[RunState, Any, Facts], Iterator[str]]] = {
    "decided": _not_decided,
    "parked": _not_parked,
    "tight": _not_tight,
    "tensioned": _not_tensioned,
    "proven": _not_proven,
    "cured": _not_cured,
}
