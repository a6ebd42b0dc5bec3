"""Bore, stroke and rod on one line: ``86 x 86, rod 143.5``, with ``pin 0.5`` behind where the pins are offset; in mm."""

__all__ = ["Sizes", "read_sizes", "write_sizes"]

import re
from typing import NamedTuple

from gurvo_core.writer.shorthand.words import Piece, figure_in, refused

_LINE = re.compile(r"(?P<bore>\S+?)\s*[x×]\s*(?P<stroke>\S+?)(?:,?\s*rod (?P<rod>\S+?))?(?:,?\s*pin (?P<pin>\S+))?", re.I)


class Sizes(NamedTuple):
    """Of one cylinder [mm]; None while not known."""

    bore_mm: float
    stroke_mm: float
    rod_mm: float | None = None
    pin_offset_mm: float | None = None


def read_sizes(text: str) -> Sizes:
    """The sizes in a line."""
    plain = text.strip()
    found = _LINE.fullmatch(plain)
    if found is None:
        raise refused(Piece(plain, 0), "write bore x stroke, and the rod if it is known, such as 86 x 86, rod 143.5")

    def figure(name: str) -> float | None:
        return None if found[name] is None else figure_in(Piece(found[name], found.start(name)))

    bore, stroke, rod = figure("bore") or 0.0, figure("stroke") or 0.0, figure("rod")
    for name, size, most in (("bore", bore, 1000), ("stroke", stroke, 1000)):
        if not 0 < size <= most:
            raise refused(Piece(found[name], found.start(name)), f"no engine has a {name} of {size:g} mm; write it in mm")
    if rod is not None and rod <= stroke / 2:
        raise refused(
            Piece(found["rod"], found.start("rod")), f"a rod of {rod:g} mm is shorter than its crank's throw; measure from centre to centre"
        )
    return Sizes(bore, stroke, rod, figure("pin"))


def write_sizes(sizes: Sizes) -> str:
    """The same line in its one form."""
    rod = f", rod {sizes.rod_mm:g}" if sizes.rod_mm is not None else ""
    pin = f", pin {sizes.pin_offset_mm:g}" if sizes.pin_offset_mm is not None else ""
    return f"{sizes.bore_mm:g} x {sizes.stroke_mm:g}{rod}{pin}"
