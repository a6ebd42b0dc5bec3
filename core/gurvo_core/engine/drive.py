"""The cam drive: shafts, the wheels on them, and the stages (chain, belt, gears) that join the wheels.

Places are mm from the crank's axis, seen from the front: ``x_mm`` to the right, ``y_mm`` up. The path of a chain or belt is listed
wheel by wheel the way it travels when the crank turns its running way, the driving wheel first. Pitch circles follow from pitch
and teeth; a smooth wheel gives the diameter of the line that the chain's or belt's pitch runs on.
"""

__all__ = [
    "Coupling",
    "Drive",
    "GearStage",
    "LoopCount",
    "LoopStage",
    "MarkedLink",
    "Mesh",
    "PathStep",
    "Shaft",
    "Sprocket",
    "Stage",
    "TensionWindow",
    "Tensioner",
]

from collections.abc import Collection
from typing import Annotated, Literal

from pydantic import Field

from gurvo_core.engine.marks import Lock, Mark, Pointer
from gurvo_core.engine.part import Name, NoneIsEmpty, Part, Word


class Shaft(Part):
    """Something that turns: the crank, a camshaft (same id as there), an auxiliary, a pump, an idler, a tensioner's pulley."""

    id: Word
    name: Name
    kind: Literal["crank", "camshaft", "auxiliary", "pump", "idler", "tensioner", "balance"]
    x_mm: float | None = Field(default=None, ge=-5000, le=5000)
    y_mm: float | None = Field(default=None, ge=-5000, le=5000)
    position_matters: bool = Field(default=False, description="Whether it must stand in one place when the drive is laid")

    @property
    def place(self) -> tuple[float, float] | None:
        """Right and up of the crank's axis [mm]; None while not known, the crank's own excepted."""
        if self.kind == "crank" and self.x_mm is None and self.y_mm is None:
            return (0.0, 0.0)
        return None if self.x_mm is None or self.y_mm is None else (self.x_mm, self.y_mm)


class Sprocket(Part):
    """A sprocket, pulley or gear on a shaft: toothed, or smooth with a diameter."""

    id: Word
    shaft: Word
    name: Name | None = None
    teeth: int | None = Field(default=None, ge=6, le=400)
    diameter_mm: float | None = Field(default=None, gt=0, le=2000, description="Smooth wheels only: where the pitch line runs [mm]")
    fixed_by: Literal["key", "dowel", "slots", "taper", "clamped", "phaser"] | None = Field(
        default=None, description="What holds it to its shaft; clamped = by the bolt's torque alone"
    )
    lay: Literal["mid_slot"] | None = Field(default=None, description="How it stands when the loop is laid")


class PathStep(Part):
    """One wheel that a chain or belt goes round, on its inside or its back."""

    wheel: Word
    side: Literal["inside", "back"] = "inside"


class MarkedLink(Part):
    """A coloured link or a printed line, the mark it meets, and how many links or teeth to the next one, the way it travels."""

    id: Word
    name: Name
    meets: Word = Field(description="Id of the mark that it stands on")
    to_next: float | None = Field(
        default=None, gt=0, le=1000, multiple_of=0.5, description="Links or teeth to the next marked one, halves allowed; null = not known"
    )
    how: Literal["on", "astride", "help"] = Field(
        default="on", description="It stands on the mark, two of them stand astride it, or it is a help to the eye alone"
    )


class LoopCount(Part):
    """Links, pins or teeth that are counted from one mark to another along the loop, the way it travels."""

    id: Word
    name: Name
    from_mark: Word
    to_mark: Word
    number: float | None = Field(default=None, gt=0, le=1000, multiple_of=0.5)
    counted: Literal["links", "pins", "teeth"]
    both_ends_counted: bool = Field(default=False, description="Whether the one on the first mark is counted too")

    @property
    def apart(self) -> float | None:
        """Pitches from one mark to the other; None while not known."""
        if self.number is None:
            return None
        return self.number - 1 if self.both_ends_counted else self.number


class TensionWindow(Part):
    """How tight a belt must be, as the book says it."""

    least: float | None = Field(default=None, ge=0, le=100_000)
    most: float | None = Field(default=None, gt=0, le=100_000)
    unit: Literal["N", "Hz", "mm"] = Field(description="Newtons by gauge, hertz of a plucked span, or mm of sag")


class Tensioner(Part):
    """What takes up the slack, and on which run."""

    kind: Literal["hydraulic", "ratchet", "press_and_release", "oil_fed", "eccentric", "spring_then_lock", "manual"] | None = None
    name: Name
    after: Word | None = Field(default=None, description="It works on the run that follows this wheel, the way the chain or belt travels")
    shaft: Word | None = Field(default=None, description="Its own pulley's shaft, when it has one")
    fit: str = Field(default="", max_length=400)
    arm: str = Field(default="", max_length=400)
    prove: str = Field(default="", max_length=400)
    stroke_mm: float | None = Field(default=None, gt=0, le=200, description="How far its plunger may come out, from all the way in [mm]")
    most_out_mm: float | None = Field(
        default=None, gt=0, le=200, description="Plunger further out than this: chain and guides are worn [mm]"
    )
    tension: TensionWindow | None = Field(default=None, description="What a gauge or a plucked span must show")


