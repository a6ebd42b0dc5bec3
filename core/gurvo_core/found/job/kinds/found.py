"""Something that the book leaves open, found at the bench."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import CoreError
from gurvo_core.found.filled import Fact, found_faults, value_at
from gurvo_core.found.job.entries import FoundFact
from gurvo_core.found.job.state import FoundState, Standing
from gurvo_core.found.job.values import COUNTS, FIGURES, named_today, read_value, wanted_at
from gurvo_core.found.wanted import value_of
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words

CAN_BE_FOUND = frozenset((*COUNTS, *FIGURES, "clock_deg", "running_direction", "right_bank", "stroke", "thread", "property_class"))


def _take(now: FoundState, entry: LedgerEntry, body: FoundFact) -> FoundState:
    standing = Standing(entry.seq, entry.by, body, Fact(body.pointer, read_value(body)))
    return replace(now, found={**now.found, body.pointer: standing}, unknown=now.unknown - {body.pointer})


def _check(now: FoundState, body: FoundFact, _facts: Facts) -> Iterator[Objection]:
    """It is left open, it is such a figure, and it goes with all the rest; what the book says itself is no fact to be found."""
    wanted = wanted_at(now.document, body.pointer)
    if body.pointer in now.found:
        before = now.found[body.pointer]
        yield Objection("value", f"{before.body.value} was found there by {before.by}: strike that first, if it was wrong")
        return
    if wanted is None:
        yield from _against_the_book(now.document, body)
        return
    try:
        value = value_of(wanted, body.value)
    except CoreError as error:
        yield Objection("value", error.rule)
        return
    facts = [one.fact for one in now.found.values()]
    for fault in found_faults(now.document, facts, Fact(body.pointer, value)):
        yield Objection("value", f"{fault.sentence.rstrip('.')}: count or measure again")
        return


def _against_the_book(document: EngineDocument, body: FoundFact) -> Iterator[Objection]:
    """What the book says itself is no fact to be found; that the engine differs from it is for the lead to take."""
    said = value_at(document, body.pointer)
    if body.pointer.rsplit("/", 1)[-1] not in CAN_BE_FOUND or said in (None, "", ()):
        yield Objection("pointer", "nothing of this engine is left open there; load the bench again")
        return
    try:
        read_value(body)
    except CoreError:
        yield Objection("value", f"type it as the book does, such as {said}")
        return
    if str(said) == body.value.strip():
        yield Objection("pointer", "it is known already, and the same")
        return
    yield Objection(
        "value",
        f"{said} is known of it, and you found {body.value.strip()}: count again; the lead takes it as a deviation",
        "lead and reason",
    )


def _say(body: FoundFact) -> Words:
    return Words(title=body.called or body.pointer, value=body.value, detail=" · ".join(filter(None, (f"found, {body.how}", body.note))))


KIND: Kind[FoundFact, FoundState] = Kind(
    body=FoundFact, does="look", completes=named_today, words=_say, take=_take, check=_check, fills=True
)
