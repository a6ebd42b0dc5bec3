"""Cylinders by number: a firing order ``1-3-4-2``, and the rows of an engine ``1-3-5-7 / 2-4-6-8``."""

__all__ = ["read_numbers", "read_rows", "write_numbers", "write_rows"]

from collections.abc import Sequence

from gurvo_core.writer.shorthand.words import Piece, count_in, pieces, refused

_BETWEEN = r"\s*[-–—,]\s*|\s+"
HIGHEST = 99


def read_numbers(text: str) -> tuple[int, ...]:
    """Numbers with a dash, comma or blank between, each once."""
    return _numbers(Piece(text, 0))


def _numbers(line: Piece) -> tuple[int, ...]:
    found: list[int] = []
    for piece in pieces(line.text, _BETWEEN) if line.text.strip() else []:
        number = count_in(Piece(piece.text, line.begin + piece.begin), "cylinder", most=HIGHEST)
        if number in found:
            raise refused(Piece(piece.text, line.begin + piece.begin), f"{number} is said twice; every cylinder stands here once")
        found.append(number)
    if not found:
        raise refused(line, "no cylinder is said; write their numbers, such as 1-3-4-2")
    return tuple(found)


def write_numbers(numbers: Sequence[int]) -> str:
    """The same with dashes."""
    return "-".join(map(str, numbers))


def read_rows(text: str, rows: int) -> tuple[tuple[int, ...], ...]:
    """Rows of cylinders with a stroke between, each number once in all."""
    cut = pieces(text, "/")
    if len(cut) != rows:
        raise refused(Piece(text, 0), f"{len(cut)} row{'s' * (len(cut) != 1)} said, and there are {rows}; put / between them")
    found = tuple(_numbers(piece) for piece in cut)
    seen: set[int] = set()
    for piece, row in zip(cut, found, strict=True):
        if twice := seen & set(row):
            raise refused(piece, f"{min(twice)} stands in two rows; every cylinder stands in one")
        seen |= set(row)
    return found


def write_rows(rows: Sequence[Sequence[int]]) -> str:
    """The same, rows with a stroke between."""
    return " / ".join(map(write_numbers, rows))
