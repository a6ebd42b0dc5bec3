"""The cam card: what the grinder says the events are, at which checking lift, and how far off is allowed.

Events are written as trade does: intake opens before TDC and closes after BDC, exhaust opens before BDC and closes after TDC.
A negative figure is on the other side; equal lifts near the nose lie more than 90 degrees on. All crank degrees.
"""

__all__ = ["CardLine", "Flank"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import CylinderNumber, Part, Word

Flank = Literal["opening", "closing"]


class CardLine(Part):
    """One valve's events at one checking lift."""

    camshaft: Word
    valve: Valve
    cylinder: CylinderNumber | None = Field(default=None, description="Whose valve; left out when the reference cylinder's")
    lift_mm: float = Field(gt=0, le=40, description="Checking lift, valve lift [mm]")
    opens_deg: float | None = Field(default=None, ge=-180, le=180, description="Intake: before TDC. Exhaust: before BDC [deg]")
    closes_deg: float | None = Field(default=None, ge=-180, le=180, description="Intake: after BDC. Exhaust: after TDC [deg]")
    tolerance_deg: float | None = Field(default=None, gt=0, le=20, description="Half-width allowed for the centreline [deg]")
