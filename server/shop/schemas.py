"""What the shop's API takes and gives."""

from datetime import date
from typing import Literal

from ninja import Schema
from pydantic import Field

from config.schemas import InSchema
from shop.roles import Role

LengthUnit = Literal["mm", "in", "thou"]
SeenFrom = Literal["front", "flywheel"]


class SignIn(InSchema):
    """Name and password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=200)


class Confirm(InSchema):
    """The password of whoever is signed in."""

    password: str = Field(max_length=200)


class Person(Schema):
    """Who is signed in, and how he likes to see things."""

    username: str
    name: str
    role: Role
    length_unit: LengthUnit
    seen_from: SeenFrom


class UnitFactor(Schema):
    """How a length is shown: divide millimetres by the factor, show so many decimals."""

    mm_per_unit: float
    decimals: int
    label: str


class Session(Schema):
    """The session: the person, or nobody; and the factors for showing lengths."""

    person: Person | None
    length_units: dict[LengthUnit, UnitFactor]


class PreferenceIn(InSchema):
    """How the person signed in likes to see things."""

    length_unit: LengthUnit
    seen_from: SeenFrom


class GaugeOut(Schema):
    """A gauge."""

    code: str
    name: str
    kind: Literal["wheel", "dial"]
    resolution: float
    expanded_uncertainty: float
    due: date | None
    overdue: bool
