"""The shape of a lobe: a table, or polynomial flanks with ramps.

Cam degrees count from the nose, negative on the opening side. Lobe lift in mm.
"""

__all__ = ["MAX_POINTS", "MIN_POINTS", "LiftProfile", "PolynomialFlank", "PolynomialProfile", "Profile"]

from typing import Annotated, Literal

from pydantic import Field

from gurvo_core.engine.part import Part, Word

MIN_POINTS, MAX_POINTS = 5, 1441


class LiftProfile(Part):
    """Lobe lift as a table, from base circle over the nose back to base circle."""

    kind: Literal["table"] = "table"
    id: Word
    cam_deg: tuple[float, ...] = Field(min_length=MIN_POINTS, max_length=MAX_POINTS, description="Cam degrees from the nose, growing [deg]")
    lobe_lift_mm: tuple[Annotated[float, Field(ge=-1, le=60)], ...] = Field(min_length=MIN_POINTS, max_length=MAX_POINTS)

    @property
    def top_mm(self) -> float:
        """Greatest lobe lift [mm]."""
        return max(self.lobe_lift_mm)

    @property
    def begins_deg(self) -> float:
        """Where the opening side leaves the base circle [cam deg], negative."""
        return self.cam_deg[0]

    @property
    def ends_deg(self) -> float:
        """Where the closing side meets the base circle again [cam deg]."""
        return self.cam_deg[-1]


class PolynomialFlank(Part):
    """One side of a lobe: a ramp off the base circle, then the flank up to the nose."""

    law: Literal["3-4-5", "4-5-6-7"] = Field(description="Powers of the polynomial that carries the lift")
    cam_deg: float = Field(gt=0, le=150, description="Length of the flank proper [cam deg]")
    ramp_mm: float = Field(default=0, ge=0, le=2, description="Height of the ramp [mm]")
    ramp_cam_deg: float = Field(default=0, ge=0, le=60, description="Length of the ramp [cam deg]")


class PolynomialProfile(Part):
    """A lobe drawn by its law instead of a table."""

    kind: Literal["polynomial"]
    id: Word
    lobe_lift_mm: float = Field(gt=0, le=60, description="Lift at the nose, ramp included [mm]")
    nose_dwell_cam_deg: float = Field(
        default=0, ge=0, le=60, description="Length of the nose at full lift; it lies evenly about 0 [cam deg]"
    )
    opening: PolynomialFlank
    closing: PolynomialFlank

    @property
    def top_mm(self) -> float:
        """Greatest lobe lift [mm]."""
        return self.lobe_lift_mm

    @property
    def begins_deg(self) -> float:
        """Where the opening side leaves the base circle [cam deg], negative."""
        return -(self.nose_dwell_cam_deg / 2 + self.opening.cam_deg + self.opening.ramp_cam_deg)

    @property
    def ends_deg(self) -> float:
        """Where the closing side meets the base circle again [cam deg]."""
        return self.nose_dwell_cam_deg / 2 + self.closing.cam_deg + self.closing.ramp_cam_deg


Profile = Annotated[LiftProfile | PolynomialProfile, Field(discriminator="kind")]
