"""What entries about fits name: their gauge, and what is measured as it is called today."""

__all__ = ["gauge_named", "named_today"]

from collections.abc import Sequence

from gurvo_core.engine import EngineDocument
from gurvo_core.fits.job.book import fits_book
from gurvo_core.fits.job.entries import FitChosen, FitDecided, FitReading, FitsReady
from gurvo_core.fits.places import FitSpot
from gurvo_core.ledger import LENGTH_GAUGES, Body, LedgerEntry, NamedGauge

Named = FitsReady | FitReading | FitChosen | FitDecided


def named_today(body: Named, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Body:
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


def gauge_named(body: FitsReady | FitReading) -> tuple[NamedGauge, ...]:
    """The gauge, where one is named."""
    return (NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "gauge for lengths"),) if body.gauge else ()
