"""The crank has been turned to a place in the cycle."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, met_on_the_way
from gurvo_core.timing.job.entries import Turn
from gurvo_core.timing.job.readings import si_values, turned_to_deg
from gurvo_core.timing.job.state import TimingState


def _say(body: Turn) -> Words:
    """The crank turned."""
    return Words(title="Crank turned to", value=f"{body.to.strip()}°", detail="after firing TDC of the first cylinder")


def _check(_now: TimingState, body: Turn, facts: Facts) -> Iterator[Objection]:
    """The angle can be read, and nothing that is known is met on the way."""
    to_deg = turned_to_deg(body)
    yield from met_on_the_way(facts, "to", lambda clear: clear.crank_to(to_deg))


def _take(now: TimingState, entry: LedgerEntry, body: Turn) -> TimingState:
    """The crank turned to a place."""
    return replace(now, turned_to=(entry.seq, turned_to_deg(body)))


KIND: Kind[Turn, TimingState] = Kind(body=Turn, does="turn", words=_say, take=_take, check=_check, si_values=si_values)
