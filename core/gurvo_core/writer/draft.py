"""A draft: what it began with, and edits, oldest first: a document composed from the answers, with what was changed by hand."""

__all__ = ["Draft", "Numbered", "Written", "answers_of", "clash_of", "written"]

from collections.abc import Sequence
from copy import deepcopy
from typing import Any, NamedTuple

from gurvo_core.writer.answers import Answered, Answers
from gurvo_core.writer.compose.whole import compose
from gurvo_core.writer.edits import Add, Answer, Clear, Edit, Move, applied

Document = dict[str, Any]


class Numbered(NamedTuple):
    """An edit, and its number in the draft."""

    number: int
    edit: Edit


class Draft(NamedTuple):
    """What a draft began with, None from nothing; and its edits that stand, oldest first."""

    base: Document | None
    edits: Sequence[Numbered] = ()


class Written(NamedTuple):
    """What a draft says by now."""

    document: Document
    answers: Answers
    lost: dict[int, str]  # by number: edits by hand that found no place, and why


def answers_of(edits: Sequence[Numbered]) -> dict[str, Answered]:
    """What is answered after some edits."""
    answers: dict[str, Answered] = {}
    for _, edit in edits:
        if isinstance(edit, Answer):
            answers[edit.question] = Answered(edit.text, edit.source)
        elif isinstance(edit, Clear):
            answers.pop(edit.question, None)
    return answers


def written(draft: Draft) -> Written:
    """The document of a draft. What was answered composes it, or it is the one begun with; changes by hand come after."""
    answers = answers_of(draft.edits)
    by_hand = [(number, edit) for number, edit in draft.edits if not isinstance(edit, Answer | Clear)]
    document, lost = applied(compose(answers) if draft.base is None else deepcopy(draft.base), by_hand)
    return Written(document, answers, lost)


def _concerns(edit: Edit) -> tuple[str, ...]:
    """The pointers, or the question, that an edit is about."""
    if isinstance(edit, Answer | Clear):
        return (f"/?{edit.question}",)
    if isinstance(edit, Add):
        ident = edit.value.get("id") if isinstance(edit.value, dict) else None
        return (f"{edit.to}/{ident}",) if ident else (edit.to,)
    return (edit.at, edit.to) if isinstance(edit, Move) and edit.to else (edit.at,)


def clash_of(since: Sequence[Numbered], edit: Edit) -> int | None:
    """The number of the first edit made meanwhile that is about the same, or about what lies above or below it; None where none is."""
    own = _concerns(edit)
    return next((number for number, other in since if any(_overlap(a, b) for a in own for b in _concerns(other))), None)


def _overlap(a: str, b: str) -> bool:
    return a == b or a.startswith(f"{b}/") or b.startswith(f"{a}/")
