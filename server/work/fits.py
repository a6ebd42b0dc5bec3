"""Fits and lash beside the ledger: pieces taken from stock, figures to compare with, and whole sheets as they are looked at."""

from collections import defaultdict
from typing import Any

from django.http import Http404

from gurvo_core.fits.job import FitsState
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.intake import SheetRead, intake_of
from gurvo_core.fits.job.kept import figures_kept, pieces_taken, scatter_kept
from gurvo_core.fits.job.sheet import Others, fit_sheet
from gurvo_core.fits.job.view import FitSheet
from gurvo_core.lash.job import LashState
from gurvo_core.lash.job.kept import shims_taken
from gurvo_core.lash.job.sheet import lash_sheet
from gurvo_core.lash.job.view import LashSheet
from gurvo_core.ledger import Folded
from shop.gauges import keep_scatter, shelf
from shop.models import Gauge
from shop.stock import free_stock, take_stock
from work import bridge
from work.models import Engine, FitFigure

COMPARED = 60  # engines of a family, the newest figures first


def _rooms(folded: Folded) -> tuple[FitsState, LashState] | None:
    """The two rooms, where the house has them."""
    if "fits" not in folded.states or "lash" not in folded.states:
        return None
    return folded.states["fits"], folded.states["lash"]


def figures_of(engine: Engine, ledger: bridge.Ledger) -> list[tuple[Any, ...]]:
    """How places of an engine's fits came out, as rows."""
    rooms = _rooms(ledger.folded)
    return [(engine.about.family, one.fit, one.place, one.value_mm) for one in figures_kept(rooms[0])] if rooms else []


def taken_of(_engine: Engine, ledger: bridge.Ledger) -> list[tuple[Any, ...]]:
    """What an engine takes from stock, as rows."""
    rooms = _rooms(ledger.folded)
    taken = pieces_taken(rooms[0]) | shims_taken(rooms[1]) if rooms else {}
    return [(part, size, pieces) for (part, size), pieces in taken.items() if pieces]


def scatter_of(_engine: Engine, ledger: bridge.Ledger) -> list[tuple[Any, ...]]:
    """How repeats scattered on an engine, as rows, of gauges that the shop has."""
    rooms = _rooms(ledger.folded)
    own = scatter_kept(rooms[0]) if rooms else {}
    there = set(Gauge.objects.filter(pk__in=own).values_list("pk", flat=True))
    return [(code, one.squares, one.freedom) for code, one in own.items() if code in there]


def keep_fits(engine: Engine, before: Folded, after: Folded) -> None:
    """Keep what an entry changed: what is taken from stock, how repeats scattered, and how places came out."""
    was, now = _rooms(before), _rooms(after)
    if was is None or now is None or (was[0] is now[0] and was[1] is now[1]):
        return
    taken = [pieces_taken(fits) | shims_taken(lash) for fits, lash in (was, now)]
    if taken[0] != taken[1]:
        take_stock(engine.serial, taken[1])
    scatter = [scatter_kept(fits) for fits, _ in (was, now)]
    if scatter[0] != scatter[1]:
        keep_scatter(engine.serial, *scatter)
    figures = [figures_kept(fits) for fits, _ in (was, now)]
    if figures[0] != figures[1]:
        FitFigure.objects.filter(engine=engine).delete()
        family = engine.about.family
        rows = [FitFigure(engine=engine, family=family, fit=one.fit, place=one.place, value_mm=one.value_mm) for one in figures[1]]
        FitFigure.objects.bulk_create(rows)


def _fit(engine: Engine, step: str, fit: str) -> tuple[FitsState, PlacedFit]:
    now: FitsState = bridge.ledger_of(engine).folded.states["fits"]
    placed = now.book.in_step(step, fit)
    if placed is None:
        raise Http404
    return now, placed


def sheet_of(engine: Engine, step: str, fit: str) -> FitSheet:
    """Return all of one fit, with the shelf's gauges, the free stock, and how other engines of the family came out."""
    now, placed = _fit(engine, step, fit)
    stock = free_stock(engine.serial) if placed.fit.select else None
    return fit_sheet(now, placed, step, gauges=shelf(), stock=stock, others=_others(engine, fit))


def _others(engine: Engine, fit: str) -> dict[str, Others]:
    family: Any = FitFigure.objects.filter(family=engine.about.family, fit=fit).exclude(engine=engine)
    values: dict[str, list[float]] = defaultdict(list)
    for place, value_mm in family.order_by("-pk").values_list("place", "value_mm")[: COMPARED * 100]:
        if len(values[place]) < COMPARED:
            values[place].append(value_mm)
    return {place: Others(values_mm=own) for place, own in values.items()}


def intake(engine: Engine, step: str, fit: str, text: str) -> SheetRead:
    """Return what a pasted sheet says, before any of it is kept."""
    now, placed = _fit(engine, step, fit)
    return intake_of(now, placed, step, text)


def shims_of(engine: Engine, step: str) -> LashSheet:
    """Return what shims would give for a step's valves."""
    now: LashState = bridge.ledger_of(engine).folded.states["lash"]
    if not now.book.valves(step):
        raise Http404
    return lash_sheet(now, step, free_stock(engine.serial))
