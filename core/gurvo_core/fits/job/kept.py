"""What the shop keeps beside an engine's ledger, all of it following from what stands: pieces taken from stock, figures to compare with."""

__all__ = ["FitFigure", "Scatter", "figures_kept", "pieces_taken", "scatter_kept"]

import math
from dataclasses import dataclass

from gurvo_core.fits.job.state import FitsState
from gurvo_core.ledger import kept_with


@dataclass(frozen=True, kw_only=True)
class FitFigure:
    """One place as it came out [mm]."""

    fit: str
    place: str
    value_mm: float


@dataclass(frozen=True, kw_only=True)
class Scatter:
    """How repeats with one gauge scattered: the sum of their squares from the mean of their spot [mm²], and how many beyond the first."""

    squares: float
    freedom: int


@kept_with
def scatter_kept(now: FitsState) -> dict[str, Scatter]:
    """Return how repeats scattered, by gauge.

    Source: [gum] 4.2.4: pooled over spots.
    >>> from gurvo_core.fits.job.state import begin_fits
    >>> scatter_kept(begin_fits(quern_4()))
    {}
    """
    found: dict[str, Scatter] = {}
    for spots in now.readings.values():
        for readings in spots.values():
            if len(readings) < 2:  # most are read once, and this is asked after every reading
                continue
            gauges = {one.gauge for one in readings}
            name = gauges.pop() if len(gauges) == 1 else None
            if not name:
                continue
            mean = math.fsum(one.size_mm for one in readings) / len(readings)
            before = found.get(name, Scatter(squares=0.0, freedom=0))
            squares = before.squares + math.fsum((one.size_mm - mean) ** 2 for one in readings)
            found[name] = Scatter(squares=round(squares, 12), freedom=before.freedom + len(readings) - 1)
    return found


def figures_kept(now: FitsState) -> list[FitFigure]:
    """Return how every place came out.

    Returned: the figure that decides [mm].
    Kept only for comparing, worked out anew at any time.
    """
    return [
        FitFigure(fit=name, place=place, value_mm=round(stands.judged.figure.value, 6))
        for name, places in now.places.items()
        for place, stands in places.items()
    ]


def pieces_taken(now: FitsState) -> dict[tuple[str, str], int]:
    """Return the pieces that an engine takes from stock."""
    taken: dict[tuple[str, str], int] = {}
    for name, places in now.sizes.items():
        fit = now.book.fits.get(name)
        select = fit.fit.select if fit else None
        if select is None:
            continue
        for size in places.values():
            if size != select.measured_in:
                taken[select.part, size] = taken.get((select.part, size), 0) + select.pieces
    return taken
