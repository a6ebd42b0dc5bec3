"""The kinds of entries of found facts, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.found.job.kinds import found, not_known
from gurvo_core.found.job.state import FoundState
from gurvo_core.ledger import Kind

KINDS: tuple[Kind[Any, FoundState], ...] = (
    found.KIND,
    not_known.KIND,
)
