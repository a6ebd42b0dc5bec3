"""The shapes of what a joint asks and shows."""

__all__ = [
    "Flagged",
    "JointReadyQuestion",
    "JointView",
    "JointsView",
    "PullLine",
    "PullQuestion",
    "Sibling",
    "SpotView",
    "StageView",
    "TorqueIn",
    "TraceLine",
]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.joint import Surface
from gurvo_core.joints.job.entries import AngleBy
from gurvo_core.ledger import Question, View
from gurvo_core.units import Unit


class TorqueIn(View):
    """One torque, as it is said in one unit."""

    unit: Unit
    text: str


class PullQuestion(Question):
    """One pull."""

    kind: Literal["pull"] = "pull"
    step: str
    joint: str
    fastener: str
    stage: int
    turn: int
    does: str
    target: list[TorqueIn] = Field(description="Torque that is wanted, in each unit; empty where an angle is the figure")
    target_deg: float | None
    book: TorqueIn | None = Field(description="The same torque in the unit that the book has it in, where that is another")
    set_to: list[TorqueIn] = Field(description="What the wrench is set to, where an extension makes it another figure, in each unit")
    window: str
    asks_torque: bool
    asks_angle: bool
    is_generic: bool
    wrench: str | None
    angle_by: AngleBy | None
    left_hand: bool
    fasteners: list[str] = Field(description="Fasteners that may be pulled at this stage, in order")
    cautions: list[str]


class JointReadyQuestion(Question):
    """What is looked at before the first pull of a step."""

    kind: Literal["joint_ready"] = "joint_ready"
    step: str
    threads: Surface | None = Field(description="In which state the threads are, as the book has them")
    held_by: str
    needs_torque: list[TorqueIn] = Field(description="The largest figure of the step, in each unit; empty where none has a torque")
    needs_angle: bool
    cautions: list[str]
    pulls: list[PullQuestion] = Field(description="Of a joint of one bolt, which is one answer: what is pulled once all is looked at")


class SpotView(View):
    """One fastener in the drawing [mm]."""

    id: str
    order: int
    x_mm: float
    y_mm: float
    done: list[bool] = Field(description="Whether it is pulled, stage by stage")
    is_now: bool
    is_flagged: bool
    is_loaded: bool


class StageView(View):
    """One stage of the joint, and how far it has come."""

    number: int
    words: str
    done: int
    of: int
    is_now: bool


class Sibling(View):
    """The same figure of one of the others."""

    fastener: str
    value: float
    is_apart: bool


class Flagged(View):
    """A pull that stands apart, in words."""

    fastener: str
    title: str
    sentence: str
    decided: str


class JointView(View):
    """One joint as it stands."""

    id: str
    name: str
    step: str
    about: list[str]
    spots: list[SpotView]
    is_to_scale: bool
    stages: list[StageView]
    siblings_are: str = Field(description="What is compared: the torque at the end, or the angle before it")
    siblings: list[Sibling]
    siblings_tell: str = Field(description="What can be told by comparing them, and how often that is wrong")
    unit: str
    least: float | None
    most: float | None
    flagged: list[Flagged]
    spent: list[str]
    loaded: list[str]


class PullLine(View):
    """One pull on paper."""

    joint: str
    stage: int
    turn: int
    fastener: str
    asked: str
    torque_nm: float | None
    angle_deg: float | None
    before_deg: float | None
    window: str
    wrench: str
    angle_by: str
    by: str
    is_apart: bool
    is_generic: bool


class TraceLine(View):
    """The trace of one pull [deg, N·m]."""

    fastener: str
    stage: int
    turn: int
    is_apart: bool
    angle_deg: list[float]
    torque_nm: list[float]
    flags: list[str]


class JointsView(View):
    """The joint that is worked on."""

    joint: JointView | None
