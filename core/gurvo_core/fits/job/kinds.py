"""The fits' kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.fits.job import rules, take, words
from gurvo_core.fits.job.book import fits_book
from gurvo_core.fits.job.entries import FitChosen, FitDecided, FitReading, FitsReady
from gurvo_core.fits.job.figures import reading_si
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.places import FitSpot
from gurvo_core.ledger import LENGTH_GAUGES, Body, Kind, LedgerEntry, NamedGauge

Named = FitsReady | FitReading | FitChosen | FitDecided


def _named(body: Named, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Body:
    """Keep what is measured as it is called today: the tape says it the same for ever."""
    fit = fits_book(document).in_step(body.step, body.fit) if body.called is None else None
    if fit is None:
        return body
    if isinstance(body, FitReading):
        called = fit.called(FitSpot(place=body.place, side=body.side, plane=body.plane, axis=body.axis))
    elif isinstance(body, FitsReady):
        side = fit.side(body.side)
        called = f"{fit.fit.name}, {side.name if side else body.side}"
    else:
        called = f"{fit.fit.name}, {body.place}" if isinstance(body, FitDecided) and body.place != "it" else fit.fit.name
    return body.model_copy(update={"called": called[:80]})


def _si(now: FitsState, body: FitReading) -> dict[str, float]:
    fit = now.book.in_step(body.step, body.fit)
    side = fit.side(body.side) if fit else None
    return reading_si(body, now.ready.get((body.fit, body.side)), side.nominal_mm if side else None)


def _gauge(body: FitsReady | FitReading) -> tuple[NamedGauge, ...]:
    return (NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "gauge for lengths"),) if body.gauge else ()


KINDS: tuple[Kind[Any, FitsState], ...] = (
    Kind(body=FitsReady, does="look", settle=_named, words=words.say_ready, take=take.take_ready, check=rules.check_ready, gauges=_gauge),
    Kind(
        body=FitReading,
        does="look",
        settle=_named,
        words=words.say_reading,
        take=take.take_reading,
        check=rules.check_reading,
        gauges=_gauge,
        si_values=_si,
    ),
    Kind(
        body=FitChosen,
        does="decide",
        settle=_named,
        words=words.say_chosen,
        take=take.take_chosen,
        check=rules.check_chosen,
        asks_stock=True,
    ),
    Kind(
        body=FitDecided,
        happening="clearance decided",
        does="decide",
        settle=_named,
        words=words.say_decided,
        take=take.take_decided,
        check=rules.check_decided,
    ),
)
