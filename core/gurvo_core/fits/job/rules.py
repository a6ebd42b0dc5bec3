"""What more than one entry at a fit must hold to, in the light of what stands."""

__all__ = ["NO_SUCH", "ONCE_DONE", "check_reading", "in_range"]

from collections.abc import Iterator

from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitReading
from gurvo_core.fits.job.figures import reading_mm
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.places import FitSpot
from gurvo_core.fits.slips import size_slip
from gurvo_core.ledger import Facts, Objection, known_gauge, may_be_done, need

Objections = Iterator[Objection]
ONCE_DONE = "say that a place is read again, or has another part"
NO_SUCH = "this engine's run has no step that measures a fit by that name; load the bench again"
BESIDE_MM = 1e-6  # a size that is beyond a gauge's range by rounding alone


def in_range(code: str, measures: tuple[float | None, float | None], size_mm: float, field: str) -> Objections:
    """A size that the gauge can read; a little beside its range is a slip of the eye."""
    least, most = measures
    inside = (least is None or size_mm >= least - BESIDE_MM) and (most is None or size_mm <= most + BESIDE_MM)
    words = f"{least:g} to {most:g} mm" if least is not None and most is not None else "less than that"
    yield from need(inside, field, f"{code} measures {words}, and this is {size_mm:g} mm: take another")


def check_reading(now: FitsState, body: FitReading, facts: Facts) -> Objections:
    """A spot of the step, a figure that can be, and a bore that is larger than what turns in it."""
    fit = now.book.in_step(body.step, body.fit)
    if fit is None:
        yield Objection("fit", NO_SUCH)
        return
    spot = FitSpot(place=body.place, side=body.side, plane=body.plane, axis=body.axis)
    side = fit.side(body.side)
    if side is None or spot.key not in fit.by_key:
        yield Objection("place", f"{fit.fit.name} has no such place; load the bench again")
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    ready = now.ready.get((body.fit, body.side))
    yield from need(ready is not None, "step", f"first say with what the {side.name} is read")
    yield from need(body.reading.unit in ("mm", "in", "thou", "µm"), "reading.unit", "a size is in mm, inches or thou")
    if body.from_nominal and side.nominal_mm is None and (ready is None or ready.set_to_mm is None):
        yield Objection("from_nominal", "nobody knows what the difference counts from: type the whole size")
        return
    read = reading_mm(body, ready, side.nominal_mm)
    counts = read * (ready.scale if ready else 1.0)
    slip = size_slip(counts, side.nominal_mm, fit.limits_mm if body.side == "gap" else (None, None))
    if slip is not None:
        yield Objection("reading.text", slip.sentence, "none" if slip.cannot_be else "reason")
        return
    if ready is not None and ready.gauge and body.gauge is None:
        yield from in_range(ready.gauge, ready.range_mm, read, "reading.text")
    other = known_gauge(facts, body.gauge)
    if other is not None and other.kind in ("micrometer", "caliper"):
        yield from in_range(other.id, (other.least, other.most), read, "reading.text")
    yield from _goes_in(now, fit, body, read)


def _goes_in(now: FitsState, fit: PlacedFit, body: FitReading, read_mm: float) -> Objections:
    low = fit.fit.limits_mm[0]
    select = fit.fit.select
    bare = select is not None and select.measured_in is None
    if body.side == "gap" or bare or (low is not None and low < 0):
        return
    opposite = "inner" if body.side == "outer" else "outer"
    read = now.of_fit(body.fit)
    sizes = [one.size_mm for spot in fit.at_place[body.place] if spot.side == opposite for one in read.get(spot.key, ())]
    if not sizes:
        return
    gap = min(sizes) - read_mm if opposite == "outer" else read_mm - max(sizes)
    outer, inner = fit.side("outer"), fit.side("inner")
    names = f"the {outer.name if outer else 'bore'} would be smaller than the {inner.name if inner else 'journal'} by {-gap:.3f} mm"
    yield from need(gap >= 0, "reading.text", f"{names}: a press fit, or a slip?", "reason")
