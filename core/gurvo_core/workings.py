"""One figure of the workings: what it is, how it was come to and from where."""

__all__ = ["LEAST", "Line"]

from pydantic import BaseModel, ConfigDict

LEAST = 0.001  # nothing that anybody measures here is smaller, in whatever unit it is asked


class Line(BaseModel):
    """One figure."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    name: str
    value: str
    formula: str
    source: str
    look_again: bool = False
