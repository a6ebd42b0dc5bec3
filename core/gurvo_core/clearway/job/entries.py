"""What is entered of clearances of valves: a gap that was measured, and that a way is left to whoever stands there."""

__all__ = ["GapMeasured", "WayLeft"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine import Valve
from gurvo_core.engine.part import CylinderNumber, Word
from gurvo_core.ledger import Body
from gurvo_core.ledger.entry import Reason, Typed


class GapMeasured(Body):
    """How near a valve comes to its piston: squeezed clay after turning over, or a dial on the shut valve at TDC."""

    kind: Literal["gap_measured"]
    camshaft: Word
    cylinder: CylinderNumber
    valve: Valve
    place: str = Field(default="", max_length=40, description="Tells twin valves apart, as the document names them")
    how: Literal["clay", "dial"] = Field(description="clay: the least in turning over; dial: the drop of the shut valve at TDC")
    gap: Typed
    gauge: Word | None = Field(default=None, description="Code of the gauge it was read with")
    note: Reason = ""


class WayLeft(Body):
    """The way that is proposed is left: whoever stands there brings the shafts there by feel."""

    kind: Literal["way_left"]
    step: Word
    reason: Reason
