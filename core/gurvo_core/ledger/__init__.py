"""The ledger: what an entry is (``entry``), what a room must bring (``room``), the fold (``fold``), earlier versions (``versions``).

Lies under every room's job and knows none of them.
"""

__all__ = [
    "DONE_ELSEWHERE",
    "GAUGES",
    "MAKER",
    "NOW",
    "PLAN",
    "PLUGS_OUT",
    "Asked",
    "Basis",
    "Body",
    "Doing",
    "Fact",
    "Facts",
    "Folded",
    "Gauge",
    "Hold",
    "Kind",
    "LedgerEntry",
    "LooseEnd",
    "Objection",
    "Question",
    "Room",
    "Step",
    "Strike",
    "View",
    "Words",
    "apply",
    "find_kind",
    "fold",
    "need",
]

from gurvo_core.ledger.entry import Basis, Body, Gauge, LedgerEntry, Strike
from gurvo_core.ledger.fold import Folded, apply, find_kind, fold
from gurvo_core.ledger.room import (
    DONE_ELSEWHERE,
    GAUGES,
    MAKER,
    NOW,
    PLAN,
    PLUGS_OUT,
    Asked,
    Doing,
    Fact,
    Facts,
    Hold,
    Kind,
    LooseEnd,
    Objection,
    Question,
    Room,
    Step,
    View,
    Words,
    need,
)
