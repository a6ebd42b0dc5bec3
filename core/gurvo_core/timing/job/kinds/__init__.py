"""The timing's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.ledger import Kind
from gurvo_core.timing.job.kinds import (
    cam_decision,
    lift_reading,
    piston_stop,
    tdc_method,
    tdc_reading,
    turn,
    wheel_check,
    wheel_setup,
    wheel_zero,
)
from gurvo_core.timing.job.state import TimingState

KINDS: tuple[Kind[Any, TimingState], ...] = (
    wheel_setup.KIND,
    wheel_check.KIND,
    tdc_method.KIND,
    piston_stop.KIND,
    tdc_reading.KIND,
    wheel_zero.KIND,
    lift_reading.KIND,
    cam_decision.KIND,
    turn.KIND,
)
