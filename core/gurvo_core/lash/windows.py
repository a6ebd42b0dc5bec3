"""Crank angles at which a valve's clearance may be set: its follower on the base circle, ramps and a margin left out.

Crank degrees after the firing TDC of the first cylinder in the firing order, 0 to 720.
"""

__all__ = ["ValveKey", "are_known", "firing_stops", "may_be_set", "two_stops", "valves_of"]

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.engine import Camshaft, EngineDocument, Lobe, Valve
from gurvo_core.engine.document import CYCLE_DEG

STEPS = 720  # a degree of the crank each
# by the usual table: an intake may be set from its cylinder's firing TDC until long before overlap, an exhaust from long after it
INTAKE_UNTIL_DEG, EXHAUST_FROM_DEG = 300.0, 420.0


@dataclass(frozen=True, order=True)
class ValveKey:
    """One valve, or those of one lobe."""

    cylinder: int
    valve: Valve
    camshaft: str
    place: str = ""

    @property
    def id(self) -> str:
        """What it is kept under."""
        return "|".join((self.camshaft, str(self.cylinder), self.valve, self.place))

    @property
    def words(self) -> str:
        """What it is called."""
        return f"cylinder {self.cylinder} {self.valve}{f', {self.place}' if self.place else ''}"


def valves_of(document: EngineDocument, cylinders: Iterable[int] = ()) -> dict[ValveKey, tuple[Camshaft, Lobe]]:
    """Return the valves that have a clearance to set, cylinder by cylinder."""
    wanted = set(cylinders)
    found = {
        ValveKey(lobe.cylinder, lobe.valve, cam.id, lobe.place): (cam, lobe)
        for cam in document.camshafts
        for lobe in cam.lobes
        if not wanted or lobe.cylinder in wanted
    }
    return dict(sorted(found.items(), key=lambda one: (one[0].cylinder, one[0].valve != "intake", one[0])))


def are_known(document: EngineDocument, valves: Mapping[ValveKey, tuple[Camshaft, Lobe]]) -> bool:
    """Return whether the shape and place of every lobe is known, so that its base circle is.

    Nothing is worked out from what is not known.
    """
    if not document.is_timed:
        return False
    profiles = {profile.id for profile in document.profiles}
    return all(
        lobe.nose_deg is not None and lobe.profile in profiles and lobe.cylinder in document.firing_deg for _, lobe in valves.values()
    )


def may_be_set(document: EngineDocument, lobe: Lobe, margin_deg: float) -> NDArray[np.bool_]:
    """Return at which crank degrees a valve may be set.

    margin_deg: crank degrees left out beyond either end of its profile [deg].
    Off its profile a lobe is base circle; a camshaft turns half as fast as the crank.
    """
    profile = next(one for one in document.profiles if one.id == lobe.profile)
    nose = document.firing_deg[lobe.cylinder] + CYCLE_DEG / 2 + (lobe.nose_after_overlap_deg or 0.0)
    begins, ends = 2 * profile.begins_deg - margin_deg, 2 * profile.ends_deg + margin_deg
    from_begin = np.mod(np.arange(STEPS) - (nose + begins), CYCLE_DEG)
    return np.asarray(from_begin >= ends - begins, dtype=np.bool_)


def firing_stops(document: EngineDocument, valves: Iterable[ValveKey]) -> list[tuple[float | None, tuple[ValveKey, ...]]]:
    """Return the safe rule where lobes are not known: every cylinder at its own firing TDC, its partner at overlap.

    Returned: crank angle [deg], None where it is not known, and the valves set there; in firing order.
    Source: Common practice.
    >>> [angle for angle, _ in firing_stops(quern_4(), valves_of(quern_4()))]
    [0.0, 180.0, 360.0, 540.0]
    """
    by_cylinder: dict[int, list[ValveKey]] = {}
    for key in valves:
        by_cylinder.setdefault(key.cylinder, []).append(key)
    known = document.firing_deg if document.is_timed and document.firing_order else {}
    ordered = sorted(by_cylinder, key=lambda cylinder: (known.get(cylinder, CYCLE_DEG), cylinder))
    return [(known.get(cylinder), tuple(by_cylinder[cylinder])) for cylinder in ordered]


def two_stops(document: EngineDocument, valves: Iterable[ValveKey]) -> list[tuple[float, tuple[ValveKey, ...]]]:
    """Return the usual table of two stops a turn apart, by the firing order alone.

    Returned: firing TDC of the first cylinder, and one turn later [deg]; empty where the table does not reach every valve.
    Source: Common practice, four-strokes of four cylinders and more.
    >>> [key.words for key in two_stops(quern_4(), valves_of(quern_4()))[0][1]]
    ['cylinder 1 intake', 'cylinder 1 exhaust', 'cylinder 2 intake', 'cylinder 3 exhaust']
    """
    if not document.firing_order or not document.is_timed:
        return []
    all_valves = list(valves)
    found: list[tuple[float, tuple[ValveKey, ...]]] = []
    for at in (0.0, CYCLE_DEG / 2):
        own = [key for key in all_valves if _by_table(key.valve, (at - document.firing_deg[key.cylinder]) % CYCLE_DEG)]
        found.append((at, tuple(key for key in own if not any(key in taken for _, taken in found))))
    return found if sum(len(own) for _, own in found) == len(all_valves) else []


def _by_table(valve: Valve, after_firing_deg: float) -> bool:
    if valve == "intake":
        return after_firing_deg <= INTAKE_UNTIL_DEG
    return after_firing_deg >= EXHAUST_FROM_DEG or after_firing_deg == 0
