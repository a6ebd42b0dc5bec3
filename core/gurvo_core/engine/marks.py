"""Marks, keys and dowels on wheels, the pointers they meet, and the locks and pins that hold a shaft."""

__all__ = ["Lock", "Mark", "Pointer", "SeenAt"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import ClockDeg, Name, Part, Word


class Pointer(Part):
    """A notch, edge or arrow that stands still."""

    id: Word
    name: Name
    clock_deg: ClockDeg | None = Field(default=None, description="Seen from the axis of the wheel whose mark meets it; null = not known")


class SeenAt(Part):
    """Where the same mark stands at one more timing position."""

    position: Word
    clock_deg: ClockDeg | None = None


class Mark(Part):
    """A mark, key or dowel on a wheel and where it stands at its timing position, and at others."""

    id: Word
    name: Name
    wheel: Word
    kind: Literal["mark", "key", "dowel"] = "mark"
    clock_deg: ClockDeg | None = Field(default=None, description="Where it stands at its position; null = not known, it meets all the same")
    position: Word = Field(description="Id of the timing position at which it stands there")
    meets: Word | None = Field(
        default=None, description="Id of the pointer that it meets, or of the mark on a meshing gear or a neighbouring wheel that it faces"
    )
    decides: bool = Field(default=False, description="Whether it decides (true), or only guides the eye (false)")
    seen: tuple[SeenAt, ...] = Field(default=(), max_length=8, description="The same mark at other positions")
    decoy: bool = Field(default=False, description="Looks like a mark and is none: for another engine, or for nothing")
    alike: Word | None = Field(default=None, description="Name of a group of marks that look the same")
    shown_by: Literal["letter", "hole", "dot", "line", "groove", "key"] | None = None
    on: Literal["cam", "body"] = Field(
        default="cam", description="With a phaser: a mark on its body stays with the chain when the cam moves"
    )

    @property
    def stands(self) -> tuple[SeenAt, ...]:
        """Every position it is told for, its own first."""
        return (SeenAt(position=self.position, clock_deg=self.clock_deg), *self.seen)


class Lock(Part):
    """A pin, plate, bar or bolt that holds a shaft at a timing position."""

    id: Word
    name: Name
    kind: Literal["pin", "plate", "bar", "bolt"]
    holds: Word = Field(description="Id of the shaft")
    position: Word
