"""The kinds of entries about valve clearances, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.lash.job.kinds import lash_decided, lash_reading, lash_ready, lash_shims, lash_stop
from gurvo_core.lash.job.state import LashState
from gurvo_core.ledger import Kind

KINDS: tuple[Kind[Any, LashState], ...] = (
    lash_ready.KIND,
    lash_stop.KIND,
    lash_reading.KIND,
    lash_shims.KIND,
    lash_decided.KIND,
)
