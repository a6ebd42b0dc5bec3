"""Typed readings turned into millimetres and wheel degrees, with what the gauges say of them."""

__all__ = ["gauge_u", "inside_figures", "length_mm", "turned_deg", "turned_to_deg"]

from functools import lru_cache

from gurvo_core.angles import wrap_deg
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.errors import CoreError, FigureError
from gurvo_core.timing import Numbering, Runs, Side, Wheel, standard_uncertainty, wheel_deg
from gurvo_core.units import Unit, read_figure, to_inside
from gurvo_core.work.entries import EntryBody, Gauge, LiftReading, TdcReading, Turn, Typed, TypedWheel


# A long ledger says the same few figures over and over, and is replayed after every entry: each is read once.
@lru_cache(maxsize=16_384)
def _wheel_deg(text: str, side: Side | None, numbering: Numbering, runs: Runs) -> float:
    return wheel_deg(read_figure(text), side, Wheel(numbering=numbering, runs=runs))


@lru_cache(maxsize=16_384)
def _length_mm(text: str, unit: Unit) -> float:
    return to_inside(text, unit, "length")


def turned_deg(typed: TypedWheel, wheel: Wheel) -> float:
    """Return wheel degrees of a typed wheel reading.

    Parameters
    ----------
    typed : TypedWheel
        Figure and side as typed.
    wheel : Wheel
        How the wheel is numbered.

    Returns
    -------
    turned_deg : float
        Crank degrees from the wheel's zero, running way [deg].

    Raises
    ------
    FigureError
        If it is no number.
    ReadingError
        If the wheel has no such figure or needs a side.

    Source
    ------
    ``timing.wheel_deg``.

    Example
    -------
    >>> turned_deg(TypedWheel(text="41,5", side="before TDC"), Wheel(numbering="0-180-0"))
    318.5
    """
    try:
        return _wheel_deg(typed.text, typed.side, wheel.numbering, wheel.runs)
    except CoreError as error:
        raise error.under("wheel") from None


def length_mm(typed: Typed, field: str) -> float:
    """Return a typed length in millimetres.

    Parameters
    ----------
    typed : Typed
        Figure and unit as typed.
    field : str
        Name of the input, for a refusal.

    Returns
    -------
    length_mm : float
        The length [mm].

    Raises
    ------
    FigureError
        If it is no number or no length.

    Source
    ------
    ``units.to_inside``.

    Example
    -------
    >>> round(length_mm(Typed(text="50", unit="thou"), "lift"), 9)
    1.27
    """
    try:
        return _length_mm(typed.text, typed.unit)
    except CoreError as error:
        raise error.under(field) from None


def turned_to_deg(turn: Turn) -> float:
    """Return the crank angle that somebody says the crank has been turned to.

    Parameters
    ----------
    turn : Turn
        The angle as typed.

    Returns
    -------
    crank_deg : float
        From the firing TDC of the first cylinder, 0 <= angle < 720 [deg].

    Raises
    ------
    FigureError
        If it is no number, or outside the cycle.

    Source
    ------
    Definition of the crank angle.

    Example
    -------
    >>> turned_to_deg(Turn(kind="turn", to="330,5"))
    330.5
    """
    crank_deg = read_figure(turn.to, "to")
    if not 0 <= crank_deg <= CYCLE_DEG:
        raise FigureError("to", crank_deg, f"a cycle has 0 to 720 crank degrees, not {crank_deg:g}")
    return wrap_deg(crank_deg, CYCLE_DEG)


def inside_figures(body: EntryBody, wheel: Wheel | None) -> dict[str, float]:
    """Return the figures of an entry in the units used inside, for those who read the ledger without Gurvo.

    Parameters
    ----------
    body : EntryBody
        An accepted entry.
    wheel : Wheel or None
        The wheel as set up.

    Returns
    -------
    figures : dict
        Such as ``{"wheel_deg": 230.5, "lift_mm": 1.0}``; empty for entries without figures.

    Raises
    ------
    CoreError
        If a figure cannot be read.

    Source
    ------
    ``turned_deg`` and ``length_mm``.

    Example
    -------
    >>> inside_figures(Note(kind="note", text="cold"), None)
    {}
    """
    figures: dict[str, float] = {}
    if isinstance(body, TdcReading | LiftReading) and wheel:
        figures["wheel_deg"] = turned_deg(body.wheel, wheel)
    if isinstance(body, TdcReading) and body.drop:
        figures["drop_mm"] = length_mm(body.drop, "drop")
    if isinstance(body, LiftReading) and body.lift:
        figures["lift_mm"] = length_mm(body.lift, "lift")
    if isinstance(body, Turn):
        figures["crank_deg"] = turned_to_deg(body)
    return figures


def gauge_u(gauge: Gauge | None) -> float:
    """Return the standard uncertainty of one reading of a gauge.

    Parameters
    ----------
    gauge : Gauge or None
        Wheel or dial; None when none is set up yet.

    Returns
    -------
    u : float
        Standard uncertainty [deg for a wheel, mm for a dial].

    Source
    ------
    ``timing.standard_uncertainty``.

    Example
    -------
    >>> round(gauge_u(Gauge(id="w", name="w", kind="wheel", resolution=0.5, expanded_uncertainty=0.2)), 3)
    0.176
    """
    return standard_uncertainty(gauge.resolution, gauge.expanded_uncertainty) if gauge else 0.0
