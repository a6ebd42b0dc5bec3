"""What stands after each entry of the run."""

__all__ = [
    "hear_of_step",
    "news_of",
    "take_done",
    "take_hard_stop",
    "take_hold",
    "take_oil_change",
    "take_opened",
    "take_skipped",
    "take_thing",
    "take_turn",
    "take_variant",
]

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from typing import TypeVar

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import LedgerEntry, StepNews
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
from gurvo_core.run.job.standing import is_on_at
from gurvo_core.run.job.state import Done, Opened, RunState, StopSeen, ThingOn
from gurvo_core.run.plan import DRIVE, plan_of

V = TypeVar("V")


def _without(known: Mapping[str, V], names: Iterable[str]) -> dict[str, V]:
    gone = set(names)
    return {name: value for name, value in known.items() if name not in gone}


def take_done(now: RunState, entry: LedgerEntry, body: StepDone) -> RunState:
    """A step is done. One that is no longer in the document stays as it was entered."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, answers=body.answers, because=entry.because)
    planned = now.plan.by_id.get(body.step)
    if planned is None:
        return replace(now, done={**now.done, body.step: done})
    step = planned.step
    if step.does == "seal":
        if body.step not in now.sealing:
            return replace(now, sealing={**now.sealing, body.step: done})
        done = replace(done, opened=now.sealing[body.step].at)
        now = replace(now, sealing=_without(now.sealing, [body.step]))
    if step.does in DRIVE:
        now = _touched(now, entry, body.step)
    now = replace(now, done={**now.done, body.step: done}, opened=_without(now.opened, [body.step]))
    if step.does == "park":
        return replace(now, parked=step.position)
    if step.does == "plugs_out":
        return replace(now, plugs_out=True)
    if step.does in ("put_on", "take_off") and step.thing:
        place = step.place or body.answers.get("place", "")
        return _moved(now, entry, step.thing, is_on=step.does == "put_on", place=place)
    return now


def _touched(now: RunState, entry: LedgerEntry, touched: str) -> RunState:
    """What was laid or tensioned must be turned over again, if it was before."""
    again = [
        one.step.id
        for one in now.plan.steps
        if one.step.does == "turn_over" and touched in one.stands_on and (one.step.id in now.done or one.step.id in now.stops)
    ]
    return _opened(now, entry, again, "the drive was touched") if again else now


def _opened(now: RunState, entry: LedgerEntry, names: Iterable[str], because: str) -> RunState:
    opened = [name for name in names if name in now.done or name in now.stops]
    above = _with_what_they_need(now, {name for one in opened for name in now.plan.above(one)} | set(opened))
    reopened = {name: Opened(seq=entry.seq, because=because) for name in above if name in now.done or name in opened}
    undone = (entry.seq, frozenset(above), because)
    return replace(now, done=_without(now.done, above), stops=_without(now.stops, above), opened={**now.opened, **reopened}, undone=undone)


def _with_what_they_need(now: RunState, opened: set[str]) -> set[str]:
    """The same, with whatever put the crank or a thing where they need it, unless it is there still: that is done again too."""
    growing = True
    while growing:
        needed = {name for one in opened if one in now.plan.by_id for name in now.plan.by_id[one].needs}
        lost = {name for name in needed - opened if name in now.done and not _still_so(now, now.plan.by_id[name].step)}
        opened = opened | lost | {name for one in lost for name in now.plan.above(one)}
        growing = bool(lost)
    return opened


def _still_so(now: RunState, step: WorkStep) -> bool:
    if step.does == "park":
        return now.parked == step.position
    if step.does in ("put_on", "take_off"):
        return (step.thing in now.on) == (step.does == "put_on")
    return True


def _moved(now: RunState, entry: LedgerEntry, thing: str, *, is_on: bool, place: str) -> RunState:
    before = now.on.get(thing, ())
    if is_on and is_on_at(now, thing, place):
        return now
    if is_on:
        return replace(now, on={**now.on, thing: (*before, ThingOn(seq=entry.seq, place=place))})
    left = tuple(one for one in before if place and one.place != place)
    return replace(now, on={**now.on, thing: left} if left else _without(now.on, [thing]))


def take_turn(now: RunState, entry: LedgerEntry, body: TurnSeen) -> RunState:
    """A stop of turning over: the last that meets ends the step, one that does not begins it anew."""
    planned = now.plan.by_id.get(body.step)
    seen = (*now.stops.get(body.step, ()), StopSeen(seq=entry.seq, saw=body.saw, by=entry.by))
    now = replace(now, parked=None)
    if body.saw == "hard_stop":
        return replace(now, hard_stop=entry, stops=_without(now.stops, [body.step]))
    if body.saw == "off":
        return replace(now, off=entry, stops=_without(now.stops, [body.step]))
    if body.saw == "springy":
        return now
    if planned is None or len(seen) < len(planned.step.stops):
        return replace(now, stops={**now.stops, body.step: seen})
    done = Done(seq=entry.seq, at=entry.at, by=entry.by)
    stops, opened = _without(now.stops, [body.step]), _without(now.opened, [body.step])
    return replace(now, done={**now.done, body.step: done}, stops=stops, opened=opened, off=None, parked=planned.step.position)


def take_hard_stop(now: RunState, _entry: LedgerEntry, _body: HardStopSeen) -> RunState:
    """It has been looked into."""
    return replace(now, hard_stop=None)


def take_thing(now: RunState, entry: LedgerEntry, body: ThingMoved) -> RunState:
    """Put on, or off again; off before what needs it is done, it has to be put on again."""
    now = _moved(now, entry, body.thing, is_on=body.on, place=body.place)
    missed = {name for one in now.plan.steps if one.step.id not in now.done and one.step.does != "take_off" for name in one.needs}
    again = [name for name in missed & now.done.keys() if _puts_on(now.plan.by_id[name].step, body.thing) and body.thing not in now.on]
    opened = {name: Opened(seq=entry.seq, because="it was taken off before it was done with") for name in again}
    return replace(now, done=_without(now.done, again), opened={**now.opened, **opened})


def _puts_on(step: WorkStep, thing: str) -> bool:
    return step.does == "put_on" and step.thing == thing


def take_hold(now: RunState, entry: LedgerEntry, body: HoldSigned) -> RunState:
    """Signed: what stands on it may go on."""
    done = now.done.get(body.step)
    return replace(now, done={**now.done, body.step: replace(done, signed=entry.seq)}) if done else now


def take_skipped(now: RunState, entry: LedgerEntry, body: StepSkipped) -> RunState:
    """Left out by the lead."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=body.reason, is_skipped=True, signed=entry.seq)
    return replace(
        now, done={**now.done, body.step: done}, opened=_without(now.opened, [body.step]), stops=_without(now.stops, [body.step])
    )


def take_opened(now: RunState, entry: LedgerEntry, body: Reopened) -> RunState:
    """Open again, with everything that stands on it; a drive that is laid anew has not been found off yet."""
    title = now.plan.by_id[body.step].step.says if body.step in now.plan.by_id else body.step
    above = now.plan.above(body.step)
    now = _opened(now, entry, [body.step], body.reason)
    said = {name: replace(one, because=f"stands on “{title}”") if name in above else one for name, one in now.opened.items()}
    return replace(now, opened=said)


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
        done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=entry.because)
        return replace(now, done={**now.done, news.step: done}, opened=_without(now.opened, [news.step]))
    return _opened(now, entry, [news.step], news.because)


def take_oil_change(now: RunState, _entry: LedgerEntry, _body: OilChange) -> RunState:
    """Done or waived: either way nothing is due any more."""
    return replace(now, oil_changed=True)


def take_variant(now: RunState, _entry: LedgerEntry, body: VariantChosen) -> RunState:
    """Another option may bring other steps."""
    options = {**now.options, body.group: body.option}
    return replace(now, options=options, plan=plan_of(now.document, frozenset(options.values())))
