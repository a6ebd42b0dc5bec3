"""The clearway's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.clearway.job.kinds import gap_measured, way_left
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.ledger import Kind

KINDS: tuple[Kind[Any, ClearwayState], ...] = (
    gap_measured.KIND,
    way_left.KIND,
)
