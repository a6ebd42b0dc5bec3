"""A pasted sheet against what stands: each figure with the entry it would make, or why it would not be taken."""

__all__ = ["SheetNot", "SheetRead", "SheetReading", "intake_of"]

from pydantic import Field

from gurvo_core.errors import CoreError
from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitReading
from gurvo_core.fits.job.rules import check_reading
from gurvo_core.fits.job.state import FitsState
from gurvo_core.fits.places import FitSpot
from gurvo_core.fits.sheet import SheetRow, read_sheet
from gurvo_core.ledger import Facts, View
from gurvo_core.units import Unit


class SheetReading(View):
    """One cell that would be taken."""

    line: int
    called: str
    entry: FitReading
    ask: str = Field(description="What would be asked about it; empty where it is taken as it is")


class SheetNot(View):
    """One cell that would not."""

    line: int
    text: str
    why_not: str


class SheetRead(View):
    """What a sheet says."""

    taken: list[SheetReading]
    not_taken: list[SheetNot]


def intake_of(now: FitsState, fit: PlacedFit, step_id: str, text: str, *, unit: Unit = "mm") -> SheetRead:
    """Return what a pasted sheet says."""
    called = {key: side.name for key, side in fit.fit.sides}
    taken: list[SheetReading] = []
    refused: list[SheetNot] = []
    for row in read_sheet(text, fit.spots, called):
        why_not = row.why_not
        if row.spot is not None:
            entry = _entry(fit, step_id, row, row.spot, unit)
            ask, why_not = _asked(now, fit.called(row.spot), entry)
            if not why_not:
                taken.append(SheetReading(line=row.line, called=fit.called(row.spot), entry=entry, ask=ask))
                continue
        refused.append(SheetNot(line=row.line, text=row.text, why_not=why_not))
    return SheetRead(taken=taken, not_taken=refused)


def _entry(fit: PlacedFit, step_id: str, row: SheetRow, spot: FitSpot, unit: Unit) -> FitReading:
    where = {name: getattr(spot, name) for name in ("place", "side", "plane", "axis")}
    reading = {"text": row.text[:40], "unit": unit}
    return FitReading.model_validate({"kind": "fit_reading", "step": step_id, "fit": fit.fit.id, **where, "reading": reading})


def _asked(now: FitsState, called: str, entry: FitReading) -> tuple[str, str]:
    """What would be asked about it, and why it would not be taken at all."""
    try:
        objections = list(check_reading(now, entry, Facts()))
    except CoreError as error:
        return "", f"{called}: {error.rule}"
    final = next((one for one in objections if one.way_out == "none"), None)
    return "; ".join(one.rule for one in objections), f"{called}: {final.rule}" if final else ""
