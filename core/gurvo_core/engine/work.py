"""What is done: the stages of the work and their steps, what each needs and what it does."""

__all__ = ["Look", "Need", "TightNeed", "TurnStop", "WorkStage", "WorkStep"]

from typing import Any, Literal

from pydantic import Field, model_validator

from gurvo_core.engine.part import CylinderNumber, Name, Part, Sentence, Word

Does = Literal[
    "ready",
    "inspect",
    "as_found",
    "fit",
    "put_on",
    "take_off",
    "plugs_out",
    "plugs_in",
    "park",
    "lay",
    "tension",
    "tighten",
    "turn_over",
    "set_up_wheel",
    "find_tdc",
    "degree",
    "measure",
    "lash",
    "seal",
    "prime",
    "first_start",
    "do",
]


class TightNeed(Part):
    """A joint that has been tightened as far as one of its stages."""

    joint: Word
    stage: int = Field(ge=1, le=12, description="Counted from 1, as the joint lists them")


class Need(Part):
    """One thing that must hold before a step is done; just one of its keys is given, and the place of a thing that has several."""

    done: Word | None = Field(default=None, description="Id of a step")
    parked: Word | None = Field(default=None, description="Id of a timing position")
    on: Word | None = Field(default=None, description="Id of a thing")
    off: Word | None = Field(default=None, description="Id of a thing")
    tight: TightNeed | None = None
    held: Word | None = Field(default=None, description="Id of a shaft that something must hold against a wrench")
    tensioned: Word | None = Field(default=None, description="Id of a chain or belt whose tensioner is armed")
    proven: Word | None = Field(default=None, description="Id of a chain or belt whose tensioner is proven")
    cured: Word | None = Field(default=None, description="Id of a step that laid sealant")
    decided: Word | None = Field(default=None, description="Id of a camshaft whose timing is decided")
    free_to_turn: Literal[True] | None = None
    place: Name | None = Field(default=None, description="on, off, held: at which of the thing's places")

    @property
    def given(self) -> tuple[str, Any]:
        """Its one key, and what it names."""
        return next((key, value) for key, value in vars(self).items() if value is not None)

    @model_validator(mode="after")
    def _just_one(self) -> "Need":
        said = [key for key, value in vars(self).items() if value is not None and key != "place"]
        if len(said) != 1:
            raise ValueError("a need says just one thing; write one need for each")
        if self.place is not None and said[0] not in ("on", "off", "held"):
            raise ValueError("a need has a place where something is on, off or held there; leave it out here")
        return self


class TurnStop(Part):
    """A place where turning stops and what must be seen there."""

    turns: float = Field(gt=0, le=400, multiple_of=0.25, description="Crank turns from where it began")
    see: tuple[Sentence, ...] = Field(default=(), max_length=12, description="What must be seen there, beside the marks that meet")


class Look(Part):
    """One thing looked at on an engine as it came in."""

    id: Word
    asks: Sentence = Field(description="Such as: How far is the plunger out?")
    unit: str = Field(default="", max_length=12, description="Of a figure or count; left out where the answer is in words")
    mark: Word | None = Field(default=None, description="Id of the mark that is looked at: meets, off, cannot be seen")


class WorkStep(Part):
    """One thing that is done: what the builder is told, what it needs, and what it leaves until something else is done."""

    id: Word
    does: Does
    says: Sentence
    why: str = Field(default="", max_length=400)
    needs: tuple[Need, ...] = Field(default=(), max_length=12)
    cautions: tuple[Sentence, ...] = Field(default=(), max_length=6)
    by: Literal["builder", "lead"] = "builder"
    minutes: float | None = Field(default=None, gt=0, le=2000)
    hold_point: bool = Field(default=False, description="A lead who did not do it signs before anything that stands on it")
    covers: bool = Field(default=False, description="Whether it hides what cannot be seen afterwards")
    only_in: Word | None = Field(default=None, description="Id of the option for which it is done; for all when left out")
    parts: tuple[Word, ...] = Field(default=(), max_length=64, description="ready: parts laid out; fit, lay and others: parts used")
    thing: Word | None = Field(default=None, description="put_on, take_off: id of a thing")
    place: Name | None = Field(default=None, description="put_on, take_off: which of the thing's places; asked when left out")
    position: Word | None = Field(default=None, description="park: id of a timing position; turn_over: where it begins and ends")
    loop: Word | None = Field(default=None, description="lay, tension: id of a chain, belt or gear stage of the drive")
    how_far: Literal["fitted", "armed", "proven"] | None = Field(default=None, description="tension: how far its tensioner is brought")
    joint: Word | None = Field(default=None, description="fit: a joint left finger tight; tighten: the joint")
    stage: int | None = Field(default=None, ge=1, le=12, description="tighten: to which of its stages; to the last when left out")
    until: Word | None = Field(default=None, description="Left so on purpose until this step")
    coupling: Word | None = Field(default=None, description="fit: id of a coupling that goes together in this step")
    fits: tuple[Word, ...] = Field(default=(), max_length=24, description="measure: ids of fits")
    cylinders: tuple[CylinderNumber, ...] = Field(default=(), max_length=32, description="lash: whose valves; all when left out")
    stops: tuple[TurnStop, ...] = Field(default=(), max_length=12, description="turn_over: the stops, in order")
    working_minutes: float | None = Field(default=None, gt=0, le=600, description="seal: closed within [min]")
    cure_minutes: float | None = Field(default=None, gt=0, le=10000, description="seal: then left to cure [min]")
    seconds: float | None = Field(default=None, gt=0, le=600, description="prime: at most until pressure shows [s]")
    way: Literal["running", "back", "either"] | None = Field(
        default=None, description="Any step that turns something: which way the book turns it; the running way when left out"
    )
    tools: tuple[Name, ...] = Field(default=(), max_length=24, description="What is at hand before it is begun")
    picture: str = Field(default="", max_length=120, description="Of what a picture is wanted, such as: the front, all marks seen")
    picture_is: Literal["wanted", "needed"] | None = Field(
        default=None, description="Whether it is not done without one; wanted of a cover and where it says of what, when left out"
    )
    looks: tuple[Look, ...] = Field(default=(), max_length=24, description="as_found: what is looked at, counted or measured as it came in")
    oil_change_hours: float | None = Field(
        default=None, gt=0, le=2000, description="first_start: the early oil change, running hours after"
    )
    oil_change_days: float | None = Field(default=None, gt=0, le=2000, description="first_start: the same by the calendar [days]")


class WorkStage(Part):
    """A stage of the work. A step that is a plain sentence is one to do, with nothing else said of it."""

    id: Word
    title: Name
    steps: tuple[Sentence | WorkStep, ...] = Field(min_length=1, max_length=64)
    caution: str = Field(default="", max_length=400)

    @property
    def listed(self) -> tuple[WorkStep, ...]:
        """Its steps, a plain sentence as one that is to do."""
        return tuple(
            step if isinstance(step, WorkStep) else WorkStep(id=f"{self.id[:35]}.{n}", does="do", says=step)
            for n, step in enumerate(self.steps, 1)
        )
