"""Shapes every app shares: what we accept refuses unknown fields; every refusal has one format."""

__all__ = ["InSchema", "Problem", "refusals"]

from typing import Any, ClassVar

from ninja import Schema
from pydantic import ConfigDict, Field, model_validator

from gurvo_core.errors import Fault
from gurvo_core.sentence import as_words


class InSchema(Schema):
    """What we accept: no unknown fields, no NaN or infinity. What is typed is words, never of the core's grammar."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    to_the_letter: ClassVar[frozenset[str]] = frozenset({"password", "pin"})  # fields that are taken as they are

    @model_validator(mode="before")
    @classmethod
    def _as_words(cls, data: Any) -> Any:
        sent = getattr(data, "_obj", data)  # ninja hands plain data in a wrapper of its own
        if not isinstance(sent, dict):
            return data
        return {key: value if key in cls.to_the_letter else as_words(value) for key, value in sent.items()}


class Span(Schema):
    """Some letters of a typed line."""

    begin: int
    end: int


class Problem(Schema):
    """A refusal, as RFC 9457 has it: a code for programs, a field path, one sentence for people; where several things are wrong, each."""

    type: str = Field(default="about:blank", description="Nothing beyond the status: programs go by the code")
    title: str = Field(description="The status in words")
    status: int = Field(description="The HTTP status")
    detail: str = Field(description="The same sentence as below, where such programs look for it")
    code: str = Field(description="What kind of refusal it is, for programs")
    field: str = Field(default="", description="Path of the field that is wrong; empty where it is none")
    sentence: str = Field(description="What is wrong, where, and what would be right")
    faults: list[Fault] = Field(default=[], description="Everything that is wrong, each with its path")
    at: Span | None = Field(default=None, description="Which letters of a typed line cannot be read")
    way_out: str = Field(default="none", description="What would make it acceptable: none, reason, lead and reason")


def refusals(*statuses: int) -> dict[int, type[Problem]]:
    """Return response declarations for these refusals."""
    return dict.fromkeys(statuses, Problem)


HANDED_OUT: dict[int, type[Problem] | None] = {200: None, **refusals(401, 404, 429)}  # a file, to whoever is signed in
