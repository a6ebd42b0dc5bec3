"""Where crank and camshafts stand: by what was parked, seen, turned and laid, and how sure that is."""

__all__ = ["ShaftPlace", "Whereabouts", "names_of", "where_all_stand"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from gurvo_core.clearway.ground import CYCLE, Spread
from gurvo_core.clearway.stands import CRANK, Stands
from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import ShaftsTold

PARKED_DEG, LAID_DEG = 1.0, 2.0  # a decision of ours: how far off the crank may be at a mark, and what a laid drive takes along

How = Literal["laid", "parked", "held", "seen", "turned", "not known", "not in"]


@dataclass(frozen=True, kw_only=True)
class ShaftPlace:
    """One shaft: its place in crank degrees, how far off that may be, and how it is known."""

    shaft: str
    how: How
    place_deg: float = 0.0
    within_deg: float = 0.0
    seq: int = 0
    then: str = ""
    way: int = 0
    knows_stroke: bool = True  # of the crank: seen by its mark alone it may stand on either
    of: str = ""  # by what it was told

    @property
    def is_known(self) -> bool:
        """Whether there is a place at all."""
        return self.how not in ("not known", "not in")


@dataclass(frozen=True, kw_only=True)
class Whereabouts:
    """All of them, the crank first."""

    places: tuple[ShaftPlace, ...]
    coupled: frozenset[str]
    held: frozenset[str]
    tied: tuple[tuple[str, ...], ...] = ()  # camshafts that turn with each other and not with the crank

    @property
    def crank(self) -> ShaftPlace:
        """The crank's."""
        return self.places[0]

    def of(self, shaft: str) -> ShaftPlace:
        """One of them, by its id."""
        return next(one for one in self.places if one.shaft == shaft)

    def key_of(self, shaft: str) -> str:
        """What a shaft is called where ways are looked for: the crank has one name there, whatever its id."""
        return CRANK if shaft == self.crank.shaft else shaft

    def id_of(self, key: str) -> str:
        """The other way round."""
        return self.crank.shaft if key == CRANK else key

    @property
    def cams(self) -> tuple[ShaftPlace, ...]:
        """Camshafts that are in."""
        return tuple(one for one in self.places[1:] if one.how != "not in")

    @property
    def unknown(self) -> tuple[str, ...]:
        """Those that are in, and nobody has said where they stand."""
        return tuple(one.shaft for one in (self.crank, *self.cams) if not one.is_known)

    @property
    def stands(self) -> Stands | None:
        """As ways are looked for; None while one of them is not known."""
        if self.unknown:
            return None
        return Stands(
            crank=round(self.crank.place_deg) % CYCLE,
            cams={one.shaft: round(one.place_deg) % CYCLE for one in self.cams},
            coupled=self.coupled,
            tied=self.tied,
            held=frozenset(self._held()),
            running_only=bool(self.coupled),
        )

    def _held(self) -> Iterator[str]:
        """With the crank is held whatever turns with it, and the other way round."""
        yield from (cam.shaft for cam in self.cams if cam.shaft in self.held)
        yield from (group[0] for group in self.tied if self.held & set(group))
        if {self.crank.shaft, *self.coupled} & self.held:
            yield CRANK

    @property
    def still(self) -> frozenset[str]:
        """Camshafts of which nobody asks how they rest: held, turning with the crank, or spoken for by another."""
        kept = [group if self.held & set(group) else group[1:] for group in self.tied]
        return self.coupled | self.held | {cam for group in kept for cam in group}

    @property
    def spread(self) -> Spread:
        """How far any of them may be off."""
        within = [one.within_deg for one in self.cams if one.is_known]
        return Spread(crank_deg=round(self.crank.within_deg), cam_deg=round(max(within, default=0.0)))


def where_all_stand(document: EngineDocument, told: ShaftsTold) -> Whereabouts:
    """Return where they all stand."""
    coupled = document.drive.turning_with(told.crank, told.laid) & told.cams
    crank = _crank(document, told, told.crank)
    cams = (_cam(told, cam.id, crank, cam.id in coupled) for cam in document.camshafts)
    return Whereabouts(places=(crank, *cams), coupled=coupled, held=told.held, tied=_tied(document, told, coupled))


def _tied(document: EngineDocument, told: ShaftsTold, coupled: frozenset[str]) -> tuple[tuple[str, ...], ...]:
    alone = [cam.id for cam in document.camshafts if cam.id in told.cams and cam.id not in coupled]
    groups = [tuple(cam for cam in alone if cam in document.drive.turning_with(first, told.laid)) for first in alone]
    return tuple(dict.fromkeys(group for group in groups if len(group) > 1))


def _crank(document: EngineDocument, told: ShaftsTold, crank: str) -> ShaftPlace:
    if told.parked is not None and document.is_placed(told.parked):
        return ShaftPlace(shaft=crank, how="parked", place_deg=document.position_deg(told.parked), within_deg=PARKED_DEG)
    return _seen(told, crank) or ShaftPlace(shaft=crank, how="not known", knows_stroke=False)


def _cam(told: ShaftsTold, cam: str, crank: ShaftPlace, is_coupled: bool) -> ShaftPlace:
    if cam not in told.cams:
        return ShaftPlace(shaft=cam, how="not in")
    if is_coupled:
        if not crank.knows_stroke:
            return ShaftPlace(shaft=cam, how="not known")
        return ShaftPlace(shaft=cam, how="laid", place_deg=crank.place_deg, within_deg=LAID_DEG)
    if cam in told.held and crank.is_known and crank.knows_stroke:
        return ShaftPlace(shaft=cam, how="held", place_deg=crank.place_deg, within_deg=LAID_DEG)
    return _seen(told, cam) or ShaftPlace(shaft=cam, how="not known")


def _seen(told: ShaftsTold, shaft: str) -> ShaftPlace | None:
    seen = told.of(shaft)
    if seen is None:
        return None
    return ShaftPlace(
        shaft=shaft,
        how="turned" if seen.then else "seen",
        place_deg=seen.place_deg,
        within_deg=seen.within_deg,
        seq=seen.seq,
        then=seen.then,
        way=seen.way,
        knows_stroke=seen.knows_stroke,
        of=seen.of,
    )


def names_of(document: EngineDocument) -> Mapping[str, str]:
    """Return what shafts are called, by their ids."""
    return dict(_names(document))


def _names(document: EngineDocument) -> Iterator[tuple[str, str]]:
    yield from ((shaft.id, shaft.name) for shaft in document.drive.shafts)
    yield from ((cam.id, cam.name) for cam in document.camshafts)
