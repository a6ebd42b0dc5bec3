"""The engine document as a whole: ``gurvo-engine``, version 2.

Numbering and running direction are data. Crank angles count from the firing TDC of the first cylinder in the firing order,
growing in the running direction, 0 to 720.
"""

__all__ = ["FORMAT_VERSION", "EngineDocument"]

from functools import cached_property
from typing import Any, Literal

from pydantic import Field, model_validator

from gurvo_core.engine.adjustments import Adjustment
from gurvo_core.engine.camshaft import Camshaft, Lobe, Valve
from gurvo_core.engine.card import CardLine
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.engine.cranktrain import Bank, Throw
from gurvo_core.engine.drive import Drive
from gurvo_core.engine.identity import Identity
from gurvo_core.engine.lists import Fit, Joint, Lash
from gurvo_core.engine.part import CylinderNumber, Part, Sentence
from gurvo_core.engine.position import TimingPosition
from gurvo_core.engine.profiles import Profile
from gurvo_core.engine.things import KitPart, Origin, Thing, VariantGroup
from gurvo_core.engine.upcast import upcast_document
from gurvo_core.engine.valves import Spring, ValveHead
from gurvo_core.engine.work import WorkStage

FORMAT_VERSION = 2
CYCLE_DEG = 720.0


class EngineDocument(Part):
    """All that is known of an engine family, in one open file."""

    format: Literal["gurvo-engine"]
    version: Literal[2]
    identity: Identity
    running_direction: Literal["clockwise", "counter-clockwise"] = Field(description="Seen from the front, the cam-drive end")
    banks: tuple[Bank, ...] = Field(min_length=1, max_length=8)
    throws: tuple[Throw, ...] = Field(min_length=1, max_length=32)
    firing_order: tuple[CylinderNumber, ...] = Field(min_length=1, max_length=32)
    firing_intervals_deg: tuple[float, ...] | None = Field(default=None, description="From each to the next; left out when even [deg]")
    reference_cylinder: CylinderNumber = Field(description="The cylinder whose TDC the wheel is set to")
    camshafts: tuple[Camshaft, ...] = Field(min_length=1, max_length=8)
    profiles: tuple[Profile, ...] = Field(min_length=1, max_length=64)
    valves: tuple[ValveHead, ...] = Field(default=(), max_length=16)
    springs: tuple[Spring, ...] = Field(default=(), max_length=4)
    drive: Drive
    timing_positions: tuple[TimingPosition, ...] = Field(min_length=1, max_length=8, description="The first is the engine's own")
    cam_card: tuple[CardLine, ...] = Field(min_length=1, max_length=64)
    adjustments: tuple[Adjustment, ...] = Field(default=(), max_length=16)
    joints: tuple[Joint, ...] = Field(default=(), max_length=64)
    fits: tuple[Fit, ...] = Field(default=(), max_length=64)
    lash: tuple[Lash, ...] = Field(default=(), max_length=4)
    kit: tuple[KitPart, ...] = Field(default=(), max_length=64)
    variants: tuple[VariantGroup, ...] = Field(default=(), max_length=8)
    things: tuple[Thing, ...] = Field(default=(), max_length=48)
    stages: tuple[WorkStage, ...] = Field(default=(), max_length=32)
    cautions: tuple[Sentence, ...] = Field(default=(), max_length=32)
    origins: dict[str, Origin] = Field(
        default_factory=dict, max_length=200, description="By JSON Pointer: where what stands below it is from"
    )

    @model_validator(mode="before")
    @classmethod
    def _read_earlier(cls, data: Any) -> Any:
        return upcast_document(data)

    @cached_property
    def cylinders(self) -> tuple[int, ...]:
        """Every cylinder's number, growing."""
        return tuple(sorted(number for bank in self.banks for number in bank.cylinders))

    @cached_property
    def firing_deg(self) -> dict[int, float]:
        """Crank angle of each cylinder's firing TDC [deg], the first of the firing order at 0."""
        even = CYCLE_DEG / len(self.firing_order)
        intervals = self.firing_intervals_deg or (even,) * len(self.firing_order)
        angles, at_deg = {}, 0.0
        for cylinder, interval in zip(self.firing_order, intervals, strict=False):
            angles[cylinder] = at_deg
            at_deg += interval
        return angles

    @cached_property
    def rotation_sign(self) -> int:
        """+1 when the crank turns clockwise seen from the front, else -1."""
        return 1 if self.running_direction == "clockwise" else -1

    @cached_property
    def turns_clockwise(self) -> dict[str, float]:
        """Turns of each shaft for one of the crank, by shaft id, clockwise seen from the front; negative = counter-clockwise."""
        return {shaft: self.rotation_sign * float(turns) for shaft, turns in shaft_speeds(self.drive).turns.items()}

    def bank_of(self, cylinder: int) -> Bank:
        """The bank a cylinder stands in; the cross-checks made sure that it is there."""
        return next(bank for bank in self.banks if cylinder in bank.cylinders)

    def from_reference_deg(self, cylinder: int) -> float:
        """Crank turn from the reference cylinder's firing TDC to this one's [deg]."""
        return self.firing_deg[cylinder] - self.firing_deg[self.reference_cylinder]

    def position_deg(self, position_id: str) -> float:
        """Crank angle of a timing position, 0 to 720 [deg]."""
        position = next(position for position in self.timing_positions if position.id == position_id)
        from_firing = position.after_tdc_deg + (CYCLE_DEG / 2 if position.stroke == "overlap" else 0.0)
        return (self.firing_deg[position.cylinder] + from_firing) % CYCLE_DEG

    def camshaft(self, camshaft_id: str) -> Camshaft | None:
        """The camshaft of that id, or None."""
        return next((c for c in self.camshafts if c.id == camshaft_id), None)

    def joint(self, joint_id: str | None) -> Joint | None:
        """The joint of that id, or None."""
        return next((j for j in self.joints if j.id == joint_id), None)

    def thing(self, thing_id: str | None) -> Thing | None:
        """What is put on for a while, by its id, or None."""
        return next((t for t in self.things if t.id == thing_id), None)

    def profile(self, profile_id: str) -> Profile:
        """The profile of that id; the cross-checks made sure that it is there."""
        return next(p for p in self.profiles if p.id == profile_id)

    def lobe(self, camshaft_id: str, cylinder: int, valve: Valve) -> Lobe | None:
        """The first lobe on that camshaft for that valve, or None."""
        shaft = self.camshaft(camshaft_id)
        lobes = shaft.lobes if shaft else ()
        return next((lobe for lobe in lobes if lobe.cylinder == cylinder and lobe.valve == valve), None)

    def card_cylinder(self, line: CardLine) -> int:
        """The cylinder on whose valve a card line is measured."""
        return line.cylinder or self.reference_cylinder
