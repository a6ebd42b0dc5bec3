"""A document's fits as they are measured: which step measures which, spot by spot; kept with the document."""

__all__ = ["FitsBook", "PlacedFit", "fits_book", "where_on_it"]

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache

from gurvo_core.engine import EngineDocument, Fit, FitSide, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.fits.places import FitPlace, FitSpot, fit_places, fit_spots
from gurvo_core.sentence import at_start

DRAWN = {"mains": "crank", "rods": "crank", "cylinders": "block", "rings": "piston", "cam_journals": "head"}
AXIS_SIGNS = {"up": "↕", "across": "↔"}
AXIS_WORDS = {"up": "up and down"}
ENDS = ("front", "rear", "top", "middle", "bottom")


def where_on_it(spot: FitSpot) -> str:
    """Where on its part a spot is, as a question ends with it: “ at the front, up and down”."""
    at = f" at the {spot.plane}" if spot.plane in ENDS else f", {spot.plane}" if spot.plane else ""
    return f"{at}, {AXIS_WORDS.get(spot.axis, spot.axis)}" if spot.axis else at


@dataclass(frozen=True, kw_only=True, eq=False)
class PlacedFit:
    """One fit that is measured place by place."""

    document: EngineDocument
    fit: Fit
    is_guessed: bool

    @cached_property
    def places(self) -> tuple[FitPlace, ...]:
        """Where it is measured."""
        return fit_places(self.document, self.fit)

    @cached_property
    def spots(self) -> tuple[FitSpot, ...]:
        """Every spot, in the order in which it is read."""
        return fit_spots(self.document, self.fit)

    @cached_property
    def by_key(self) -> Mapping[str, FitSpot]:
        """The spots by their keys."""
        return {spot.key: spot for spot in self.spots}

    @cached_property
    def at_place(self) -> Mapping[str, tuple[FitSpot, ...]]:
        """The spots of each place."""
        return {place.id: tuple(spot for spot in self.spots if spot.place == place.id) for place in self.places}

    @property
    def limits_mm(self) -> tuple[float | None, float | None]:
        """What it is judged against [mm]: nothing against a guess."""
        return (None, None) if self.is_guessed else self.fit.limits_mm

    @property
    def wanted_mm(self) -> float | None:
        """What is aimed at [mm]."""
        low, high = self.fit.limits_mm
        if self.fit.wanted_mm is not None or low is None or high is None:
            return self.fit.wanted_mm
        return (low + high) / 2

    @property
    def drawn(self) -> str:
        """What it is drawn on."""
        return DRAWN.get(self.fit.at or "", "line")

    def side(self, key: str) -> FitSide | None:
        """One of its sides."""
        return next((side for name, side in self.fit.sides if name == key), None)

    def names_place(self, place: str) -> str:
        """What a place is called at the beginning of a sentence."""
        return self.fit.name if place == "it" else at_start(place)

    def called(self, spot: FitSpot) -> str:
        """What a spot is called."""
        side = self.side(spot.side)
        name = f"{self.names_place(spot.place)} {side.name if side else spot.side}"
        where = " ".join(filter(None, [spot.plane, AXIS_SIGNS.get(spot.axis, spot.axis)]))
        return f"{name}, {where}" if where else name


@dataclass(frozen=True, kw_only=True, eq=False)
class FitsBook:
    """All of a document's fits that are measured place by place, by the steps that measure them."""

    document: EngineDocument

    @cached_property
    def fits(self) -> Mapping[str, PlacedFit]:
        """The fits by id."""
        return {
            fit.id: PlacedFit(document=self.document, fit=fit, is_guessed=self.document.is_guessed(f"/fits/{at}"))
            for at, fit in enumerate(self.document.fits)
            if fit.is_placed
        }

    @cached_property
    def steps(self) -> Mapping[str, WorkStep]:
        """The steps that measure them, by id, of all variants."""
        return {step.id: step for step in self.document.work_steps if step.does == "measure" and any(fit in self.fits for fit in step.fits)}

    def of_step(self, step_id: str) -> tuple[PlacedFit, ...]:
        """The fits that a step measures; none where it is no such step."""
        step = self.steps.get(step_id)
        return tuple(self.fits[fit] for fit in step.fits if fit in self.fits) if step else ()

    def in_step(self, step_id: str, fit_id: str) -> PlacedFit | None:
        """A fit, where that step measures it."""
        return next((fit for fit in self.of_step(step_id) if fit.fit.id == fit_id), None)

    @cached_property
    def step_of(self) -> Mapping[str, str]:
        """The step that measures each fit."""
        return {fit: step.id for step in self.steps.values() for fit in step.fits if fit in self.fits}


@lru_cache(maxsize=64)
def _kept(same: Same) -> FitsBook:
    return FitsBook(document=same.document)


def fits_book(document: EngineDocument) -> FitsBook:
    """Return the fits of a document as they are measured."""
    return _kept(Same(document))
