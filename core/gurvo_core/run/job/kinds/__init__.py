"""The run's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.ledger import Kind
from gurvo_core.run.job.kinds import (
    hard_stop,
    hold_point,
    marks_taken,
    oil_change,
    own_mark,
    plugs,
    shaft_seen,
    shaft_turned,
    step_done,
    step_opened,
    step_skipped,
    thing,
    trouble,
    turn_seen,
    variant,
)
from gurvo_core.run.job.state import RunState

KINDS: tuple[Kind[Any, RunState], ...] = (
    step_done.KIND,
    turn_seen.KIND,
    hard_stop.KIND,
    trouble.KIND,
    marks_taken.KIND,
    shaft_turned.KIND,
    shaft_seen.KIND,
    own_mark.KIND,
    plugs.KIND,
    thing.KIND,
    hold_point.KIND,
    step_skipped.KIND,
    step_opened.KIND,
    oil_change.KIND,
    variant.KIND,
)
