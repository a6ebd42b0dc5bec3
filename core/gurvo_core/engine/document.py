"""The engine document as a whole: ``gurvo-engine``, version 3.

Numbering and running direction are data. Crank angles count from the firing TDC of the first cylinder in the firing order,
growing in the running direction, 0 to 720. Only who the engine is, its banks and its camshafts must be known; what is None or empty is
not known, and whoever needs it says so. While the angle of the first timing position is not known, crank angles count from
that position instead, and nothing is said of pistons.
"""

__all__ = ["FORMAT_VERSION", "EngineDocument"]

from functools import cached_property
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from gurvo_core.engine.adjustments import Adjustment
from gurvo_core.engine.camshaft import Camshaft, Lobe, Valve
from gurvo_core.engine.card import CardLine
from gurvo_core.engine.chamber import Chamber
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.engine.cranktrain import Bank, Throw
from gurvo_core.engine.drive import Drive
from gurvo_core.engine.fit import Fit, Lash, LashStop
from gurvo_core.engine.identity import Identity
from gurvo_core.engine.joint import Joint
from gurvo_core.engine.part import CylinderNumber, NoneIsEmpty, Part, Sentence
from gurvo_core.engine.position import TimingPosition
from gurvo_core.engine.profiles import Profile
from gurvo_core.engine.things import KitPart, Origin, Sides, Thing, VariantGroup
from gurvo_core.engine.upcast import upcast_document
from gurvo_core.engine.valves import LeastGaps, Spring, ValveHead
from gurvo_core.engine.work import WorkStage, WorkStep
from gurvo_core.verdict import DecisionRule

FORMAT_VERSION = 3
CYCLE_DEG = 720.0
CAM_TURNS = 0.5  # of a four-stroke's camshaft, for one of the crank


