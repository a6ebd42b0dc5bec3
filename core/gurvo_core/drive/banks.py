"""Where the banks stand behind the drive, seen from the front: of each the walls of its bores and its deck, at its angle and to scale."""

__all__ = ["DrawnBank", "drawn_banks"]

import math

from gurvo_core.drive.place import Place
from gurvo_core.engine import EngineDocument
from gurvo_core.motion.crank import SliderCrank
from gurvo_core.motion.frames import slider_of
from gurvo_core.motion.twin import Shown

CROWN = 0.42  # of the bore, from the piston's pin to its crown
WALL = 0.62  # of the bore, from its axis to the outside
FOOT = 0.45  # of the way from the crank to the deck


class DrawnBank(Shown):
    """One bank: its name and its outline, point by point, x to the right and y up from the crank [mm]."""

    name: str
    outline: list[Place]


def drawn_banks(document: EngineDocument) -> list[DrawnBank]:
    """Return the banks whose bore, stroke, rod and angle are known."""
    found = []
    for bank in document.banks:
        slider = slider_of(document, next(iter(bank.cylinders), None))
        if slider is not None and bank.cranktrain.bore_mm is not None and bank.axis_deg is not None:
            found.append(DrawnBank(name=bank.name, outline=_outline(bank.axis_deg, slider, bank.cranktrain.bore_mm)))
    return found


def _outline(axis_deg: float, slider: SliderCrank, bore_mm: float) -> list[Place]:
    """Up one side, across the deck, down the other."""
    deck, half = slider.throw_mm + slider.rod_mm + CROWN * bore_mm, WALL * bore_mm
    up, out = math.sin(math.radians(axis_deg)), math.cos(math.radians(axis_deg))
    corners = ((-half, FOOT * deck), (-half, deck), (half, deck), (half, FOOT * deck))
    return [Place(x_mm=round(across * out + along * up, 1), y_mm=round(along * out - across * up, 1)) for across, along in corners]
