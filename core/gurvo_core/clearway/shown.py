"""The clearway as it is drawn and listed: maps as stretches, least gaps by valve, how far a camshaft may still be moved, where it rests."""

__all__ = [
    "AtPlaces",
    "CamClearway",
    "ClearwayMap",
    "ClearwayShown",
    "GapRow",
    "MapPlace",
    "ParkPlace",
    "RestPlace",
    "ValveNamed",
    "at_places",
    "gap_rows",
    "map_of",
    "shown_of",
]

from collections.abc import Iterator, Mapping
from typing import Literal

import numpy as np
from pydantic import Field

from gurvo_core.clearway.at_timing import phased_words
from gurvo_core.clearway.ground import CYCLE, Ground, Mask
from gurvo_core.clearway.least import Gap, gaps_at
from gurvo_core.clearway.rest import Rest, SpringLoad, load_of
from gurvo_core.clearway.spare import least_gaps, spare_of
from gurvo_core.clearway.stands import CRANK, Stands
from gurvo_core.clearway.valves import MovingValve, unknown_valves
from gurvo_core.engine import EngineDocument, Valve
from gurvo_core.errors import ReadingError
from gurvo_core.motion.overlap import at_position, words_of_place
from gurvo_core.motion.told import clock_of, told_by
from gurvo_core.motion.twin import Shown
from gurvo_core.sentence import clock, listed

EVERY_DEG = 2
NEAREST = 4
KnownBy = Literal["document", "measured", "a guess"]


class ClearwayMap(Shown):
    """Where two shafts must not stand together, in rows over the first: stretches of the second, begin and end by turns [row steps]."""

    first: str
    second: str
    every_deg: int
    meets: list[list[int]]
    wanted: list[list[int]] = Field(description="Where less is left than is wanted")


class GapRow(Shown):
    """The least gap of one valve with everything timed, and where that is."""

    words: str
    cylinder: int
    gap_mm: float
    expanded_mm: float
    wanted_mm: float
    by_book: bool = Field(description="Whether what is wanted is the book's; the trade's else")
    at_deg: float = Field(description="Where that is [crank deg]")
    known_by: KnownBy


class RestPlace(Shown):
    """A stretch in which a camshaft rests by itself."""

    begin_deg: int
    end_deg: int
    words: str


class CamClearway(Shown):
    """One camshaft: whether enough is known of it, how far it may be moved from where it is timed, where it rests."""

    camshaft: str
    name: str
    is_known: bool
    advance_deg: float | None
    retard_deg: float | None
    spare_words: str
    most_nm: float | None = Field(description="Most that its springs turn it with [N·m]")
    rests: list[RestPlace]
    easiest: str = Field(description="Where its lobes press on its caps least")


class ValveNamed(Shown):
    """A valve at which a gap can be measured, by what its entry names."""

    key: str
    name: str
    camshaft: str
    cylinder: int
    valve: Valve
    place: str


class ParkPlace(Shown):
    """Where the book parks the crank, and what is high and pressed open there: by the lobes, else by the firing order alone."""

    name: str
    words: list[str]


class ClearwayShown(Shown):
    """All of it for one engine."""

    cams: list[CamClearway]
    pairs: list[list[str]] = Field(description="Camshafts whose valves could meet each other")
    gaps: list[GapRow]
    valves: list[ValveNamed]
    unknown: list[str] = Field(description="Lobes of which nothing can be said")
    parks: list[ParkPlace]
    would_add: str = Field(description="What one more figure would add")


def map_of(ground: Ground, first: str, second: str) -> ClearwayMap:
    """Return the map of two shafts, the crank first where it is one of them.

    Raises ReadingError where nothing is known of them together.
    """
    _must_be_known(ground, first, second)

    def mask(level: Literal["meets", "wanted"]) -> Mask:
        return ground.piston(second, level) if first == CRANK else ground.heads(first, second, level)

    return ClearwayMap(first=first, second=second, every_deg=EVERY_DEG, meets=_rows(mask("meets")), wanted=_rows(mask("wanted")))


