"""What the shop keeps beside an engine's ledger, all of it following from what stands: pieces taken from stock, figures to compare with."""

__all__ = ["FitFigure", "figures_kept", "pieces_taken"]

from dataclasses import dataclass

from gurvo_core.fits.job.state import FitsState


@dataclass(frozen=True, kw_only=True)
class FitFigure:
    """One place as it came out [mm]."""

    fit: str
    place: str
    value_mm: float


def figures_kept(now: FitsState) -> list[FitFigure]:
    """Return how every place came out.

    Parameters
    ----------
    now : FitsState
        What stands.

    Returns
    -------
    figures : list of FitFigure
        The figure that decides [mm].

    Source
    ------
    House rule: kept only for comparing, worked out anew at any time.

    Example
    -------
    >>> from gurvo_core.fits.job.state import begin_fits
    >>> figures_kept(begin_fits(quern_4()))
    []
    """
    return [
        FitFigure(fit=name, place=place, value_mm=round(stands.judged.figure.value, 6))
        for name, places in now.places.items()
        for place, stands in places.items()
    ]


def pieces_taken(now: FitsState) -> dict[tuple[str, str], int]:
    """Return the pieces that an engine takes from stock.

    Parameters
    ----------
    now : FitsState
        What stands.

    Returns
    -------
    pieces : dict
        Count by part and size; what was in the engine when it was measured is not taken.

    Source
    ------
    House rule.

    Example
    -------
    >>> from gurvo_core.fits.job.state import begin_fits
    >>> pieces_taken(begin_fits(quern_4()))
    {}
    """
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
