"""Fits as they stand on paper: every spot's size, each place's clearance with its verdict, with what it was read, and as one table."""

__all__ = ["FitLine", "fit_lines", "papers_of"]

from collections.abc import Iterator, Sequence

from gurvo_core.fits.job.sheet import fit_sheet
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.job.view import FitView, PlaceView, SheetCell, SheetLine
from gurvo_core.ledger import Facts, Judged, LedgerEntry, Paper, PaperRow, PaperTable, View
from gurvo_core.ledger.judged import APART, judged_mm

SURE = "sizes in mm at 20 °C, U: the true figure lies within it 95 times of 100"


class FitLine(View):
    """One reading that stands, for the table."""

    fit: str
    place: str
    side: str
    plane: str
    axis: str
    size_mm: float
    gauge: str
    part_c: float | None
    by: str


def papers_of(now: FitsState, _facts: Facts, _standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """Every fit that has been measured at."""
    for sheet in (fit_sheet(now, fit, now.book.step_of[name]) for name, fit in now.book.fits.items() if now.of_fit(name)):
        codes = sorted({cell.gauge for line in sheet.lines for cell in line.cells if cell and cell.gauge})
        about = "; ".join(filter(None, ["; ".join(sheet.fit.about), ", ".join(f"gauge {code}" for code in codes)]))
        limits = sheet.fit.limits if sheet.fit.limits == "no limit known" else f"limits {sheet.fit.limits}"
        table = PaperTable(
            heads=("place", *(one.label for one in sheet.columns), "clearance", "U", "verdict"),
            rows=tuple(_row(place, line) for place, line in zip(sheet.fit.places, sheet.lines, strict=True)),
        )
        yield Paper(title=sheet.fit.name, about=(limits, about, SURE), tables=(table,), says=sheet.gasket, judged=_judged(sheet.fit))


def _judged(fit: FitView) -> Judged | None:
    """From where to where its clearances came."""
    read = [(place.value_mm, place.verdict, bool(place.decided)) for place in fit.places if place.value_mm is not None]
    return judged_mm(fit.name, "" if fit.limits == "no limit known" else fit.limits, read)


def _row(place: PlaceView, line: SheetLine) -> PaperRow:
    sizes = [_size(cell) if cell else "" for cell in line.cells]
    figures = ["" if value is None else f"{value:.3f}" for value in (place.value_mm, place.u_mm)]
    notes = [place.notes, f"size {place.size}" if place.size else "", place.decided]
    return PaperRow(
        cells=("" if place.id == "it" else place.id, *sizes, *figures, place.verdict or f"{place.read} of {place.of} read"),
        is_apart=place.verdict in APART,
        note="; ".join(filter(None, notes)),
    )


def _size(cell: SheetCell) -> str:
    return f"{cell.size_mm:.3f}" + (f" ×{cell.count}" if cell.count > 1 else "")


def fit_lines(now: FitsState) -> Iterator[FitLine]:
    """Return every reading that stands. Returned: fit by fit, spot by spot, repeats one by one; sizes at 20 °C [mm]."""
    for name, fit in now.book.fits.items():
        read = now.of_fit(name)
        for spot in fit.spots:
            side = fit.side(spot.side)
            for one in read.get(spot.key, ()):
                yield FitLine(
                    fit=fit.fit.name,
                    place=spot.place,
                    side=side.name if side else spot.side,
                    plane=spot.plane,
                    axis=spot.axis,
                    size_mm=round(one.size_mm, 6),
                    gauge=one.gauge or "",
                    part_c=one.read_with.part_c,
                    by=one.by,
                )
