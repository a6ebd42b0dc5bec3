"""The valves that can meet something: where each head sits, how near it comes to its piston, and how sure that is.

``to_piston_mm`` is measured along the valve's own axis, shut, with the piston at TDC. A pocket that is parallel to the valve falls away by
the cosine of the valve's angle for each mm the piston goes down; a flat crown by one over it. While nobody knows which it is, the pocket
is taken: it leaves less.
"""

__all__ = ["MovingValve", "moving_valves", "unknown_valves", "valve_key"]

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from gurvo_core.engine import Camshaft, EngineDocument, Lobe, Valve, ValveHead
from gurvo_core.motion.frames import slider_of, timed_cylinders
from gurvo_core.uncertainty import Estimate

# source: common practice; the least gaps builders want where their book names none
USUAL_LEAST_MM: dict[Valve, float] = {"intake": 2.0, "exhaust": 2.5}
# expanded; a decision of ours: deck, gasket, seats and crowns of an engine that was rebuilt, against its book
U_BY_BOOK_MM = 0.4
U_BY_GUESS_MM = 1.5


@dataclass(frozen=True, kw_only=True)
class MovingValve:
    """One valve: its lobe, where its head sits in the chamber, and its gap to the piston at TDC while it is shut."""

    camshaft: str
    lobe: int
    cylinder: int
    valve: Valve
    place: str
    head: ValveHead
    along_mm: float
    roof_mm: float  # how far above the deck its middle sits while shut
    shut_mm: Estimate | None  # None: nobody knows how near it comes to the piston
    falls: float  # along its axis, for each mm that the piston goes down
    least_mm: float
    is_least_by_book: bool

    @property
    def name(self) -> str:
        """As one says it: intake 2, exhaust 3 front."""
        return f"{self.valve} {self.cylinder}{f' {self.place}' if self.place else ''}"

    @property
    def spoken(self) -> str:
        """The same without telling twins apart: they do alike."""
        return f"{self.valve} {self.cylinder}"

    @property
    def key(self) -> str:
        """What a measured gap of it is kept under."""
        return valve_key(self.camshaft, self.cylinder, self.valve, self.place)


def valve_key(camshaft: str, cylinder: int, valve: Valve, place: str) -> str:
    """Return what is kept of a valve is kept under."""
    return f"{camshaft}:{cylinder}:{valve}:{place}"


def moving_valves(document: EngineDocument, measured: Mapping[str, Estimate] | None = None) -> tuple[MovingValve, ...]:
    """Return every valve whose lift and head are known.

    measured: what was measured of this engine, by ``MovingValve.key``: gap at TDC along the valve's axis while it is shut [mm].
    """
    return tuple(_found(document, measured or {}))


def _found(document: EngineDocument, measured: Mapping[str, Estimate]) -> Iterator[MovingValve]:
    timed = timed_cylinders(document)
    for cam in document.camshafts:
        for place, lobe in enumerate(cam.lobes):
            head = _head(document, cam, lobe)
            if document.shape(cam, lobe) is None or lobe.nose_deg is None or lobe.cylinder not in timed or head is None:
                continue
            one = _valve(document, cam, place, *head)
            yield one if one.key not in measured else _as_measured(one, measured[one.key])


def _head(document: EngineDocument, cam: Camshaft, lobe: Lobe) -> tuple[int, ValveHead] | None:
    """Which of the document's heads a lobe's valve has: its bank's own before one for all banks."""
    bank = document.bank_of(lobe.cylinder).id
    own = [(n, one) for n, one in enumerate(document.valves) if one.valve == lobe.valve and one.bank in (None, bank, cam.bank)]
    return max(own, key=lambda found: found[1].bank is not None, default=None)


def _valve(document: EngineDocument, cam: Camshaft, place: int, at: int, head: ValveHead) -> MovingValve:
    lobe = cam.lobes[place]
    twins = [one for one in cam.lobes if (one.cylinder, one.valve) == (lobe.cylinder, lobe.valve)]
    least_mm = document.least_gap_mm(lobe.valve)
    cosine = math.cos(math.radians(head.angle_deg))
    return MovingValve(
        camshaft=cam.id,
        lobe=place,
        cylinder=lobe.cylinder,
        valve=lobe.valve,
        place=lobe.place,
        head=head,
        along_mm=head.along_mm[min(twins.index(lobe), len(head.along_mm) - 1)],
        shut_mm=_by_document(document, lobe, at, head),
        roof_mm=_roof_mm(document, lobe, head),
        falls=1 / cosine if head.pocket_mm == 0 else cosine,
        least_mm=USUAL_LEAST_MM[lobe.valve] if least_mm is None else least_mm,
        is_least_by_book=least_mm is not None,
    )


def _roof_mm(document: EngineDocument, lobe: Lobe, head: ValveHead) -> float:
    """Heads that lean sit in a roof that begins at the bore's edge; of a bore nobody knows, at the head's own rim."""
    bore_mm = document.bank_of(lobe.cylinder).cranktrain.bore_mm
    to_edge_mm = head.head_mm / 2 if bore_mm is None else max(bore_mm / 2 - abs(head.across_mm), 0.0)
    return to_edge_mm * math.tan(math.radians(abs(head.angle_deg)))


def _by_document(document: EngineDocument, lobe: Lobe, at: int, head: ValveHead) -> Estimate | None:
    if head.to_piston_mm is None or slider_of(document, lobe.cylinder) is None:
        return None
    is_guess = document.is_guessed(f"/valves/{at}/to_piston_mm")
    return Estimate(value=head.to_piston_mm, u=(U_BY_GUESS_MM if is_guess else U_BY_BOOK_MM) / 2)


def _as_measured(one: MovingValve, gap: Estimate) -> MovingValve:
    return MovingValve(**{**vars(one), "shut_mm": gap})


def unknown_valves(document: EngineDocument) -> tuple[str, ...]:
    """Return the lobes of which nothing can be worked out, as one says them: those of no known shape, head or drop to the piston."""
    known = {(one.camshaft, one.lobe) for one in moving_valves(document) if one.shut_mm is not None}
    return tuple(
        f"{lobe.valve} {lobe.cylinder}{f' {lobe.place}' if lobe.place else ''}"
        for cam in document.camshafts
        for place, lobe in enumerate(cam.lobes)
        if (cam.id, place) not in known
    )
