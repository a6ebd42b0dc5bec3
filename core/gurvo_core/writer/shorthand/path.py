"""What a chain or belt passes, in the direction it travels: ``crank, idler back, exhaust, intake, tensioner back``."""

__all__ = ["Passed", "read_path", "write_path"]

from collections.abc import Sequence
from typing import NamedTuple

from gurvo_core.writer.shorthand.words import Piece, pieces, refused

MOST_WHEELS = 32


class Passed(NamedTuple):
    """One wheel by the name it is called, and whether its back is run over."""

    name: str
    on_back: bool = False


def read_path(text: str) -> tuple[Passed, ...]:
    """The wheels in a line, in order; the last word ``back`` says that the back runs over it."""
    if not text.strip():
        raise refused(Piece(text, 0), "nothing is said; write the wheels as it travels, such as crank, idler back, cam")
    found: list[Passed] = []
    for piece in pieces(text, r",|;|→|->|>"):
        words = piece.words
        on_back = len(words) > 1 and words[-1].text.lower() == "back"
        name = " ".join(word.text for word in (words[:-1] if on_back else words)).lower()
        if name in (one.name for one in found):
            raise refused(piece, f"“{name}” is passed twice; give the second a name of its own, such as {name} 2")
        found.append(Passed(name, on_back))
    if not 2 <= len(found) <= MOST_WHEELS:
        raise refused(
            Piece(text, 0), f"it passes {len(found)} wheel{'s' * (len(found) != 1)}; write from 2 to {MOST_WHEELS}, a comma between them"
        )
    return tuple(found)


def write_path(path: Sequence[Passed]) -> str:
    """The same line in its one form."""
    return ", ".join(f"{one.name} back" if one.on_back else one.name for one in path)