class EngineDocument(Part):
    """All that is known of an engine family, in one open file."""

    format: Literal["gurvo-engine"]
    version: Literal[3]
    identity: Identity
    running_direction: Literal["clockwise", "counter-clockwise"] | None = Field(
        default=None, description="Seen from the front, the cam-drive end; null = not known: asked before anything turns"
    )
    banks: tuple[Bank, ...] = Field(min_length=1, max_length=8)
    throws: tuple[Throw, ...] = Field(default=(), max_length=32)
    firing_order: Annotated[tuple[CylinderNumber, ...], NoneIsEmpty] = Field(default=(), max_length=32, description="null = not known")
    firing_intervals_deg: tuple[float, ...] | None = Field(default=None, description="From each to the next; left out when even [deg]")
    reference_cylinder: CylinderNumber = Field(description="The cylinder whose TDC the wheel is set to")
    camshafts: tuple[Camshaft, ...] = Field(min_length=1, max_length=8)
    profiles: tuple[Profile, ...] = Field(default=(), max_length=64)
    valves: tuple[ValveHead, ...] = Field(default=(), max_length=16)
    springs: tuple[Spring, ...] = Field(default=(), max_length=4)
    least_gaps: LeastGaps | None = Field(default=None, description="How near valves may come to pistons and to each other")
    drive: Drive
    timing_positions: tuple[TimingPosition, ...] = Field(min_length=1, max_length=8, description="The first is the engine's own")
    cam_card: tuple[CardLine, ...] = Field(default=(), max_length=64)
    adjustments: tuple[Adjustment, ...] = Field(default=(), max_length=16)
    joints: tuple[Joint, ...] = Field(default=(), max_length=64)
    fits: tuple[Fit, ...] = Field(default=(), max_length=64)
    lash: tuple[Lash, ...] = Field(default=(), max_length=4)
    lash_stops: tuple[LashStop, ...] = Field(default=(), max_length=32, description="The book's own order of setting the valves")
    chamber: Chamber | None = None
    kit: tuple[KitPart, ...] = Field(default=(), max_length=64)
    variants: tuple[VariantGroup, ...] = Field(default=(), max_length=8)
    things: tuple[Thing, ...] = Field(default=(), max_length=48)
    stages: tuple[WorkStage, ...] = Field(default=(), max_length=32)
    sides: Sides | None = None
    cautions: tuple[Sentence, ...] = Field(default=(), max_length=32)
    decision_rule: DecisionRule = Field(
        default="U",
        description="How far inside its limits a figure must lie to be in: U (ISO 14253-1, ILAC-G8), 0.83 U (ISO 14253-1:2017), "
        "or 4:1 (ASME B89.7.3.1: nothing where the limits lie eight U apart, else U)",
    )
    origins: dict[str, Origin] = Field(
        default_factory=dict, max_length=200, description="By JSON Pointer: where what stands below it is from"
    )

    @model_validator(mode="before")
    @classmethod
    def _read_earlier(cls, data: Any) -> Any:
        return upcast_document(data)

    @property
    def work_steps(self) -> tuple[WorkStep, ...]:
        """Every step of its run that is more than a sentence, of all variants, in order."""
        return tuple(step for stage in self.stages for step in stage.steps if isinstance(step, WorkStep))

    @cached_property
    def cylinders(self) -> tuple[int, ...]:
        """Every cylinder's number, growing; of an engine whose banks do not name theirs the reference cylinder alone."""
        known = sorted(number for bank in self.banks for number in bank.cylinders)
        return tuple(known) or (self.reference_cylinder,)

    @cached_property
    def firing_deg(self) -> dict[int, float]:
        """Crank angle of each cylinder's firing TDC [deg], the first of the firing order at 0; without an order the reference alone."""
        if not self.firing_order:
            return {self.reference_cylinder: 0.0}
        even = CYCLE_DEG / len(self.firing_order)
        intervals = self.firing_intervals_deg or (even,) * len(self.firing_order)
        angles, at_deg = {}, 0.0
        for cylinder, interval in zip(self.firing_order, intervals, strict=False):
            angles[cylinder] = at_deg
            at_deg += interval
        return angles

    @cached_property
    def rotation_sign(self) -> int:
        """+1 when the crank turns clockwise seen from the front, else -1; drawn clockwise while nobody knows."""
        return -1 if self.running_direction == "counter-clockwise" else 1

    @cached_property
    def turns_clockwise(self) -> dict[str, float]:
        """Turns of each shaft for one of the crank, by shaft id, clockwise seen from the front; negative = counter-clockwise.

        A camshaft that the known wheels do not reach turns half as fast, the crank's way as far as anybody knows.
        """
        known = {shaft: float(turns) for shaft, turns in shaft_speeds(self.drive).turns.items()}
        return {shaft: self.rotation_sign * turns for shaft, turns in ({cam.id: CAM_TURNS for cam in self.camshafts} | known).items()}

    @cached_property
    def is_timed(self) -> bool:
        """Whether crank angles count from a firing TDC; otherwise from the first timing position, whose angle is not known."""
        return self.is_known(self.timing_positions[0])

    def is_known(self, position: TimingPosition) -> bool:
        """Whether a position's angle from the first cylinder's firing TDC is known."""
        return (
            position.offset_deg is not None
            and position.stroke is not None
            and (position.cylinder or self.reference_cylinder) in self.firing_deg
        )

    def is_placed(self, position_id: str) -> bool:
        """Whether a position can be told from where crank angles count: its angle is known, or it is what they count from."""
        position = self.position(position_id)
        return self.is_known(position) if self.is_timed else position is self.timing_positions[0]

    def position(self, position_id: str) -> TimingPosition:
        """The timing position of that id; the cross-checks made sure that it is there."""
        return next(position for position in self.timing_positions if position.id == position_id)

    def is_guessed(self, pointer: str) -> bool:
        """Whether what stands at a JSON Pointer is a guess by its nearest origin: nothing is judged against one."""
        return self.origin(pointer) == "guess"

    def origin(self, pointer: str) -> str | None:
        """Where what stands at a JSON Pointer is from, by the nearest origin above it; None where nothing is said."""
        above = [key for key in self.origins if pointer == key or pointer.startswith(f"{key.rstrip('/')}/") or not key]
        return self.origins[max(above, key=len)].is_ if above else None

    def bank_of(self, cylinder: int) -> Bank:
        """The bank a cylinder stands in; the first where no bank names its cylinders."""
        return next((bank for bank in self.banks if cylinder in bank.cylinders), self.banks[0])

    def from_reference_deg(self, cylinder: int) -> float:
        """Crank turn from the reference cylinder's firing TDC to this one's [deg]."""
        return self.firing_deg[cylinder] - self.firing_deg[self.reference_cylinder]

    def is_on_the_wheel(self, cam: Camshaft) -> bool:
        """Whether a degree wheel tells of a camshaft: what it opens is known, and of one of its cylinders when it fires."""
        return bool(cam.valves) and (not cam.lobes or any(lobe.cylinder in self.firing_deg for lobe in cam.lobes))

    def position_deg(self, position_id: str) -> float:
        """Crank angle of a timing position, 0 to 720 [deg]; 0 where it is not known, as it is from there that turns are counted."""
        position = self.position(position_id)
        if position.offset_deg is None or not self.is_known(position):
            return 0.0
        from_firing = position.offset_deg + (CYCLE_DEG / 2 if position.stroke == "overlap" else 0.0)
        return (self.firing_deg[position.cylinder or self.reference_cylinder] + from_firing) % CYCLE_DEG

    def camshaft(self, camshaft_id: str) -> Camshaft | None:
        """The camshaft of that id, or None."""
        return next((c for c in self.camshafts if c.id == camshaft_id), None)

    def joint(self, joint_id: str | None) -> Joint | None:
        """The joint of that id, or None."""
        return next((j for j in self.joints if j.id == joint_id), None)

    def thing(self, thing_id: str | None) -> Thing | None:
        """What is put on for a while, by its id, or None."""
        return next((t for t in self.things if t.id == thing_id), None)

    def shape(self, camshaft: Camshaft, lobe: Lobe) -> Profile | None:
        """The profile of a lobe whose valve's lift can be worked out; None while profile, ratio or lash is not known."""
        if lobe.lash_mm is None or camshaft.ratio(lobe.valve) is None:
            return None
        return next((p for p in self.profiles if p.id == lobe.profile), None)

    def least_gap_mm(self, valve: Valve) -> float | None:
        """How near a sort of valve may come to its piston, by the book [mm]; None where it says nothing."""
        return self.least_gaps.to_piston_mm(valve) if self.least_gaps else None

    def lobe(self, camshaft_id: str, cylinder: int, valve: Valve) -> Lobe | None:
        """The first lobe on that camshaft for that valve, or None."""
        shaft = self.camshaft(camshaft_id)
        lobes = shaft.lobes if shaft else ()
        return next((lobe for lobe in lobes if lobe.cylinder == cylinder and lobe.valve == valve), None)

    def card_cylinder(self, line: CardLine) -> int:
        """The cylinder on whose valve a card line is measured."""
        return line.cylinder or self.reference_cylinder
