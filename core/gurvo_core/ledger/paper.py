"""What a room hands over on paper: parts with tables, told without ink. Whoever prints decides how it looks."""

__all__ = ["Judged", "Paper", "PaperDot", "PaperRow", "PaperTable", "WordOfPaper"]

from dataclasses import dataclass
from typing import Literal

WordOfPaper = Literal["in", "out", "can't tell", "accepted", "see below", ""]


@dataclass(frozen=True, kw_only=True)
class PaperRow:
    """One line of a table."""

    cells: tuple[str, ...]
    is_apart: bool = False  # whether it is to be looked at
    note: str = ""  # below it, as wide as the table


@dataclass(frozen=True, kw_only=True)
class PaperTable:
    """A table."""

    heads: tuple[str, ...]
    rows: tuple[PaperRow, ...]
    limits: tuple[str, ...] = ()  # a second line of heads: between what each column is wanted
    figures: frozenset[int] = frozenset()  # columns of figures, counted from 0


@dataclass(frozen=True, kw_only=True)
class PaperDot:
    """One of several like figures, on a line with the others."""

    name: str
    value: float
    is_apart: bool


@dataclass(frozen=True, kw_only=True)
class Judged:
    """One line of what was judged, for whoever pays: what, what is wanted of it, what it came to, and the word for it."""

    what: str
    wanted: str
    got: str
    word: WordOfPaper


@dataclass(frozen=True, kw_only=True)
class Paper:
    """One part of a record: a heading and what stands under it, in this order."""

    title: str
    about: tuple[str, ...] = ()
    warns: str = ""  # beside what it is about
    tables: tuple[PaperTable, ...] = ()
    on_first: bool = False  # whether its rows are on the first page too: what, what it was, what it is now
    dots: tuple[PaperDot, ...] = ()
    dots_are: str = ""
    apart: tuple[str, ...] = ()  # what stands apart, a sentence each
    says: str = ""
    foot: str = ""
    judged: Judged | None = None  # the same in a line, for the first page
