"""What the first version left unsaid of a zero or a decision: the readings that stood when it was taken."""

__all__ = ["what_stood"]

from collections.abc import Sequence

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import LedgerEntry, Strike
from gurvo_core.timing.job.state import TimingState, begin


def what_stood(document: EngineDocument, before: Sequence[LedgerEntry]) -> TimingState:
    """What stood after some entries."""
    from gurvo_core.timing.job.kinds import KINDS  # two of them complete themselves by this

    struck = {entry.body.strikes for entry in before if isinstance(entry.body, Strike)}
    kinds, state = {kind.name: kind for kind in KINDS}, begin(document)
    for entry in before:
        if entry.body.kind in kinds and entry.id not in struck:
            state = kinds[entry.body.kind].take(state, entry, entry.body)
    return state
