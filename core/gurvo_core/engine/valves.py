"""Valves and their springs, one description for all alike."""

__all__ = ["LeastGaps", "Spring", "ValveHead"]

from pydantic import Field

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import Part, Word


class ValveHead(Part):
    """The intake or the exhaust valves of a bank's cylinders."""

    valve: Valve
    bank: Word | None = Field(default=None, description="Left out when the same in every bank")
    head_mm: float = Field(gt=0, le=500, description="Diameter of the head [mm]")
    angle_deg: float = Field(default=0, ge=-60, le=60, description="Stem from the bore's axis, positive = its tip leans to the right [deg]")
    across_mm: float = Field(default=0, ge=-500, le=500, description="Head's centre right of the bore's axis, from the front, bore upright")
    along_mm: tuple[float, ...] = Field(default=(0.0,), min_length=1, max_length=4, description="Each valve's place, towards the rear [mm]")
    to_piston_mm: float | None = Field(default=None, ge=-20, le=100, description="Drop from the shut valve to the piston at TDC [mm]")
    pocket_mm: float | None = Field(
        default=None,
        ge=0,
        le=60,
        description="How deep its pocket in the crown is, parallel to the valve; 0 = flat; null = not known",
    )


class Spring(Part):
    """The springs on one sort of valve, all of a valve's springs together."""

    valve: Valve
    rate_n_mm: float = Field(gt=0, le=2000, description="Force for each mm it is pressed [N/mm]")
    preload_n: float = Field(ge=0, le=20000, description="Force with the valve shut [N]")
    bind_lift_mm: float | None = Field(default=None, gt=0, le=100, description="Valve lift at which its coils touch [mm]")


class LeastGaps(Part):
    """How near the book lets valves come to pistons and to each other, along the valve's axis [mm]."""

    intake_mm: float | None = Field(default=None, ge=0, le=50, description="Intake valve to piston")
    exhaust_mm: float | None = Field(default=None, ge=0, le=50, description="Exhaust valve to piston")
    valves_mm: float | None = Field(default=None, ge=0, le=50, description="Two valves of one chamber")

    def to_piston_mm(self, valve: Valve) -> float | None:
        """Of one sort of valve to its piston."""
        return self.intake_mm if valve == "intake" else self.exhaust_mm
