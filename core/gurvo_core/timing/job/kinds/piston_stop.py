"""The piston stop has been fitted, or taken out."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.timing.job.entries import PistonStop
from gurvo_core.timing.job.state import TimingState


def _say(body: PistonStop) -> Words:
    """The stop in or out."""
    return Words(title="Piston stop", value="in" if body.fitted else "out")


def _check(now: TimingState, body: PistonStop, _facts: Facts) -> Iterator[Objection]:
    """A stop goes in once and comes out once."""
    yield from need(now.setup is not None, "kind", "set up the wheel first")
    if body.fitted:
        yield from need(not now.stop_in, "fitted", "the piston stop is in already")
        yield from need(now.method == "positive_stop", "fitted", "true TDC is looked for without a stop; choose that method first")
    else:
        yield from need(bool(now.stop_in), "fitted", "no piston stop is in")


def _take(now: TimingState, entry: LedgerEntry, body: PistonStop) -> TimingState:
    """The stop in or out."""
    return replace(now, stop_in=entry.seq if body.fitted else 0)


KIND: Kind[PistonStop, TimingState] = Kind(body=PistonStop, does="decide", words=_say, take=_take, check=_check)
