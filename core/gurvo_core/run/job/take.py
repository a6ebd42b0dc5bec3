"""What stands after each entry of the run."""

__all__ = [
    "hear_of_step",
    "news_of",
    "take_done",
    "take_hard_stop",
    "take_hold",
    "take_marks",
    "take_oil_change",
    "take_opened",
    "take_own_mark",
    "take_plugs",
    "take_seen",
    "take_shaft",
    "take_skipped",
    "take_thing",
    "take_trouble",
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
    MarksTaken,
    OilChange,
    OwnMark,
    Plugs,
    Reopened,
    ShaftSeen,
    StepDone,
    StepSkipped,
    ThingMoved,
    TroubleTold,
    TurnedAlone,
    TurnSeen,
    VariantChosen,
)
from gurvo_core.run.job.off import laid_off, off_said
from gurvo_core.run.job.shafts import forget_laid, seen_at, turned_to
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
        return replace(now, done={**now.done, body.step: done}, opened=_without(now.opened, [body.step]))
    step = planned.step
    if step.does == "seal":
        if body.step in now.done:
            return now  # closed already: what had opened it was struck
        if body.step not in now.sealing:
            return replace(now, sealing={**now.sealing, body.step: done})
        done = replace(done, opened=now.sealing[body.step].at)
        now = replace(now, sealing=_without(now.sealing, [body.step]))
    done = replace(done, looks={look.of: look for look in body.looks})
    if step.does == "lay":
        bolts = now.plan.above(body.step) & now.plan.reported & now.done.keys()
        now = _opened(now, entry, bolts, "laid again")  # what was pulled on it before is pulled again
    if body.step in now.plan.touching:
        now = _touched(now, entry, body.step)
    now = replace(now, done={**now.done, body.step: done}, opened=_without(now.opened, [body.step]))
    if step.does == "lay":
        now = forget_laid(replace(now, off=_still_off(now, step), turned_alone={}), step.loop)
    if step.does == "park":
        return replace(_crank_moved(now, step.position), parked_at=entry.seq)
    if step.does in ("plugs_out", "plugs_in"):
        return replace(now, plugs_out=step.does == "plugs_out")
    if step.does == "first_start" and body.answers.get("heard") in (None, "", "sound", "cured"):
        return replace(now, started=entry.seq)
    if step.does in ("put_on", "take_off") and step.thing:
        place = step.place or body.answers.get("place", "")
        return _moved(now, entry, step.thing, is_on=step.does == "put_on", place=place)
    return now


def _still_off(now: RunState, step: WorkStep) -> LedgerEntry | None:
    """Marks that did not meet: once all that was off is laid again, it is for the next turn to say."""
    if now.off is None or not isinstance(now.off.body, TurnSeen) or not now.off.body.looks:
        return now.off
    waiting = {name for name in laid_off(now, now.off.body) if name not in now.done} - {step.id}
    return now.off if waiting else None


def _touched(now: RunState, entry: LedgerEntry, touched: str) -> RunState:
    """What was laid, tensioned or pulled must be turned over again, if it was before: that which stands on it, else the last turn."""
    planned = now.plan.by_id.get(touched)
    loop = (planned.step.loop if planned else None) or ""
    now = replace(now, touched={**now.touched, loop: entry.seq})
    turned = [one for one in now.plan.steps if one.step.does == "turn_over" and (one.step.id in now.done or one.step.id in now.stops)]
    above = [one.step.id for one in turned if touched in one.stands_on]
    is_laid = touched not in now.plan.by_id or now.plan.by_id[touched].step.does in DRIVE
    last = [one.step.id for one in turned[-1:] if is_laid and not _turned_later(now, touched)]
    again = above or last
    return _opened(now, entry, again, "the drive was touched") if again else now


def _turned_later(now: RunState, touched: str) -> bool:
    """Whether the run turns over once more after a step."""
    place = now.plan.place.get(touched, -1)
    return any(one.step.does == "turn_over" and at > place and one.step.id not in now.done for at, one in enumerate(now.plan.steps))


