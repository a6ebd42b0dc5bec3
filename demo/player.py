"""Answers whatever a bench of the demo asks, as a careful builder with the gauges of its shelf."""

from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.walk import Shelf, right_answer

SHELF = Shelf(
    wheel="W1",
    dial="D2",
    feeler="F1",
    wrenches=(("T1", 25), ("T2", 100), ("T3", 300)),
    micrometers=(("M4", 50), ("M1", 75), ("M3", 100)),
    bores=(("P2", 50), ("P1", 100)),
)


def answer(state: Any, question: Any, document: EngineDocument) -> dict[str, Any]:
    """Return the entry that answers a question."""
    return right_answer(state, question, document, SHELF)
