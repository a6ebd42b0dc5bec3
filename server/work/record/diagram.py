"""The timing diagram for print: the four strokes on a spiral of two turns, measured events thick, card events dotted.

Angles are crank degrees after firing TDC, TDC on top, growing clockwise. The web draws the same diagram for the screen.
"""

import math
from dataclasses import dataclass

from gurvo_core.timing.job import TimingView

CENTRE = 150.0
INNER, OUTER = 52.0, 124.0
STEP_DEG = 3
LANE = 3.5  # intake and exhaust keep to a lane each, so that the overlap can be seen
STROKES = "#C9C3B6"
COLOURS = {"intake": "#1E4A86", "exhaust": "#A8660B"}


@dataclass(frozen=True)
class Arc:
    """One arc of the diagram."""

    path: str
    colour: str
    width: float
    dotted: bool = False


def _reach(crank_deg: float) -> float:
    return INNER + (OUTER - INNER) * crank_deg / 720


def _place(crank_deg: float, reach: float) -> tuple[float, float]:
    turned = math.radians(crank_deg)
    return CENTRE + reach * math.sin(turned), CENTRE - reach * math.cos(turned)


def _spiral(from_deg: float, to_deg: float, outside: float = 0.0) -> str:
    count = max(2, math.ceil((to_deg - from_deg) / STEP_DEG))
    degrees = [from_deg + (to_deg - from_deg) * n / count for n in range(count + 1)]
    places = [_place(deg, _reach(deg) + outside) for deg in degrees]
    return "M" + " L".join(f"{x:.2f} {y:.2f}" for x, y in places)


def arcs(timing: TimingView) -> list[Arc]:
    """Return the spiral, the card's events and the measured ones."""
    found = [Arc(_spiral(0, 720), STROKES, 0.8)]
    for cam in timing.cams:
        for valve in cam.valves:
            colour = COLOURS[valve.valve]
            lane = LANE if valve.valve == "intake" else -LANE
            if valve.opening.crank_deg is not None and valve.closing.crank_deg is not None:
                found.append(Arc(_spiral(valve.opening.crank_deg, valve.closing.crank_deg, lane), colour, 5.5))
            if valve.opening.card_deg is not None and valve.closing.card_deg is not None:
                found.append(Arc(_spiral(valve.opening.card_deg, valve.closing.card_deg, 2.4 * lane), colour, 1.2, dotted=True))
    return found


def ticks() -> list[tuple[float, float, float, float]]:
    """Return the lines of the wheel's rim, one every ten degrees."""
    return [(*_place(deg, 140.0), *_place(deg, 134.0 if deg % 30 else 130.0)) for deg in range(0, 360, 10)]
