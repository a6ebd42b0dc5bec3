"""What the families' API takes and gives."""

from datetime import datetime

from ninja import Schema
from pydantic import Field

from config.schemas import InSchema
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.difference import Change
from gurvo_core.engine.lift_table import LiftTableChoices
from gurvo_core.errors import Fault
from gurvo_core.joints.job.view import JointView
from gurvo_core.motion.lobe import LobeCurve

LONGEST_DOCUMENT = 900_000  # characters


class FamilyRow(Schema):
    """One family in the list."""

    code: str
    name: str
    layout: str
    fuel: str
    revision: int
    engines: int


class ExampleRow(Schema):
    """An invented family that ships with the app."""

    code: str
    name: str
    layout: str
    fuel: str


class RevisionRow(Schema):
    """One revision of a family."""

    number: int
    at: datetime
    by: str
    remark: str
    engines: int


class FamilyOut(Schema):
    """One revision of a family, and which there are."""

    code: str
    name: str
    revision: int
    at: datetime
    document: EngineDocument
    doubtful: list[Fault]
    not_known: list[Fault]
    curves: list[LobeCurve]
    joints: list[JointView] = Field(description="Those that are pulled bolt by bolt, as they are drawn before anything is done")
    revisions: list[RevisionRow]


class DocumentText(InSchema):
    """An engine document as text, JSON or JSON5; its own words are told from its braces where it is read."""

    to_the_letter = frozenset({"text"})
    text: str = Field(max_length=LONGEST_DOCUMENT)


class ImportIn(DocumentText):
    """A document to be taken in, and why."""

    remark: str = Field(default="", max_length=300)


class CheckedOut(Schema):
    """What a document's text would become: its faults, or the revision it would be and what would change."""

    faults: list[Fault]
    doubtful: list[Fault]
    not_known: list[Fault]
    family: str
    name: str
    layout: str
    revision: int | None
    changes: list[Change]


class LiftTableIn(InSchema):
    """A lift table's text and how to read it."""

    to_the_letter = frozenset({"text"})
    text: str = Field(max_length=LONGEST_DOCUMENT)
    choices: LiftTableChoices = LiftTableChoices()
