"""What stands of the fits: every reading, sizes chosen, decisions. Frozen; made anew by every entry that changes it."""

__all__ = ["FitDecision", "FitsState", "PlaceStands", "ReadSpot", "SideReady", "begin_fits", "spots_left"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from gurvo_core.engine import EngineDocument
from gurvo_core.fits.clearance import Clearance, ReadWith
from gurvo_core.fits.job.book import FitsBook, PlacedFit, fits_book
from gurvo_core.fits.judged import JudgedEnd
from gurvo_core.fits.places import FitSpot


@dataclass(frozen=True, kw_only=True)
class SideReady:
    """With what a side is read."""

    seq: int
    gauge: str | None
    read_with: ReadWith
    set_to_mm: float | None  # what a comparator was set to
    scale: float = 1.0  # of what counts to what the gauge shows: a backlash read at another radius
    range_mm: tuple[float | None, float | None] = (None, None)  # of its gauge


@dataclass(frozen=True, kw_only=True)
class ReadSpot:
    """One reading at a spot, at 20 °C."""

    seq: int
    size_mm: float
    gauge: str | None
    read_with: ReadWith
    by: str
    at: datetime
    because: str = ""


@dataclass(frozen=True, kw_only=True)
class PlaceStands:
    """A place whose spots are all read."""

    clearance: Clearance
    judged: JudgedEnd


@dataclass(frozen=True, kw_only=True)
class FitDecision:
    """What was decided of a place."""

    seq: int
    decision: str
    reason: str
    by: str


@dataclass(frozen=True, kw_only=True)
class FitsState:
    """All that stands."""

    document: EngineDocument
    book: FitsBook
    ready: Mapping[tuple[str, str], SideReady] = field(default_factory=dict)  # by fit and side
    readings: Mapping[str, Mapping[str, tuple[ReadSpot, ...]]] = field(default_factory=dict)  # by fit, by the key of the spot
    places: Mapping[str, Mapping[str, PlaceStands]] = field(default_factory=dict)  # by fit and place
    sizes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)  # by fit and place
    decided: Mapping[tuple[str, str], FitDecision] = field(default_factory=dict)  # by fit and place
    complete: frozenset[str] = frozenset()  # steps
    opened: Mapping[str, tuple[int, str]] = field(default_factory=dict)  # steps open again: since which entry, and why

    def of_fit(self, fit_id: str) -> Mapping[str, tuple[ReadSpot, ...]]:
        """The readings of a fit by spot."""
        return self.readings.get(fit_id, {})

    def size_in(self, fit: PlacedFit, place: str) -> str | None:
        """The size that is in at a place by name; None while none is chosen."""
        measured_in = fit.fit.select.measured_in if fit.fit.select else None
        return self.sizes.get(fit.fit.id, {}).get(place, measured_in)

    def stands(self, fit_id: str, place: str) -> PlaceStands | None:
        """A place of a fit, once it is all read."""
        return self.places.get(fit_id, {}).get(place)


def begin_fits(document: EngineDocument) -> FitsState:
    """Return what stands before anything is entered."""
    return FitsState(document=document, book=fits_book(document))


def spots_left(now: FitsState, fit: PlacedFit) -> list[FitSpot]:
    """Return the spots of a fit that have not been read."""
    done = now.of_fit(fit.fit.id)
    return [spot for spot in fit.spots if spot.key not in done]
