"""One reading at one spot; another of the same spot is a repeat."""

__all__ = ["KIND"]

from dataclasses import replace

from gurvo_core.fits.clearance import ReadWith, at_20_mm
from gurvo_core.fits.job.entries import FitReading
from gurvo_core.fits.job.figures import BY_NOTHING_MM, reading_mm, reading_si
from gurvo_core.fits.job.named import gauge_named, named_today
from gurvo_core.fits.job.rules import check_reading
from gurvo_core.fits.job.state import FitsState, ReadSpot
from gurvo_core.fits.job.take import weighed
from gurvo_core.fits.places import FitSpot
from gurvo_core.ledger import Kind, LedgerEntry, Words


def _say(body: FitReading) -> Words:
    """One reading."""
    sign = "+" if body.from_nominal and not body.reading.text.lstrip().startswith(("-", "+")) else ""
    detail = "from what it was set to" if body.from_nominal else ""
    return Words(
        title=body.called or f"{body.place} {body.side}",
        value=f"{sign}{body.reading.text} {body.reading.unit}",
        detail=", ".join(filter(None, [detail, f"gauge {body.gauge}" if body.gauge else ""])),
    )


def _take(now: FitsState, entry: LedgerEntry, body: FitReading) -> FitsState:
    """One reading; whatever today's document no longer knows is left out."""
    fit = now.book.in_step(body.step, body.fit)
    spot = FitSpot(place=body.place, side=body.side, plane=body.plane, axis=body.axis)
    if fit is None or spot.key not in fit.by_key:
        return now
    ready, side = now.ready.get((body.fit, body.side)), fit.side(body.side)
    scale = ready.scale if ready else 1.0
    read_with = ready.read_with if ready else ReadWith(resolution_mm=BY_NOTHING_MM, calibration_mm=0.0)
    other = entry.gauge_of(body.gauge)
    if other is not None:
        read_with = replace(read_with, resolution_mm=other.resolution, calibration_mm=other.expanded_uncertainty, standard_mm=0.0)
        read_with = read_with.scaled(scale)
    read = ReadSpot(
        seq=entry.seq,
        size_mm=at_20_mm(reading_mm(body, ready, side.nominal_mm if side else None) * scale, read_with),
        gauge=body.gauge or (ready.gauge if ready else None),
        read_with=read_with,
        by=entry.by,
        at=entry.at,
        because=entry.because,
    )
    own = now.of_fit(body.fit)
    # a finer gauge settles what a coarser one could not: its readings take the place of the others
    before = tuple(one for one in own.get(spot.key, ()) if one.gauge == read.gauge)
    readings = {**now.readings, body.fit: {**own, spot.key: (*before, read)}}
    return weighed(replace(now, readings=readings), fit, [body.place])


def _si(now: FitsState, body: FitReading) -> dict[str, float]:
    fit = now.book.in_step(body.step, body.fit)
    side = fit.side(body.side) if fit else None
    return reading_si(body, now.ready.get((body.fit, body.side)), side.nominal_mm if side else None)


KIND: Kind[FitReading, FitsState] = Kind(
    body=FitReading,
    does="look",
    completes=named_today,
    words=_say,
    take=_take,
    check=check_reading,
    gauges=gauge_named,
    si_values=_si,
)
