"""What is measured of each camshaft: which valve, at which checking lift, where it is to be expected and within which limits.

By the cam card where there is one; by the lobes' profiles, or by what is common, where there is none. Then nothing is judged.
"""

__all__ = ["CamLine", "LineAt", "cam_lines", "lines_at"]

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from gurvo_core.engine import Camshaft, CardLine, EngineDocument, Flank, Lobe, Profile, Valve
from gurvo_core.errors import ReadingError
from gurvo_core.timing.events import OVERLAP_TDC_DEG, card_event_deg, centreline_deg, nose_deg, profile_event_deg
from gurvo_core.verdict import DecisionRule

COMMON_LIFT_MM = 1.0
# common four-strokes at 1 mm of lift: good enough to tell one turn of the crank from the next, and for nothing else
COMMON_EVENTS_DEG: dict[Valve, tuple[float, float]] = {"intake": (345.0, 580.0), "exhaust": (140.0, 375.0)}
COMMON_NOSE_DEG = 110.0
FLANKS: tuple[Flank, Flank] = ("opening", "closing")


@dataclass(frozen=True, kw_only=True)
class CamLine:
    """One valve at one checking lift. Angles are crank degrees after the firing TDC of its own cylinder [deg]."""

    camshaft: str
    valve: Valve
    cylinder: int
    lift_mm: float
    opening_deg: float
    closing_deg: float
    top_deg: float  # where the nose is expected
    has_card: bool  # whether the card says where it opens and closes
    tolerance_deg: float | None  # None: no limit is known

    def event_deg(self, flank: Flank) -> float:
        """Where one of its events is expected [deg]."""
        return self.opening_deg if flank == "opening" else self.closing_deg

    @property
    def card_deg(self) -> float | None:
        """The card's centreline, as it is said; None without a card [deg]."""
        return centreline_deg(self.valve, self.opening_deg, self.closing_deg) if self.has_card else None


@dataclass(frozen=True, eq=False)
class LineAt:
    """A line of one document with its lobe, looked up once; told apart by identity, so that figures can be kept by it."""

    line: CamLine
    shaft: Camshaft
    lobe: Lobe | None
    profile: Profile | None
    on_deg: float  # how far its cylinder fires after the reference cylinder
    rule: DecisionRule  # how it is judged


def lines_at(document: EngineDocument, lines: Iterable[CamLine]) -> tuple[LineAt, ...]:
    """Return lines with their lobes."""
    shafts = {shaft.id: shaft for shaft in document.camshafts}
    found = []
    for line in lines:
        shaft, lobe = shafts[line.camshaft], document.lobe(line.camshaft, line.cylinder, line.valve)
        profile = document.shape(shaft, lobe) if lobe else None
        found.append(LineAt(line, shaft, lobe, profile, document.from_reference_deg(line.cylinder), document.decision_rule))
    return tuple(found)


def cam_lines(document: EngineDocument) -> tuple[CamLine, ...]:
    """Return what is measured of each camshaft. Without a card a measured cam is kept as found; nothing is judged against a guess."""
    return tuple(_card_lines(document)) + tuple(_lines_without_card(document))


def _card_lines(document: EngineDocument) -> Iterator[CamLine]:
    for place, line in enumerate(document.cam_card):
        shaft, cylinder = document.camshaft(line.camshaft), document.card_cylinder(line)
        if shaft is None or (shaft.lobes and document.lobe(shaft.id, cylinder, line.valve) is None):
            continue
        expected, has_card = _expected(document, shaft, line.valve, cylinder, line.lift_mm), _has_events(line)
        yield CamLine(
            camshaft=shaft.id,
            valve=line.valve,
            cylinder=cylinder,
            lift_mm=line.lift_mm,
            opening_deg=card_event_deg(line, "opening") if has_card else expected[0],
            closing_deg=card_event_deg(line, "closing") if has_card else expected[1],
            top_deg=_top_deg(document, shaft, line.valve, cylinder),
            has_card=has_card,
            tolerance_deg=None if not has_card or document.is_guessed(f"/cam_card/{place}") else line.tolerance_deg,
        )


def _lines_without_card(document: EngineDocument) -> Iterator[CamLine]:
    on_card = {line.camshaft for line in document.cam_card}
    for shaft in document.camshafts:
        if shaft.id in on_card:
            continue
        for valve in shaft.valves:
            cylinder = _cylinder_of(document, shaft, valve)
            if cylinder is None:
                continue
            opening_deg, closing_deg = _expected(document, shaft, valve, cylinder, COMMON_LIFT_MM)
            yield CamLine(
                camshaft=shaft.id,
                valve=valve,
                cylinder=cylinder,
                lift_mm=COMMON_LIFT_MM,
                opening_deg=opening_deg,
                closing_deg=closing_deg,
                top_deg=_top_deg(document, shaft, valve, cylinder),
                has_card=False,
                tolerance_deg=None,
            )


def _has_events(line: CardLine) -> bool:
    return line.opens_deg is not None and line.closes_deg is not None


def _cylinder_of(document: EngineDocument, shaft: Camshaft, valve: Valve) -> int | None:
    """The reference cylinder where this shaft has a lobe for it, else the first it has one for.

    None where it has lobes, and of none of their cylinders it is known when they fire: a wheel tells nothing of them.
    """
    own = [lobe.cylinder for lobe in shaft.lobes if lobe.valve == valve]
    lobes = [cylinder for cylinder in own if cylinder in document.firing_deg]
    reference = document.reference_cylinder
    if own and not lobes:
        return None
    return reference if reference in lobes or not lobes else lobes[0]


def _expected(document: EngineDocument, shaft: Camshaft, valve: Valve, cylinder: int, lift_mm: float) -> tuple[float, float]:
    lobe = document.lobe(shaft.id, cylinder, valve)
    shape = document.shape(shaft, lobe) if lobe else None
    if lobe is None or shape is None or lobe.nose_deg is None:
        return COMMON_EVENTS_DEG[valve]
    try:
        opening_deg, closing_deg = (profile_event_deg(shape, shaft, lobe, lift_mm, flank) for flank in FLANKS)
    except ReadingError:  # a lift that this lobe does not have
        return COMMON_EVENTS_DEG[valve]
    return opening_deg, closing_deg


def _top_deg(document: EngineDocument, shaft: Camshaft, valve: Valve, cylinder: int) -> float:
    lobe = document.lobe(shaft.id, cylinder, valve)
    if lobe is not None and lobe.nose_deg is not None:
        return nose_deg(lobe)
    return OVERLAP_TDC_DEG + (COMMON_NOSE_DEG if valve == "intake" else -COMMON_NOSE_DEG)
