"""What a reading and a decision do to a fit: its places judged anew, and what becomes of its step."""

__all__ = ["hear_of_step", "news_of", "weighed", "without_readings"]

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace

from gurvo_core.engine import Select
from gurvo_core.fits.clearance import Clearance, Size, clearance_of, size_of
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.state import FitsState, PlaceStands, ReadSpot
from gurvo_core.fits.judged import judge_clearance
from gurvo_core.ledger import LedgerEntry, StepNews, kept_with
from gurvo_core.uncertainty import Estimate, root_sum_square

TOLD = ("in", "no limit known")


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
        now = weighed(without_readings(now, fit, set(fit.by_key)), fit, list(fit.at_place))
    return now


def without_readings(now: FitsState, fit: PlacedFit, keys: set[str]) -> FitsState:
    """The same without what was read at some spots, and without what was decided of their places."""
    own = now.of_fit(fit.fit.id)
    readings = {**now.readings, fit.fit.id: {key: read for key, read in own.items() if key not in keys}}
    gone = {fit.by_key[key].place for key in keys}
    decided = {where: one for where, one in now.decided.items() if where[0] != fit.fit.id or where[1] not in gone}
    return replace(now, readings=readings, decided=decided)


def weighed(now: FitsState, fit: PlacedFit, changed: Iterable[str]) -> FitsState:
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
