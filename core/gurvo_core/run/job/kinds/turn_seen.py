"""What was seen at a stop of turning over by hand."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, met_on_the_way, need
from gurvo_core.run.job.entries import TurnSeen
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.off import laid_off, off_said
from gurvo_core.run.job.rules import check_looks, looks_at_stop, planned_or_not
from gurvo_core.run.job.standing import unmet
from gurvo_core.run.job.state import Done, RunState, StopSeen
from gurvo_core.run.job.take import crank_moved, needed_again, opened_again, without
from gurvo_core.run.job.words import SAW, called, looks_words, plain
from gurvo_core.run.looks import is_off, off_words

FULL_TURN_DEG = 360


def _say(body: TurnSeen) -> Words:
    """A stop, with what was seen."""
    told = {look.of for look in body.looks}
    off = f" by {body.teeth:g} {'tooth' if body.teeth == 1 else 'teeth'}, {body.way}" if body.teeth else ""
    return Words(
        title=f"{called(body.step, body.title)}, stop {body.stop}",
        value=f"{SAW[body.saw]}{off}",
        detail=" · ".join(
            filter(
                None, (looks_words(body.looks), ", ".join(f"{plain(name)} went in" for name in body.went_in if name not in told), body.note)
            )
        ),
        look_again=body.saw != "meets",
    )


def _check(now: RunState, body: TurnSeen, facts: Facts) -> Iterator[Objection]:
    """The next stop of a step that turns, with what was seen there in full."""
    planned = planned_or_not(now, body.step)
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


def _check_seen(now: RunState, step: WorkStep, body: TurnSeen) -> Iterator[Objection]:
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


def _check_far(now: RunState, body: TurnSeen) -> Iterator[Objection]:
    yield from need(body.saw == "off" or (body.teeth is None and body.way is None), "teeth", "teeth are said only of marks that are off")
    said = [teeth for teeth in (body.teeth, *(look.teeth for look in body.looks)) if teeth is not None]
    most = max((wheel.teeth or 0 for wheel in now.document.drive.wheels), default=0)
    for teeth in said:
        yield from need(not most or teeth <= most, "teeth", f"no wheel here has {teeth:g} teeth; the largest has {most}")


def _take(now: RunState, entry: LedgerEntry, body: TurnSeen) -> RunState:
    """A stop of turning over: the last that meets ends the step, one that does not begins it anew."""
    planned = now.plan.by_id.get(body.step)
    stop = StopSeen(seq=entry.seq, saw=body.saw, by=entry.by, looks=body.looks, went_in=body.went_in)
    seen = (*now.stops.get(body.step, ()), stop)
    now = crank_moved(now, None)
    if body.saw == "hard_stop":
        return needed_again(replace(now, hard_stop=entry, stops=without(now.stops, [body.step])), entry)
    if body.saw == "off":
        return _undone_by(replace(now, off=entry, stops=without(now.stops, [body.step])), entry, body)
    if body.saw == "springy":
        return needed_again(now, entry)
    if planned is None or len(seen) < len(planned.step.stops):
        return needed_again(replace(now, stops={**now.stops, body.step: seen}), entry)
    looks = {look.of: look for one in seen for look in one.looks}
    went_in = frozenset(name for one in seen for name in one.went_in)
    done = Done(seq=entry.seq, at=entry.at, by=entry.by, looks=looks, went_in=went_in, all_met=not looks)
    stops, opened = without(now.stops, [body.step]), without(now.opened, [body.step])
    now = replace(
        now, done={**now.done, body.step: done}, stops=stops, opened=opened, off=None, parked=planned.step.position, parked_at=entry.seq
    )
    return needed_again(now, entry)


def _undone_by(now: RunState, entry: LedgerEntry, body: TurnSeen) -> RunState:
    """Off undoes the loop: it is laid again, with whatever that needs. Bolts keep their pulls until it is, should the lead take it so."""
    if not body.looks:
        return now  # entered before marks were asked by name
    lays = [name for name in laid_off(now, body) if name in now.done]
    undone = opened_again(now, entry, lays, off_said(entry), spared=now.plan.reported)
    undid = {name: done for name, done in now.done.items() if name not in undone.done}
    return replace(undone, off_undid=undid)


KIND: Kind[TurnSeen, RunState] = Kind(body=TurnSeen, does="turn", completes=named_today, words=_say, take=_take, check=_check)
