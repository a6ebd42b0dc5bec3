"""Limits on one line: ``0.03-0.06``, ``< 0.10``, ``> 0.2``; in mm, or with ``in`` or ``thou`` behind."""

__all__ = ["read_limits", "write_limits"]

import re

from gurvo_core.units import Unit, per_unit
from gurvo_core.writer.shorthand.words import Piece, figure_in, pieces, refused

Limits = tuple[float | None, float | None]
_UNITS: dict[str, Unit] = {"mm": "mm", "in": "in", '"': "in", "thou": "thou", "µm": "µm", "um": "µm"}
_ENDS = re.compile(r"\s*(mm|in|\"|thou|µm|um)\s*$")
DECIMALS = 6


def read_limits(text: str) -> Limits:
    """Least and most in a line [mm]; None where one of them is not said."""
    unit_said = _ENDS.search(text)
    factor = per_unit(_UNITS[unit_said[1]]) if unit_said else 1.0
    line = Piece(text[: unit_said.start()] if unit_said else text, 0)
    sign = line.text.strip()[:1]
    if sign in ("<", "≤", ">", "≥"):
        at = line.text.index(sign) + 1
        figure = _inside(Piece(line.text[at:].strip(), at + len(line.text[at:]) - len(line.text[at:].lstrip())), factor)
        return (None, figure) if sign in "<≤" else (figure, None)
    cut = pieces(line.text, r"\s*(?:[-–—]|\bto\b)\s*")
    if len(cut) != 2:
        raise refused(line, "this is no pair of limits; write such as 0.03-0.06, < 0.10 or > 0.2")
    least, most = (_inside(piece, factor) for piece in cut)
    if least > most:
        raise refused(cut[1], f"the most, {cut[1].text}, is less than the least, {cut[0].text}; write the smaller one first")
    return least, most


def _inside(piece: Piece, factor: float) -> float:
    return round(figure_in(piece) * factor, DECIMALS)


def write_limits(limits: Limits) -> str:
    """The same line in its one form, in mm."""
    least, most = limits
    if least is None:
        return f"< {most:g}" if most is not None else ""
    return f"> {least:g}" if most is None else f"{least:g}-{most:g}"