class LoopStage(Part):
    """One chain or toothed belt."""

    kind: Literal["chain", "belt"]
    id: Word
    name: Name
    pitch_mm: float | None = Field(default=None, gt=0, le=100)
    count: int | None = Field(default=None, ge=8, le=2000, description="Links of the chain or teeth of the belt")
    path: Annotated[tuple[PathStep, ...], NoneIsEmpty] = Field(default=(), max_length=32, description="Empty or null = not known")
    goes_over: tuple[Word, ...] = Field(
        default=(), max_length=32, description="Where its way round is not known: ids of its wheels, the driving one first"
    )
    longest_mm: float | None = Field(default=None, gt=0, le=10_000, description="Wear limit: so long over as many pitches as are measured")
    over_pitches: int | None = Field(default=None, ge=1, le=500, description="Over so many pitches the wear limit holds")
    marked: tuple[MarkedLink, ...] = Field(default=(), max_length=32, description="In the order in which they travel")
    counts: tuple[LoopCount, ...] = Field(default=(), max_length=16, description="Counted between marks, with or without marked links")
    tensioner: Tensioner | Literal["none"] | None = Field(default=None, description="none = there is none; null = not known")

    @property
    def tightened_by(self) -> Tensioner | None:
        """Its tensioner; None where there is none, or none is known."""
        return self.tensioner if isinstance(self.tensioner, Tensioner) else None

    @property
    def wheel_ids(self) -> tuple[str, ...]:
        """Ids of its wheels, the driving one first: as its path names them, or in no order where that is not known."""
        return tuple(step.wheel for step in self.path) or self.goes_over

    @property
    def counted_in(self) -> str:
        """What its count counts."""
        return "links" if self.kind == "chain" else "teeth"

    @property
    def counted_one(self) -> str:
        """One of them."""
        return "link" if self.kind == "chain" else "tooth"


class Mesh(Part):
    """Two gears that mesh."""

    driver: Word
    driven: Word
    least_backlash_mm: float | None = Field(default=None, ge=0, le=5)
    most_backlash_mm: float | None = Field(default=None, ge=0, le=5)


class GearStage(Part):
    """Gears that mesh, one module for all."""

    kind: Literal["gears"]
    id: Word
    name: Name
    module_mm: float | None = Field(default=None, gt=0, le=50, description="Transverse module: pitch diameter over teeth [mm]")
    meshes: tuple[Mesh, ...] = Field(min_length=1, max_length=16)

    @property
    def wheel_ids(self) -> tuple[str, ...]:
        """Ids of its wheels, as its meshes name them; an idler stands in two."""
        return tuple(name for mesh in self.meshes for name in (mesh.driver, mesh.driven))


Stage = Annotated[LoopStage | GearStage, Field(discriminator="kind")]


class Coupling(Part):
    """Two shafts that turn as one, end to end: a dog, a tongue, a splined sleeve."""

    id: Word
    name: Name
    driver: Word = Field(description="Id of the shaft that turns the other")
    driven: Word
    ways: int = Field(default=1, ge=1, le=60, description="In how many ways it goes together; 1 = in the right one alone")
    told_by: str = Field(default="", max_length=200, description="How the right way is seen")


class Drive(Part):
    """Everything between the crank and the camshafts."""

    shafts: tuple[Shaft, ...] = Field(min_length=2, max_length=48)
    wheels: tuple[Sprocket, ...] = Field(default=(), max_length=64)
    stages: tuple[Stage, ...] = Field(default=(), max_length=8)
    pointers: tuple[Pointer, ...] = Field(default=(), max_length=32)
    marks: tuple[Mark, ...] = Field(default=(), max_length=64)
    locks: tuple[Lock, ...] = Field(default=(), max_length=16)
    couplings: tuple[Coupling, ...] = Field(default=(), max_length=8)

    def wheel(self, wheel_id: str) -> Sprocket:
        """The wheel of that id; the cross-checks made sure that it is there."""
        return next(wheel for wheel in self.wheels if wheel.id == wheel_id)

    def wheels_on(self, *shafts: str) -> set[str]:
        """Ids of the wheels that sit on any of some shafts."""
        return {wheel.id for wheel in self.wheels if wheel.shaft in shafts}

    def turning_with(self, shaft: str, laid: Collection[str]) -> frozenset[str]:
        """The shafts that turn with one, itself among them, by the stages that are on."""
        tied = [{self.wheel(wheel).shaft for wheel in stage.wheel_ids} for stage in self.stages if stage.id in laid]
        along, growing = {shaft}, True
        while growing:
            more = {other for group in tied if group & along for other in group} - along
            along |= more
            growing = bool(more)
        return frozenset(along)

    def crank_wheels(self) -> set[str]:
        """Ids of the wheels that turn with the crank."""
        return self.wheels_on(*(shaft.id for shaft in self.shafts if shaft.kind == "crank"))

    def shaft(self, shaft_id: str) -> Shaft:
        """The shaft of that id; the cross-checks made sure that it is there."""
        return next(shaft for shaft in self.shafts if shaft.id == shaft_id)