def _must_be_known(ground: Ground, first: str, second: str) -> None:
    known = [(CRANK, cam) for cam in ground.camshafts] + list(ground.meeting)
    if (first, second) not in known:
        pairs = "; ".join(f"{one} and {other}" for one, other in known) or "none, as too little is known of its lobes and heads"
        raise ReadingError("second", second, f"there is no map of {first} and {second}; this engine has: {pairs}")


def _rows(mask: Mask) -> list[list[int]]:
    """Coarser, so that nothing that is in the way is lost."""
    steps = CYCLE // EVERY_DEG
    coarse = mask.reshape(steps, EVERY_DEG, steps, EVERY_DEG).any(axis=(1, 3))
    edged = np.diff(np.pad(coarse.astype(np.int8), ((0, 0), (1, 1))), axis=1)
    return [np.flatnonzero(row).tolist() for row in edged]


def shown_of(ground: Ground, advances_deg: Mapping[str, float]) -> ClearwayShown:
    """Return the clearway of an engine whose camshafts are off their cards by so much. advances_deg: positive = advanced [crank deg]."""
    unknown, gaps = list(dict.fromkeys(unknown_valves(ground.document))), gap_rows(ground, advances_deg)
    # worth measuring first: those that come nearest
    nearest = {gap.words.partition(" to piston")[0]: n for n, gap in enumerate(gaps)}
    return ClearwayShown(
        cams=[_cam(ground, cam.id, cam.name, advances_deg) for cam in ground.document.camshafts],
        pairs=[list(pair) for pair in ground.meeting],
        gaps=gaps,
        valves=[_named(one) for one in sorted(ground.valves, key=lambda one: nearest.get(one.spoken, len(nearest)))],
        unknown=unknown,
        parks=list(_parks(ground.document)),
        would_add=_would_add(ground, unknown),
    )


def _named(one: MovingValve) -> ValveNamed:
    return ValveNamed(key=one.key, name=one.name, camshaft=one.camshaft, cylinder=one.cylinder, valve=one.valve, place=one.place)


class MapPlace(Shown):
    """A place on the map of two shafts [crank deg]."""

    first: str
    second: str
    at: int = Field(ge=0, lt=CYCLE, description="Of the first")
    to: int = Field(ge=0, lt=CYCLE, description="Of the second")


class AtPlaces(Shown):
    """What is nearest with two shafts at some places, everything else out of the way; and how the camshaft rests there."""

    gaps: list[GapRow]
    rest: str


def at_places(ground: Ground, place: MapPlace) -> AtPlaces:
    """Return what is nearest at a place of a map, nearest first, everything else out of the way.

    Raises ReadingError where nothing is known of the two together.
    """
    _must_be_known(ground, place.first, place.second)
    own = ((place.first, place.at), (place.second, place.to))
    stands = Stands(crank=place.at if place.first == CRANK else 0, cams={name: at for name, at in own if name != CRANK})
    near = [gap for gap in gaps_at(ground, stands) if (gap.against is None) == (place.first == CRANK)]
    load = load_of(ground, place.second)
    return AtPlaces(gaps=[_gap_row(ground, gap) for gap in near[:NEAREST]], rest=_rest_there(load.at(place.to)) if load else "")


def _rest_there(rest: Rest) -> str:
    if rest.stays == "stays":
        return "it rests there"
    return f"{'it snaps' if rest.stays == 'snaps' else 'it may turn'} {rest.snaps_cam_deg:.0f}° {'on' if rest.way > 0 else 'back'}"


def _parks(document: EngineDocument) -> Iterator[ParkPlace]:
    for position in document.timing_positions:
        words = words_of_place(at_position(document, position))
        if words:
            yield ParkPlace(name=position.name, words=words)


