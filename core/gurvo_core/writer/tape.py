"""The tape of a draft: each edit in a few words, newest first."""

__all__ = ["TapeWords", "tape_words"]

import json
from typing import Any, NamedTuple

from gurvo_core.writer.asking.question import Question
from gurvo_core.writer.edits import Add, Answer, Clear, Edit, Move, Remove, Set

LONGEST = 60
OPEN_AGAIN, NOT_KNOWN = "open again", "not known"


class TapeWords(NamedTuple):
    """What an edit is about, and what it says of that."""

    what: str
    said: str


def tape_words(edit: Edit, document: dict[str, Any], questions: dict[str, Question]) -> TapeWords:
    """An edit in words; things are called as they are called by now."""
    if isinstance(edit, Answer | Clear):
        question = questions.get(edit.question)
        what = question.about if question else edit.question.replace(".", ", ")
        return TapeWords(what, _answered(edit, question))
    if isinstance(edit, Add):
        return TapeWords(_named(document, edit.to), f"added: {_short(_name(edit.value))}")
    if isinstance(edit, Remove):
        return TapeWords(_named(document, edit.at), "taken out")
    if isinstance(edit, Move):
        return TapeWords(_named(document, edit.at), "moved")
    return TapeWords(_named(document, edit.at), _short(_value(edit)))


def _answered(edit: Answer | Clear, question: Question | None) -> str:
    if isinstance(edit, Clear):
        return OPEN_AGAIN
    if edit.text is None:
        return NOT_KNOWN
    values = [part.strip() for part in edit.text.split(",")] if question and question.takes == "several" else [edit.text]
    names = {one.value: one.name for one in question.choices} if question else {}
    said = ", ".join(names.get(value, value) for value in values)
    return _short(said) + (f", {edit.source}" if edit.source else "")


def _value(edit: Set) -> str:
    said = NOT_KNOWN if edit.value is None else edit.value if isinstance(edit.value, str) else json.dumps(edit.value, ensure_ascii=False)
    return f"{said}, {edit.source}" if edit.source else str(said)


def _short(text: str) -> str:
    return text if len(text) <= LONGEST else f"{text[: LONGEST - 1]}…"


def _name(value: Any) -> str:
    if not isinstance(value, dict):
        return str(value)
    return str(next((value[key] for key in ("says", "title", "name", "id") if isinstance(value.get(key), str)), "one more"))


def _named(document: dict[str, Any], pointer: str) -> str:
    """What a pointer leads to, by the names of the last two things on its way that have one, or its keys."""
    at: Any = document
    names: list[str] = []
    for part in pointer.split("/")[1:]:
        if isinstance(at, list):
            at = next((one for one in at if isinstance(one, dict) and one.get("id") == part), None)
            names.append(_name(at) if at is not None else part)
        else:
            at = at.get(part) if isinstance(at, dict) else None
            names.append(part.replace("_", " "))
    return _short(", ".join(names[-2:]))
