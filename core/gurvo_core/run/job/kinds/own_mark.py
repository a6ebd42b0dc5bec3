"""A mark of one's own: paint put on before it comes apart, counted on the old belt, moved over to the new one."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import OwnMark
from gurvo_core.run.job.state import RunState


def _say(body: OwnMark) -> Words:
    """A mark of one's own."""
    return Words(title=f"Own mark: {body.name}", value="put on", detail=" · ".join(filter(None, (body.meets, body.note))))


def _check(now: RunState, body: OwnMark, _facts: Facts) -> Iterator[Objection]:
    """A name that is not taken."""
    taken = any(getattr(entry.body, "name", "") == body.name for entry in now.own_marks)
    yield from need(not taken, "name", f"there is a mark called {body.name} already; give another name")


def _take(now: RunState, entry: LedgerEntry, _body: OwnMark) -> RunState:
    """A mark of one's own is looked at wherever marks are."""
    return replace(now, own_marks=(*now.own_marks, entry))


KIND: Kind[OwnMark, RunState] = Kind(body=OwnMark, does="look", words=_say, take=_take, check=_check)
