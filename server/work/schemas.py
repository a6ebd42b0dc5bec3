"""What the engines' API takes and gives."""

from datetime import date, datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AfterValidator, AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints, model_validator

from config.schemas import InSchema
from gurvo_core.ledger import Body
from gurvo_core.ledger.entry import Reason
from gurvo_core.ledger.versions import ENTRY_VERSION, upcast
from gurvo_core.timing import Verdict
from gurvo_core.units import Unit
from gurvo_core.work import BenchState, TapeLine
from gurvo_core.work.state import WaitsOn
from gurvo_core.work.whereabouts import Whereabouts
from work.bridge import HOUSE

EARLIEST, LATEST = 1970, 2200
MOST_ENTRIES = 10**9

if TYPE_CHECKING:
    EntryBody = Body
    BenchStateOut = BenchState
else:
    EntryBody = HOUSE.body_type
    BenchStateOut = HOUSE.state_type


def _of_our_time(moment: datetime) -> datetime:
    """Refuse what no clock of a shop says: at the edges of what a date can be, another zone is beyond them."""
    if not EARLIEST <= moment.year < LATEST:
        raise ValueError(f"give a time between the years {EARLIEST} and {LATEST}")
    return moment


Moment = Annotated[AwareDatetime, AfterValidator(_of_our_time)]


class ConfirmIn(InSchema):
    """PIN or password of whoever is signed in, and the one entry it is shown for."""

    password: str = Field(max_length=200)
    entry: EntryBody
    seen: int | None = Field(default=None, ge=0, le=MOST_ENTRIES, description="How many entries whoever signs had before him")


class EntryIn(InSchema):
    """An entry and the id its maker's client gave it. One that was typed before an update of Gurvo may still be of version 1."""

    id: UUID
    entry: EntryBody
    version: int = Field(default=ENTRY_VERSION, ge=1, le=ENTRY_VERSION, description="Of the entry's shape")
    by: str | None = Field(default=None, max_length=150, description="Sign-in name of who typed it; another's session is refused")
    because: Reason = Field(default="", description="Why it is made although it was objected to")
    typed_at: Moment | None = Field(default=None, description="When it was typed, by the client's clock")
    seen: int | None = Field(default=None, ge=0, le=MOST_ENTRIES, description="How many entries its maker had before him")
    has: str | None = Field(default=None, max_length=80, description="Tag of the bench its maker has: only what changes is sent")

    @model_validator(mode="before")
    @classmethod
    def _of_today(cls, data: Any) -> Any:
        """Read an entry of an earlier version as today's."""
        sent = getattr(data, "_obj", data)  # ninja hands plain data in a wrapper of its own
        version = sent.get("version") if isinstance(sent, dict) else None
        if type(version) is int and 1 <= version < ENTRY_VERSION and isinstance(sent.get("entry"), dict):
            return {**sent, "entry": upcast(sent["entry"], version), "version": ENTRY_VERSION}
        return data


class EngineIn(InSchema):
    """An engine to put on a stand."""

    serial: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9-]{1,29}$")]
    family: str = Field(max_length=40)
    purpose: str = Field(default="", max_length=80)
    stand: int | None = Field(default=None, ge=1, le=99)
    promised: date | None = None


class Bead(BaseModel):
    """One bead of the rod on the Floor."""

    title: str
    status: Literal["done", "now", "open"]


class TableOut(BaseModel):
    """A table that can be handed over to a spreadsheet."""

    name: str = Field(description="Of its file, without .csv")
    title: str = Field(description="What it is called")
    rows: int = Field(description="How many rows it has now")


WaitsOnWhom = Literal[WaitsOn, "aside"]


class FloorRow(BaseModel):
    """One engine on the Floor."""

    serial: str
    family: str
    purpose: str
    stand: int | None
    builder: str
    promised: date | None
    expected: date | None = Field(description="When it will be done, by the work that is left; None when nobody knows")
    whereabouts: Whereabouts
    aside_because: str
    late_days: int
    beads: list[Bead]
    step: str
    waits_for: str
    waits_on: WaitsOnWhom
    free_to_turn: bool
    careful: bool
    left_minutes: float
    loose_ends: int
    verdict: Verdict | None
    proof: str
    signed: bool
    clock: str = Field(description="What runs by the clock and ends first; empty when nothing does")
    clock_at: AwareDatetime | None
    clock_clears: bool = Field(description="Whether it is over by itself then")
    after: str = Field(description="What is still due after hand-over; empty when nothing is")
    after_at: AwareDatetime | None
    broken: str = Field(description="Why it cannot be shown; empty when it can")
    chain: str = Field(description="The first thing in its ledger that does not fit; empty when all of it does")


class FloorFilter(Schema):
    """Which engines are looked for; all that is given must hold."""

    model_config = ConfigDict(frozen=True)

    search: str = Field(default="", max_length=80, description="Words in serial, family, purpose, builder or what it waits for")
    builder: str = Field(default="", max_length=150, description="Sign-in name")
    family: str = Field(default="", max_length=40)
    late: bool = False
    loose_ends: bool = Field(default=False, description="Only with something temporary in")
    free_to_turn: bool | None = None
    waits_on: WaitsOnWhom | None = Field(default=None, description="Only what waits on a builder, a lead, the clock, or was set aside")
    open_only: bool = Field(default=False, description="Leave out what is signed")
    archived: bool = Field(default=False, description="Only what is archived; it is left out otherwise")
    page: int = Field(default=1, ge=1, le=100_000)


