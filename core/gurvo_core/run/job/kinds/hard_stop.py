"""A hard stop has been looked into: what it was."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import HardStopSeen
from gurvo_core.run.job.state import RunState


def _check(now: RunState, body: HardStopSeen, _facts: Facts) -> Iterator[Objection]:
    """There was one, and something is said of it."""
    yield from need(now.hard_stop is not None, "kind", "no hard stop waits to be looked into")
    yield from need(bool(body.found), "found", "say what it was: look for a valve on a piston, something in the cylinder, a tool left in")


def _take(now: RunState, _entry: LedgerEntry, _body: HardStopSeen) -> RunState:
    """It has been looked into."""
    return replace(now, hard_stop=None)


KIND: Kind[HardStopSeen, RunState] = Kind(
    body=HardStopSeen,
    happening="hard stop",
    does="decide",
    words=lambda body: Words(title="Hard stop looked into", detail=body.found),
    take=_take,
    check=_check,
)
