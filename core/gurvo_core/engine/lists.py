"""What the document has a place for and later work gives more life to: fits, lash."""

__all__ = ["Fit", "Lash"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import Name, Part, Word


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
