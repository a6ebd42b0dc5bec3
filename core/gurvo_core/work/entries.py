"""Entries: every fact about an engine, as it was typed. They are appended and never changed; a strike is an entry too.

Figures are kept as text with their unit; ``readings.py`` turns them into mm and degrees.
"""

__all__ = [
    "CamDecision",
    "Decision",
    "EntryBody",
    "Gauge",
    "LedgerEntry",
    "LiftReading",
    "MoveMade",
    "Note",
    "RevisionDecision",
    "SetupDecision",
    "SignOffDecision",
    "StopOutDecision",
    "Strike",
    "TdcMethodDecision",
    "TdcReading",
    "Turn",
    "Turned",
    "Typed",
    "TypedWheel",
    "WheelZero",
]

from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from gurvo_core.engine import Flank, Valve
from gurvo_core.engine.part import Word
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.timing.wheel import Numbering, Runs, Side
from gurvo_core.units import Unit

Turned = Literal["running way", "back", "back, play taken up"]
Text = Annotated[str, StringConstraints(max_length=40)]
Reason = Annotated[str, StringConstraints(max_length=500, strip_whitespace=True)]


class Shape(BaseModel):
    """Base of all entries: frozen, unknown keys refused, no NaN or infinity."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


class Typed(Shape):
    """A figure as typed, with its unit."""

    text: Text
    unit: Unit


class TypedWheel(Shape):
    """A degree wheel's figure as typed, with its side on a folded wheel."""

    text: Text
    side: Side | None = None


class TdcReading(Shape):
    """One reading towards true TDC."""

    kind: Literal["tdc_reading"]
    method: TdcMethod
    place: Literal["before", "after"] | None = Field(
        default=None, description="Before or after TDC. At a stop: before = met turning forward, after = met turning backward"
    )
    wheel: TypedWheel
    drop: Typed | None = Field(default=None, description="Piston drop by dial, for equal drops and the fit")
    turned: Turned = "running way"


class WheelZero(Shape):
    """The wheel's true zero taken over as it was shown."""

    kind: Literal["wheel_zero"]
    method: TdcMethod
    zero_deg: float = Field(ge=-180, le=180, description="Wheel zero as shown when it was taken over [deg]")


class LiftReading(Shape):
    """Where a valve passed a lift, or stood at its highest (flank `top`)."""

    kind: Literal["lift_reading"]
    camshaft: Word
    cylinder: int = Field(ge=1, le=32)
    valve: Valve
    flank: Flank | Literal["top"]
    lift: Typed | None = Field(default=None, description="Checking lift; left out at the top")
    wheel: TypedWheel
    turned: Turned = "running way"


class SetupDecision(Shape):
    """The wheel and dial as they are set up."""

    subject: Literal["setup"]
    numbering: Numbering
    runs: Runs
    wheel_gauge: Word
    dial_gauge: Word
    plugs_out: bool


class TdcMethodDecision(Shape):
    """How true TDC is looked for."""

    subject: Literal["tdc_method"]
    method: TdcMethod


class StopOutDecision(Shape):
    """The piston stop has been taken out."""

    subject: Literal["stop_out"]


class MoveMade(Shape):
    """One adjustment and the place it was moved to."""

    adjustment: str = Field(max_length=120)
    place: str = Field(max_length=120)


class CamDecision(Shape):
    """What is done about a camshaft: left as it is, or adjusted (no moves = left)."""

    subject: Literal["cam"]
    camshaft: Word
    advance_deg: float = Field(ge=-360, le=360, description="Advance as shown when it was decided [deg]")
    moves: tuple[MoveMade, ...] = Field(default=(), max_length=8)
    reason: Reason = ""


class SignOffDecision(Shape):
    """The lead signs the record."""

    subject: Literal["sign_off"]
    remark: Reason = ""


class RevisionDecision(Shape):
    """The lead moves the engine to a newer revision of its engine document."""

    subject: Literal["revision"]
    number: int = Field(ge=1, le=100_000)
    reason: Reason


class Decision(Shape):
    """Something somebody decided."""

    kind: Literal["decision"]
    decision: Annotated[
        SetupDecision | TdcMethodDecision | StopOutDecision | CamDecision | RevisionDecision | SignOffDecision,
        Field(discriminator="subject"),
    ]


class Turn(Shape):
    """The crank has been turned to a place in the cycle."""

    kind: Literal["turn"]
    to: Text = Field(description="Crank degrees after the firing TDC of the first cylinder, 0 to 720, as typed")


class Strike(Shape):
    """An earlier entry struck through, with the reason."""

    kind: Literal["strike"]
    strikes: UUID
    reason: Reason


class Note(Shape):
    """A remark."""

    kind: Literal["note"]
    text: Annotated[str, StringConstraints(max_length=2000, strip_whitespace=True)]


EntryBody = Annotated[TdcReading | WheelZero | LiftReading | Decision | Turn | Strike | Note, Field(discriminator="kind")]


class Gauge(Shape):
    """A gauge as it was when an entry was made."""

    id: Word
    name: str
    kind: Literal["wheel", "dial"]
    resolution: float = Field(gt=0, description="Smallest step read [deg or mm]")
    expanded_uncertainty: float = Field(ge=0, description="U (k = 2) of its calibration [deg or mm]")
    due: date | None = Field(default=None, description="Day its calibration is due")


@dataclass(frozen=True, kw_only=True)
class LedgerEntry:
    """One line of the ledger: an entry, its place, when and by whom, and the gauges it named."""

    id: UUID
    seq: int
    at: datetime
    by: str
    body: TdcReading | WheelZero | LiftReading | Decision | Turn | Strike | Note
    typed_at: datetime | None = None  # by the clock of the machine it was typed on; ``at`` is when the ledger took it
    gauges: tuple[Gauge, ...] = field(default=())
