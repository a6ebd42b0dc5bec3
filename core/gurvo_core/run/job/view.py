"""The shapes of what the run asks and shows."""

__all__ = [
    "HardStopQuestion",
    "HoldQuestion",
    "MarkSeen",
    "PartPlaces",
    "PositionPlace",
    "RunView",
    "StepQuestion",
    "TurnQuestion",
    "VariantQuestion",
]

from typing import Literal

from gurvo_core.ledger import Question, View
from gurvo_core.run.job.asked import AskedField, FieldOption


class MarkSeen(View):
    """A mark, and where it stands when the crank is at a position."""

    position: str
    name: str
    clock_deg: float
    decides: bool


class PartPlaces(View):
    """A part that is fitted, and the places it has, by number and letter."""

    name: str
    places: list[str]
    returns: bool


class StepQuestion(Question):
    """A step to be done."""

    kind: Literal["step_done"] = "step_done"
    step: str
    does: str
    fields: list[AskedField]
    button: str
    cautions: list[str]
    position: str | None  # of the crank, where the step has one
    minutes: float | None
    loop: str | None  # what is laid or tensioned
    shafts: list[str]  # what a thing holds
    thing: str  # what is put on or taken off, in words, and where
    next_step: str | None  # the step that most likely comes next, so that a screen need not wait to be told
    parts: list[PartPlaces]


class TurnQuestion(Question):
    """A stop of turning over by hand."""

    kind: Literal["turn_seen"] = "turn_seen"
    step: str
    stop: int
    of: int
    turns: float
    turns_in_all: float
    see: list[str]
    crank_deg: float | None  # where the crank stands there, from the first cylinder's firing TDC
    marks: list[MarkSeen]
    after_note: str
    goes_in: list[FieldOption]  # locks and pins that must go in again here, asked one by one


class HoldQuestion(Question):
    """A hold point that waits for its signature."""

    kind: Literal["hold_point"] = "hold_point"
    step: str
    done_by: str


class HardStopQuestion(Question):
    """A hard stop that must be looked into."""

    kind: Literal["hard_stop"] = "hard_stop"


class VariantQuestion(Question):
    """Which variant it is."""

    kind: Literal["variant"] = "variant"
    group_id: str
    options: list[FieldOption]


class PositionPlace(View):
    """Where the crank stands at a timing position, from the first cylinder's firing TDC."""

    position: str
    name: str
    crank_deg: float


class RunView(View):
    """The run as a whole."""

    is_planned: bool
    positions: list[PositionPlace]
    left_minutes: float
    marks: list[MarkSeen]
    former: list[str]  # steps that were done and that today's document no longer has
