"""Something put on or taken off for a while, outside the step that says so."""

__all__ = ["KIND"]

from collections.abc import Iterator

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import ThingMoved
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.rules import check_put_on
from gurvo_core.run.job.standing import is_on_at
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.take import needed_again, thing_moved
from gurvo_core.run.job.words import called


def _say(body: ThingMoved) -> Words:
    """Something put on or taken off."""
    detail = " · ".join(filter(None, (body.place, body.note)))
    return Words(title=called(body.thing, body.title), value="put on" if body.on else "taken off", detail=detail)


def _check(now: RunState, body: ThingMoved, _facts: Facts) -> Iterator[Objection]:
    """It can go on, or is there to come off."""
    if body.on:
        yield from need(not is_on_at(now, body.thing, body.place), "thing", f"{body.thing} is on there already")
        yield from check_put_on(now, body.thing)
    else:
        yield from need(body.thing in now.on, "thing", f"{body.thing} is not on")


def _take(now: RunState, entry: LedgerEntry, body: ThingMoved) -> RunState:
    """Put on, or off again; off before what needs it is done, it has to be put on again."""
    return needed_again(thing_moved(now, entry, body.thing, is_on=body.on, place=body.place), entry)


KIND: Kind[ThingMoved, RunState] = Kind(body=ThingMoved, does="look", completes=named_today, words=_say, take=_take, check=_check)
