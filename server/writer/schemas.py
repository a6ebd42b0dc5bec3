"""What the drafts' API takes and gives."""

from datetime import datetime
from uuid import UUID

from ninja import Schema
from pydantic import Field, JsonValue

from config.schemas import InSchema
from gurvo_core.writer.edits import Edit
from gurvo_core.writer.photo import PhotoMarks
from gurvo_core.writer.tables import TableKind
from gurvo_core.writer.view import DraftView
from writer.services import LARGEST


class DraftIn(InSchema):
    """What a draft begins with: nothing, a family's newest document, an engine as it was found, or a file."""

    to_the_letter = frozenset({"text"})
    name: str | None = Field(default=None, max_length=120)
    family: str | None = Field(default=None, max_length=40)
    engine: str | None = Field(default=None, max_length=30)
    text: str | None = Field(default=None, max_length=LARGEST, description="JSON or JSON5, whatever is wrong with it")


class DraftRow(Schema):
    """One draft in the list."""

    id: UUID
    name: str
    begun_from: str
    by: str
    changed_at: datetime
    edits: int
    put_away: bool
    handed_in: int | None = Field(description="The revision that it became")


class EditIn(InSchema):
    """An edit, and what its maker had before him."""

    edit: Edit
    after: str | None = Field(default=None, max_length=120, description="The question that this answers: the next one is named from there")
    made_on: int = Field(ge=0, le=1_000_000, description="Number of the last edit that its maker had seen")


class TextIn(InSchema):
    """A whole document as text, and what whoever changed it had before him."""

    to_the_letter = frozenset({"text"})
    text: str = Field(max_length=LARGEST)
    made_on: int = Field(ge=0, le=1_000_000)


class PlaceIn(InSchema):
    """What one place says, and what whoever wrote it had before him."""

    to_the_letter = frozenset({"value"})
    at: str = Field(default="", max_length=600, description="Pointer by ids; empty = the engine's plain keys")
    value: JsonValue
    made_on: int = Field(ge=0, le=1_000_000)


class PhotoIn(InSchema):
    """What was pointed at on a photo of the front; the photo itself stays in the browser."""

    marks: PhotoMarks
    made_on: int = Field(default=0, ge=0, le=1_000_000)


class TableIn(InSchema):
    """A table as it was pasted."""

    kind: TableKind
    text: str = Field(max_length=200_000)
    made_on: int = Field(ge=0, le=1_000_000)


class DraftOut(Schema):
    """A draft."""

    id: UUID
    name: str
    begun_from: str
    changes: int = Field(description="Grows with every edit, undo and redo")
    last: int = Field(description="Number of the last edit that stands")
    can_undo: bool
    can_redo: bool
    may_write: bool
    handed_in: int | None
    family: str = Field(description="Code of the family that it describes")
    view: DraftView


class AwayIn(InSchema):
    """Whether a draft is put away."""

    put_away: bool


class LeaveIn(InSchema):
    """Which proposal of the bench is left."""

    proposal: str = Field(min_length=16, max_length=16)


class HandIn(InSchema):
    """Why it is taken in."""

    remark: str = Field(default="", max_length=300)


class HandedIn(Schema):
    """The revision that a draft became."""

    family: str
    revision: int