class FloorPage(BaseModel):
    """One page of the Floor, and how the whole shop stands."""

    rows: list[FloorRow]
    found: int
    page: int
    pages: int
    engines: int
    on_stands: int
    taken_stands: list[int]
    out: int
    to_sign: int
    misfit: str = Field(description="The first thing that does not fit the shop's daybook; empty when all does")
    late: int


class EngineHead(Schema):
    """Which engine the bench shows."""

    serial: str
    family: str
    family_code: str
    revision: int
    newest_revision: int
    purpose: str
    stand: int | None
    builder: str = Field(description="Sign-in name of its builder; empty when nobody has it")
    whereabouts: Whereabouts
    aside_because: str
    ready_at: AwareDatetime | None = Field(description="When it will be done, by the work that is left")
    running_direction: Literal["clockwise", "counter-clockwise"] | None
    cautions: list[str]
    judged_by: str = Field(description="The rule by which figures are in or out, where it is not the usual guard band of U")
    may_record: bool
    may_sign: bool
    may_move: bool
    misfit: str = Field(description="The first thing in the ledger that does not fit its seals; empty when all of it does")
    head: str = Field(description="Short code of the ledger's last seal; empty as long as nothing is entered")


class Bench(Schema):
    """Everything the bench shows: engine, state, and the newest part of the tape."""

    engine: EngineHead
    state: BenchStateOut
    tape: list[TapeLine]
    entries: int
    tag: str = Field(description="Names exactly this; send it with an entry, and only what changes comes back")


class BenchChange(Schema):
    """What one entry changed of what the bench showed just before it."""

    kind: Literal["change"]
    tag: str
    engine: EngineHead
    order: list[str] = Field(description="Keys of all steps, where their order changed; else empty")
    state: BenchStateOut = Field(description="As it is now, but only the steps that changed")
    tape: list[TapeLine] = Field(description="New lines, newest first, and such as were struck")
    entries: int


class Printing(Schema):
    """A record on its way to paper."""

    serial: str
    pages: int = Field(description="Pages laid out so far")


class PastedIn(InSchema):
    """A sheet as it was pasted."""

    text: str = Field(min_length=1, max_length=200_000)


class PluckOut(Schema):
    """The pitch of a plucked span."""

    frequency_hz: float
    u_hz: float = Field(description="Standard uncertainty of it")
    share: float = Field(description="Of what sounds in the recording, how much is this pitch and its overtones")


class PictureCame(Schema):
    """How much of a picture is here."""

    has: int = Field(description="Bytes; the next piece begins there")


class PictureKept(Schema):
    """A picture as it is kept, for its entry to name."""

    digest: str = Field(description="SHA-256 of its bytes")
    width: int = Field(description="Pixels")
    height: int = Field(description="Pixels")


class ExampleIn(InSchema):
    """A picture of an engine that is to show how a step should look."""

    step: str = Field(min_length=1, max_length=40, description="Id of the step")
    digest: str = Field(pattern=r"^[0-9a-f]{64}$", description="The picture's SHA-256")


class ExampleOut(Schema):
    """How a step should look."""

    step: str
    digest: str
    serial: str = Field(description="The engine it was taken of")
    by_name: str
    at: datetime


class BackSpread(Schema):
    """How figures lie, in their own unit."""

    times: int = Field(description="How many there are")
    mean: float
    median: float
    scatter: float | None = Field(description="Standard deviation; none of a single figure")
    least: float
    most: float


class BackGroup(Schema):
    """Figures of one place, one gauge or one month."""

    name: str
    spread: BackSpread


class BackPoint(Schema):
    """One figure of one engine."""

    serial: str
    place: str
    value: float
    gauge: str
    month: str
    at: datetime


class BackSeries(Schema):
    """A fit, a joint's last stage, the valves, or a camshaft of a family: how it came out on every engine."""

    sort: str
    of: str
    name: str
    unit: Unit
    least: float | None = Field(description="Lower limit where all documents of the family have the same")
    most: float | None
    spread: BackSpread
    by_place: list[BackGroup]
    by_gauge: list[BackGroup]
    by_month: list[BackGroup]
    points: list[BackPoint]


class BackMinutes(Schema):
    """How long a step took, the newest first [min]."""

    step: str
    spread: BackSpread
    minutes: list[float]


class BackHappening(Schema):
    """Something that happened more or less often: what sort it is of, what it was about, and why, as it was typed."""

    sort: str
    title: str
    count: int
    because: list[str]
    engines: list[str]


class BackOut(Schema):
    """How a family's engines came out."""

    family: str
    name: str
    engines: int
    left: int = Field(description="Engines that are still to be drawn up: ask again")
    series: list[BackSeries]
    minutes: list[BackMinutes]
    happenings: list[BackHappening]
