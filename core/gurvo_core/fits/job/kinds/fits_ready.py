"""With what a side of a fit is read, how warm it is, and that the part is as it must be."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.engine import FitSide
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitsReady
from gurvo_core.fits.job.figures import ready_of, typed_c
from gurvo_core.fits.job.named import gauge_named, named_today
from gurvo_core.fits.job.rules import NO_SUCH, ONCE_DONE, in_range
from gurvo_core.fits.job.state import FitsState, SideReady
from gurvo_core.fits.settle import is_too_coarse
from gurvo_core.fits.slips import temperature_slip
from gurvo_core.ledger import Facts, Gauge, Kind, LedgerEntry, Objection, Words, known_gauge, may_be_done, need
from gurvo_core.sentence import within
from gurvo_core.uncertainty import COVERAGE, root_sum_square


def _say(body: FitsReady) -> Words:
    """With what it is read."""
    said = [f"gauge {body.gauge}"] if body.gauge else ["no gauge named"]
    said += [f"set by {body.standard.text} {body.standard.unit}"] if body.standard else []
    said += [f"part {body.part_c} °C"] if body.part_c else ["temperature not looked at"]
    said += [f"gauge {body.gauge_c} °C"] if body.gauge_c else []
    said += [f"at a radius of {body.read_at.text} {body.read_at.unit}"] if body.read_at else []
    said += [f"plunger {body.plunger_deg}° aslant"] if body.plunger_deg else []
    return Words(title=f"{body.called or body.fit}, before the first reading", detail=", ".join(said))


def _check(now: FitsState, body: FitsReady, facts: Facts) -> Iterator[Objection]:
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


def _suits(fit: PlacedFit, side: FitSide, body: FitsReady, gauge: Gauge) -> Iterator[Objection]:
    kinds = fit.fit.read_by
    ways = " or ".join(kinds)
    yield from need(not kinds or gauge.kind in kinds, "gauge", f"the book reads it by {ways}, and {gauge.id} is a {gauge.kind}", "reason")
    if side.nominal_mm is not None and gauge.kind in ("micrometer", "caliper"):
        yield from in_range(gauge.id, (gauge.least, gauge.most), side.nominal_mm, "gauge")
    at = body.read_at is not None or side.radius_mm is None
    yield from need(at, "read_at", f"say at which radius the dial stands: the limits hold at {side.radius_mm or 0:g} mm", "reason")
    comparator = gauge.kind == "bore" and body.standard is None
    yield from need(not comparator, "standard", f"{gauge.id} shows only a difference: say the size it was set to", "reason")


def _is_fine_enough(now: FitsState, fit: PlacedFit, body: FitsReady, ready: SideReady) -> Iterator[Objection]:
    """Said before the first reading: with this gauge nothing of this fit could ever be in."""
    size = fit.fit.nominal_mm or 0.0
    others = [one.read_with.u_mm(size) for (name, side), one in now.ready.items() if name == body.fit and side != body.side]
    u_mm = root_sum_square(ready.read_with.u_mm(size), *others)
    low, high = fit.limits_mm
    if low is not None and high is not None and is_too_coarse(u_mm, low, high, fit.document.decision_rule):
        said = f"U is {COVERAGE * u_mm:.3f} mm with {ready.gauge}, and the limits are only {high - low:.3g} mm apart"
        yield Objection("gauge", f"{said}: this gauge is not good enough for this fit, take a finer one or say why not", "reason")


def _take(now: FitsState, entry: LedgerEntry, body: FitsReady) -> FitsState:
    """With what a side is read; what was read before stays as it was."""
    fit = now.book.in_step(body.step, body.fit)
    side = fit.side(body.side) if fit else None
    if side is None:
        return now
    ready = ready_of(body, entry.seq, side, entry.gauge_of(body.gauge))
    return replace(now, ready={**now.ready, (body.fit, body.side): ready})


KIND: Kind[FitsReady, FitsState] = Kind(
    body=FitsReady, does="look", completes=named_today, words=_say, take=_take, check=_check, gauges=gauge_named
)
