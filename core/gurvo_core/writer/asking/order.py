"""Every question in the order in which a builder can answer at the bench; which comes next; and how an answer is taken."""

__all__ = ["SECTIONS", "Section", "must_be_answered", "next_key", "question_of", "questions_of"]

from collections.abc import Callable, Iterator
from dataclasses import replace
from functools import lru_cache
from typing import NamedTuple

from gurvo_core.writer.answers import Answered, Answers
from gurvo_core.writer.asking.drive import ask_drive
from gurvo_core.writer.asking.question import OneKey, Question
from gurvo_core.writer.asking.rest import ask_bolts, ask_clearances, ask_parts
from gurvo_core.writer.asking.right import ask_right
from gurvo_core.writer.asking.what import ask_cams, ask_cylinders, ask_what
from gurvo_core.writer.shape import Shape, shape_of

ALIKE = ("fixed", "tensioner", "teeth", "mark", "lock", "stages")  # asked of several things that are often the same


class Section(NamedTuple):
    """Questions that belong together."""

    id: str
    name: str
    ask: Callable[[Answers, Shape], Iterator[Question]]


SECTIONS = (
    Section("what", "What it is", ask_what),
    Section("cylinders", "Cylinders, banks", ask_cylinders),
    Section("cams", "Cams, valves", ask_cams),
    Section("drive", "Drive", ask_drive),
    Section("right", "How it stands right", ask_right),
    Section("bolts", "Bolts", ask_bolts),
    Section("clearances", "Clearances", ask_clearances),
    Section("parts", "Parts", ask_parts),
)


def questions_of(answers: Answers) -> list[Question]:
    """Every question that what has been answered leads to, in order."""
    return list(_questions(frozenset(answers.items())))


@lru_cache(maxsize=64)
def _questions(told: frozenset[tuple[str, Answered]]) -> tuple[Question, ...]:
    answers = dict(told)
    shape = shape_of(answers)
    found: list[Question] = []
    before: dict[str, str] = {}
    for section in SECTIONS:
        for question in section.ask(answers, shape):
            sort = question.key.partition(".")[0]
            found.append(_as_before(question, before.get(sort)) if sort in ALIKE and question.key not in answers else question)
            answer = answers.get(question.key)
            if answer is not None and answer.text is not None:
                before[sort] = answer.text
    return tuple(found)


def _as_before(question: Question, text: str | None) -> Question:
    """A question of several alike: what was said of the one before is one key away."""
    if text is None:
        return question
    name = next((one.name for one in question.choices if one.value == text), text)
    return replace(question, offers=(*question.offers, OneKey(key="s", words=f"as the one before: {name}", text=text)))


def question_of(answers: Answers, key: str) -> Question | None:
    """The question of that key, None where it is not asked of this engine."""
    return next((question for question in questions_of(answers) if question.key == key), None)


def must_be_answered(answers: Answers) -> list[Question]:
    """The questions without whose answers nobody can build by a draft, and that are open."""
    return [question for question in questions_of(answers) if question.must_be_known and question.key not in answers]


def next_key(answers: Answers, after: str | None = None) -> str | None:
    """The next question that is open, from one on and then from the beginning; None where every one is answered."""
    asked = questions_of(answers)
    begin = next((n + 1 for n, question in enumerate(asked) if question.key == after), 0)
    round_it = [question for question in [*asked[begin:], *asked[:begin]] if question.key not in answers]
    # whoever answers the first ones is led through them; whoever goes on from a later one stays among those
    was_first = next((question.is_first for question in asked if question.key == after), True)
    first = next((question for question in round_it if question.is_first), None) if was_first else None
    found = first or next(iter(round_it), None)
    return found.key if found else None
