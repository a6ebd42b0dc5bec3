"""What the shop's API takes and gives."""

from datetime import date, datetime, time
from typing import Annotated, Literal

from ninja import Schema
from pydantic import AfterValidator, Field

from config.schemas import InSchema
from gurvo_core.ledger.entry import GaugeKind
from gurvo_core.units import Unit
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


class FirstRun(InSchema):
    """The first lead of a new shop, and what the shop is called."""

    key: str = Field(max_length=40, description="What ./gurvo serve has printed where it was started")
    shop: str = Field(min_length=1, max_length=120)
    zone: str = Field(default="", max_length=60, description="Time zone of papers, such as Europe/Zurich; the server's when empty")
    username: str = Field(max_length=60, description="Sign-in name")
    name: str = Field(max_length=100, description="What he is called on tape and paper")
    password: str = Field(max_length=200)


class PairIn(InSchema):
    """The code that a lead shows, sent by the device that is to be paired."""

    code: str = Field(max_length=20)


class PairingIn(InSchema):
    """What a device will be called."""

    name: str = Field(min_length=1, max_length=60, description="Such as: bench 2")


class PairingOut(Schema):
    """A code that holds for one device and some minutes."""

    code: str
    address: str
    square: str = Field(description="The address as a square code: a data URI of an SVG")
    good_for_s: int


class BenchDeviceRow(Schema):
    """A device at a bench that asks for a PIN alone."""

    id: int
    name: str
    by_name: str
    paired_at: datetime
    used_at: datetime | None


class ScriptKeyIn(InSchema):
    """What a key is for."""

    name: str = Field(min_length=1, max_length=60, description="What it is for, by which it is known again")


class ScriptKeyRow(Schema):
    """A key for a program, without what it is."""

    id: int = Field(description="By which it is taken back")
    name: str = Field(description="What it is for")
    made_at: datetime = Field(description="When it was made")
    used_on: date | None = Field(description="The day on which it was used last")


class ScriptKeyMade(ScriptKeyRow):
    """A key as it is made."""

    secret: str = Field(description="The key itself, told once: sent as Authorization: Bearer")


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
    second_lead_looks: bool = Field(default=False, description="Whether a lead who wrote none of a draft looks at it and hands it in")
    instrument_hosts: str = Field(
        default="",
        max_length=300,
        pattern=r"^[A-Za-z0-9.:, -]*$",
        description="Hosts at which instruments may be, with a comma between; devices of this machine may be anyway",
    )


class LetterheadIn(InSchema):
    """What stands at the head of papers."""

    name: str = Field(min_length=1, max_length=120, description="What the shop is called")
    address: str = Field(default="", max_length=200)
    zone: str = Field(default="", max_length=60, description="Time zone of papers, such as Europe/Zurich; the server's when empty")
    paper: Literal["A4", "Letter"] = "A4"


class LetterheadOut(Schema):
    """What stands at the head of papers; empty as long as nobody has said it."""

    name: str
    address: str
    zone: str
    paper: Literal["A4", "Letter"]
    mark: str = Field(description="The shop's own mark as a data URI; empty where it has none")


class Person(Schema):
    """Who is signed in, and how he likes to see things."""

    username: str
    name: str
    role: Role
    length_unit: LengthUnit
    seen_from: SeenFrom
    shows_help: bool = Field(description="Whether each question comes with what is meant by it")


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
    is_new: bool = Field(description="Whether the shop has nobody yet, so that its first lead is asked for")
    bench: str = Field(description="What this paired device is called; empty for any other")
    left_alone: bool = Field(description="Whether somebody must show who he is before anything is taken")
    alone_minutes: int = Field(description="After how long nobody is taken to be there [min]; 0 for never")
    length_units: dict[LengthUnit, UnitFactor]


class PreferenceIn(InSchema):
    """How the person signed in likes to see things."""

    length_unit: LengthUnit
    seen_from: SeenFrom
    shows_help: bool = False


class GaugeIn(InSchema):
    """A gauge as the lead enters it; figures in degrees, mm or N·m, by its kind."""

    name: str = Field(min_length=1, max_length=80)
    kind: GaugeKind
    resolution: float = Field(gt=0, le=1000)
    expanded_uncertainty: float = Field(ge=0, le=1000)
    least: float | None = Field(default=None, ge=0, le=10_000)
    most: float | None = Field(default=None, gt=0, le=10_000)
    calibrated: date | None = None
    due: date | None = None
    certificate: str = Field(default="", max_length=60)
    expansion_um_m_k: float = Field(default=11.5, ge=0, le=50, description="How it grows with warmth; steel unless it says otherwise")
    address: str = Field(default="", max_length=120, description="Serial port or URL at which it can be read")


class GaugeOut(Schema):
    """A gauge with how it stands today."""

    code: str
    name: str
    kind: GaugeKind
    unit: Unit
    resolution: float
    expanded_uncertainty: float
    least: float | None
    most: float | None
    calibrated: date | None
    due: date | None
    certificate: str
    expansion_um_m_k: float
    address: str
    overdue: bool = Field(description="Its day is past, or it has been pulled too often since")
    pulls: int = Field(description="Of a wrench, since its calibration")
    checked: date | None = Field(description="Day it was last tried against another")


class UsualGaugeOut(Schema):
    """A gauge that most shops have, in its own unit."""

    code: str
    kind: GaugeKind
    name: str
    unit: Unit
    resolution: float
    expanded_uncertainty: float
    least: float | None
    most: float | None


class CheckIn(InSchema):
    """A gauge tried against another, in its own unit."""

    against: str = Field(max_length=40)
    true: float = Field(gt=0, le=10_000, description="As the other showed it")
    shown: float = Field(gt=0, le=10_000, description="As this one did")
    note: str = Field(default="", max_length=200)


class CheckOut(Schema):
    """A check that was made."""

    against: str
    true: float
    shown: float
    off: float = Field(description="By how much this one showed more than the other")
    note: str
    at: datetime
    by_name: str


class UseOut(Schema):
    """An entry that named a gauge."""

    serial: str
    seq: int
    kind: str
    at: datetime
    by_name: str


class GaugeHistory(Schema):
    """What a gauge was tried against, and what it was used on, newest first."""

    checks: list[CheckOut]
    uses: list[UseOut]
    engines: list[str] = Field(description="Every engine it was used on")
    scatter: float = Field(description="Standard deviation of readings that were repeated at one spot, in its own unit")
    repeats: int = Field(description="How many repeats that rests on, beyond the first of each spot")


class StockIn(InSchema):
    """Pieces of one lot, as somebody counted them on the shelf."""

    part: str = Field(min_length=1, max_length=120)
    size: str = Field(min_length=1, max_length=24)
    lot: str = Field(default="", max_length=40)
    free: int = Field(ge=0, le=100_000, description="As they lie there; what engines have taken is not among them")


class TakenOut(Schema):
    """What one engine takes."""

    serial: str
    pieces: int


class StockOut(Schema):
    """One size of a part."""

    part: str
    size: str
    lots: list[str]
    count: int = Field(description="All that came in")
    free: int = Field(description="That no engine has taken; below zero where more was planned than there is")
    taken: list[TakenOut]
