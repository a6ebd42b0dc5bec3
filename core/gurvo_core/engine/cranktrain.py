"""Crank, rods and throws. Lengths in mm; throw angles are crank degrees."""

__all__ = ["Cranktrain", "Throw"]

from pydantic import Field

from gurvo_core.engine.part import Part


class Throw(Part):
    """Where one cylinder's throw stands."""

    cylinder: int = Field(ge=1, le=32)
    tdc_deg: float = Field(ge=0, lt=360, description="Crank turn from TDC of cylinder 1 to TDC of this cylinder, running way [deg]")


class Cranktrain(Part):
    """Bore, stroke, rod and pin offset, the same for all cylinders in this version."""

    bore_mm: float = Field(gt=0, le=1000)
    stroke_mm: float = Field(gt=0, le=2000)
    rod_mm: float = Field(gt=0, le=4000, description="Rod length, centre to centre [mm]")
    pin_offset_mm: float = Field(default=0, description="Pin or cylinder axis offset, positive towards the major thrust side [mm]")
    throws: tuple[Throw, ...] = Field(min_length=1, max_length=32)
