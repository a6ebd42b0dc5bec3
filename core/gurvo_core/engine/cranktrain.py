"""Crank, banks and rods. Lengths in mm; None = not known.

Angles of banks and pins: a bank's axis is clockwise from straight up, seen from the front; a crank pin's place on the crank is
counted from the pin of the first cylinder in the firing order, in the running direction.
"""

__all__ = ["Bank", "Cranktrain", "Throw"]

import math

from pydantic import Field

from gurvo_core.engine.part import CylinderNumber, Name, Part, Word


class Throw(Part):
    """Where one cylinder's crank pin stands on the crank."""

    cylinder: CylinderNumber
    throw: int = Field(ge=1, le=99, description="Which throw, counted from the front; rods that share a throw name the same one")
    pin_deg: float = Field(ge=0, lt=360, description="From the first cylinder's pin, in the running direction [deg]; split pins differ")


class Cranktrain(Part):
    """Bore, stroke, rod and what stands above the crank, the same for all cylinders of a bank."""

    bore_mm: float | None = Field(default=None, gt=0, le=1000)
    stroke_mm: float | None = Field(default=None, gt=0, le=2000)
    rod_mm: float | None = Field(default=None, gt=0, le=4000, description="Rod length, centre to centre [mm]")
    pin_offset_mm: float | None = Field(
        default=None,
        ge=-200,
        le=200,
        description="Pin or cylinder axis offset, positive towards the major thrust side; null = not known: worked with as none [mm]",
    )
    compression_height_mm: float | None = Field(default=None, gt=0, le=1000, description="Piston pin to crown [mm]")
    deck_height_mm: float | None = Field(default=None, gt=0, le=6000, description="Crank axis to deck, along the bore [mm]")
    gasket_mm: float | None = Field(default=None, ge=0, le=20, description="Head gasket, squeezed [mm]")

    @property
    def offset_mm(self) -> float:
        """The offset of pin or cylinder axis that is worked with [mm]: none where none is known."""
        return self.pin_offset_mm or 0.0

    @property
    def reach_mm(self) -> float | None:
        """Throw and rod in line [mm]; None while one of them is not known."""
        return None if self.rod_mm is None or self.stroke_mm is None else self.rod_mm + self.stroke_mm / 2

    @property
    def tdc_pin_angle_deg(self) -> float:
        """Crank pin from the cylinder's axis when throw and rod line up, running way [deg]; 0 while they are not known."""
        reach_mm = self.reach_mm
        if reach_mm is None:
            return 0.0
        return -math.degrees(math.asin(max(-1.0, min(1.0, self.offset_mm / reach_mm))))

    @property
    def deck_clearance_mm(self) -> float | None:
        """How far the crown stays below the deck at TDC [mm], negative when it stands proud; None when it cannot be worked out."""
        reach_mm = self.reach_mm
        if self.compression_height_mm is None or self.deck_height_mm is None or reach_mm is None:
            return None
        if not reach_mm > abs(self.offset_mm):
            return None
        top_mm = math.sqrt(reach_mm**2 - self.offset_mm**2)  # throw and rod line up, but not along the bore
        return self.deck_height_mm - top_mm - self.compression_height_mm


class Bank(Part):
    """One row of cylinders."""

    id: Word
    name: Name
    axis_deg: float | None = Field(
        default=None, ge=-180, le=180, description="Where its cylinders point: clockwise from straight up, from the front"
    )
    cylinders: tuple[CylinderNumber, ...] = Field(
        default=(), max_length=32, description="The maker's numbers, from the front; empty = not known"
    )
    cranktrain: Cranktrain = Cranktrain()
