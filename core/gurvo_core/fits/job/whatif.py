"""Compression ratio and squish of every cylinder, as measured, or with another gasket or a skimmed head."""

__all__ = ["ChamberAsked", "ChamberRow", "ChamberView", "chamber_view"]

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.engine import Chamber, HeadGasket
from gurvo_core.engine.cranktrain import Cranktrain
from gurvo_core.errors import FigureError, GeometryError
from gurvo_core.fits.chamber import GasketChoice, chamber_figures, choose_gasket
from gurvo_core.fits.job.state import FitsState
from gurvo_core.ledger import View
from gurvo_core.motion.frames import slider_of
from gurvo_core.sentence import at_start
from gurvo_core.uncertainty import Estimate


class ChamberAsked(BaseModel):
    """What if: another gasket, so much off the head."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    gasket: str = Field(default="", max_length=40, description="Id of a gasket; the one by the highest piston when left out")
    skimmed_mm: float = Field(default=0, ge=0, le=10, description="Taken off the head [mm]")


class ChamberRow(View):
    """One cylinder."""

    cylinder: int
    proud_mm: float
    is_measured: bool = Field(description="Whether it was measured; else it is from the document's own dimensions")
    ratio: float | None
    squish_mm: float
    notes: list[str]


class ChamberView(View):
    """All of them."""

    gasket: str
    says: str
    gaskets: list[str]
    skimmed_mm: float
    rows: list[ChamberRow]


def chamber_view(now: FitsState, asked: ChamberAsked) -> ChamberView | None:
    """Return what every cylinder comes to.

    Raises FigureError if it has no such gasket.
    """
    chamber = now.document.chamber
    if chamber is None or not chamber.gaskets:
        return None
    proud = _proud(now, chamber)
    if not proud:
        return None
    choice = choose_gasket(chamber.gaskets, {f"Cylinder {number}": height for number, (height, _) in proud.items()})
    gasket = _gasket(chamber, asked.gasket or choice.gasket or chamber.gaskets[-1].id)
    rows = [_row(now, chamber, gasket, number, asked.skimmed_mm) for number in proud]
    return ChamberView(
        gasket=gasket.id, says=_says(choice, asked), gaskets=[one.id for one in chamber.gaskets], skimmed_mm=asked.skimmed_mm, rows=rows
    )


def _says(choice: GasketChoice, asked: ChamberAsked) -> str:
    said = f"{at_start(choice.sentence)}."
    return f"What if gasket {asked.gasket}. By what was measured: {choice.sentence}." if asked.gasket else said


def _gasket(chamber: Chamber, name: str) -> HeadGasket:
    found = next((one for one in chamber.gaskets if one.id == name), None)
    if found is None:
        there = ", ".join(one.id for one in chamber.gaskets)
        raise FigureError("gasket", name, f"there is no gasket {name}; there are {there}")
    return found


def _proud(now: FitsState, chamber: Chamber) -> dict[int, tuple[Estimate, bool]]:
    """How far each piston stands above the deck [mm], and whether that was measured."""
    places = now.places.get(chamber.protrusion_fit or "", {})
    fit = now.book.fits.get(chamber.protrusion_fit or "")
    measured = {place.cylinder: places[place.id].judged.figure for place in fit.places if place.id in places} if fit else {}
    found = {}
    for number in now.document.cylinders:
        below = now.document.bank_of(number).cranktrain.deck_clearance_mm
        if number in measured:
            found[number] = (measured[number], True)
        elif below is not None:
            found[number] = (Estimate(value=-below, u=0.0), False)
    return found


def _row(now: FitsState, chamber: Chamber, gasket: HeadGasket, number: int, skimmed_mm: float) -> ChamberRow:
    stands, is_measured = _proud(now, chamber)[number]
    height = stands.value
    train: Cranktrain = now.document.bank_of(number).cranktrain
    slider = slider_of(now.document, number)  # the piston travels further than the stroke where its pin stands beside the crank
    notes = []
    ratio, squish = None, gasket.squeezed_mm - height
    if train.bore_mm is None or train.stroke_mm is None:
        notes.append("bore or stroke is not known: no ratio")
    else:
        try:
            figures = chamber_figures(
                chamber,
                gasket,
                bore_mm=train.bore_mm,
                stroke_mm=slider.travel_mm if slider else train.stroke_mm,
                proud_mm=height,
                skimmed_mm=skimmed_mm,
            )
            ratio = round(figures.ratio, 2)
        except GeometryError as error:
            notes.append(error.rule)
    if gasket.most_proud_mm is not None and height > gasket.most_proud_mm:
        notes.append(f"the piston stands higher than this gasket is for ({gasket.most_proud_mm:g} mm)")
    if chamber.least_squish_mm is not None and squish < chamber.least_squish_mm:
        notes.append(f"squish below {chamber.least_squish_mm:g} mm")
    low, high = chamber.least_ratio, chamber.most_ratio
    if ratio is not None and ((low is not None and ratio < low) or (high is not None and ratio > high)):
        notes.append(f"ratio beyond {low or 0:g} to {high or 0:g}")
    return ChamberRow(
        cylinder=number, proud_mm=round(height, 4), is_measured=is_measured, ratio=ratio, squish_mm=round(squish, 4), notes=notes
    )
