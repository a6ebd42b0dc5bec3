"""What is asked before a step: what it needs and the book leaves open, each thing once."""

__all__ = ["ask_first"]

from collections.abc import Mapping, Sequence
from functools import lru_cache

from gurvo_core.found.job.entries import How
from gurvo_core.found.job.state import FoundState
from gurvo_core.found.job.view import FoundOption, FoundQuestion
from gurvo_core.found.wanted import Wanted
from gurvo_core.ledger import STEPS_DONE, WHY_STEP_WAITS, Facts, Step

HOWS: dict[str, list[How]] = {
    "count": ["counted", "read off", "told"],
    "figure": ["measured", "counted", "read off", "told"],
    "clock": ["read off", "told"],
    "choice": ["read off", "told"],
    "words": ["measured", "read off", "told"],
}


def ask_first(now: FoundState, steps: Mapping[str, Step], facts: Facts) -> Mapping[str, Sequence[FoundQuestion]]:
    """What steps need and nobody has told, one thing after another."""
    done, why = facts.get(STEPS_DONE) or (), facts.get(WHY_STEP_WAITS)
    open_still = {key: still for key, still in now.still_wanted.items() if key in steps and key not in done}
    return {key: _questions(key, still, why(key, facts) if why else "") for key, still in open_still.items()}


def _questions(step_id: str, still: Sequence[Wanted], blocked: str) -> list[FoundQuestion]:
    return [_question(step_id, one, blocked, tuple(other.pointer for other in still[at + 1 :])) for at, one in enumerate(still)]


@lru_cache(maxsize=2048)
def _question(step_id: str, wanted: Wanted, blocked: str, later: tuple[str, ...]) -> FoundQuestion:
    return FoundQuestion(
        key=f"{step_id}:{wanted.pointer}",
        title=wanted.title,
        ask=wanted.ask,
        hint=f"The book does not say. Good for: {wanted.good_for}.",
        status="open",
        waits=f"{wanted.title}: not known yet",
        blocked=blocked,
        pointer=wanted.pointer,
        typed=wanted.kind,
        unit=wanted.unit,
        options=[FoundOption(value=one.value, label=one.label, detail=one.detail) for one in wanted.options],
        hows=HOWS[wanted.kind],
        to_come=list(later),
    )
