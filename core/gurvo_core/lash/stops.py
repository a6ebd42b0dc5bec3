"""The fewest crank stops at which all valves can be set: an exact set cover over the crank's 720 degrees."""

__all__ = ["LashStops", "Stop", "StopWay", "fewest_stops", "stops_for"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.engine.same import Same
from gurvo_core.errors import NotConverged
from gurvo_core.lash.windows import STEPS, ValveKey, are_known, firing_stops, may_be_set, two_stops, valves_of

StopWay = Literal["fewest", "book", "firing"]
OFF_TDC = 1e-3  # of two covers alike in number the one whose stops are TDCs, which everybody finds
AWAY = 1e-4  # and then the one that has a stop where the crank stands
CHOSEN = 0.5


@dataclass(frozen=True, kw_only=True)
class Stop:
    """One place of the crank, and the valves set there."""

    crank_deg: float | None  # None where nobody knows: found at the engine
    valves: tuple[ValveKey, ...]
    cylinder: int | None = None  # whose firing TDC it is, where it is one


@dataclass(frozen=True, kw_only=True)
class LashStops:
    """How all valves are reached."""

    stops: tuple[Stop, ...]
    way: StopWay
    words: str


def fewest_stops(
    allowed: Mapping[ValveKey, NDArray[np.bool_]], tdcs_deg: Sequence[float] = (), begin_deg: float = 0.0
) -> list[tuple[float, tuple[ValveKey, ...]]]:
    """Return the fewest crank angles at which every valve may be set.

    tdcs_deg: angles that are easily found, taken where they serve as well [deg].
    begin_deg: where the crank stands: the stops begin there, in the running way [deg].
    Returned: crank angle [deg] and the valves set there, each valve once.
    Raises NotConverged if some valve may be set nowhere.
    Source: Exact set cover, as an integer program by scipy's milp (HiGHS).
    >>> half = np.arange(720) < 360
    >>> one, two, three = ValveKey(1, "intake", "c"), ValveKey(1, "exhaust", "c"), ValveKey(2, "intake", "c")
    >>> found = fewest_stops({one: half, two: ~half, three: half}, [0, 360])
    >>> [(angle, len(keys)) for angle, keys in found]
    [(0.0, 2), (360.0, 1)]
    """
    keys = list(allowed)
    if not keys:
        return []
    table = np.array([allowed[key] for key in keys])
    if not table.any(axis=1).all():
        lost = [key.words for key, row in zip(keys, table, strict=True) if not row.any()]
        raise NotConverged("margin_deg", lost, f"{lost[0]} may be set at no crank angle: its margin leaves nothing of the base circle")
    sets, which = np.unique(table, axis=1, return_inverse=True)
    which = which.ravel()
    places = [np.flatnonzero(which == n) for n in range(sets.shape[1])]
    angles = [_best(place, tdcs_deg, begin_deg) for place in places]
    cost = np.array(
        [1 + (0 if _is_among(angle, tdcs_deg) else OFF_TDC) + (0 if _is_among(angle, [begin_deg]) else AWAY) for angle in angles]
    )
    once = scipy.optimize.LinearConstraint(sets.astype(float), lb=1)
    solved = scipy.optimize.milp(cost, constraints=once, integrality=np.ones(len(cost)), bounds=scipy.optimize.Bounds(0, 1))
    if solved.x is None:
        raise NotConverged("stops", solved.status, f"no set of stops was found: {solved.message}")
    chosen = sorted((angles[n] for n in np.flatnonzero(solved.x > CHOSEN)), key=lambda angle: (angle - begin_deg) % CYCLE_DEG)
    return _shared_out(keys, table, chosen)


def _best(place: NDArray[np.intp], tdcs_deg: Sequence[float], begin_deg: float) -> float:
    """The angle to turn to among those that serve alike: where the crank stands, a TDC, or the middle of the widest run of them."""
    there = set(place.tolist())
    for wanted in (begin_deg, *tdcs_deg):
        if round(wanted) % STEPS in there and abs(wanted - round(wanted)) < CHOSEN:
            return float(wanted % CYCLE_DEG)
    breaks = np.flatnonzero(np.diff(place) > 1)
    runs = np.split(place, breaks + 1)
    if len(runs) > 1 and place[0] == 0 and place[-1] == STEPS - 1:  # the circle has no end
        runs = [np.concatenate([runs[-1] - STEPS, runs[0]]), *runs[1:-1]]
    widest = max(runs, key=len)
    return float(widest[len(widest) // 2] % STEPS)


def _is_among(angle: float, wanted: Sequence[float]) -> bool:
    return any(abs((angle - one + CYCLE_DEG / 2) % CYCLE_DEG - CYCLE_DEG / 2) < CHOSEN for one in wanted)


def _shared_out(keys: list[ValveKey], table: NDArray[np.bool_], angles: list[float]) -> list[tuple[float, tuple[ValveKey, ...]]]:
    """Each valve at the first stop that reaches it."""
    left, found = set(range(len(keys))), []
    for angle in angles:
        own = [n for n in sorted(left) if table[n, round(angle) % STEPS]]
        left -= set(own)
        found.append((angle, tuple(keys[n] for n in own)))
    return [one for one in found if one[1]]


@lru_cache(maxsize=256)
def _kept(same: Same, way: str, cylinders: tuple[int, ...], begin_deg: float) -> LashStops:
    return _worked_out(same.document, way, cylinders, begin_deg)


def stops_for(document: EngineDocument, way: str, cylinders: Sequence[int] = (), begin_deg: float = 0.0) -> LashStops:
    """Return the stops at which an engine's valves are set. begin_deg: where the crank stands [deg]."""
    return _kept(Same(document), way, tuple(cylinders), begin_deg)


def _worked_out(document: EngineDocument, way: str, cylinders: tuple[int, ...], begin_deg: float) -> LashStops:
    valves = valves_of(document, cylinders)
    if way == "book" and document.lash_stops:
        return _by_book(document, valves, begin_deg)
    if way == "firing" or not are_known(document, valves):
        unknown = "" if way == "firing" else "Shape or place of the lobes is not known: "
        stops = [_stop(document, angle, keys) for angle, keys in firing_stops(document, valves)]
        at_overlap = ", its partner at overlap" if len(document.firing_deg) > 1 else ""
        words = f"{unknown}each cylinder at its own firing TDC{at_overlap}."
        return LashStops(stops=_from(tuple(stops), begin_deg), way="firing", words=words[0].upper() + words[1:])
    margins = {one.valve: one.margin_deg for one in document.lash}
    allowed = {key: may_be_set(document, lobe, margins.get(key.valve, 10.0)) for key, (_, lobe) in valves.items()}
    tdcs = sorted(set(document.firing_deg.values()))
    found = fewest_stops(allowed, tdcs, begin_deg)
    return LashStops(
        stops=tuple(_stop(document, angle, keys) for angle, keys in found),
        way="fewest",
        words=_against_table(document, allowed, [angle for angle, _ in found]),
    )


def _against_table(document: EngineDocument, allowed: Mapping[ValveKey, NDArray[np.bool_]], stops_deg: Sequence[float]) -> str:
    """Whether the usual table of two stops holds for these lobes, and what breaks it; these stops are its own only where it has them."""
    count = len(stops_deg)
    said = f"{NUMBERS[count - 1]} stop{'s' if count > 1 else ''}" if count <= len(NUMBERS) else f"{count} stops"
    table = two_stops(document, allowed)
    if not table or count == 1:
        return f"{said} reach{'es' if count == 1 else ''} every valve with its follower on the base circle."
    broken = [key.words for angle, keys in table for key in keys if not allowed[key][round(angle) % STEPS]]
    if not broken:
        is_the_table = {round(deg) % STEPS for deg in stops_deg} == {round(deg) % STEPS for deg, _ in table}
        return f"{said}, as the usual table for this firing order has them." if is_the_table else f"{said}; the usual table holds too."
    return f"{said}. The usual table of two does not hold for this cam: {broken[0]} is not on its base circle there."


NUMBERS = ("One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight")


def _by_book(document: EngineDocument, valves: Mapping[ValveKey, object], begin_deg: float) -> LashStops:
    found = []
    for stop in document.lash_stops:
        own = {(one.cylinder, one.valve) for one in stop.valves}
        keys = tuple(key for key in valves if (key.cylinder, key.valve) in own)
        angle = document.firing_deg.get(stop.cylinder) if document.is_timed else None
        found.append(Stop(crank_deg=angle, valves=keys, cylinder=stop.cylinder))
    stops = tuple(stop for stop in found if stop.valves)
    return LashStops(stops=_from(stops, begin_deg), way="book", words=f"{len(stops)} stops, as the book has them.")


def _stop(document: EngineDocument, angle: float | None, keys: tuple[ValveKey, ...]) -> Stop:
    if angle is None:
        return Stop(crank_deg=None, valves=keys, cylinder=keys[0].cylinder)
    at = [cylinder for cylinder, firing in document.firing_deg.items() if _is_among(angle, [firing])]
    return Stop(crank_deg=angle, valves=keys, cylinder=at[0] if at else None)


def _from(stops: tuple[Stop, ...], begin_deg: float) -> tuple[Stop, ...]:
    """In the running way, beginning where the crank stands."""
    return tuple(sorted(stops, key=lambda stop: CYCLE_DEG if stop.crank_deg is None else (stop.crank_deg - begin_deg) % CYCLE_DEG))
