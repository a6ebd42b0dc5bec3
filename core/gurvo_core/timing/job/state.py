"""What stands of the timing: the wheel's last setting, the piston stop, the readings that still count, what was decided.

A new setting of the wheel makes all readings before it lapse; an adjusted cam makes its lift readings lapse. States are frozen
and told apart by identity: what is worked out from one is kept beside it.
"""

__all__ = ["CamWork", "EventReadings", "Placed", "StandingReading", "StandingTdcReading", "TimingState", "begin"]

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cache
from typing import Generic, TypeVar

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Gauge
from gurvo_core.timing import DegreeWheel
from gurvo_core.timing.job.entries import Approach, CamDecision, TdcReading, WheelSetup, WheelZero
from gurvo_core.timing.lines import CamLine, LineAt, cam_lines, lines_at
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.timing.wheel import Numbering, Runs

COMMON_DIAL_STEP_MM = 0.01
T = TypeVar("T")


@dataclass(frozen=True)
class Placed(Generic[T]):
    """Something decided, and its place in the ledger."""

    seq: int
    body: T


@dataclass(frozen=True, kw_only=True)
class StandingReading:
    """A lift reading that counts, as read on the wheel that was set up when it was taken."""

    seq: int
    wheel_deg: float
    lift_mm: float | None
    approach: Approach


@dataclass(frozen=True, kw_only=True)
class StandingTdcReading:
    """A reading towards true TDC that counts."""

    seq: int
    wheel_deg: float
    drop_mm: float | None
    body: TdcReading


@dataclass(frozen=True, eq=False)
class EventReadings:
    """All readings of one event that count; the same object as long as none joins, so that figures can be kept by it."""

    last: StandingReading | None = None
    count: int = 0
    # on the wheel, by lift, how often each: what figures are made of. A wheel is read to its step, so many readings are few figures
    degrees: Mapping[float | None, Counter[float]] = field(default_factory=dict)
    back: int = 0  # how many were taken after turning back

    def joined(self, reading: StandingReading) -> "EventReadings":
        """The same and one more."""
        at_lift = Counter(self.degrees.get(reading.lift_mm, ()))
        at_lift[reading.wheel_deg] += 1
        degrees = {**self.degrees, reading.lift_mm: at_lift}
        return EventReadings(reading, self.count + 1, degrees, self.back + (reading.approach == "back"))


@dataclass(frozen=True, kw_only=True)
class CamWork:
    """What has been done about one camshaft since it was last moved."""

    # by cylinder, valve and flank, since everything that is worked out asks for one of these
    readings: Mapping[tuple[int, str, str], EventReadings] = field(default_factory=dict)
    made: Mapping[str, tuple[str, ...]] = field(default_factory=dict)  # where each adjustment was moved to, oldest first
    rounds: int = 1
    left: Placed[CamDecision] | None = None


@dataclass(frozen=True, eq=False, kw_only=True)
class TimingState:
    """All that stands of the timing."""

    document: EngineDocument
    lines: tuple[CamLine, ...]  # what is measured of its camshafts
    at: tuple[LineAt, ...]  # the same with their lobes
    setup: WheelSetup | None = None
    gauges: Mapping[str, Gauge] = field(default_factory=dict)  # by kind
    set_up_on: date | None = None
    checked: tuple[tuple[float, float], ...] = ()  # what two opposite pointers read, in wheel degrees
    method: TdcMethod = "positive_stop"
    method_chosen: bool = False
    tdc_readings: tuple[StandingTdcReading, ...] = ()
    zero: Placed[WheelZero] | None = None
    stop_in: int = 0  # place in the ledger of what says that it is in; 0 = it is out
    cams: Mapping[str, CamWork] = field(default_factory=dict)
    turned_to: tuple[int, float] | None = None  # place in the ledger, crank angle

    @property
    def wheel(self) -> DegreeWheel | None:
        """The wheel as it is set up."""
        return _wheel(self.setup.numbering, self.setup.runs) if self.setup else None

    @property
    def dial_step_mm(self) -> float:
        """Smallest step of the dial that is set up; of a common dial as long as none is [mm]."""
        dial = self.gauges.get("dial")
        return dial.resolution if dial else COMMON_DIAL_STEP_MM


@cache
def _wheel(numbering: Numbering, runs: Runs) -> DegreeWheel:
    return DegreeWheel(numbering=numbering, runs=runs)


def begin(document: EngineDocument) -> TimingState:
    """Return what stands before anything is entered."""
    lines, cams = cam_lines(document), {shaft.id: CamWork() for shaft in document.camshafts}
    return TimingState(document=document, lines=lines, at=lines_at(document, lines), cams=cams)
