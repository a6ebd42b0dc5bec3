"""The bench: the list of rooms (``rooms``), the house they make (``house``), the gate before the ledger (``gate``), hand-over.

Knows nothing of any one craft: rooms bring their own.
"""

__all__ = ["HOUSE", "ROOMS", "RULES_VERSION", "BenchState", "House", "PartTold", "Summary", "TapeLine", "replay"]

from collections.abc import Sequence

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import LedgerEntry
from gurvo_core.work.house import House
from gurvo_core.work.rooms import ROOMS
from gurvo_core.work.rules_version import rules_version
from gurvo_core.work.state import BenchState, PartTold, Summary, TapeLine

HOUSE = House(ROOMS)
RULES_VERSION = rules_version()


def replay(document: EngineDocument, entries: Sequence[LedgerEntry]) -> BenchState:
    """Return what the bench shows after these entries. Same input, same state, always. The ledger is the only memory."""
    return HOUSE.show(HOUSE.fold(document, entries))
