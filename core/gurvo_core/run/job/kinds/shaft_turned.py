"""One shaft turned by itself: a cam by its hexagon with nothing on it, the crank a little to meet a link."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Doing, Facts, Kind, LedgerEntry, Objection, Words, met_on_the_way, need
from gurvo_core.run.job.entries import TurnedAlone
from gurvo_core.run.job.lay import held_by, laid_loops
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.rules import check_at
from gurvo_core.run.job.shafts import clock_values, turned_to
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.take import needed_again, touched_again
from gurvo_core.run.job.words import at_words, called


def _say(body: TurnedAlone) -> Words:
    """A shaft turned by itself."""
    way = {"running": "the running way", "back": "back"}.get(body.way or "", "")
    then = {"stands": "stands there", "snapped": "snapped round", "dead_stop": "dead stop"}[body.then]
    said = ", ".join(filter(None, (way, body.how_far, at_words(body.at))))
    detail = " · ".join(filter(None, (said, body.note)))
    return Words(title=f"{called(body.shaft, body.title)} turned by itself", value=then, detail=detail, look_again=body.then != "stands")


def _doing_alone(now: RunState, body: TurnedAlone) -> Doing:
    """What a shaft turned by itself does: with nothing laid on it, it turns without the crank, whatever keeps that still."""
    wheels = now.document.drive.wheels_on(body.shaft)
    laid = laid_loops(now)
    is_on = any(wheels & set(stage.wheel_ids) for stage in now.document.drive.stages if stage.id in laid)
    is_cam = any(cam.id == body.shaft for cam in now.document.camshafts)
    return "look" if is_cam and not is_on else "turn"


def _check(now: RunState, body: TurnedAlone, facts: Facts) -> Iterator[Objection]:
    """A shaft that there is and that nothing holds."""
    known = {shaft.id: shaft.name for shaft in now.document.drive.shafts}
    yield from need(body.shaft in known, "shaft", f"this engine has no shaft {body.shaft}; choose one of {', '.join(known)}")
    holder = held_by(now).get(body.shaft)
    yield from need(now.hard_stop is None, "kind", "something was met: look into that before anything is turned")
    yield from need(holder is None, "shaft", f"{known.get(body.shaft, body.shaft)} is held by {holder}: take that off first")

    if body.at is not None:
        yield from check_at(now, body.shaft, body.at)
    by_deg = body.by_deg
    if by_deg is not None and body.then == "stands":
        yield from met_on_the_way(facts, "by_deg", lambda clear: clear.turning(body.shaft, by_deg))


def _take(now: RunState, entry: LedgerEntry, body: TurnedAlone) -> RunState:
    """A shaft turned by itself: the crank is parked no more, and a loop that lies on a shaft must be turned over again."""
    cranks = {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    now = replace(now, turned_alone={**now.turned_alone, body.shaft: entry}, seen=turned_to(now, entry, body))
    if body.shaft in cranks:
        now = replace(now, parked=None)
    if body.then == "dead_stop":
        now = replace(now, hard_stop=entry)
    wheels = now.document.drive.wheels_on(body.shaft)
    loops = {stage.id for stage in now.document.drive.stages if wheels & set(stage.wheel_ids)}
    laid = [one.step.id for one in now.did("lay") if one.step.loop in loops]
    return needed_again(now, entry) if body.shaft in cranks or not laid else touched_again(now, entry, laid[-1])


KIND: Kind[TurnedAlone, RunState] = Kind(
    body=TurnedAlone,
    does="turn",
    doing=_doing_alone,
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
    si_values=clock_values,
)
