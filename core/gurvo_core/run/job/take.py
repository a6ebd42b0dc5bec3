"""What becomes of the run: steps open again with what stands on them, things and the crank moved, the drive touched."""

__all__ = ["crank_moved", "hear_of_step", "needed_again", "news_of", "opened_again", "thing_moved", "touched_again", "without"]

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from typing import TypeVar

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import LedgerEntry, StepNews
from gurvo_core.run.job.standing import is_on_at
from gurvo_core.run.job.state import Done, Opened, RunState, ThingOn
from gurvo_core.run.plan import DRIVE

V = TypeVar("V")


def without(known: Mapping[str, V], names: Iterable[str]) -> dict[str, V]:
    """The same without some of the names."""
    gone = set(names)
    return {name: value for name, value in known.items() if name not in gone}


def touched_again(now: RunState, entry: LedgerEntry, touched: str) -> RunState:
    """What was laid, tensioned or pulled must be turned over again, if it was before: that which stands on it, else the last turn."""
    planned = now.plan.by_id.get(touched)
    loop = (planned.step.loop if planned else None) or ""
    now = replace(now, touched={**now.touched, loop: entry.seq})
    turned = [one for one in now.plan.doing("turn_over") if one.step.id in now.done or one.step.id in now.stops]
    above = [one.step.id for one in turned if touched in one.stands_on]
    is_laid = touched not in now.plan.by_id or now.plan.by_id[touched].step.does in DRIVE
    last = [one.step.id for one in turned[-1:] if is_laid and not _turned_later(now, touched)]
    again = above or last
    return opened_again(now, entry, again, "the drive was touched") if again else now


def _turned_later(now: RunState, touched: str) -> bool:
    """Whether the run turns over once more after a step."""
    place = now.plan.place.get(touched, -1)
    return any(now.plan.place[one.step.id] > place for one in now.has_still("turn_over"))


def opened_again(now: RunState, entry: LedgerEntry, names: Iterable[str], because: str, spared: frozenset[str] = frozenset()) -> RunState:
    """The same with some steps open again, and everything that stands on them."""
    opened = [name for name in names if name in now.done or name in now.stops or name in now.sealing]
    if not opened:
        return now
    above = _with_what_they_need(now, ({name for one in opened for name in now.plan.above(one)} - spared) | set(opened))
    reopened = {name: Opened(seq=entry.seq, because=because) for name in above if name in now.done or name in opened}
    undone = (entry.seq, frozenset(above), because)
    done, stops = without(now.done, above), without(now.stops, above)
    return _with_opened(replace(now, done=done, stops=stops, sealing=without(now.sealing, above), undone=undone), reopened)


def _with_opened(now: RunState, reopened: Mapping[str, Opened]) -> RunState:
    last = {name: one.seq for name, one in reopened.items()}
    return replace(now, opened={**now.opened, **reopened}, opened_last={**now.opened_last, **last})


def _with_what_they_need(now: RunState, opened: set[str]) -> set[str]:
    """The same, with whatever put the crank or a thing where they need it, unless it is there still: that is done again too."""
    growing = True
    while growing:
        needed = {name for one in opened if one in now.plan.by_id for name in now.plan.by_id[one].needs}
        lost = {name for name in needed - opened if name in now.done and not _still_so(now, now.plan.by_id[name].step)}
        opened = opened | lost | {name for one in lost for name in _taken_off(now, now.plan.by_id[one].step)}
        growing = bool(lost)
    return opened


def _taken_off(now: RunState, put_on: WorkStep) -> list[str]:
    """Ids of the steps that take a thing off again; whatever else stood on its being there is done and stays so."""
    if put_on.does != "put_on":
        return []
    return [one.step.id for one in now.did("take_off") if one.step.thing == put_on.thing]


def _still_so(now: RunState, step: WorkStep) -> bool:
    if step.does == "park":
        return now.parked == step.position
    if step.does in ("put_on", "take_off"):
        return (step.thing in now.on) == (step.does == "put_on")
    return True


def crank_moved(now: RunState, parked: str | None) -> RunState:
    """It stands elsewhere now: at a position, or nobody has said where."""
    cranks = {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    return replace(now, parked=parked, seen={shaft: told for shaft, told in now.seen.items() if shaft not in cranks})


def thing_moved(now: RunState, entry: LedgerEntry, thing: str, *, is_on: bool, place: str) -> RunState:
    """The same with a thing on, or off again."""
    before = now.on.get(thing, ())
    if is_on and is_on_at(now, thing, place):
        return now
    if is_on:
        return replace(now, on={**now.on, thing: (*before, ThingOn(seq=entry.seq, place=place))})
    left = tuple(one for one in before if place and one.place != place)
    return replace(now, on={**now.on, thing: left} if left else without(now.on, [thing]))


def needed_again(now: RunState, entry: LedgerEntry) -> RunState:
    """What put the crank or a thing where open steps still need it, and is so no more, is done again."""
    waiting = [one for one in now.plan.steps if one.step.id not in now.done and one.step.does != "take_off"]
    needed = {name for one in waiting for name in one.needs} & now.done.keys()
    again = {name for name in needed if not now.done[name].is_skipped and not _still_so(now, now.plan.by_id[name].step)}
    again |= {name for one in again for name in _taken_off(now, now.plan.by_id[one].step)}
    if not again:
        return now
    opened = {name: Opened(seq=entry.seq, because="it was undone before it was done with") for name in again}
    return _with_opened(replace(now, done=without(now.done, again)), opened)


def news_of(before: RunState, after: RunState) -> Iterator[StepNews]:
    """Steps that another room sees to entry by entry and that were opened with others."""
    if after.undone is not before.undone:
        for step in sorted(after.undone[1] & after.plan.reported):
            yield StepNews(step=step, is_done=False, because=after.undone[2])


def hear_of_step(now: RunState, entry: LedgerEntry, news: StepNews) -> RunState:
    """A step that another room sees to entry by entry is done there, or open again with everything that stands on it."""
    if news.step not in now.plan.reported or news.is_done == (news.step in now.done):
        return now
    if news.is_done:
        if news.step in now.plan.touching:
            now = touched_again(now, entry, news.step)
        done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=entry.because)
        return replace(now, done={**now.done, news.step: done}, opened=without(now.opened, [news.step]))
    if not news.alone:
        return opened_again(now, entry, [news.step], news.because)
    return opened_again(now, entry, [news.step], news.because, spared=_besides_bolt(now, news.step))


def _besides_bolt(now: RunState, step_id: str) -> frozenset[str]:
    """Ids of what stays done when one bolt is pulled again: all but its own joint's steps, and turning over where it held a sprocket."""
    joint = now.plan.by_id[step_id].step.joint
    own = {one.step.id for one in now.plan.doing("tighten") if one.step.joint == joint}
    turns = {one.step.id for one in now.plan.doing("turn_over")} if step_id in now.plan.touching else set()
    return frozenset(now.plan.by_id.keys() - own - turns)
