"""A bolted joint in the document: its fasteners, and how they are tightened, stage by stage, in words or in figures."""

__all__ = ["Clamped", "Draw", "Fastener", "Joint", "JointStage", "OtherFigure", "Pattern", "QuotedTorque", "Surface"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import Name, Part, Sentence, Word
from gurvo_core.units import Unit

Surface = Literal["dry", "oiled", "moly", "assembly lube", "threadlocker", "sealant", "anti-seize"]
Torque = Field(default=None, gt=0, le=5000)
Turn = Field(default=None, gt=0, le=1080)


class Clamped(Part):
    """One of the parts between head and thread, from the head down."""

    name: Name
    thickness_mm: float = Field(gt=0, le=1000)
    material: Literal["steel", "cast iron", "aluminium", "magnesium"]


class Pattern(Part):
    """Where the fasteners stand, by name; for those that are not listed one by one."""

    kind: Literal["rows", "circle", "line", "pairs"]
    columns: int | None = Field(default=None, ge=1, le=60, description="rows, pairs: how many along the joint")
    rows: int = Field(default=2, ge=1, le=6, description="rows: how many across it")
    along_mm: float = Field(default=60, gt=0, le=2000, description="From one to the next along the joint")
    across_mm: float = Field(default=80, gt=0, le=2000, description="From row to row; of a circle its diameter")


class Fastener(Part):
    """One bolt, nut or screw of a joint."""

    id: Word
    x_mm: float = Field(ge=-3000, le=3000, description="To the right, as the joint is looked at")
    y_mm: float = Field(ge=-3000, le=3000, description="Down")
    length_mm: float | None = Field(default=None, gt=0, le=1000, description="Where it differs from the others")
    cylinder: int | None = Field(default=None, ge=1, le=99, description="Which cylinder's valves press on it, of a cam cap")


class QuotedTorque(Part):
    """The figure of a stage as the book quotes it in one more unit."""

    value: float = Field(gt=0, le=50_000)
    unit: Unit


class OtherFigure(Part):
    """Another figure for some of a joint's fasteners."""

    fasteners: tuple[Word, ...] = Field(min_length=1, max_length=60)
    torque_nm: float | None = Torque
    angle_deg: float | None = Turn


class Draw(Part):
    """Drawn down evenly in small steps against something that pushes back, such as cam caps against the springs."""

    turn_deg: float | None = Field(default=None, gt=0, le=720, description="Of each fastener a pass; null = not known: a little at a time")
    gap_mm: float | None = Field(default=None, gt=0, le=60, description="How far it stands off; worked out for cam caps where left out")
    camshaft: Word | None = Field(default=None, description="Whose caps they are")
    position: Word | None = Field(default=None, description="Timing position at which they are drawn down")


class JointStage(Part):
    """One stage of tightening, in figures."""

    does: Literal["hand", "torque", "torque_angle", "angle", "loosen", "draw_down", "wait", "said"]
    said: str = Field(default="", max_length=400, description="said: what is done, in words; a stage that is only a sentence is one such")
    torque_nm: float | None = Torque
    least_nm: float | None = Field(default=None, ge=0, le=5000, description="Window of the torque, or of the torque at the end of an angle")
    most_nm: float | None = Torque
    angle_deg: float | None = Field(default=None, gt=0, le=1080, description="Of a loosening left out where it is loosened fully")
    least_deg: float | None = Field(default=None, ge=0, le=1080)
    most_deg: float | None = Turn
    passes: int = Field(default=1, ge=1, le=6, description="How often the same is gone round")
    minutes: float | None = Field(default=None, gt=0, le=10_000, description="wait: how long")
    quoted: tuple[QuotedTorque, ...] = Field(default=(), max_length=4, description="The same torque in other units, as the book has it")
    other: tuple[OtherFigure, ...] = Field(default=(), max_length=12)
    draw: Draw | None = None

    @property
    def words(self) -> str:
        """What a builder calls it."""
        torque = f"{self.torque_nm:g} N·m" if self.torque_nm else "generic torque"
        again = f", {('twice', 'three times')[self.passes - 2] if self.passes <= 3 else f'{self.passes} times'}" if self.passes > 1 else ""
        said = {
            "hand": "finger tight",
            "torque": torque,
            "torque_angle": f"{torque} and {f'{self.angle_deg:g}°' if self.angle_deg else 'an angle that is not known'}",
            "angle": f"turn {self.angle_deg:g}°" if self.angle_deg else "turn by an angle that is not known",
            "loosen": f"loosen {self.angle_deg:g}°" if self.angle_deg else "loosen fully",
            "draw_down": "draw down evenly",
            "wait": f"wait {self.minutes or 0:g} min",
            "said": self.said,
        }
        return f"{said[self.does]}{again}"


class Joint(Part):
    """A bolted joint and how it is tightened. With stages in figures it is pulled bolt by bolt; all in words it is done as a whole."""

    id: Word
    name: Name
    thread: str = Field(default="", max_length=40, description="Such as M10x1.5 or 7/16-14 UNC")
    fasteners: int | None = Field(default=None, ge=1, le=200)
    stages: tuple[Sentence | JointStage, ...] = Field(default=(), max_length=12)
    one_time: bool = Field(default=False, description="Stretch bolts and the like: new every time")
    lubrication: str = Field(default="", max_length=200)
    pattern: Pattern | None = None
    bolts: tuple[Fastener, ...] = Field(default=(), max_length=200, description="One by one, where no pattern says where they stand")
    order: tuple[Word, ...] = Field(default=(), max_length=200, description="Pinned: ids of all fasteners, once each")
    rule: Literal["middle_outward", "crosswise", "opposing", "round"] | None = Field(default=None, description="How an order is worked out")
    begins: str = Field(
        default="", max_length=120, description="Where the order begins: the id of a bolt that is listed, or words, such as by the dowel"
    )
    one_after_another: bool = Field(default=False, description="All stages of one fastener before the next")
    property_class: Literal["4.6", "4.8", "5.6", "5.8", "6.8", "8.8", "9.8", "10.9", "12.9", "grade 2", "grade 5", "grade 8"] | None = None
    thread_state: Surface | None = Field(default=None, description="How the thread is left, as the figure presumes")
    head_state: Surface | None = Field(default=None, description="The same under the head; as the thread when left out")
    hand: Literal["right", "left"] = Field(default="right", description="Which way the thread runs")
    length_mm: float | None = Field(default=None, gt=0, le=1000)
    free_thread_mm: float | None = Field(default=None, ge=0, le=1000, description="Thread within the grip that is in no nut")
    waist_mm: float | None = Field(default=None, gt=0, le=100, description="Diameter of the shank where it is less than the thread's")
    head_mm: float | None = Field(default=None, gt=0, le=200, description="Outer diameter of what lies under the head")
    hole_mm: float | None = Field(default=None, gt=0, le=200)
    clamped: tuple[Clamped, ...] = Field(default=(), max_length=8)
    also_clamps: tuple[Word, ...] = Field(default=(), max_length=4, description="Ids of joints that the same fasteners hold")
    washer: str = Field(default="", max_length=120, description="What lies under the head, and which way up")
    thread_note: str = Field(default="", max_length=120, description="Threadlocker or sealant, and on which threads")
    held_by: str = Field(default="", max_length=120, description="What holds against the wrench")
    reached_at_once: int | None = Field(default=None, ge=1, le=200, description="How many before the engine is turned")

    @property
    def last_stage(self) -> int:
        """The stage at which it is tight, counted from 1; a joint that lists none has one."""
        return len(self.stages) or 1

    @property
    def is_figured(self) -> bool:
        """Whether it is pulled bolt by bolt: some of its stages are in figures, and it is known how many it has."""
        return bool(self.figures) and bool(self.bolts or self.fasteners)

    @property
    def figures(self) -> tuple[JointStage, ...]:
        """Its stages, where some are in figures; those in words among them are done as they say. None where all are in words."""
        if not any(isinstance(stage, JointStage) for stage in self.stages):
            return ()
        return tuple(stage if isinstance(stage, JointStage) else JointStage(does="said", said=stage) for stage in self.stages)

    def stage_words(self, first: int, last: int) -> str:
        """What its stages are called, from the one after ``first`` to ``last``."""
        return ", then ".join(stage.words if isinstance(stage, JointStage) else stage for stage in self.stages[first:last])
