"""Coloured links or printed lines, the way they travel: ``crank 25, intake 8, exhaust 31``, each at its wheel, with so many to the next."""

__all__ = ["LinkSaid", "read_links", "write_links"]

from collections.abc import Sequence
from typing import NamedTuple

from gurvo_core.writer.shorthand.words import figure_in, pieces, refused

MOST_TO_NEXT = 1000


class LinkSaid(NamedTuple):
    """One marked link: at which wheel, and how many to the next; None while nobody has counted."""

    wheel: str
    to_next: float | None = None


def read_links(text: str) -> tuple[LinkSaid, ...]:
    """The marked links in a line."""
    found = []
    for piece in pieces(text, r"[,;]"):
        words = piece.words
        last = words[-1]
        counted = len(words) > 1 and last.text[:1].isdigit()
        number = figure_in(last) if counted else None
        if number is not None and (number <= 0 or number > MOST_TO_NEXT or number * 2 != int(number * 2)):
            raise refused(last, f"“{last.text}” is no number of links; write whole ones or halves, such as 25 or 12.5")
        found.append(LinkSaid(" ".join(word.text for word in (words[:-1] if counted else words)).lower(), number))
    return tuple(found)


def write_links(links: Sequence[LinkSaid]) -> str:
    """The same line in its one form."""
    return ", ".join(one.wheel if one.to_next is None else f"{one.wheel} {one.to_next:g}" for one in links)
