"""What has been answered of an engine, question by question, each in the one form of its line; None is “not known”."""

__all__ = ["Answered", "Answers", "Source", "said", "slug"]

import re
from collections.abc import Callable, Mapping
from typing import Literal, NamedTuple, TypeVar

from gurvo_core.errors import CoreError

Source = Literal["book", "counted", "measured", "generic", "guess"]
Read = TypeVar("Read")


class Answered(NamedTuple):
    """One answer, and where it is from if that was said."""

    text: str | None
    source: Source | None = None


Answers = Mapping[str, Answered]


def said(answers: Answers, key: str, read: Callable[[str], Read]) -> Read | None:
    """What an answer means; None where there is none, it is not known, or it fits no more to what was answered elsewhere since."""
    answer = answers.get(key)
    if answer is None or answer.text is None:
        return None
    try:
        return read(answer.text)
    except CoreError:
        return None


def slug(name: str) -> str:
    """A name as a short word for others to refer to."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:36] or "x"
