"""What the shop's API takes and gives."""

from datetime import date, datetime, time
from typing import Annotated, Literal

from ninja import Schema
from pydantic import AfterValidator, Field

from config.schemas import InSchema
from shop.roles import Role

LengthUnit = Literal["mm", "in", "thou"]
SeenFrom = Literal["front", "flywheel"]


class SignIn(InSchema):
    """Name and password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=200)


class Confirm(InSchema):
    """The password, or PIN, of whoever is signed in."""

    password: str = Field(max_length=200)


class Here(InSchema):
    """Who is at the bench now, with his PIN or password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=200)


class Name(Schema):
    """Somebody's sign-in name, and what he is called."""

    username: str
    name: str


ShopTime = Annotated[time, AfterValidator(lambda at: at.replace(tzinfo=None))]  # by the shop's own clock, whatever zone was sent


class ShopChoices(InSchema):
    """What the shop has chosen for all its benches."""

    alone_minutes: int = Field(ge=0, le=240, description="After how long a bench left alone asks who is there [min]; 0 for never")
    day_begins: ShopTime = Field(description="When work begins, by which it is told when an engine will be done")
    day_ends: ShopTime
    works_saturdays: bool = False


class Person(Schema):
    """Who is signed in, and how he likes to see things."""

    username: str
    name: str
    role: Role
    length_unit: LengthUnit
    seen_from: SeenFrom


class PersonIn(InSchema):
    """Somebody to add."""

    username: str = Field(max_length=60, description="Sign-in name")
    name: str = Field(max_length=100, description="What he is called on tape and paper")
    role: Role
    password: str = Field(max_length=200)


class PersonChange(InSchema):
    """What is to change about somebody; what is left out stays."""

    role: Role | None = None
    password: str | None = Field(default=None, max_length=200)
    pin: str | None = Field(default=None, max_length=20, description="Digits; empty to take it away")
    has_left: bool | None = None


class PersonRow(Schema):
    """One of the shop's people."""

    username: str
    name: str
    role: Role
    has_left: bool
    has_pin: bool
    wrong_tries: bool = Field(description="Whether a pause may hold after wrong tries")
    last_signed_in: datetime | None


class SignInRow(Schema):
    """One line of the sign-in log."""

    at: datetime
    username: str
    place: str
    what: Literal["signed in", "wrong password"]


class UnitFactor(Schema):
    """How a length is shown: divide millimetres by the factor, show so many decimals."""

    mm_per_unit: float
    decimals: int
    label: str


class Session(Schema):
    """The session: the person, or nobody; and the factors for showing lengths."""

    person: Person | None
    left_alone: bool = Field(description="Whether somebody must show who he is before anything is taken")
    alone_minutes: int = Field(description="After how long nobody is taken to be there [min]; 0 for never")
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
