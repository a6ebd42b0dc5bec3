"""What shows that a wheel stands right: ``dot to line on the head at 12``, or ``notch`` alone; a clock position may be left out."""

__all__ = ["MarkSaid", "read_mark", "write_mark"]

from typing import NamedTuple

from gurvo_core.clocks import read_clock
from gurvo_core.errors import ReadingError
from gurvo_core.writer.shorthand.words import Piece, pieces, refused

MINUTE_DEG = 0.5
_AT = r"\bat (?=(?:half past )?\d)"


class MarkSaid(NamedTuple):
    """A mark, what it meets if that is something, and where it stands then if that is known."""

    name: str
    meets: str | None = None
    clock_deg: float | None = None  # clockwise from straight up, seen from the front


def _clock(piece: Piece) -> float:
    """A clock position [deg], clockwise from straight up: ``12``, ``half past 3``, ``3:30``, ``7 o'clock``."""
    try:
        return read_clock(piece.text).deg
    except ReadingError:
        rule = f"“{piece.text}” is no clock position; write such as 12, half past 3 or 3:30, seen from the front"
        raise refused(piece, rule) from None


def _clock_words(clock_deg: float) -> str:
    """The same in its one form, to the minute."""
    minutes = round(clock_deg / MINUTE_DEG) % 720
    hour, rest = minutes // 60 or 12, minutes % 60
    return f"{hour}:{rest:02d}" if rest else str(hour)


def read_mark(text: str) -> MarkSaid:
    """The mark in a line."""
    cut = pieces(text, _AT)
    if len(cut) > 2 or not text.strip():
        raise refused(Piece(text, 0), "write the mark, what it meets, and where: such as dot to line on the head at 12")
    at = _clock(cut[1]) if len(cut) == 2 else None
    halves = pieces(cut[0].text, r"\bto\b")
    if len(halves) > 2:
        raise refused(cut[0], "“to” is said twice; write one mark and what it meets, such as dot to line on the head")
    return MarkSaid(halves[0].text, halves[1].text if len(halves) == 2 else None, at)


def write_mark(said: MarkSaid) -> str:
    """The same line in its one form."""
    meets = f" to {said.meets}" if said.meets else ""
    at = f" at {_clock_words(said.clock_deg)}" if said.clock_deg is not None else ""
    return f"{said.name}{meets}{at}"
