"""The fits' kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.fits.job.kinds import fit_chosen, fit_decided, fit_reading, fits_ready
from gurvo_core.fits.job.state import FitsState
from gurvo_core.ledger import Kind

KINDS: tuple[Kind[Any, FitsState], ...] = (
    fits_ready.KIND,
    fit_reading.KIND,
    fit_chosen.KIND,
    fit_decided.KIND,
)
