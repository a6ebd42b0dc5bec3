"""The ledger on paper, drawn line by line: a layout of HTML takes fifty times as long for each entry.

The pages are laid out blank with all others, so that they have their foot and number, and what is drawn here is put on them.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from functools import cache, lru_cache
from io import BytesIO
from itertools import chain
from typing import NamedTuple

import pikepdf
from fontTools.ttLib import TTFont as FontFile
from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import registerFont, stringWidth
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from press.fonts_of import FONTS
from press.ledger_rows import LedgerPages, LedgerRow

SHEETS = {"A4": (210 * mm, 297 * mm), "Letter": (215.9 * mm, 279.4 * mm)}
TOP, SIDE, FOOT = 16 * mm, 16 * mm, 18 * mm  # the margins of the record's other pages
PLAIN, STRONG = "Archivo", "Archivo strong"
SIZE, LEADING, ABOVE = 8.0, 10.4, 2.4
MOST_LINES = 50  # of one entry on a page; both sheets hold them
INK, SOFT, RULE, AMBER = HexColor("#1C2226"), HexColor("#5E625F"), HexColor("#DCD6CA"), HexColor("#8A5308")
_Type = tuple[str, float, Color]
HEADING, COLUMN, DAY = (STRONG, 11.0, INK), (STRONG, SIZE - 0.5, SOFT), (STRONG, SIZE + 0.5, INK)


class _Piece(NamedTuple):
    """Text in a column of a row, broken into lines."""

    at: float
    lines: list[tuple[str, Color]]


@cache
def _fonts() -> None:
    """Have the shipped fonts unpacked and known, once in this process."""
    for name, weight in ((PLAIN, 400), (STRONG, 600)):
        font, unpacked = FontFile(FONTS / f"archivo-latin-{weight}-normal.woff2"), BytesIO()
        font.flavor = None
        font.save(unpacked)
        unpacked.seek(0)
        registerFont(TTFont(name, unpacked))


def drawn(ledger: LedgerPages) -> tuple[bytes, int]:
    """Return a ledger's pages as PDF, without their foot, and how many there are."""
    _fonts()
    written = BytesIO()
    canvas = Canvas(written, pagesize=SHEETS[ledger.sheet], pageCompression=0)  # it is packed when it is put on
    _Pen(canvas, ledger).draw()
    pages = canvas.getPageNumber() - 1
    canvas.save()
    return written.getvalue(), pages


def put_on(paper: bytes, ledger: bytes) -> bytes:
    """Return paper whose last pages are blank with the ledger's pages drawn on these."""
    written = BytesIO()
    with pikepdf.open(BytesIO(paper)) as whole, pikepdf.open(BytesIO(ledger)) as drawn_on:
        blank = whole.pages[-len(drawn_on.pages) :]
        for page, over in zip(blank, drawn_on.pages, strict=True):
            page.add_overlay(over, None)
        whole.save(written, object_stream_mode=pikepdf.ObjectStreamMode.generate)
    return written.getvalue()


