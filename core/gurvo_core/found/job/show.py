"""What found facts come to: the filled document, what is shown of them, and what the lead is handed as the next revision."""

__all__ = ["FOUND", "as_next_revision", "facts_of", "fill", "view_of"]

from collections.abc import Mapping, Sequence
from typing import Any

from gurvo_core import ledger
from gurvo_core.engine import EngineDocument
from gurvo_core.found.filled import Fact, filled, is_open, value_at, with_found
from gurvo_core.found.job.entries import FoundFact
from gurvo_core.found.job.state import FoundState
from gurvo_core.found.job.values import read_value
from gurvo_core.found.job.view import FoundLine, FoundView
from gurvo_core.ledger import Facts, LedgerEntry, kept_with

# what was found, for whoever looks at whether anything of it has changed
FOUND: ledger.Fact[FoundState] = ledger.Fact("what was found")


def facts_of(now: FoundState, _facts: Facts) -> Mapping[ledger.Fact[Any], Any]:
    """Itself: rooms after it ask anew once something was found."""
    return _known(now)


@kept_with
def _known(now: FoundState) -> Mapping[ledger.Fact[Any], Any]:
    return {FOUND: now}


def fill(document: EngineDocument, standing: Sequence[LedgerEntry]) -> EngineDocument:
    """The document with all that stands as found; of one thing found twice the last counts."""
    found = {
        entry.body.pointer: Fact(entry.body.pointer, read_value(entry.body)) for entry in standing if isinstance(entry.body, FoundFact)
    }
    return filled(document, tuple(found.values()))


def view_of(now: FoundState, _facts: Facts) -> FoundView:
    """What was found, beside what the book says of it by now."""
    return _view(now)


@kept_with
def _view(now: FoundState) -> FoundView:
    lines = []
    for pointer, one in now.found.items():
        said = value_at(now.document, pointer)
        book = "" if said in (None, "", one.fact.value) else f"{said:g}" if isinstance(said, float) else str(said)
        called = one.body.called or pointer
        lines.append(FoundLine(pointer=pointer, called=called, value=one.body.value, how=one.body.how, by=one.by, book=book))
    return FoundView(facts=lines, count=sum(not line.book for line in lines))


def as_next_revision(base: EngineDocument, now: FoundState, note: str) -> dict[str, Any] | None:
    """A document with all that was found written in and said to be measured, for the lead to take in; None where nothing was."""
    facts = [one.fact for one in now.found.values() if is_open(base, one.fact.pointer)]
    return with_found(base, facts, note) if facts else None