def _opened(now: RunState, entry: LedgerEntry, names: Iterable[str], because: str, spared: frozenset[str] = frozenset()) -> RunState:
    opened = [name for name in names if name in now.done or name in now.stops or name in now.sealing]
    if not opened:
        return now
    above = _with_what_they_need(now, ({name for one in opened for name in now.plan.above(one)} - spared) | set(opened))
    reopened = {name: Opened(seq=entry.seq, because=because) for name in above if name in now.done or name in opened}
    undone = (entry.seq, frozenset(above), because)
    done, stops = _without(now.done, above), _without(now.stops, above)
    return _with_opened(replace(now, done=done, stops=stops, sealing=_without(now.sealing, above), undone=undone), reopened)


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
    return [
        one.step.id for one in now.plan.steps if one.step.does == "take_off" and one.step.thing == put_on.thing and one.step.id in now.done
    ]


def _still_so(now: RunState, step: WorkStep) -> bool:
    if step.does == "park":
        return now.parked == step.position
    if step.does in ("put_on", "take_off"):
        return (step.thing in now.on) == (step.does == "put_on")
    return True


def _crank_moved(now: RunState, parked: str | None) -> RunState:
    """It stands elsewhere now: at a position, or nobody has said where."""
    cranks = {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    return replace(now, parked=parked, seen={shaft: told for shaft, told in now.seen.items() if shaft not in cranks})


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
    stop = StopSeen(seq=entry.seq, saw=body.saw, by=entry.by, looks=body.looks, went_in=body.went_in)
    seen = (*now.stops.get(body.step, ()), stop)
    now = _crank_moved(now, None)
    if body.saw == "hard_stop":
        return _needed_again(replace(now, hard_stop=entry, stops=_without(now.stops, [body.step])), entry)
    if body.saw == "off":
        return _undone_by(replace(now, off=entry, stops=_without(now.stops, [body.step])), entry, body)
    if body.saw == "springy":
        return _needed_again(now, entry)
    if planned is None or len(seen) < len(planned.step.stops):
        return _needed_again(replace(now, stops={**now.stops, body.step: seen}), entry)
    looks = {look.of: look for one in seen for look in one.looks}
    went_in = frozenset(name for one in seen for name in one.went_in)
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, looks=looks, went_in=went_in, all_met=not looks)
    stops, opened = _without(now.stops, [body.step]), _without(now.opened, [body.step])
    now = replace(
        now, done={**now.done, body.step: done}, stops=stops, opened=opened, off=None, parked=planned.step.position, parked_at=entry.seq
    )
    return _needed_again(now, entry)


def _undone_by(now: RunState, entry: LedgerEntry, body: TurnSeen) -> RunState:
    """Off undoes the loop: it is laid again, with whatever that needs. Bolts keep their pulls until it is, should the lead take it so."""
    if not body.looks:
        return now  # entered before marks were asked by name
    lays = [name for name in laid_off(now, body) if name in now.done]
    undone = _opened(now, entry, lays, off_said(entry), spared=now.plan.reported)
    undid = {name: done for name, done in now.done.items() if name not in undone.done}
    return replace(undone, off_undid=undid)


def take_trouble(now: RunState, entry: LedgerEntry, _body: TroubleTold) -> RunState:
    """Something was met or heard while something was moved: it waits to be looked into."""
    return replace(now, hard_stop=entry)


def take_marks(now: RunState, entry: LedgerEntry, body: MarksTaken) -> RunState:
    """The lead takes marks as they are: the turn is done, and the record says on whose word."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=body.reason, is_taken=True, signed=entry.seq)
    again = {**now.off_undid} | ({body.step: done} if body.step in now.plan.by_id else {})
    opened, stops = _without(now.opened, again), _without(now.stops, [body.step])
    return replace(now, done={**now.done, **again}, off=None, off_undid={}, opened=opened, stops=stops)


def take_shaft(now: RunState, entry: LedgerEntry, body: TurnedAlone) -> RunState:
    """A shaft turned by itself: the crank is parked no more, and a loop that lies on a shaft must be turned over again."""
    cranks = {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    now = replace(now, turned_alone={**now.turned_alone, body.shaft: entry}, seen=turned_to(now, entry, body))
    if body.shaft in cranks:
        now = replace(now, parked=None)
    if body.then == "dead_stop":
        now = replace(now, hard_stop=entry)
    wheels = now.document.drive.wheels_on(body.shaft)
    loops = {stage.id for stage in now.document.drive.stages if wheels & set(stage.wheel_ids)}
    laid = [one.step.id for one in now.plan.steps if one.step.does == "lay" and one.step.loop in loops and one.step.id in now.done]
    return _needed_again(now, entry) if body.shaft in cranks or not laid else _touched(now, entry, laid[-1])


def take_seen(now: RunState, entry: LedgerEntry, body: ShaftSeen) -> RunState:
    """A shaft was looked at: where it stands now. A parked crank that stands elsewhere is parked no more."""
    told = seen_at(now.document, entry.seq, body.shaft, body.at)
    if told is None:
        return now
    is_crank = body.shaft in {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    now = replace(now, seen={**now.seen, body.shaft: told}, parked=None if is_crank else now.parked)
    return _needed_again(now, entry) if is_crank else now


def take_own_mark(now: RunState, entry: LedgerEntry, _body: OwnMark) -> RunState:
    """A mark of one's own is looked at wherever marks are."""
    return replace(now, own_marks=(*now.own_marks, entry))


