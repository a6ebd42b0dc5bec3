"""The engine document as a whole: ``gurvo-engine``, version 1.

Numbering and running direction are data. Crank angles count from the firing TDC of cylinder 1, growing in the running
direction, 0 to 720.
"""

__all__ = ["FORMAT_VERSION", "EngineDocument"]

from functools import cached_property
from typing import Literal

from pydantic import Field

from gurvo_core.engine.adjustments import Adjustment
from gurvo_core.engine.camshaft import Camshaft, LiftProfile, Lobe, Valve
from gurvo_core.engine.card import CardLine
from gurvo_core.engine.cranktrain import Cranktrain
from gurvo_core.engine.identity import Identity
from gurvo_core.engine.part import Part

FORMAT_VERSION = 1


class EngineDocument(Part):
    """All that is known of an engine family, in one open file."""

    format: Literal["gurvo-engine"]
    version: Literal[1]
    identity: Identity
    running_direction: Literal["clockwise", "counter-clockwise"] = Field(description="Seen from the front, the cam-drive end")
    cylinders: tuple[int, ...] = Field(min_length=1, max_length=32, description="The numbers the maker gives them")
    firing_order: tuple[int, ...] = Field(min_length=1, max_length=32)
    firing_intervals_deg: tuple[float, ...] | None = Field(default=None, description="From each to the next; left out when even [deg]")
    reference_cylinder: int = Field(ge=1, le=32, description="The cylinder whose TDC the wheel is set to")
    cranktrain: Cranktrain
    camshafts: tuple[Camshaft, ...] = Field(min_length=1, max_length=8)
    profiles: tuple[LiftProfile, ...] = Field(min_length=1, max_length=64)
    cam_card: tuple[CardLine, ...] = Field(min_length=1, max_length=64)
    adjustments: tuple[Adjustment, ...] = Field(default=(), max_length=16)
    cautions: tuple[str, ...] = Field(default=(), max_length=32)

    @cached_property
    def firing_deg(self) -> dict[int, float]:
        """Crank angle of each cylinder's firing TDC [deg], cylinder 1 at 0."""
        even = 720 / len(self.firing_order)
        intervals = self.firing_intervals_deg or (even,) * len(self.firing_order)
        angles, at_deg = {}, 0.0
        for cylinder, interval in zip(self.firing_order, intervals, strict=True):
            angles[cylinder] = at_deg
            at_deg += interval
        return angles

    def camshaft(self, camshaft_id: str) -> Camshaft | None:
        """The camshaft of that id, or None."""
        return next((c for c in self.camshafts if c.id == camshaft_id), None)

    def profile(self, profile_id: str) -> LiftProfile:
        """The profile of that id; the cross-checks made sure that it is there."""
        return next(p for p in self.profiles if p.id == profile_id)

    def lobe(self, camshaft_id: str, cylinder: int, valve: Valve) -> Lobe | None:
        """The lobe on that camshaft for that valve, or None."""
        shaft = self.camshaft(camshaft_id)
        lobes = shaft.lobes if shaft else ()
        return next((lobe for lobe in lobes if lobe.cylinder == cylinder and lobe.valve == valve), None)
