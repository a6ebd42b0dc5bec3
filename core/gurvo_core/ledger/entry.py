"""Entries: every fact about an engine, as it was typed. They are appended and never changed; a strike is an entry too.

Figures are kept as text with their unit; each room turns its own into mm and degrees.
"""

__all__ = [
    "GAUGE_UNIT",
    "LENGTH_GAUGES",
    "WHEELS",
    "WRENCHES",
    "Basis",
    "Body",
    "Gauge",
    "GaugeKind",
    "LedgerEntry",
    "Reason",
    "Shape",
    "Strike",
    "Text",
    "Typed",
]

from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from gurvo_core.engine.part import Word
from gurvo_core.units import Quantity, Unit, to_inside

Text = Annotated[str, StringConstraints(max_length=40)]
Reason = Annotated[str, StringConstraints(max_length=500, strip_whitespace=True)]


class Shape(BaseModel):
    """Base of all that is entered: frozen, unknown keys refused, no NaN or infinity."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


class Body(Shape):
    """Base of every kind of entry; each has a ``kind`` of its own."""

    kind: str


class Typed(Shape):
    """A figure as typed, with its unit."""

    text: Text
    unit: Unit

    def inside(self, quantity: Quantity, field: str = "text") -> float:
        """The figure in mm, degrees or N·m, by what it is a figure of; raises FigureError with the input's name where it is none."""
        return round(to_inside(self.text, self.unit, quantity, field), 9)


class Basis(Shape):
    """The entries a decision rests on, as it was shown: so many, the last of them at this place in the ledger.

    Places never change and a struck entry never comes back, so the two figures name the very entries: strike one and the count
    falls, add one and the last place grows.
    """

    last: int = Field(ge=0, description="Place in the ledger of the newest of them; 0 = none")
    count: int = Field(ge=0, description="How many they are")


class Strike(Body):
    """An earlier entry struck through, with the reason."""

    kind: Literal["strike"]
    strikes: UUID
    reason: Reason


# a wheel, angle gauge and encoder read degrees, a wrench and a torque-limiting bar torque, all others lengths
GaugeKind = Literal["wheel", "dial", "wrench", "bar", "angle", "encoder", "micrometer", "bore", "caliper", "feeler", "strip"]

GAUGE_UNIT: dict[str, Unit] = {
    **dict.fromkeys(("wheel", "angle", "encoder"), "deg"),
    **dict.fromkeys(("wrench", "bar"), "N·m"),
    **dict.fromkeys(("dial", "micrometer", "bore", "caliper", "feeler", "strip"), "mm"),
}


WHEELS = frozenset({"wheel", "encoder"})  # an encoder on the crank is a wheel
WRENCHES = frozenset({"wrench", "bar"})
LENGTH_GAUGES = frozenset(kind for kind, unit in GAUGE_UNIT.items() if unit == "mm")


class Gauge(Shape):
    """A gauge or wrench as it was when an entry was made; figures in deg, mm or N·m, by its kind."""

    id: Word
    name: str
    kind: GaugeKind
    resolution: float = Field(gt=0, description="Smallest step read [deg, mm or N·m]")
    expanded_uncertainty: float = Field(ge=0, description="U (k = 2) of its calibration [deg, mm or N·m]")
    due: date | None = Field(default=None, description="Day its calibration is due")
    least: float | None = Field(default=None, description="Where its range begins [deg, mm or N·m]")
    most: float | None = Field(default=None, description="Where it ends [deg, mm or N·m]")
    certificate: str = ""
    pulls: int = Field(default=0, ge=0, description="Of a wrench: pulls since its calibration")
    checked: date | None = Field(default=None, description="Day it was last checked against another")
    expansion_um_m_k: float = Field(default=11.5, ge=0, description="How it grows with warmth [µm/m/K]; steel unless it says otherwise")
    scatter: float = Field(default=0, ge=0, description="Standard deviation of this shop's repeats at one spot, all of them together [mm]")
    scatter_of: int = Field(default=0, ge=0, description="How many repeats that rests on, beyond the first of each spot")

    @property
    def role(self) -> str:
        """What it stands for while a cam is degreed: an encoder on the crank is a wheel."""
        return "wheel" if self.kind == "encoder" else self.kind


@dataclass(frozen=True, kw_only=True)
class LedgerEntry:
    """One line of the ledger: an entry, its place, when and by whom, and the gauges it named."""

    id: UUID
    seq: int
    at: datetime
    by: str
    body: Body
    typed_at: datetime | None = None  # by the clock of the machine it was typed on; ``at`` is when the ledger took it
    because: str = ""  # why it was taken all the same, when the core objected and somebody answered
    gauges: tuple[Gauge, ...] = field(default=())
    after: datetime | None = None  # the latest time in the ledger before it
    digest: str = ""  # its seal in the chain

    def gauge_of(self, code: str | None) -> Gauge | None:
        """A gauge it named, by its code, as that was when the entry was made; None where it names none of that code."""
        return next((gauge for gauge in self.gauges if gauge.id == code), None)

    @property
    def goes_back(self) -> bool:
        """Whether it is dated before an entry that stands before it: some clock was wrong."""
        return self.after is not None and self.at < self.after

    @property
    def latest(self) -> datetime:
        """The later of its own time and of all before it; what is due is judged by this."""
        return self.after if self.after is not None and self.at < self.after else self.at
