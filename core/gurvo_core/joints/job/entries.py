"""What is entered at a joint."""

__all__ = ["AngleBy", "BoltFound", "JointAnew", "JointLeft", "JointReady", "KeptTrace", "OnePull", "Pull", "PullDecided"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.joint import Surface
from gurvo_core.engine.part import Word
from gurvo_core.ledger.entry import Body, Reason, Shape, Text, Typed

AngleBy = Literal["gauge", "wheel", "paint", "eye", "wrench"]
Name = Annotated[str, StringConstraints(max_length=160, strip_whitespace=True)]
TRACE_TEXT = 60_000  # characters; a few thousand points packed


class KeptTrace(Shape):
    """A trace as it is kept: thinned, packed with zlib, in base64. Angles in tenths of a degree, torques in hundredths of a N·m."""

    points: int = Field(ge=1, le=4000)
    read: int = Field(ge=1, le=100_000_000, description="How many readings the instrument or file had")
    packed: str = Field(max_length=TRACE_TEXT)


class OnePull(Shape):
    """One pull of a joint that has one bolt only."""

    stage: int = Field(ge=1, le=12)
    turn: int = Field(default=1, ge=1, le=200)
    torque: Typed | None = None
    angle: Text | None = None
    asked: Name | None = Field(default=None, description="What was asked of it; completed when it is taken")


class JointReady(Body):
    """What was looked at before the first pull of a step; of a joint of one bolt its pulls too."""

    kind: Literal["joint_ready"]
    step: Word
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")
    threads: Surface | None = Field(default=None, description="How threads and heads are left; must be said")
    held: bool = Field(default=False, description="What the book names holds against the wrench")
    wrench: Word | None = Field(default=None, description="The wrench it is pulled with; left out where none has a scale")
    angle_by: AngleBy | None = None
    lever_mm: float | None = Field(default=None, gt=0, le=3000, description="Of the wrench, from hand to square; with an extension only")
    extension_mm: float | None = Field(default=None, gt=0, le=2000)
    extension_deg: float = Field(default=0, ge=-180, le=180, description="0 straight out, 90 square to the lever")
    pulls: tuple[OnePull, ...] = Field(default=(), max_length=60, description="Of a joint of one bolt, where it was pulled at once")


class Pull(Body):
    """One fastener pulled at one stage, or all of them where they are not told apart."""

    kind: Literal["pull"]
    step: Word
    stage: int = Field(ge=1, le=12)
    turn: int = Field(default=1, ge=1, le=200, description="Which time round, from 1")
    fastener: Word
    torque: Typed | None = Field(default=None, description="As the wrench showed it at the end; left out where it has no scale")
    angle: Text | None = Field(default=None, description="Angle turned, as typed [deg]; left out = as asked")
    before: Text | None = Field(default=None, description="Angle turned from finger tight until the torque, as typed [deg]")
    angle_by: AngleBy | None = Field(default=None, description="Where it differs from what was said before the first pull")
    wrench: Word | None = None
    trace: KeptTrace | None = None
    note: Reason = ""
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")
    asked: Name | None = Field(default=None, description="What was asked of it; completed when it is taken")


class BoltFound(Body):
    """A fastener found loose, taken out or replaced: it is pulled again, and what stands on it is done again."""

    kind: Literal["bolt"]
    step: Word
    fastener: Word
    found: Literal["loose", "taken_out", "replaced"]
    note: Reason = ""
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")


class PullDecided(Body):
    """What is done about a pull that stands apart."""

    kind: Literal["pull_decided"]
    step: Word
    stage: int = Field(ge=1, le=12)
    turn: int = Field(default=1, ge=1, le=200)
    fastener: Word
    decision: Literal["go_on", "take_out", "accepted"]
    reason: Reason = ""
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")


class JointAnew(Body):
    """The sequence of a step begun anew."""

    kind: Literal["joint_anew"]
    step: Word
    reason: Reason
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")


class JointLeft(Body):
    """A joint left as it is on purpose."""

    kind: Literal["joint_left"]
    step: Word
    until: Reason = Field(description="Until what")
    joint: Name | None = Field(default=None, description="What the joint was called; completed when it is taken")
