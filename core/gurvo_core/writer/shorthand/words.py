"""A typed line cut into words that know where they stand, so that a refusal can point at one of them."""

__all__ = ["Piece", "count_in", "counting", "figure_in", "pieces", "refused"]

import re
from collections.abc import Callable, Iterator
from typing import NamedTuple

from gurvo_core.errors import FigureError, WordRefused
from gurvo_core.units import read_figure

FIELD = "text"
MOST = 2_000  # characters of one line


class Piece(NamedTuple):
    """Some words of a line, and where in it they begin."""

    text: str
    begin: int

    @property
    def words(self) -> list["Piece"]:
        """Its words one by one."""
        return [Piece(found[0], self.begin + found.start()) for found in re.finditer(r"\S+", self.text)]


def refused(piece: Piece, rule: str) -> WordRefused:
    """A refusal that points at a piece."""
    return WordRefused(FIELD, piece.text, rule, begin=piece.begin)


def pieces(text: str, between: str) -> list[Piece]:
    """A line cut wherever a pattern matches, blanks round each piece left out; refuses an empty piece, and a line that no one types."""
    if len(text) > MOST:
        raise refused(Piece(text[:20], 0), f"this line is longer than {MOST} characters; write what belongs on one line")
    found = list(_cut(text, between))
    for piece in found:
        if not piece.text:
            raise refused(
                Piece(text[piece.begin : piece.begin + 1], piece.begin), "something is missing here; write it, or leave out the sign"
            )
    return found


def _cut(text: str, between: str) -> Iterator[Piece]:
    begin = 0
    for sign in [*re.finditer(between, text), None]:
        end = sign.start() if sign else len(text)
        part = text[begin:end]
        yield Piece(part.strip(), begin + len(part) - len(part.lstrip()))
        begin = sign.end() if sign else end


def count_in(piece: Piece, what: str, least: int = 1, most: int = 2000) -> int:
    """The whole number that a piece is."""
    if not re.fullmatch(r"\d{1,6}", piece.text) or not least <= int(piece.text) <= most:
        raise refused(piece, f"“{piece.text[:20]}” is no {what}; write a whole number from {least} to {most}")
    return int(piece.text)


def counting(what: str, least: int = 1, most: int = 2000) -> Callable[[str], int]:
    """Reads a line that is a whole number."""
    return lambda text: count_in(Piece(text.strip(), len(text) - len(text.lstrip())), what, least, most)


def figure_in(piece: Piece) -> float:
    """Return the figure that a piece is.

    Returned: unit as the line has it [-].

    Raises WordRefused if it is no plain decimal number; points at it.
    """
    try:
        return read_figure(piece.text)
    except FigureError as error:
        raise refused(piece, error.rule) from None
