"""The shapes of what the bench shows of all rooms together; each room's own view is one typed field beside these."""

__all__ = ["BenchState", "LooseEndView", "PartTold", "Permission", "StepView", "StruckBy", "Stuck", "Summary", "TapeLine", "WaitsOn"]

from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import Field

from gurvo_core.ledger import Question, View

StepStatus = Literal["done", "now", "open"]


class StepView(View):
    """One bead on the rod, with what is asked in it."""

    key: str
    title: str
    does: str
    stage: str  # steps of one stage stand together; empty where there is no plan
    status: StepStatus
    note: str
    questions: list[Question]


class LooseEndView(View):
    """Something temporary or unfinished, and what it holds back."""

    title: str
    since: int
    at: datetime | None = Field(description="When it was left so")
    by: str = Field(description="By whom it was left so")
    ends_at: datetime | None = Field(description="When it ends, of one that runs by the clock")
    clears: bool = Field(description="Whether it is over by itself then")
    ends_with: dict[str, str | bool | int] | None = Field(description="The entry that ends it, where no step asks for it")
    ends_as: str = Field(description="What its button says")
    waived_with: dict[str, str | bool | int] | None = Field(description="The entry by which the lead does without, but for his reason")
    waived_as: str = Field(description="What its button says")
    is_after: bool = Field(description="Whether it comes after hand-over and holds nothing back")
    holds_back: str
    until: str
    stops_turning: bool


WaitsOn = Literal["builder", "lead", "clock", "nobody"]


class Stuck(View):
    """A step that waits while nothing can be done: what keeps it, and what is asked there."""

    key: str = Field(description="Key of its question")
    title: str
    why: str


class Permission(View):
    """Whether the crank may be turned, and why."""

    free: bool
    careful: bool
    title: str
    reasons: list[str]
    way: str = Field(description="Which way it may be turned; empty while it may not")
    how_far: str = Field(description="How far it may be turned; empty where nothing limits it")


class BenchState(View):
    """Everything the bench shows of one engine, but for what each room adds."""

    steps: list[StepView]
    current: str | None
    waits_for: str
    stuck: list[Stuck] = Field(description="What keeps everything, where nothing can be answered")
    permission: Permission
    loose_ends: list[LooseEndView]
    warnings: list[str]
    signed: bool


class PartTold(View):
    """What the ledger says of a part: what its steps came to, what of it is left loose, and its entries, the newest first."""

    came_to: list[str]
    loose_ends: list[str]
    entries: list["TapeLine"]


class Summary(View):
    """What the Floor shows of an engine."""

    beads: list[StepStatus]
    titles: list[str]
    step: str
    waits_for: str
    waits_on: WaitsOn
    free_to_turn: bool
    careful: bool
    left_minutes: float
    loose_ends: int
    verdict: Literal["in", "out", "can't tell", "no limit known"] | None
    proof: str  # by what the cams are told to stand right; empty while one of them is not
    signed: bool
    clock: str  # what runs by the clock and ends first
    clock_at: datetime | None
    clock_clears: bool  # whether it is over by itself then
    after: str  # what is still due after hand-over
    after_at: datetime | None  # by when


class StruckBy(View):
    """Who struck a line, when and why."""

    by: str
    at: datetime
    reason: str


class TapeLine(View):
    """One line of the tape."""

    id: UUID
    seq: int
    at: datetime
    by: str
    kind: str
    title: str
    value: str
    detail: str
    look_again: bool
    picture: str = Field(description="Digest of the one it is about; empty where it is about none")
    because: str = Field(description="Why it was taken all the same")
    typed_at: datetime | None = Field(description="When it was typed, only where it reached the ledger later")
    struck: StruckBy | None
    goes_back: bool = Field(description="Whether it is dated before an entry that stands before it: some clock was wrong")
