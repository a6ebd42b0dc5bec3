"""Fits as they stand on paper: every spot's size, each place's clearance with its verdict, with what it was read, and as one table."""

__all__ = ["FitLine", "FitPaper", "fit_lines", "fit_papers"]

from collections.abc import Iterator
from dataclasses import dataclass

from pydantic import BaseModel

from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.sheet import fit_sheet
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.job.view import PlaceView, SheetLine


@dataclass(frozen=True, kw_only=True)
class FitPaper:
    """One fit."""

    name: str
    limits: str
    conditions: str
    columns: tuple[str, ...]
    rows: tuple[tuple[PlaceView, SheetLine], ...]
    gauges: str
    gasket: str


class FitLine(BaseModel):
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


def fit_papers(now: FitsState) -> list[FitPaper]:
    """Return every fit that has been measured at, as it stands on paper."""
    return [_paper(now, fit, now.book.step_of[name]) for name, fit in now.book.fits.items() if now.of_fit(name)]


def _paper(now: FitsState, fit: PlacedFit, step: str) -> FitPaper:
    sheet = fit_sheet(now, fit, step)
    codes = sorted({cell.gauge for line in sheet.lines for cell in line.cells if cell and cell.gauge})
    return FitPaper(
        name=fit.fit.name,
        limits=sheet.fit.limits,
        conditions="; ".join(sheet.fit.about),
        columns=tuple(one.label for one in sheet.columns),
        rows=tuple(zip(sheet.fit.places, sheet.lines, strict=True)),
        gauges=", ".join(f"gauge {code}" for code in codes),
        gasket=sheet.gasket,
    )


def fit_lines(now: FitsState) -> Iterator[FitLine]:
    """Return every reading that stands.

    Returned: fit by fit, spot by spot, repeats one by one; sizes at 20 °C [mm].
    """
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