def _gap_row(ground: Ground, gap: Gap) -> GapRow:
    by_book = gap.valve.is_least_by_book if gap.against is None else _has_book(ground)
    known_by: KnownBy = "measured" if gap.against is None and gap.valve.key in ground.measured else "document"
    return GapRow(
        words=f"{gap.words}{phased_words(gap)}",
        cylinder=gap.valve.cylinder,
        gap_mm=gap.gap.value,
        expanded_mm=gap.gap.expanded,
        wanted_mm=gap.least_mm,
        by_book=by_book,
        at_deg=gap.after_deg,
        known_by=known_by,
    )


def gap_rows(ground: Ground, advances_deg: Mapping[str, float]) -> list[GapRow]:
    """Return the least gap of every valve with everything turning together, the one with least to spare first.

    advances_deg: how far camshafts are off their cards, positive = advanced [crank deg].
    """
    return [_gap_row(ground, gap) for gap in least_gaps(ground, advances_deg)]


def _has_book(ground: Ground) -> bool:
    gaps = ground.document.least_gaps
    return gaps is not None and gaps.valves_mm is not None


def _would_add(ground: Ground, unknown: list[str]) -> str:
    if not unknown and ground.camshafts:
        return ""
    if not ground.document.firing_order:
        return (
            "In which order its cylinders fire would tell what is near the top where the crank is parked, and which valves are open there."
        )
    heads = {one.valve for one in ground.document.valves if one.to_piston_mm is None}
    if ground.valves and heads:
        sorts = listed(sorted(heads))
        return f"A dial on one shut {sorts} valve at TDC, or clay on its crown in turning over, would tell how near they all come."
    if ground.document.valves:
        return "Lobes measured over a turn, with their lash, would tell how far each valve is open at every place."
    return (
        "Sizes and places of the valves' heads would tell which of them can meet; until then the book's own place to park is what there is."
    )


def _cam(ground: Ground, cam: str, name: str, advances_deg: Mapping[str, float]) -> CamClearway:
    spare, load = spare_of(ground, cam, advances_deg), load_of(ground, cam)
    return CamClearway(
        camshaft=cam,
        name=name,
        is_known=spare is not None,
        advance_deg=spare.advance_deg if spare else None,
        retard_deg=spare.retard_deg if spare else None,
        spare_words=_spare_words(spare.advance_deg, spare.retard_deg) if spare else "",
        most_nm=float(np.abs(load.torque_nm).max()) if load else None,
        rests=list(_rests(ground, load)) if load else [],
        easiest=_at(ground, cam, load.easiest) if load else "",
    )


def _spare_words(advance_deg: float | None, retard_deg: float | None) -> str:
    ways = [f"{deg:.0f}° {way}" for deg, way in ((advance_deg, "earlier"), (retard_deg, "later")) if deg is not None]
    return f"it may still go {' and '.join(ways)}" if ways else "it may be moved as far as anybody moves it"


def _rests(ground: Ground, load: SpringLoad) -> Iterator[RestPlace]:
    """Stretches in which even the least rubbing holds it and from which it does not run away."""
    still = np.abs(load.torque_nm) <= load.rubs_nm[0]
    begins = np.flatnonzero(still & ~np.roll(still, 1))
    for begin in begins.tolist():
        end = begin
        while still[(end + 1) % CYCLE] and end - begin < CYCLE:
            end += 1
        middle = (begin + end) // 2 % CYCLE
        slope = load.torque_nm[(end + 2) % CYCLE] - load.torque_nm[(begin - 2) % CYCLE]
        if slope > 0:  # turned on the springs push back, turned back they push on
            yield RestPlace(begin_deg=begin, end_deg=end, words=_at(ground, load.camshaft, middle))


def _at(ground: Ground, cam: str, place: int) -> str:
    """Where its first mark or nose stands there."""
    first = next(iter(told_by(ground.document, cam)), None)
    deg = clock_of(ground.document, cam, first.of, place) if first else None
    return f"{first.name} at {clock(deg)}" if first is not None and deg is not None else f"{place}° of the crank"
