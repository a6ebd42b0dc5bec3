"""What stands after each entry at a fit."""

__all__ = ["hear_of_step", "news_of", "take_chosen", "take_decided", "take_reading", "take_ready"]

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace

from gurvo_core.engine import Select
from gurvo_core.fits.clearance import Clearance, ReadWith, Size, at_20_mm, clearance_of, size_of
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitChosen, FitDecided, FitReading, FitsReady
from gurvo_core.fits.job.figures import BY_NOTHING_MM, reading_mm, ready_of
from gurvo_core.fits.job.state import FitDecision, FitsState, PlaceStands, ReadSpot
from gurvo_core.fits.judged import judge_clearance
from gurvo_core.fits.places import FitSpot
from gurvo_core.ledger import LedgerEntry, StepNews, kept_with
from gurvo_core.uncertainty import Estimate, root_sum_square

TOLD = ("in", "no limit known")


def take_ready(now: FitsState, entry: LedgerEntry, body: FitsReady) -> FitsState:
    """With what a side is read; what was read before stays as it was."""
    fit = now.book.in_step(body.step, body.fit)
    side = fit.side(body.side) if fit else None
    if side is None:
        return now
    ready = ready_of(body, entry.seq, side, entry.gauge_of(body.gauge))
    return replace(now, ready={**now.ready, (body.fit, body.side): ready})


def take_reading(now: FitsState, entry: LedgerEntry, body: FitReading) -> FitsState:
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
    return _weighed(replace(now, readings=readings), fit, [body.place])


def take_chosen(now: FitsState, _entry: LedgerEntry, body: FitChosen) -> FitsState:
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
        now = _without(now, fit, keys)
    return _weighed(now, fit, changed)


def take_decided(now: FitsState, entry: LedgerEntry, body: FitDecided) -> FitsState:
    """Accepted by the lead; or its readings are gone, and it is read again."""
    fit = now.book.in_step(body.step, body.fit)
    if fit is None or body.place not in fit.at_place:
        return now
    if body.decision == "accepted":
        decision = FitDecision(seq=entry.seq, decision=body.decision, reason=body.reason, by=entry.by)
        return _weighed(replace(now, decided={**now.decided, (body.fit, body.place): decision}), fit, [])
    because = f"{fit.names_place(body.place)} {'has another part' if body.decision == 'replaced' else 'is read again'}: {body.reason}"
    opened = {**now.opened, body.step: (entry.seq, because)} if body.step in now.complete else now.opened
    now = _without(replace(now, opened=opened), fit, {spot.key for spot in fit.at_place[body.place]})
    return _weighed(now, fit, [body.place])


def news_of(before: FitsState, after: FitsState) -> Iterator[StepNews]:
    """Steps that have come to their end, and steps that are open again."""
    for step in sorted(after.complete - before.complete):
        yield StepNews(step=step, is_done=True)
    for step in sorted(before.complete - after.complete):
        yield StepNews(step=step, is_done=False, because=after.opened.get(step, (0, "a figure of it is open again"))[1])


def hear_of_step(now: FitsState, _entry: LedgerEntry, news: StepNews) -> FitsState:
    """A step was opened with what it stands on: what it measured no longer holds."""
    fits = now.book.of_step(news.step)
    if not fits or news.is_done or news.step not in now.complete:
        return now
    for fit in fits:
        now = _weighed(_without(now, fit, set(fit.by_key)), fit, list(fit.at_place))
    return now


def _without(now: FitsState, fit: PlacedFit, keys: set[str]) -> FitsState:
    own = now.of_fit(fit.fit.id)
    readings = {**now.readings, fit.fit.id: {key: read for key, read in own.items() if key not in keys}}
    gone = {fit.by_key[key].place for key in keys}
    decided = {where: one for where, one in now.decided.items() if where[0] != fit.fit.id or where[1] not in gone}
    return replace(now, readings=readings, decided=decided)


def _weighed(now: FitsState, fit: PlacedFit, changed: Iterable[str]) -> FitsState:
    """The same with the places that changed judged anew, and which of the steps has come to its end."""
    name = fit.fit.id
    places = {**now.places.get(name, {})}
    for place in changed:
        stands = _place(now, fit, place)
        if stands is None:
            places.pop(place, None)
        else:
            places[place] = stands
    now = replace(now, places={**now.places, name: places})
    step = now.book.step_of[name]
    is_whole = all(_is_whole(now, one) for one in now.book.of_step(step))
    complete = now.complete | {step} if is_whole else now.complete - {step}
    return now if complete == now.complete else replace(now, complete=complete)


def _is_whole(now: FitsState, fit: PlacedFit) -> bool:
    places = now.places.get(fit.fit.id, {})
    return all(place in places and (places[place].judged.verdict in TOLD or (fit.fit.id, place) in now.decided) for place in fit.at_place)


@kept_with
def _size_at(last: ReadSpot, sizes_mm: tuple[float, ...]) -> Size:
    """What one spot's readings say together; one more reading changes one spot of many."""
    return size_of(sizes_mm, last.read_with)


def _place(now: FitsState, fit: PlacedFit, place: str) -> PlaceStands | None:
    """A place as it stands; None while a spot is not read, or the size that goes there is not chosen."""
    read = now.of_fit(fit.fit.id)
    sides: dict[str, dict[tuple[str, str], Size]] = {key: {} for key, _ in fit.fit.sides}
    for spot in fit.at_place[place]:
        readings = read.get(spot.key)
        if not readings:
            return None
        sides[spot.side][spot.plane, spot.axis] = _size_at(readings[-1], tuple(one.size_mm for one in readings))
    outer = sides.get("outer") or sides["gap"]
    made = clearance_of(outer, sides.get("inner", {}))
    select = fit.fit.select
    if select is not None and select.measured_in is None:
        size = select.size_of(now.size_in(fit, place))
        if size is None:
            return None
        made = _with_part(made, select, size)
    return PlaceStands(clearance=made, judged=judge_clearance(made, *fit.limits_mm, fit.document.decision_rule))


def _with_part(bare: Clearance, select: Select, size_mm: float) -> Clearance:
    """The clearance once the part is in, which has a tolerance of its own."""
    taken, u = select.takes * size_mm, select.takes * select.tolerance_mm / math.sqrt(3 * select.pieces)

    def less(figure: Estimate) -> Estimate:
        return Estimate(value=figure.value - taken, u=root_sum_square(figure.u, u))

    return replace(bare, least=less(bare.least), most=less(bare.most))
