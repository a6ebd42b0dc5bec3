"""The kinds of entries of found facts, each with all that is said, asked and changed by it."""

__all__ = ["KINDS", "read_value"]

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import CoreError
from gurvo_core.found.filled import Fact, found_faults, is_open, value_at
from gurvo_core.found.job.entries import FoundFact, NotKnown
from gurvo_core.found.job.state import FoundState, Standing
from gurvo_core.found.wanted import HOUR_DEG, Wanted, value_of, wanted_in
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.units import read_figure


def _wanted(document: EngineDocument, pointer: str) -> Wanted | None:
    return next((one for asked in wanted_in(document).values() for one in asked if one.pointer == pointer), None)


def _take_found(now: FoundState, entry: LedgerEntry, body: FoundFact) -> FoundState:
    standing = Standing(entry.seq, entry.by, body, Fact(body.pointer, read_value(body)))
    return replace(now, found={**now.found, body.pointer: standing}, unknown=now.unknown - {body.pointer})


def _take_unknown(now: FoundState, _entry: LedgerEntry, body: NotKnown) -> FoundState:
    return replace(now, unknown=now.unknown | {body.pointer, *body.more})


_COUNTS, _FIGURES = ("teeth", "count", "fasteners"), ("to_next", "number", "pitch_mm")
CAN_BE_FOUND = frozenset((*_COUNTS, *_FIGURES, "clock_deg", "running_direction", "right_bank", "stroke", "thread", "property_class"))


def read_value(body: FoundFact) -> str | int | float:
    """A kept fact's value: a figure where it is one; what was asked has made sure of it when it was taken."""
    last = body.pointer.rsplit("/", 1)[-1]
    if last == "clock_deg":
        return read_figure(body.value) % 12 * HOUR_DEG
    if last in _COUNTS:
        return round(read_figure(body.value))
    return read_figure(body.value) if last in _FIGURES else body.value.strip()


def _check_found(now: FoundState, body: FoundFact, _facts: Facts) -> Iterator[Objection]:
    """It is left open, it is such a figure, and it goes with all the rest; what the book says itself is no fact to be found."""
    wanted = _wanted(now.document, body.pointer)
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


def _check_unknown(now: FoundState, body: NotKnown, _facts: Facts) -> Iterator[Objection]:
    yield from need(is_open(now.document, body.pointer), "pointer", "it is known already")
    for at, pointer in enumerate(body.more):
        yield from need(is_open(now.document, pointer), f"more.{at}", "it is known already")


def _named(body: Any, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Any:
    if body.called is not None:
        return body
    kept: dict[str, Any] = {"called": _called(document, body.pointer)}
    if isinstance(body, NotKnown) and body.more:
        kept["called_more"] = tuple(_called(document, pointer) for pointer in body.more)
    return body.model_copy(update=kept)


def _called(document: EngineDocument, pointer: str) -> str:
    wanted = _wanted(document, pointer)
    return f"{wanted.title}, {wanted.unit}".rstrip(", ") if wanted else pointer


def _say_found(body: FoundFact) -> Words:
    return Words(title=body.called or body.pointer, value=body.value, detail=" · ".join(filter(None, (f"found, {body.how}", body.note))))


KINDS: tuple[Kind[Any, FoundState], ...] = (
    Kind(body=FoundFact, does="look", settle=_named, words=_say_found, take=_take_found, check=_check_found, fills=True),
    Kind(
        body=NotKnown,
        does="look",
        settle=_named,
        words=lambda body: Words(title="; ".join([body.called or body.pointer, *body.called_more]), value="not known"),
        take=_take_unknown,
        check=_check_unknown,
    ),
)
