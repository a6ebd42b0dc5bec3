"""Valves of a cylinder, intake and exhaust: ``2 + 2``."""

__all__ = ["read_valves", "write_valves"]

from gurvo_core.writer.shorthand.words import Piece, count_in, pieces, refused

MOST = 4


def read_valves(text: str) -> tuple[int, int]:
    """How many intake and exhaust valves a cylinder has."""
    cut = pieces(text, r"\+")
    if len(cut) != 2:
        raise refused(Piece(text, 0), "write intake + exhaust of one cylinder, such as 2 + 2 or 1 + 1")
    intake, exhaust = (count_in(piece, "number of valves", most=MOST) for piece in cut)
    return intake, exhaust


def write_valves(valves: tuple[int, int]) -> str:
    """The same line in its one form."""
    return f"{valves[0]} + {valves[1]}"
