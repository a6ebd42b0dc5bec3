"""What is entered in the run of work."""

__all__ = [
    "HardStopSeen",
    "HoldSigned",
    "OilChange",
    "Reopened",
    "Saw",
    "StepDone",
    "StepSkipped",
    "ThingMoved",
    "TurnSeen",
    "VariantChosen",
]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.part import Word
from gurvo_core.ledger import Body
from gurvo_core.ledger.entry import Reason

Saw = Literal["meets", "off", "hard_stop", "springy"]
Title = Annotated[str, StringConstraints(max_length=400)]
AnswerText = Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)]


class StepDone(Body):
    """A step is done, with what was asked of it."""

    kind: Literal["step_done"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    answers: dict[Word, AnswerText] = Field(default_factory=dict, max_length=64)
    note: Reason = ""


class TurnSeen(Body):
    """What was seen at a stop of turning over by hand."""

    kind: Literal["turn_seen"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    stop: int = Field(ge=1, le=12, description="Which stop of the step, counted from 1")
    saw: Saw
    teeth: float | None = Field(default=None, gt=0, le=400, multiple_of=0.5, description="Off by so many teeth")
    way: Literal["ahead", "behind"] | None = Field(default=None, description="Which way it is off")
    went_in: tuple[Word, ...] = Field(default=(), max_length=16, description="Locks and pins that were put in again here and went in")
    note: Reason = ""


class HardStopSeen(Body):
    """A hard stop has been looked into: what it was."""

    kind: Literal["hard_stop"]
    found: Reason


class ThingMoved(Body):
    """Something put on or taken off for a while, outside the step that says so."""

    kind: Literal["thing"]
    thing: Word
    title: Title | None = Field(default=None, description="What the thing was called; completed when it is taken")
    on: bool
    place: str = Field(default="", max_length=120)
    note: Reason = ""


class HoldSigned(Body):
    """A lead, not the one who did it, has looked at a step and lets the work go on."""

    kind: Literal["hold_point"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    remark: Reason = ""


class StepSkipped(Body):
    """The lead leaves a step out."""

    kind: Literal["step_skipped"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    reason: Reason


class Reopened(Body):
    """Something was undone: a step is open again, and everything that stands on it."""

    kind: Literal["step_opened"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    reason: Reason


class OilChange(Body):
    """The early oil change after the first start: done, or waived by the lead."""

    kind: Literal["oil_change"]
    done: bool
    reason: Reason = Field(default="", description="Why it is waived; a remark otherwise")


class VariantChosen(Body):
    """Which of its variants the engine is, by what is seen on it."""

    kind: Literal["variant"]
    group: Word
    option: Word