def take_plugs(now: RunState, _entry: LedgerEntry, body: Plugs) -> RunState:
    """Out, or in again."""
    return replace(now, plugs_out=body.out)


def take_hard_stop(now: RunState, _entry: LedgerEntry, _body: HardStopSeen) -> RunState:
    """It has been looked into."""
    return replace(now, hard_stop=None)


def take_thing(now: RunState, entry: LedgerEntry, body: ThingMoved) -> RunState:
    """Put on, or off again; off before what needs it is done, it has to be put on again."""
    return _needed_again(_moved(now, entry, body.thing, is_on=body.on, place=body.place), entry)


def _needed_again(now: RunState, entry: LedgerEntry) -> RunState:
    """What put the crank or a thing where open steps still need it, and is so no more, is done again."""
    waiting = [one for one in now.plan.steps if one.step.id not in now.done and one.step.does != "take_off"]
    needed = {name for one in waiting for name in one.needs} & now.done.keys()
    again = {name for name in needed if not now.done[name].is_skipped and not _still_so(now, now.plan.by_id[name].step)}
    again |= {name for one in again for name in _taken_off(now, now.plan.by_id[one].step)}
    if not again:
        return now
    opened = {name: Opened(seq=entry.seq, because="it was undone before it was done with") for name in again}
    return _with_opened(replace(now, done=_without(now.done, again)), opened)


def take_hold(now: RunState, entry: LedgerEntry, body: HoldSigned) -> RunState:
    """Signed: what stands on it may go on."""
    done = now.done.get(body.step)
    return replace(now, done={**now.done, body.step: replace(done, signed=entry.seq)}) if done else now


def take_skipped(now: RunState, entry: LedgerEntry, body: StepSkipped) -> RunState:
    """Left out by the lead."""
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=body.reason, is_skipped=True, signed=entry.seq)
    off = now.off if now.off is not None and getattr(now.off.body, "step", "") != body.step else None
    now = replace(now, opened=_without(now.opened, [body.step]), stops=_without(now.stops, [body.step]))
    return replace(now, done={**now.done, body.step: done}, off=off, sealing=_without(now.sealing, [body.step]))


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
        if news.step in now.plan.touching:
            now = _touched(now, entry, news.step)
        done = Done(seq=entry.seq, at=entry.at, by=entry.by, because=entry.because)
        return replace(now, done={**now.done, news.step: done}, opened=_without(now.opened, [news.step]))
    if not news.alone:
        return _opened(now, entry, [news.step], news.because)
    return _opened(now, entry, [news.step], news.because, spared=_besides_bolt(now, news.step))


def _besides_bolt(now: RunState, step_id: str) -> frozenset[str]:
    """Ids of what stays done when one bolt is pulled again: all but its own joint's steps, and turning over where it held a sprocket."""
    joint = now.plan.by_id[step_id].step.joint
    own = {one.step.id for one in now.plan.steps if one.step.joint == joint and one.step.does == "tighten"}
    turns = {one.step.id for one in now.plan.steps if one.step.does == "turn_over"} if step_id in now.plan.touching else set()
    return frozenset(now.plan.by_id.keys() - own - turns)


def take_oil_change(now: RunState, _entry: LedgerEntry, _body: OilChange) -> RunState:
    """Done or waived: either way nothing is due any more."""
    return replace(now, oil_changed=True)


def take_variant(now: RunState, _entry: LedgerEntry, body: VariantChosen) -> RunState:
    """Another option may bring other steps."""
    options = {**now.options, body.group: body.option}
    return replace(now, options=options, plan=plan_of(now.document, frozenset(options.values())))
