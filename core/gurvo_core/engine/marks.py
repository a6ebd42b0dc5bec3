"""Marks, keys and dowels on wheels, the pointers they meet, and the locks and pins that hold a shaft."""

__all__ = ["Lock", "Mark", "Pointer"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import ClockDeg, Name, Part, Word


class Pointer(Part):
    """A notch, edge or arrow that stands still."""

    id: Word
    name: Name
    clock_deg: ClockDeg = Field(description="Seen from the axis of the wheel whose mark meets it")


class Mark(Part):
    """A mark, key or dowel on a wheel and where it stands at its timing position."""

    id: Word
    name: Name
    wheel: Word
    kind: Literal["mark", "key", "dowel"] = "mark"
    clock_deg: ClockDeg
    position: Word = Field(description="Id of the timing position at which it stands there")
    meets: Word | None = Field(default=None, description="Id of the pointer, or of the mark on a meshing gear, that it meets")
    decides: bool = Field(default=False, description="Whether it decides (true), or only guides the eye (false)")


class Lock(Part):
    """A pin, plate, bar or bolt that holds a shaft at a timing position."""

    id: Word
    name: Name
    kind: Literal["pin", "plate", "bar", "bolt"]
    holds: Word = Field(description="Id of the shaft")
    position: Word
