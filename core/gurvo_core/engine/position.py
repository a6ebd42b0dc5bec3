"""Timing positions: where the crank is put before the drive is laid. Some books have one for each bank."""

__all__ = ["TimingPosition"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import CylinderNumber, Name, Part, Word


class TimingPosition(Part):
    """One place of the crank, said from the TDC of a cylinder."""

    id: Word
    name: Name
    kind: Literal["tdc", "offset", "mid_stroke"] = Field(description="At TDC, so many degrees from it, or all pistons half-way")
    cylinder: CylinderNumber | None = Field(default=None, description="Whose TDC it is said from; the reference cylinder's when left out")
    stroke: Literal["firing", "overlap"] | None = Field(
        default=None, description="Which TDC of that cylinder it counts from; null = not known"
    )
    after_tdc_deg: float | None = Field(
        default=None,
        gt=-360,
        lt=360,
        description="Crank degrees after that TDC; negative = before it; null = not known: turns are counted from it",
    )
    bank: Word | None = Field(default=None, description="The bank it is for; left out when for the whole engine")

    @property
    def offset_deg(self) -> float | None:
        """Crank degrees after that TDC, 0 of one that is at it; None while not known [deg]."""
        return 0.0 if self.kind == "tdc" and self.after_tdc_deg is None else self.after_tdc_deg
