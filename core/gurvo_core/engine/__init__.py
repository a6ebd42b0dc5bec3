"""The engine document: what the engine *is*. Start at ``document.py``; the cross-checks are in ``checks.py``."""

__all__ = [
    "Adjustment",
    "Camshaft",
    "CardLine",
    "Cranktrain",
    "EngineDocument",
    "Flank",
    "HoleCircles",
    "KeySlots",
    "LiftProfile",
    "Lobe",
    "OffsetBushes",
    "SlottedSprocket",
    "SprocketTeeth",
    "Throw",
    "Valve",
    "read_document",
]

from gurvo_core.engine.adjustments import Adjustment, HoleCircles, KeySlots, OffsetBushes, SlottedSprocket, SprocketTeeth
from gurvo_core.engine.camshaft import Camshaft, LiftProfile, Lobe, Valve
from gurvo_core.engine.card import CardLine, Flank
from gurvo_core.engine.cranktrain import Cranktrain, Throw
from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.reading import read_document
