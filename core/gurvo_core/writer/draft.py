"""A draft: what it began with, and edits, oldest first. The document is what is composed from the answers, with what was changed by hand."""

__all__ = ["Draft", "Numbered", "Written", "written"]

from collections.abc import Sequence
from typing import Any, NamedTuple

from gurvo_core.writer.answers import Answered, Answers
from gurvo_core.writer.compose.whole import compose
from gurvo_core.writer.edits import Answer, Clear, Edit, applied

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


def written(draft: Draft) -> Written:
    """The document of a draft. What was answered composes it, or it is the one begun with; changes by hand come after."""
    answers: dict[str, Answered] = {}
    by_hand = []
    for number, edit in draft.edits:
        if isinstance(edit, Answer):
            answers[edit.question] = Answered(edit.text, edit.source)
        elif isinstance(edit, Clear):
            answers.pop(edit.question, None)
        else:
            by_hand.append((number, edit))
    document, lost = applied(compose(answers) if draft.base is None else draft.base, by_hand)
    return Written(document, answers, lost)
