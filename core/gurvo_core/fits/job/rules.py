"""What the entries at a fit may say, in the light of what stands. Each rule yields its objections; nothing is changed."""

__all__ = ["check_chosen", "check_decided", "check_reading", "check_ready"]

from collections import Counter
from collections.abc import Iterator

from gurvo_core.engine import FitSide
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitChosen, FitDecided, FitReading, FitsReady
from gurvo_core.fits.job.figures import reading_mm, ready_of, typed_c
from gurvo_core.fits.job.state import FitsState, SideReady
from gurvo_core.fits.places import FitSpot
from gurvo_core.fits.settle import is_too_coarse
from gurvo_core.fits.slips import size_slip, temperature_slip
from gurvo_core.ledger import STOCK, Facts, Gauge, Objection, known_gauge, may_be_done, need
from gurvo_core.sentence import within
from gurvo_core.uncertainty import COVERAGE, root_sum_square

Objections = Iterator[Objection]
ONCE_DONE = "say that a place is read again, or has another part"
NO_SUCH = "this engine's run has no step that measures a fit by that name; load the bench again"
BESIDE_MM = 1e-6  # a size that is beyond a gauge's range by rounding alone


def check_ready(now: FitsState, body: FitsReady, facts: Facts) -> Objections:
    """The part as it must be while it is read, and a gauge that is good enough for the fit."""
    fit = now.book.in_step(body.step, body.fit)
    side = fit.side(body.side) if fit else None
    if fit is None or side is None:
        yield Objection("fit", NO_SUCH)
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    yield from need(body.as_asked or not side.condition, "as_asked", f"first: {within((side.condition or '').rstrip('.'))}")
    for text, field in ((body.part_c, "part_c"), (body.gauge_c, "gauge_c")):
        warmth = typed_c(text, field)
        if warmth is not None:
            slip = temperature_slip(warmth)
            yield from need(not slip, field, slip)
    yield from need(body.gauge_c is None or body.part_c is not None, "part_c", "say how warm the part is too")
    if body.gauge is None:
        yield Objection("gauge", "no gauge is named: take one of the shelf, or say by what it is read", "reason")
        return
    gauge = known_gauge(facts, body.gauge)
    if gauge is None:
        return  # the gate says so
    yield from _suits(fit, side, body, gauge)
    ready = ready_of(body, 0, side, gauge)
    yield from _is_fine_enough(now, fit, body, ready)


def _suits(fit: PlacedFit, side: FitSide, body: FitsReady, gauge: Gauge) -> Objections:
    kinds = fit.fit.read_by
    ways = " or ".join(kinds)
    yield from need(not kinds or gauge.kind in kinds, "gauge", f"the book reads it by {ways}, and {gauge.id} is a {gauge.kind}", "reason")
    if side.nominal_mm is not None and gauge.kind in ("micrometer", "caliper"):
        yield from _in_range(gauge.id, (gauge.least, gauge.most), side.nominal_mm, "gauge")
    at = body.read_at is not None or side.radius_mm is None
    yield from need(at, "read_at", f"say at which radius the dial stands: the limits hold at {side.radius_mm or 0:g} mm", "reason")
    comparator = gauge.kind == "bore" and body.standard is None
    yield from need(not comparator, "standard", f"{gauge.id} shows only a difference: say the size it was set to", "reason")


def _in_range(code: str, measures: tuple[float | None, float | None], size_mm: float, field: str) -> Objections:
    least, most = measures
    inside = (least is None or size_mm >= least - BESIDE_MM) and (most is None or size_mm <= most + BESIDE_MM)
    words = f"{least:g} to {most:g} mm" if least is not None and most is not None else "less than that"
    yield from need(inside, field, f"{code} measures {words}, and this is {size_mm:g} mm: take another")


def _is_fine_enough(now: FitsState, fit: PlacedFit, body: FitsReady, ready: SideReady) -> Objections:
    """Said before the first reading: with this gauge nothing of this fit could ever be in."""
    size = fit.fit.nominal_mm or 0.0
    others = [one.read_with.u_mm(size) for (name, side), one in now.ready.items() if name == body.fit and side != body.side]
    u_mm = root_sum_square(ready.read_with.u_mm(size), *others)
    low, high = fit.limits_mm
    if low is not None and high is not None and is_too_coarse(u_mm, low, high, fit.document.decision_rule):
        said = f"U is {COVERAGE * u_mm:.3f} mm with {ready.gauge}, and the limits are only {high - low:.3g} mm apart"
        yield Objection("gauge", f"{said}: this gauge is not good enough for this fit, take a finer one or say why not", "reason")


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
        yield from _in_range(ready.gauge, ready.range_mm, read, "reading.text")
    other = known_gauge(facts, body.gauge)
    if other is not None and other.kind in ("micrometer", "caliper"):
        yield from _in_range(other.id, (other.least, other.most), read, "reading.text")
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


def check_chosen(now: FitsState, body: FitChosen, facts: Facts) -> Objections:
    """Sizes that there are, for places that are measured, and pieces that no other engine has taken."""
    fit = now.book.in_step(body.step, body.fit)
    select = fit.fit.select if fit else None
    if fit is None or select is None:
        yield Objection("fit", "nothing is chosen from stock for this fit; load the bench again")
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    known = [one.id for one in select.classes]
    for place, size in body.sizes.items():
        yield from need(place in fit.at_place, f"sizes.{place}", f"{fit.fit.name} has no place {place}")
        yield from need(size in known, f"sizes.{place}", f"{select.part} is not made in {size}: there are {', '.join(known)}")
    read = now.of_fit(body.fit)
    missing = next((spot for place in body.sizes for spot in fit.at_place.get(place, ()) if spot.key not in read), None)
    if missing is not None:
        yield Objection("sizes", f"{fit.called(missing)} is not read yet: sizes are chosen from what was measured")
    stock = facts.get(STOCK)
    if stock is None:
        return
    free = stock.get(select.part, {})
    chosen = {**now.sizes.get(body.fit, {}), **body.sizes}
    wanted = Counter(size for size in chosen.values() if size != select.measured_in)
    for size, places in sorted(wanted.items()):
        pieces, there = places * select.pieces, free.get(size, 0)
        rule = f"{select.part} {size}: {pieces} are needed and {there} are free, the others are taken for other engines or not there"
        yield from need(pieces <= there, "sizes", f"{rule}: choose others, or say where they come from", "reason")


def check_decided(now: FitsState, body: FitDecided, _facts: Facts) -> Objections:
    """A place that was read, and who may say what of it."""
    fit = now.book.in_step(body.step, body.fit)
    if fit is None or body.place not in fit.at_place:
        yield Objection("place", NO_SUCH)
        return
    yield from need(bool(body.reason), "reason", "say why")
    read = now.of_fit(body.fit)
    yield from need(any(spot.key in read for spot in fit.at_place[body.place]), "place", "nothing has been read there yet")
    if body.decision != "accepted":
        return
    stands = now.stands(body.fit, body.place)
    verdict = stands.judged.verdict if stands else None
    yield from need(verdict in ("out", "can't tell"), "decision", "there is nothing to accept: it is not out, and it can be told")
    if verdict is not None:
        rule = f"{fit.names_place(body.place)} {'is out' if verdict == 'out' else 'cannot be told'}: only the lead accepts that"
        yield Objection("decision", f"{rule}, with the reason", "lead and reason")
