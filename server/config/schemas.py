"""Shapes every app shares: what we accept refuses unknown fields; every refusal has one format."""

__all__ = ["InSchema", "Problem", "refusals"]

from ninja import Schema
from pydantic import ConfigDict, Field

from gurvo_core.errors import Fault


class InSchema(Schema):
    """What we accept: no unknown fields, no NaN or infinity."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Problem(Schema):
    """A refusal: a code for programs, a field path, one sentence for people; of an engine document, every fault."""

    code: str
    field: str = ""
    sentence: str
    faults: list[Fault] = []
    way_out: str = Field(default="none", description="What would make it acceptable: none, reason, lead and reason")


def refusals(*statuses: int) -> dict[int, type[Problem]]:
    """Return response declarations for these refusals."""
    return dict.fromkeys(statuses, Problem)


HANDED_OUT: dict[int, type[Problem] | None] = {200: None, **refusals(401, 404, 429)}  # a file, to whoever is signed in
