"""An entry's figures in mm and °C, once, at the door."""

__all__ = ["reading_mm", "reading_si", "ready_of", "typed_c"]

from gurvo_core.engine import FitSide
from gurvo_core.errors import FigureError
from gurvo_core.fits.clearance import STEEL_UM_M_K, ReadWith, at_20_mm, at_radius
from gurvo_core.fits.job.entries import FitReading, FitsReady
from gurvo_core.fits.job.state import SideReady
from gurvo_core.ledger import Gauge
from gurvo_core.units import read_figure

BY_NOTHING_MM = 0.01  # a figure without a gauge is taken as read to a hundredth
MOST_ASLANT_DEG = 60.0  # there half of it shows


def typed_c(text: str | None, field: str = "part_c") -> float | None:
    """Return a typed temperature.

    text: as typed [°C].
    Returned: none where nothing was typed [°C].
    Raises FigureError if it is no number.
    """
    return read_figure(text, field) if text else None


def ready_of(body: FitsReady, seq: int, side: FitSide, gauge: Gauge | None) -> SideReady:
    """Return with what a side is read."""
    read_with = ReadWith(
        resolution_mm=gauge.resolution if gauge else BY_NOTHING_MM,
        calibration_mm=gauge.expanded_uncertainty if gauge else 0.0,
        standard_mm=body.standard_u.inside("length", "standard_u.text") if body.standard_u else 0.0,
        part_c=typed_c(body.part_c),
        gauge_c=typed_c(body.gauge_c, "gauge_c"),
        part_um_m_k=side.expansion_um_m_k,
        gauge_um_m_k=gauge.expansion_um_m_k if gauge else STEEL_UM_M_K,
        scatter_mm=gauge.scatter if gauge else 0.0,
        scatter_of=gauge.scatter_of if gauge else 0,
    )
    set_to = body.standard.inside("length", "standard.text") if body.standard else None
    read_at_mm = body.read_at.inside("length", "read_at.text") if body.read_at else None
    scale = at_radius(side.radius_mm, read_at_mm, _aslant_deg(body.plunger_deg))
    measures = (gauge.least, gauge.most) if gauge else (None, None)
    return SideReady(seq=seq, gauge=body.gauge, read_with=read_with.scaled(scale), set_to_mm=set_to, scale=scale, range_mm=measures)


def _aslant_deg(text: str | None) -> float:
    """How far a plunger stands aslant; further than a dial can be read by is refused."""
    aslant_deg = read_figure(text, "plunger_deg") if text else 0.0
    if not 0 <= aslant_deg <= MOST_ASLANT_DEG:
        rule = f"a plunger {aslant_deg:g}° aslant shows too little: set the dial the way the tooth goes, at most {MOST_ASLANT_DEG:g}° off"
        raise FigureError("plunger_deg", aslant_deg, rule)
    return aslant_deg


def reading_mm(body: FitReading, ready: SideReady | None, nominal_mm: float | None) -> float:
    """Return what a gauge showed.

    nominal_mm: what a difference counts from where it was not set to anything [mm].
    Returned: the whole size [mm].
    Raises FigureError if it is no length.
    """
    read = body.reading.inside("length", "reading.text")
    if not body.from_nominal:
        return read
    base = ready.set_to_mm if ready and ready.set_to_mm is not None else nominal_mm
    return read if base is None else round(base + read, 9)


def reading_si(body: FitReading, ready: SideReady | None, nominal_mm: float | None) -> dict[str, float]:
    """Return the figures of a reading.

    nominal_mm: what a difference counts from [mm].
    Returned: ``read_mm`` as the gauge showed it, ``size_mm`` at 20 °C [mm].
    """
    read = reading_mm(body, ready, nominal_mm)
    return {"read_mm": read, "size_mm": at_20_mm(read * ready.scale, ready.read_with) if ready else read}
