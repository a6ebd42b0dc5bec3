"""One question about an engine: what is asked, how an answer is read, what it costs to leave it open, and what is drawn beside it."""

__all__ = ["Choice", "Fact", "OneKey", "Picture", "Question", "choices_read", "counted", "named", "several_read"]

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.writer.answers import Source
from gurvo_core.writer.shorthand.words import Piece, counting, refused

Takes = Literal["line", "count", "choice", "several"]
PictureKind = Literal["none", "layout", "front", "cylinder", "bolts"]


class _Shown(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Choice(_Shown):
    """One of the answers to choose from."""

    value: str
    name: str
    words: str = ""


class Fact(_Shown):
    """Something that follows, said beside the question; never put into the answer."""

    what: str
    is_so: str


class OneKey(_Shown):
    """Another answer that is one key away."""

    key: str
    words: str
    text: str


class Picture(_Shown):
    """What is drawn, and what in it is asked about."""

    kind: PictureKind = "none"
    focus: str = Field(default="", description="Id of the wheel, drive or joint that is meant")


@dataclass(frozen=True, kw_only=True)
class Question:
    """A question as it is asked now, by what has been answered."""

    key: str
    section: str
    title: str
    about: str  # as the tape has it: crank wheel, teeth
    read: Callable[[str], str]  # the answer in its one form; refuses with the word
    takes: Takes = "line"
    hint: str = ""
    example: str = ""
    costs: str = ""  # of not known; empty where it must be known
    choices: Sequence[Choice] = ()
    sources: Sequence[Source] = ()
    picture: Picture = field(default_factory=Picture)
    facts: Sequence[Fact] = ()
    offers: Sequence[OneKey] = ()
    is_first: bool = False  # of the first five minutes: without it nothing can be walked as it will be

    @property
    def must_be_known(self) -> bool:
        """Whether there is no “not known” for it."""
        return not self.costs


def choices_read(choices: Sequence[Choice]) -> Callable[[str], str]:
    """Reads one of some choices."""

    def read(text: str) -> str:
        plain = text.strip()
        found = next((one.value for one in choices if plain in (one.value, one.name)), None)
        if found is None:
            raise refused(Piece(plain, 0), f"“{plain[:30]}” is none of {', '.join(one.name for one in choices)}; choose one of them")
        return found

    return read


def several_read(choices: Sequence[Choice]) -> Callable[[str], str]:
    """Reads some of some choices, a comma between; written in the order in which they are offered."""
    one = choices_read(choices)

    def read(text: str) -> str:
        said = {one(part) for part in text.split(",") if part.strip()}
        if not said:
            raise refused(Piece(text, 0), f"nothing is chosen; choose one or more of {', '.join(choice.name for choice in choices)}")
        return ", ".join(choice.value for choice in choices if choice.value in said)

    return read


def counted(what: str, least: int, most: int) -> Callable[[str], str]:
    """Reads a whole number."""
    read = counting(what, least, most)
    return lambda text: str(read(text))


def named(most: int, what: str) -> Callable[[str], str]:
    """Reads some words."""

    def read(text: str) -> str:
        plain = " ".join(text.split())
        if not plain:
            raise refused(Piece(text, 0), f"nothing is written; write {what}")
        if len(plain) > most:
            raise refused(Piece(plain, 0), f"this is longer than {most} characters; write it shorter")
        return plain

    return read
