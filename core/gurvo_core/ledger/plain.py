"""A question whose answer is one of a few, with a word to it or without: whoever shows it needs no input of its own for it."""

__all__ = ["PlainAnswer", "PlainQuestion", "decisions"]

from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import Field

from gurvo_core.ledger.room import Question, View


class PlainAnswer(View):
    """One answer: what its button says, and the entry that it makes."""

    title: str = Field(description="What its button says")
    detail: str = Field(default="", description="What it means, where there are several")
    entry: dict[str, Any] = Field(description="The entry it makes, but for the words")
    words: str = Field(default="", description="Under which key of the entry words go with it; empty where none do")
    asks: str = Field(default="", description="By what the words are asked for")
    needs_words: bool = Field(default=False, description="Whether it is no answer without them")
    button: str = Field(default="", description="What its button says once it is chosen, where that is not its title")
    said: str = Field(default="", description="What is said beside the button once it is chosen, such as what to do now")


class PlainQuestion(Question):
    """A question with all its answers."""

    answers: list[PlainAnswer] = Field(description="All its answers; none while it cannot be answered")
    said: str = Field(default="", description="What is said beside the button")
    chosen: int = Field(default=0, description="Which is chosen to begin with, of several with words, counted from 0")
    first_by_enter: bool = Field(default=False, description="Of several that need no words: whether Enter takes the first")


def decisions(entry: Mapping[str, Any], ways: Iterable[tuple[str, str, str, str]]) -> list[PlainAnswer]:
    """Several ways to decide, each with its reason: by its name in the entry, its title, what it means, and how the reason is asked for."""
    return [
        PlainAnswer(title=title, detail=detail, entry={**entry, "decision": decision}, words="reason", asks=asks)
        for decision, title, detail, asks in ways
    ]
