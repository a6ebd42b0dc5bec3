"""What the document has a place for and later work gives more life to: joints, fits, lash."""

__all__ = ["Fit", "Joint", "Lash"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import Name, Part, Sentence, Word


class Joint(Part):
    """A bolted joint and how it is tightened, stage by stage in words."""

    id: Word
    name: Name
    thread: str = Field(default="", max_length=40, description="Such as M10x1.5")
    fasteners: int | None = Field(default=None, ge=1, le=200)
    stages: tuple[Sentence, ...] = Field(default=(), max_length=12)
    one_time: bool = Field(default=False, description="Stretch bolts and the like: new every time")
    lubrication: str = Field(default="", max_length=200)

    @property
    def last_stage(self) -> int:
        """The stage at which it is tight, counted from 1; a joint that lists none has one."""
        return len(self.stages) or 1


class Fit(Part):
    """A clearance and its limits."""

    id: Word
    name: Name
    least_mm: float | None = Field(default=None, ge=-5, le=50)
    most_mm: float | None = Field(default=None, ge=-5, le=50)


class Lash(Part):
    """Valve clearance as it is set."""

    valve: Valve
    least_mm: float | None = Field(default=None, ge=0, le=3)
    most_mm: float | None = Field(default=None, ge=0, le=3)
    engine_is: Literal["cold", "hot"] = "cold"
    set_by: Literal["screw", "shim", "hydraulic"]
