"""Where a fit is measured: its places, from the engine or by name, and at each the spots that are read."""

__all__ = ["FitPlace", "FitSpot", "fit_places", "fit_spots"]

from dataclasses import dataclass
from functools import cached_property

from gurvo_core.engine import EngineDocument, Fit
from gurvo_core.engine.fit import SideKey

RINGS = ("top ring", "second ring", "third ring", "fourth ring")


@dataclass(frozen=True, kw_only=True)
class FitPlace:
    """One place of a fit."""

    id: str
    label: str  # short, below a drawing
    cylinder: int | None = None


@dataclass(frozen=True, kw_only=True)
class FitSpot:
    """One spot that is read: at which place, of which side, in which plane, across which axis."""

    place: str
    side: SideKey
    plane: str = ""
    axis: str = ""

    @cached_property
    def key(self) -> str:
        """What it is kept under."""
        return "|".join((self.place, self.side, self.plane, self.axis))


def fit_places(document: EngineDocument, fit: Fit) -> tuple[FitPlace, ...]:
    """Return the places of a fit, from the front.

    Source: Practice: mains are counted from the front, rods and pistons by their cylinder, rings from the crown down.
    >>> fit = Fit(id="m", name="Mains", at="mains", count=5, outer={"name": "bore"}, inner={"name": "journal"})
    >>> [place.id for place in fit_places(quern_4(), fit)][:2]
    ['main 1', 'main 2']
    """
    if fit.places:
        return tuple(FitPlace(id=name, label=name) for name in fit.places)
    if fit.at == "mains":
        return tuple(FitPlace(id=f"main {n}", label=f"main {n}") for n in range(1, (fit.count or 1) + 1))
    if fit.at in ("rods", "cylinders"):
        what = "rod" if fit.at == "rods" else "cylinder"
        return tuple(FitPlace(id=f"{what} {n}", label=str(n), cylinder=n) for n in document.cylinders)
    if fit.at == "rings":
        rings = RINGS[: fit.count or 2]
        return tuple(
            FitPlace(id=f"cylinder {n}, {ring}", label=f"{n} {ring[:1]}", cylinder=n) for n in document.cylinders for ring in rings
        )
    if fit.at == "cam_journals":
        count = range(1, (fit.count or 1) + 1)
        alone = len(document.camshafts) == 1
        return tuple(
            FitPlace(id=f"cam journal {n}" if alone else f"{cam.name}, journal {n}", label=f"{n}")
            for cam in document.camshafts
            for n in count
        )
    return (FitPlace(id="it", label=""),)


def fit_spots(document: EngineDocument, fit: Fit) -> tuple[FitSpot, ...]:
    """Return every spot of a fit in the order in which it is read: all of one side before the next."""
    places = fit_places(document, fit)
    return tuple(
        FitSpot(place=place.id, side=key, plane=plane, axis=axis)
        for key, side in fit.sides
        for place in places
        for plane in side.planes or ("",)
        for axis in side.axes or ("",)
    )
