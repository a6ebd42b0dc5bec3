"""What is entered in the run of work."""

__all__ = [
    "HardStopSeen",
    "HoldSigned",
    "MarkLook",
    "MarksTaken",
    "OilChange",
    "OwnMark",
    "Plugs",
    "Reopened",
    "ShaftAt",
    "ShaftSeen",
    "StepDone",
    "StepSkipped",
    "ThingMoved",
    "Trouble",
    "TroubleTold",
    "TurnSaw",
    "TurnSeen",
    "TurnedAlone",
    "VariantChosen",
]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.part import Word
from gurvo_core.ledger import Body
from gurvo_core.ledger.entry import Reason, Shape
from gurvo_core.run.looks import Saw

TurnSaw = Literal["meets", "off", "hard_stop", "springy"]
Trouble = Literal["dead_stop", "stiff", "noise"]
Title = Annotated[str, StringConstraints(max_length=400)]
AnswerText = Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)]


class MarkLook(Shape):
    """What was seen of one mark, coloured link or tool, by its id."""

    of: Word
    name: Title | None = Field(default=None, description="What it was called; completed when it is taken")
    saw: Saw
    teeth: float | None = Field(default=None, gt=0, le=400, multiple_of=0.5, description="Off by so many, where they were counted")
    way: Literal["ahead", "behind"] | None = Field(default=None, description="Which way it is off")


class StepDone(Body):
    """A step is done, with what was asked of it."""

    kind: Literal["step_done"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    answers: dict[Word, AnswerText] = Field(default_factory=dict, max_length=64)
    looks: tuple[MarkLook, ...] = Field(default=(), max_length=64, description="What was seen of each mark, link and tool")
    note: Reason = ""


class TurnSeen(Body):
    """What was seen at a stop of turning over by hand."""

    kind: Literal["turn_seen"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    stop: int = Field(ge=1, le=12, description="Which stop of the step, counted from 1")
    saw: TurnSaw
    looks: tuple[MarkLook, ...] = Field(default=(), max_length=64, description="What was seen of each mark and tool")
    teeth: float | None = Field(default=None, gt=0, le=400, multiple_of=0.5, description="Off by so many teeth")
    way: Literal["ahead", "behind"] | None = Field(default=None, description="Which way it is off")
    went_in: tuple[Word, ...] = Field(default=(), max_length=16, description="Locks and pins that were put in again here and went in")
    note: Reason = ""


class TroubleTold(Body):
    """A dead stop, a stiffness or a noise while something was moved: nothing goes on before it is looked into."""

    kind: Literal["trouble"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    what: Trouble
    note: Reason = ""


class MarksTaken(Body):
    """The lead takes marks that do not meet as they are."""

    kind: Literal["marks_taken"]
    step: Word
    title: Title | None = Field(default=None, description="What the step was called; completed when it is taken")
    reason: Reason


class ShaftAt(Shape):
    """Where something on a shaft stands, as one sees it: a mark by its id, or a lobe's nose."""

    of: Word
    name: Title | None = Field(default=None, description="What it was called; completed when it is taken")
    clock: Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True)] = Field(
        description="Its clock position, such as 7:30, half past 7 or 225°"
    )
    seen_from: Literal["front", "flywheel"] = "front"


class ShaftSeen(Body):
    """Where a shaft stands, by what is seen of it; nothing was turned."""

    kind: Literal["shaft_seen"]
    shaft: Word
    title: Title | None = Field(default=None, description="What the shaft was called; completed when it is taken")
    at: ShaftAt
    note: Reason = ""


class TurnedAlone(Body):
    """One shaft turned by itself: a cam by its hexagon with nothing on it, the crank a little to meet a link."""

    kind: Literal["shaft_turned"]
    shaft: Word
    title: Title | None = Field(default=None, description="What the shaft was called; completed when it is taken")
    way: Literal["running", "back"] | None = None
    how_far: Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)] = Field(
        default="", description="How far, or to what, as one says it"
    )
    then: Literal["stands", "snapped", "dead_stop"]
    by_deg: int | None = Field(default=None, ge=-1440, le=1440, description="Turned by so many crank degrees, as the way asked for it")
    at: ShaftAt | None = Field(default=None, description="Where it stands now, where that was seen")
    note: Reason = ""


class OwnMark(Body):
    """A mark of one's own: paint put on before it comes apart, counted on the old belt, moved over to the new one."""

    kind: Literal["own_mark"]
    name: Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
    meets: Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)] = Field(default="", description="What it meets")
    note: Reason = ""


class Plugs(Body):
    """Plugs or injectors out and the stand locked, or back in, where the run of work has no step for it."""

    kind: Literal["plugs"]
    out: bool


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
