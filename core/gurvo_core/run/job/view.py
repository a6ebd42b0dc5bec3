"""The shapes of what the run asks and shows."""

__all__ = [
    "HoldQuestion",
    "LookView",
    "MarkSeen",
    "PartPlaces",
    "PositionPlace",
    "RunView",
    "ShaftName",
    "StepQuestion",
    "TurnQuestion",
]

from typing import ClassVar, Literal

from pydantic import Field

from gurvo_core.ledger import Question, View
from gurvo_core.run.job.asked import AskedField
from gurvo_core.scene import Stands


class MarkSeen(View):
    """A mark, and where it stands when the crank is at a position."""

    position: str
    name: str
    clock_deg: float
    decides: bool


class LookView(View):
    """A mark, coloured link or tool that is looked at by its name."""

    of: str
    name: str
    kind: Literal["mark", "link", "tool", "own"]
    asks: str = Field(description="What must be seen of it")
    beside: str = Field(description="What is easily taken for it")
    clock_deg: float | None = Field(description="Where it stands, as far as that is known")


class PartPlaces(View):
    """A part that is fitted, and the places it has, by number and letter."""

    name: str
    places: list[str]
    returns: bool
    way_round: str = Field(default="", description="Which way round it goes in, and how that is told")


class StepQuestion(Question):
    """A step to be done."""

    kind: Literal["step_done"] = "step_done"
    step: str
    does: str
    fields: list[AskedField]
    button: str
    cautions: list[str]
    position: str | None = Field(description="Id of the crank's timing position, where the step has one")
    minutes: float | None
    loop: str | None = Field(description="What is laid or tensioned")
    shafts: list[str] = Field(description="Shafts that the thing holds")
    thing: str = Field(description="What is put on or taken off, in words, and where")
    next_step: str | None = Field(description="The step that most likely comes next, so that a screen need not wait to be told")
    parts: list[PartPlaces]
    looks: list[LookView] = Field(default=[], description="What is looked at by name")
    tools: list[str] = Field(default=[], description="What is at hand before it is begun")
    moves: bool = Field(default=False, description="Whether something is moved, so that a dead stop or a noise can be told")
    way: str = Field(default="", description="Which way it turns, where the book says so")


class TurnQuestion(Question):
    """A stop of turning over by hand."""

    kind: Literal["turn_seen"] = "turn_seen"
    step: str
    stop: int
    of: int
    turns: float
    turns_in_all: float
    see: list[str]
    crank_deg: float | None = Field(description="Where the crank stands there, from the first cylinder's firing TDC [crank deg]")
    marks: list[MarkSeen]
    after_note: str
    looks: list[LookView] = Field(description="Marks that must meet and tools that must go in again here, asked one by one")
    turned_ask: str = Field(description="What is asked once it has been turned")
    cautions: list[str]
    tools: list[str]


class HoldQuestion(Question):
    """A hold point that waits for its signature."""

    kind: Literal["hold_point"] = "hold_point"
    for_lead: ClassVar[bool] = True
    step: str
    done_by: str


class PositionPlace(View):
    """Where the crank stands at a timing position, from the first cylinder's firing TDC."""

    position: str
    name: str
    crank_deg: float
    here: list[str] = Field(default=[], description="Which pistons are near the top there, and what springs press on")


class ShaftName(View):
    """A shaft by its id and name."""

    id: str
    name: str


class RunView(View):
    """The run as a whole."""

    is_planned: bool
    positions: list[PositionPlace]
    left_minutes: float
    marks: list[MarkSeen]
    shafts: list[ShaftName] = Field(description="What can be turned by itself")
    former: list[str] = Field(description="Steps that were done and that today's document no longer has")
    stands: dict[str, Stands] = Field(description="How far each part of the engine has come, as it is drawn: in, loose, to come")
