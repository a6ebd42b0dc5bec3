"""A whole sheet of readings pasted from a spreadsheet: what is understood and what is not, each said before anything is kept.

Either one reading a row (place, side, plane, axis, figure), or a table: a row a place, a column a spot such as ``bore front up``.
"""

__all__ = ["SheetRow", "read_sheet"]

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from gurvo_core.engine.fit import SideKey
from gurvo_core.errors import CoreError
from gurvo_core.fits.places import FitSpot
from gurvo_core.units import read_figure

MOST_ROWS = 2000
_NOT_WORDS = re.compile(r"[^a-z0-9]+")


@dataclass(frozen=True, kw_only=True)
class SheetRow:
    """One cell with a figure: the spot it is for, or why it is not taken."""

    line: int
    text: str
    spot: FitSpot | None
    why_not: str = ""


def read_sheet(text: str, spots: Sequence[FitSpot], called: Mapping[SideKey, str]) -> list[SheetRow]:
    r"""Return what a pasted sheet says.

    Source: RFC 4180 for cells in quotes; the separator is the one the first row has most of.

    >>> spots = [FitSpot(place="main 1", side="outer", axis="up"), FitSpot(place="main 2", side="outer", axis="up")]
    >>> rows = read_sheet("place;bore up\nmain 1;58,024\nmain 9;58,020", spots, {"outer": "bore"})
    >>> rows[0].spot.place, rows[1].why_not
    ('main 1', 'there is no place called “main 9” in this fit')
    """
    filled = [(number, line) for number, line in enumerate(text.splitlines(), 1) if line.strip()]
    if len(filled) < 2:
        return [
            SheetRow(line=1, text=text.strip()[:60], spot=None, why_not="a sheet has a first row that names its columns, and rows below")
        ]
    if len(filled) > MOST_ROWS:
        return [SheetRow(line=MOST_ROWS, text="", spot=None, why_not=f"a sheet has {MOST_ROWS} rows at most")]
    separator = max("\t;,", key=filled[0][1].count)
    table = [(number, next(csv.reader(io.StringIO(line), delimiter=separator))) for number, line in filled]
    head = [_words(cell) for cell in table[0][1]]
    if "place" not in head:
        return [SheetRow(line=filled[0][0], text="", spot=None, why_not="one column is called “place”: name it so in the first row")]
    known = {(_words(spot.place), _column(spot, called)): spot for spot in spots}
    places = {_words(spot.place) for spot in spots}
    at = head.index("place")
    rows: list[SheetRow] = []
    for number, cells in table[1:]:
        place = cells[at].strip() if at < len(cells) else ""
        rows += [_row(number, cell, place, name, (known, places)) for name, cell in _figures(head, cells, at)]
    return rows


def _figures(head: list[str], cells: list[str], at: int) -> list[tuple[str, str]]:
    """The cells of a row that hold a figure, with the name of the spot each is for."""
    if "reading" in head:
        about = [cells[n].strip() for n, name in enumerate(head) if name in ("side", "plane", "axis") and n < len(cells)]
        column = head.index("reading")
        return [(_words(" ".join(about)), cells[column].strip())] if column < len(cells) else []
    return [(head[n], cell.strip()) for n, cell in enumerate(cells) if n != at and n < len(head) and cell.strip()]


def _row(number: int, cell: str, place: str, name: str, there: tuple[dict[tuple[str, str], FitSpot], set[str]]) -> SheetRow:
    known, places = there
    spot = known.get((_words(place), name))
    if spot is None:
        is_place = _words(place) in places
        what = f"“{name}” is no spot of this fit" if is_place else f"there is no place called “{place}” in this fit"
        return SheetRow(line=number, text=cell, spot=None, why_not=what)
    try:
        read_figure(cell)
    except CoreError as error:
        return SheetRow(line=number, text=cell, spot=None, why_not=f"{place}, {name}: {error.rule}")
    return SheetRow(line=number, text=cell, spot=spot)


def _column(spot: FitSpot, called: Mapping[SideKey, str]) -> str:
    return _words(" ".join(filter(None, (called.get(spot.side, spot.side), spot.plane, spot.axis))))


def _words(text: str) -> str:
    return _NOT_WORDS.sub(" ", text.lower()).strip()
