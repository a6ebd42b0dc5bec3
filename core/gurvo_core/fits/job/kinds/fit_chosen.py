"""Which size goes to which place."""

__all__ = ["KIND"]

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.fits.job.entries import FitChosen
from gurvo_core.fits.job.named import named_today
from gurvo_core.fits.job.rules import ONCE_DONE
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.job.take import weighed, without_readings
from gurvo_core.ledger import STOCK, Facts, Kind, LedgerEntry, Objection, Words, may_be_done, need


def _say(body: FitChosen) -> Words:
    """Which sizes, and how many of each."""
    counts = Counter(body.sizes.values())
    value = ", ".join(f"{count} × {size}" for size, count in sorted(counts.items()))
    where = "; ".join(f"{place}: {size}" for place, size in body.sizes.items())
    return Words(title=f"{body.called or body.fit}, sizes chosen", value=value, detail=where + (f"; lot {body.lot}" if body.lot else ""))


def _check(now: FitsState, body: FitChosen, facts: Facts) -> Iterator[Objection]:
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


def _take(now: FitsState, _entry: LedgerEntry, body: FitChosen) -> FitsState:
    """Sizes chosen. Where the part is in while it is measured, what another size changes is measured again."""
    fit = now.book.in_step(body.step, body.fit)
    select = fit.fit.select if fit else None
    if fit is None or select is None:
        return now
    before = now.sizes.get(body.fit, {})
    sizes = {**before, **{place: size for place, size in body.sizes.items() if place in fit.at_place}}
    now = replace(now, sizes={**now.sizes, body.fit: sizes})
    changed = [place for place, size in sizes.items() if size != before.get(place, select.measured_in)]
    if select.measured_in is not None:
        keys = {spot.key for place in changed for spot in fit.at_place[place] if spot.side == select.on}
        now = without_readings(now, fit, keys)
    return weighed(now, fit, changed)


KIND: Kind[FitChosen, FitsState] = Kind(
    body=FitChosen,
    does="decide",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
    asks_stock=True,
)
