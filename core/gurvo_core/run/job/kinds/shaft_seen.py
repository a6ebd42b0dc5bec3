"""Where a shaft stands, by what is seen of it; nothing was turned."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import ShaftSeen
from gurvo_core.run.job.named import named_today
from gurvo_core.run.job.rules import check_at
from gurvo_core.run.job.shafts import clock_values, seen_at
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.take import needed_again
from gurvo_core.run.job.words import at_words, called


def _say(body: ShaftSeen) -> Words:
    """Where a shaft stands."""
    return Words(title=f"{called(body.shaft, body.title)} seen", value=at_words(body.at), detail=body.note)


def _check(now: RunState, body: ShaftSeen, _facts: Facts) -> Iterator[Objection]:
    """A shaft that there is, and something on it that tells."""
    known = {shaft.id for shaft in now.document.drive.shafts}
    yield from need(body.shaft in known, "shaft", f"this engine has no shaft {body.shaft}; choose one of {', '.join(sorted(known))}")
    yield from check_at(now, body.shaft, body.at)


def _take(now: RunState, entry: LedgerEntry, body: ShaftSeen) -> RunState:
    """A shaft was looked at: where it stands now. A parked crank that stands elsewhere is parked no more."""
    told = seen_at(now.document, entry.seq, body.shaft, body.at)
    if told is None:
        return now
    is_crank = body.shaft in {shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank"}
    now = replace(now, seen={**now.seen, body.shaft: told}, parked=None if is_crank else now.parked)
    return needed_again(now, entry) if is_crank else now


KIND: Kind[ShaftSeen, RunState] = Kind(
    body=ShaftSeen,
    does="look",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
    si_values=clock_values,
)
