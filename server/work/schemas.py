"""What the engines' API takes and gives."""

from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field, StringConstraints

from config.schemas import InSchema
from gurvo_core.timing import Verdict
from gurvo_core.work import BenchState, EntryBody, TapeLine


class EntryIn(InSchema):
    """An entry and the id its maker's client gave it."""

    id: UUID
    entry: EntryBody
    typed_at: AwareDatetime | None = Field(default=None, description="When it was typed, by the client's clock")


class EngineIn(InSchema):
    """An engine to put on a stand."""

    serial: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9-]{1,29}$")]
    family: str = Field(max_length=40)
    purpose: str = Field(default="", max_length=80)
    stand: int | None = Field(default=None, ge=1, le=99)
    promised: date | None = None


class Bead(Schema):
    """One bead of the rod on the Floor."""

    title: str
    status: Literal["done", "now", "open"]


class FloorRow(Schema):
    """One engine on the Floor."""

    serial: str
    family: str
    purpose: str
    stand: int | None
    builder: str
    promised: date | None
    late_days: int
    beads: list[Bead]
    step: str
    waits_for: str
    free_to_turn: bool
    loose_ends: int
    verdict: Verdict | None
    signed: bool


class EngineHead(Schema):
    """Which engine the bench shows."""

    serial: str
    family: str
    family_code: str
    revision: int
    newest_revision: int
    purpose: str
    stand: int | None
    running_direction: Literal["clockwise", "counter-clockwise"]
    cautions: list[str]
    may_record: bool
    may_sign: bool
    may_move: bool


class Bench(Schema):
    """Everything the bench shows: engine, state, and the newest part of the tape."""

    engine: EngineHead
    state: BenchState
    tape: list[TapeLine]
    entries: int
