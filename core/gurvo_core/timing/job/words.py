"""How the timing's entries are said on tape, paper and in the table."""

__all__ = ["METHOD_NAMES", "came_back", "details_of", "wheel_words"]

from gurvo_core.timing.job.entries import (
    Approach,
    TypedWheel,
)
from gurvo_core.timing.tdc import TdcMethod

METHOD_NAMES: dict[TdcMethod, str] = {
    "positive_stop": "positive stop",
    "equal_drop": "equal drops",
    "fit": "fit over many readings",
    "top": "at the top",
}


def wheel_words(typed: TypedWheel) -> str:
    """What was read of the wheel, as typed."""
    return f"{typed.text.strip()}° {typed.side or ''}".strip()


def details_of(*parts: str) -> str:
    """What is said beside a reading; the running way needs no word."""
    return " · ".join(part for part in parts if part and part != "running way")


def came_back(approach: Approach) -> bool:
    """Whether the reading was come to against the running way."""
    return approach == "back"