class _Pen:
    """Goes down the pages of one ledger; what is alike on a page is written in one go, which takes a third of the time."""

    def __init__(self, canvas: Canvas, ledger: LedgerPages) -> None:
        self.canvas, self.ledger = canvas, ledger
        self.wide, self.high = SHEETS[ledger.sheet]
        self.right = self.wide - SIDE
        whole = self.right - SIDE
        self.number_ends = SIDE + 9 * mm
        self.at, self.title = SIDE + 12 * mm, SIDE + 27 * mm
        self.by = self.right - 30 * mm
        self.value = self.title + 0.27 * whole
        self.y = self.high - TOP
        self.day = ""
        self.words: defaultdict[_Type, list[tuple[float, float, str]]] = defaultdict(list)
        self.rules: defaultdict[tuple[Color, float], list[tuple[float, float, float, float]]] = defaultdict(list)

    def draw(self) -> None:
        """Draw every row, a new page wherever one is full."""
        self._head(self.ledger.heading)
        for row, pieces in chain.from_iterable(map(self._parts, self.ledger.rows)):
            needed = ABOVE * 2 + LEADING * max(len(piece.lines) for piece in pieces)
            day = LEADING * 2.2 if row.day != self.day else 0.0
            if self.y - needed - day < FOOT:
                self._write_page()
                self.y = self.high - TOP
                self._head(f"{self.ledger.heading}, continued")
                self._day(f"{row.day}, continued" if row.day == self.day else row.day)
            elif row.day != self.day:
                self._day(row.day)
            self.day = row.day
            self._row(row, pieces, needed)
        self._write_page()

    def _write_page(self) -> None:
        for (font, size, ink), placed in self.words.items():
            text = self.canvas.beginText()
            text.setFont(font, size)
            text.setFillColor(ink)
            for x, y, words in placed:
                text.setTextOrigin(x, y)
                text.textOut(words)
            self.canvas.drawText(text)
        for (ink, wide), lines in self.rules.items():
            self.canvas.setStrokeColor(ink)
            self.canvas.setLineWidth(wide)
            self.canvas.lines(lines)
        self.words.clear()
        self.rules.clear()
        self.canvas.showPage()

    def _head(self, heading: str) -> None:
        self.words[HEADING].append((SIDE, self.y - 11, heading))
        self.y -= 11 + 2.4 * mm
        self._rule(INK, 0.6)
        self.y -= LEADING + 1
        for x, words in zip((SIDE, self.at, self.title, self.value, self.by), self.ledger.columns, strict=True):
            self.words[COLUMN].append((x, self.y, words))
        self.y -= 3
        self._rule(RULE, 0.5)

    def _day(self, day: str) -> None:
        self.y -= LEADING * 1.5
        self.words[DAY].append((self.at, self.y, day))
        self.y -= LEADING * 0.5

    def _parts(self, row: LedgerRow) -> Iterator[tuple[LedgerRow, list[_Piece]]]:
        """An entry, in pieces that a page can hold where it is a whole page of words."""
        pieces = list(self._pieces(row))
        for begin in range(0, max(len(piece.lines) for piece in pieces), MOST_LINES):
            part = [_Piece(piece.at, piece.lines[begin : begin + MOST_LINES]) for piece in pieces]
            yield (row if begin == 0 else row._replace(number="", at="")), part

    def _pieces(self, row: LedgerRow) -> Iterator[_Piece]:
        colour = SOFT if row.is_struck else INK
        gap = 3 * mm
        yield _Piece(self.title, [(line, colour) for line in _broken(row.title, self.value - self.title - gap)])
        told = [(" ".join(words for words in (row.value, row.aside) if words), colour), *((remark, AMBER) for remark in row.remarks)]
        yield _Piece(self.value, [(line, ink) for words, ink in told if words for line in _broken(words, self.by - self.value - gap)])
        yield _Piece(self.by, [(line, SOFT) for line in _broken(row.by, self.right - self.by)])

    def _row(self, row: LedgerRow, pieces: Iterable[_Piece], needed: float) -> None:
        first = self.y - ABOVE - SIZE
        self.words[PLAIN, SIZE, SOFT] += [(self.number_ends - _width(row.number), first, row.number), (self.at, first, row.at)]
        for piece in pieces:
            for down, (line, ink) in enumerate(piece.lines):
                y = first - down * LEADING
                self.words[PLAIN, SIZE, ink].append((piece.at, y, line))
                if row.is_struck and ink is SOFT and piece.at != self.by:
                    through = y + SIZE * 0.3
                    self.rules[SOFT, 0.6].append((piece.at, through, piece.at + _width(line), through))
        self.y -= needed
        self._rule(RULE, 0.4)

    def _rule(self, ink: Color, wide: float) -> None:
        self.rules[ink, wide].append((SIDE, self.y, self.right, self.y))


def _width(words: str) -> float:
    return float(stringWidth(words, PLAIN, SIZE))


@lru_cache(maxsize=1024)  # who it was and what sort of entry is the same many times over
def _broken(words: str, wide: float) -> tuple[str, ...]:
    """Words in lines no wider than a column; a word that is wider by itself is broken."""
    if _width(words) <= wide and "\n" not in words:
        return (words,)
    return tuple(part for line in simpleSplit(words, PLAIN, SIZE, wide) for part in _pieces_of(line, wide))


def _pieces_of(line: str, wide: float) -> Iterator[str]:
    while _width(line) > wide:
        fits = next(n for n in range(len(line) - 1, 0, -1) if n == 1 or _width(line[:n]) <= wide)
        yield line[:fits]
        line = line[fits:]
    yield line
