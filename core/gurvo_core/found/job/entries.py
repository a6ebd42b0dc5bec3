"""What is entered of what the book leaves open."""

__all__ = ["FoundFact", "How", "NotKnown"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.ledger import Body
from gurvo_core.ledger.entry import Reason, Text

How = Literal["counted", "measured", "read off", "told"]
Pointer = Annotated[str, StringConstraints(min_length=2, max_length=200, pattern=r"^(/[A-Za-z0-9._-]+)+$")]
Called = Annotated[str, StringConstraints(max_length=200)]


class FoundFact(Body):
    """Something that the book leaves open, found at the bench."""

    kind: Literal["found"]
    pointer: Pointer = Field(description="Where it belongs in the document, by ids")
    value: Text = Field(description="As typed, or the answer that was chosen")
    how: How
    called: Called | None = Field(default=None, description="What it was called; completed when it is taken")
    note: Reason = ""


class NotKnown(Body):
    """Asked, and not known: the work goes on without it."""

    kind: Literal["not_known"]
    pointer: Pointer
    more: tuple[Pointer, ...] = Field(default=(), max_length=60, description="What else is not known, said at once")
    called: Called | None = Field(default=None, description="What it was called; completed when it is taken")
    called_more: tuple[Called, ...] = Field(default=(), max_length=60)
