"""The grammar of what the core says: tokens that each reader hears his own way, written and read in this one place.

``{mm:1.5}`` is a length, ``{fine:0.058}`` one that is told to thousandths, ``{clock:300}`` a clock position in degrees clockwise from
straight up as seen from the front, and ``{turn:running}`` / ``{turn:against}`` a direction of turning, ``{way:running}`` the same without
saying from where it is seen. Screen and paper turn them into his unit, seen from his side.
Words typed by a person are not of this grammar: where they enter, a brace that would begin a token is set apart (``as_words``).
"""

__all__ = [
    "AGAINST",
    "AGAINST_WAY",
    "RUNNING",
    "RUNNING_WAY",
    "TOKENS",
    "Reader",
    "as_words",
    "at_place",
    "at_start",
    "clock",
    "fine",
    "length",
    "listed",
    "say",
    "within",
]

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

RUNNING, AGAINST = "{turn:running}", "{turn:against}"
RUNNING_WAY, AGAINST_WAY = "{way:running}", "{way:against}"
TOKENS = ("mm", "fine", "clock", "turn", "way")
DEEPEST = 60  # levels of lists and groups; nothing that is typed has more than ten
_TOKEN = re.compile(r"\{([^{}:]*):?([^{}]*)\}")
_BEGINS = re.compile(rf"\{{(?=(?:{'|'.join(TOKENS)}):)")


@dataclass(frozen=True, kw_only=True)
class Reader:
    """How one reader hears the tokens: a length in mm, a clock position in degrees, ``running`` or ``against``."""

    length: Callable[[float], str]
    fine: Callable[[float], str]
    clock: Callable[[float], str]
    turn: Callable[[str], str]


def within(words: str) -> str:
    """Words as they stand within a sentence: their first letter small, but of what is written in capitals, such as TDC or N·m."""
    first = words.partition(" ")[0]
    is_sign = len(first) > 1 and not first[1].isalpha()  # such as N·m or M10
    return words if is_sign or any(letter.isupper() for letter in first[1:]) else words[:1].lower() + words[1:]


def at_start(words: str) -> str:
    """Words as they stand at the start of a sentence or by themselves: their first letter large."""
    return words[:1].upper() + words[1:]


def listed(names: Sequence[str]) -> str:
    """Names one after another, as one would say them."""
    return ", ".join(names[:-1]) + (" and " if len(names) > 1 else "") + (names[-1] if names else "")


def as_words(data: Any, levels: int = DEEPEST) -> Any:
    """Return what a person typed, with no brace in it that a reader would take for one of these tokens."""
    if isinstance(data, str):
        return _BEGINS.sub("{ ", data) if "{" in data else data
    if not levels:
        return data
    if isinstance(data, dict):
        return {key: as_words(value, levels - 1) for key, value in data.items()}
    if isinstance(data, list):
        return [as_words(value, levels - 1) for value in data]
    return data


def at_place(name: str) -> str:
    """Return where something is, whose own name may begin with its preposition."""
    return name if name.lower().startswith(("at ", "on ", "in ")) else f"at {name}"


def length(length_mm: float) -> str:
    """Return a length as a token. length_mm: the length [mm]."""
    return f"{{mm:{length_mm:g}}}"


def fine(length_mm: float) -> str:
    """Return a length that is told to thousandths, as a token. length_mm: the length [mm]."""
    return f"{{fine:{length_mm:.4f}}}"


def clock(clock_deg: float) -> str:
    """Return a clock position as a token. clock_deg: clockwise from straight up, seen from the front [deg]."""
    return f"{{clock:{clock_deg:.1f}}}"


def say(sentence: str, reader: Reader) -> str:
    """Return a sentence as a reader hears it."""

    def heard(found: re.Match[str]) -> str:
        name, value = found[1], found[2]
        figures: Mapping[str, Callable[[float], str]] = {"mm": reader.length, "fine": reader.fine, "clock": reader.clock}
        try:
            if name in figures:
                return figures[name](float(value))
        except ValueError:
            pass
        if name in ("turn", "way") and value in ("running", "against"):
            heard = reader.turn(value)
            return heard if name == "turn" else heard.partition(" seen from ")[0]
        return found[0]

    return _TOKEN.sub(heard, sentence)
