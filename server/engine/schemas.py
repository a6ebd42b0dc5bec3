"""What the families' API gives."""

from datetime import datetime

from ninja import Schema

from gurvo_core.engine import EngineDocument


class FamilyRow(Schema):
    """One family in the list."""

    code: str
    name: str
    layout: str
    fuel: str
    revision: int
    engines: int


class FamilyOut(Schema):
    """A family's newest document."""

    code: str
    name: str
    revision: int
    at: datetime
    document: EngineDocument
