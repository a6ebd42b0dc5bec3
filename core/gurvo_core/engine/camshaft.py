"""Camshafts, their lobes and the shape of the lobes.

Profile tables: cam degrees from the nose (negative = opening side) against lobe lift in mm. Valve lift is
``rocker_ratio`` times lobe lift less lash, never below zero.
"""

__all__ = ["Camshaft", "LiftProfile", "Lobe", "Valve"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import Name, Part, Word

Valve = Literal["intake", "exhaust"]


class LiftProfile(Part):
    """Lobe lift as a table, from base circle over the nose back to base circle."""

    id: Word
    cam_deg: tuple[float, ...] = Field(min_length=5, max_length=1441, description="Cam degrees from the nose, growing [deg]")
    lobe_lift_mm: tuple[float, ...] = Field(min_length=5, max_length=1441)


class Lobe(Part):
    """One lobe: whose valve it opens, its shape and where its nose stands."""

    cylinder: int = Field(ge=1, le=32)
    valve: Valve
    profile: Word
    nose_deg: float = Field(
        ge=0, le=200, description="Crank degrees of the nose from the overlap TDC: after it for intake, before it for exhaust"
    )
    lash_mm: float = Field(default=0, ge=0, le=3, description="Working lash at the valve [mm]; 0 with hydraulic lifters")


class Camshaft(Part):
    """One camshaft with all its lobes."""

    id: Word
    name: Name
    rocker_ratio: float = Field(default=1, gt=0, le=4, description="Valve lift over lobe lift [-]")
    lobes: tuple[Lobe, ...] = Field(min_length=1, max_length=128)
