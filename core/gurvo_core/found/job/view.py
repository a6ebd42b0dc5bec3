"""The shapes of what is asked and shown of found facts."""

__all__ = ["FoundLine", "FoundOption", "FoundQuestion", "FoundView"]

from typing import Literal

from pydantic import Field

from gurvo_core.found.job.entries import How
from gurvo_core.found.wanted import Kind
from gurvo_core.ledger import Question, View


class FoundOption(View):
    """One answer to choose from."""

    value: str
    label: str
    detail: str


class FoundQuestion(Question):
    """Something the book leaves open, asked of whoever has the thing in his hand."""

    kind: Literal["found"] = "found"
    pointer: str
    typed: Kind
    unit: str
    options: list[FoundOption]
    hows: list[How]
    to_come: list[str] = Field(description="Pointers of what is asked after it before the same step")


class FoundLine(View):
    """One thing that was found."""

    pointer: str
    called: str
    value: str
    how: How
    by: str
    book: str = Field(description="What the book says of it by now, where it says anything")


class FoundView(View):
    """All that was found on this engine."""

    facts: list[FoundLine]
    count: int = Field(description="How many of them fill the document")
