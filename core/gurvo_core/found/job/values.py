"""What was found as a value: read as its place in the document has it, and as it is called today."""

__all__ = ["COUNTS", "FIGURES", "named_today", "read_value", "wanted_at"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.found.job.entries import FoundFact, NotKnown
from gurvo_core.found.wanted import HOUR_DEG, Wanted, wanted_in
from gurvo_core.ledger import LedgerEntry
from gurvo_core.units import read_figure


def wanted_at(document: EngineDocument, pointer: str) -> Wanted | None:
    """What is asked at a place of the document; None where nothing is."""
    return next((one for asked in wanted_in(document).values() for one in asked if one.pointer == pointer), None)


COUNTS, FIGURES = ("teeth", "count", "fasteners"), ("to_next", "number", "pitch_mm")


def read_value(body: FoundFact) -> str | int | float:
    """A kept fact's value: a figure where it is one; what was asked has made sure of it when it was taken."""
    last = body.pointer.rsplit("/", 1)[-1]
    if last == "clock_deg":
        return read_figure(body.value) % 12 * HOUR_DEG
    if last in COUNTS:
        return round(read_figure(body.value))
    return read_figure(body.value) if last in FIGURES else body.value.strip()


def named_today(body: Any, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Any:
    """Keep what was asked as it is called today."""
    if body.called is not None:
        return body
    kept: dict[str, Any] = {"called": _called(document, body.pointer)}
    if isinstance(body, NotKnown) and body.more:
        kept["called_more"] = tuple(_called(document, pointer) for pointer in body.more)
    return body.model_copy(update=kept)


def _called(document: EngineDocument, pointer: str) -> str:
    wanted = wanted_at(document, pointer)
    return f"{wanted.title}, {wanted.unit}".rstrip(", ") if wanted else pointer
