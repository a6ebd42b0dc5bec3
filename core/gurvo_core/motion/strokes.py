"""Which stroke a cylinder is on, and how far it stands from its TDC, as a builder says it."""

__all__ = ["Stroke", "at_dead_centre", "cylinder_words", "headline", "stroke_at", "stroke_begins"]

import math
from typing import Literal

from gurvo_core.angles import wrap_deg
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.motion.frames import slider_of, timed_cylinders
from gurvo_core.sentence import at_place

Stroke = Literal["power", "exhaust", "intake", "compression"]
STROKES: tuple[Stroke, ...] = ("power", "exhaust", "intake", "compression")
AT_CENTRE_DEG = 0.05  # closer than this is said as “at”


def stroke_at(document: EngineDocument, cylinder: int, crank_deg: float) -> Stroke:
    """Return the stroke a cylinder is on.

    crank_deg: crank angle [deg].
    Source: Definition of the four strokes; [rod-triangle] for BDC.
    >>> [stroke_at(quern_4(), n, 10.0) for n in (1, 2, 3, 4)]
    ['power', 'exhaust', 'compression', 'intake']
    """
    from_firing = wrap_deg(crank_deg - document.firing_deg[cylinder], CYCLE_DEG)
    return next(stroke for stroke, begins_deg in reversed(stroke_begins(document, cylinder)) if from_firing >= begins_deg)


def stroke_begins(document: EngineDocument, cylinder: int) -> list[tuple[Stroke, float]]:
    """Return where each stroke of a cylinder begins.

    Returned: stroke and crank degrees after the cylinder's firing TDC [deg], in order.
    Source: [rod-triangle]: dead centres of the offset slider-crank; half a turn apart while stroke and rod are not known.
    >>> stroke_begins(quern_4(), 1)[2]
    ('intake', 360.0)
    """
    slider = slider_of(document, cylinder)
    bdc_deg = slider.bdc_deg if slider else 180.0
    return list(zip(STROKES, (0.0, bdc_deg, 360.0, 360.0 + bdc_deg), strict=True))


def _from_centre(document: EngineDocument, cylinder: int, crank_deg: float) -> tuple[str, float]:
    """The nearer of a cylinder's two TDCs, and the crank's way past it, -180 to 180."""
    from_firing = crank_deg - document.firing_deg[cylinder]
    turns = math.floor(from_firing / 360 + 0.5)
    return "overlap" if turns % 2 else "firing", from_firing - 360 * turns


def _said(centre: str, away_deg: float) -> str:
    if abs(away_deg) < AT_CENTRE_DEG:
        return f"at {centre} TDC"
    return f"{round(abs(away_deg), 1):g}° {'after' if away_deg > 0 else 'before'} {centre} TDC"


def cylinder_words(document: EngineDocument, cylinder: int, crank_deg: float) -> str:
    """Return how far a cylinder stands from its nearer TDC. crank_deg: crank angle [deg]."""
    return _said(*_from_centre(document, cylinder, crank_deg))


def at_dead_centre(document: EngineDocument, crank_deg: float) -> list[tuple[int, str]]:
    """Return the cylinders that stand at TDC, and at which. crank_deg: crank angle [deg]."""
    found = [(cylinder, *_from_centre(document, cylinder, crank_deg)) for cylinder in timed_cylinders(document)]
    return [(cylinder, centre) for cylinder, centre, away in found if abs(away) < AT_CENTRE_DEG]


def _from_position(name: str, crank_deg: float) -> str:
    """How far the crank has been turned on from a timing position, whole turns first; two turns on it is there again."""
    turns, on_deg = divmod(wrap_deg(crank_deg, CYCLE_DEG), 360.0)
    if abs(on_deg - 360.0) < AT_CENTRE_DEG:
        turns, on_deg = (turns + 1) % 2, 0.0
    said = ["one turn"] * bool(turns) + [f"{round(on_deg, 1):g}°"] * (on_deg >= AT_CENTRE_DEG)
    return f"{' and '.join(said)} on from {name}" if said else at_place(name)


def headline(document: EngineDocument, crank_deg: float) -> str:
    """Return where the crank stands, from the cylinder that is nearest to a TDC.

    crank_deg: crank angle [deg].
    Trade wording; of two that are equally near, the one about to fire or firing is named. While the angle of the engine's timing position
    is not known, turns and degrees count from that.
    """
    if not document.is_timed:
        return _from_position(document.timing_positions[0].name, crank_deg)
    found = [(cylinder, *_from_centre(document, cylinder, crank_deg)) for cylinder in timed_cylinders(document)]
    found.sort(key=lambda one: (round(abs(one[2]), 3), one[1] != "firing", one[0]))
    at_centre = [f"cylinder {cylinder} at {centre} TDC" for cylinder, centre, away in found if abs(away) < AT_CENTRE_DEG]
    if at_centre:
        return ", ".join(at_centre)
    cylinder, centre, away = found[0]
    return f"cylinder {cylinder} {_said(centre, away)}"
