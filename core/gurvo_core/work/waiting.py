"""What an engine waits for, and on whom: a builder, a lead, or the clock."""

__all__ = ["WaitsOn", "first_clock", "waits_for", "waits_on"]

from collections.abc import Sequence
from operator import itemgetter

from gurvo_core.ledger import Question
from gurvo_core.work.state import BenchState, LooseEndView, StepView, WaitsOn


def _asked(step: StepView) -> Question:
    question: Question = next(question for question in step.questions if question.status == "open" and not question.blocked)
    return question


def waits_for(current: StepView | None, signed: bool) -> str:
    """In words; the question that can be answered now has them."""
    if current is None:
        return "nothing: signed" if signed else "what it stands on"
    return _asked(current).waits_for


def waits_on(shown: BenchState) -> WaitsOn:
    """On whom. Where nothing can be answered, what cures or runs by the clock ends it, else a lead who leaves something out."""
    current = next((step for step in shown.steps if step.key == shown.current), None)
    if current is not None:
        return "lead" if _asked(current).for_lead else "builder"
    if shown.signed:
        return "nobody"
    return "clock" if first_clock(shown.loose_ends) else "lead"


def first_clock(ends: Sequence[LooseEndView]) -> LooseEndView | None:
    """What runs by the clock and ends first; what is at work is watched before what only cures."""
    running = [(end.clears, end.ends_at, end) for end in ends if end.ends_at is not None and not end.is_after]
    return min(running, key=itemgetter(0, 1))[2] if running else None
