"""Typed readings turned into millimetres and wheel degrees, with what the gauges say of them."""

__all__ = ["gauge_u", "length_mm", "off_of", "opposite_readings", "si_values", "turned_to_deg", "wheel_reading_deg", "wheel_u"]

from functools import lru_cache

from gurvo_core.angles import wrap_deg
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.errors import CoreError, FigureError
from gurvo_core.ledger import Body, Gauge
from gurvo_core.ledger.entry import Typed
from gurvo_core.timing import DegreeWheel, GaugeUncertainty, Numbering, Runs, Side, standard_uncertainty, wheel_deg
from gurvo_core.timing.job.entries import LiftReading, TdcReading, Turn, TypedWheel, WheelCheck
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.off_centre import OffCentre, off_centre
from gurvo_core.units import Unit, read_figure, to_inside


# A long ledger says the same few figures over and over, and is replayed after every entry: each is read once.
@lru_cache(maxsize=16_384)
def _wheel_deg(text: str, side: Side | None, numbering: Numbering, runs: Runs) -> float:
    return wheel_deg(read_figure(text), side, DegreeWheel(numbering=numbering, runs=runs))


@lru_cache(maxsize=16_384)
def _length_mm(text: str, unit: Unit) -> float:
    return to_inside(text, unit, "length")


def wheel_reading_deg(typed: TypedWheel, wheel: DegreeWheel, field: str = "wheel") -> float:
    """Return wheel degrees of a typed wheel reading.

    Returned: crank degrees from the wheel's zero, running way [deg].
    Raises FigureError if it is no number; ReadingError if the wheel has no such figure or needs a side.
    """
    try:
        return _wheel_deg(typed.text, typed.side, wheel.numbering, wheel.runs)
    except CoreError as error:
        raise error.under(field) from None


def opposite_readings(body: WheelCheck, wheel: DegreeWheel) -> tuple[float, float]:
    """Return what two opposite pointers read, as the figures stand on the wheel.

    Returned: wheel degrees [deg].
    Raises CoreError if one of them is no figure of this wheel.
    """
    return wheel_reading_deg(body.wheel, wheel), wheel_reading_deg(body.opposite, wheel, "opposite")


def length_mm(typed: Typed, field: str) -> float:
    """Return a typed length in millimetres.

    Returned: the length [mm].
    Raises FigureError if it is no number or no length.
    """
    try:
        return _length_mm(typed.text, typed.unit)
    except CoreError as error:
        raise error.under(field) from None


def turned_to_deg(turn: Turn) -> float:
    """Return the crank angle that somebody says the crank has been turned to.

    Returned: from the firing TDC of the first cylinder, 0 <= angle < 720 [deg].
    Raises FigureError if it is no number, or outside the cycle.
    Definition of the crank angle.
    """
    crank_deg = read_figure(turn.to, "to")
    if not 0 <= crank_deg <= CYCLE_DEG:
        raise FigureError("to", crank_deg, f"a cycle has 0 to 720 crank degrees, not {crank_deg:g}")
    return wrap_deg(crank_deg, CYCLE_DEG)


def si_values(now: TimingState, body: Body) -> dict[str, float]:
    """Return the figures of an entry in mm and degrees, for those who read the ledger without Gurvo.

    Raises CoreError if a figure cannot be read.
    """
    figures: dict[str, float] = {}
    if isinstance(body, TdcReading | LiftReading) and now.wheel:
        read_deg = wheel_reading_deg(body.wheel, now.wheel)
        off = off_of(now)
        figures["wheel_deg"] = off.true_deg(read_deg) if off else read_deg
    if isinstance(body, WheelCheck) and now.wheel:
        figures["wheel_deg"], figures["opposite_deg"] = opposite_readings(body, now.wheel)
    if isinstance(body, TdcReading) and body.drop:
        figures["drop_mm"] = length_mm(body.drop, "drop")
    if isinstance(body, LiftReading) and body.lift:
        figures["lift_mm"] = length_mm(body.lift, "lift")
    if isinstance(body, Turn):
        figures["crank_deg"] = turned_to_deg(body)
    return figures


def gauge_u(gauge: Gauge | None) -> GaugeUncertainty:
    """Return the standard uncertainties of one reading of a gauge.

    Returned: of its step and its calibration [deg for a wheel, mm for a dial].
    """
    return standard_uncertainty(gauge.resolution, gauge.expanded_uncertainty) if gauge else GaugeUncertainty(0.0)


# asked with every reading, of the same few places
_off_centre = lru_cache(maxsize=256)(off_centre)


def off_of(now: TimingState) -> OffCentre | None:
    """How the wheel sits off centre, as far as a second pointer has told."""
    return _off_centre(now.checked, gauge_u(now.gauges.get("wheel")).resolution) if now.checked else None


def wheel_u(now: TimingState) -> GaugeUncertainty:
    """Of one reading of the wheel; where a second pointer has told how it sits, what is left of its curve."""
    own, off = gauge_u(now.gauges.get("wheel")), off_of(now)
    return GaugeUncertainty(own.resolution, off.u_deg) if off else own
