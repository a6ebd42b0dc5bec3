"""What every room hands over, ready for the page: sentences as paper says them, dots on a line. Names no room."""

__all__ = ["first_rows", "judged_lines", "parts_on_paper"]

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from gurvo_core.ledger import Paper, PaperDot, PaperTable

Saying = Callable[[str], str]
WIDE, MARGIN = 240.0, 10.0
LOOKS = {"in": "in", "out": "out", "": "open"}  # of the word for what was judged; anything else tells


@dataclass(frozen=True)
class Dot:
    """One of several like figures on a line, and where the name of one that stands apart ends."""

    x: float
    name: str
    is_apart: bool

    @property
    def anchor(self) -> str:
        """So that no name runs off the line."""
        return "start" if self.x < 40 else "end" if self.x > 200 else "middle"


def parts_on_paper(papers: Iterable[Paper], say: Saying) -> list[dict[str, Any]]:
    """Return the rooms' parts of a record, as the page shows them."""
    return [
        {
            "title": say(paper.title),
            "about": " · ".join(say(words) for words in paper.about if words),
            "warns": paper.warns,
            "tables": [_table(table, say) for table in paper.tables],
            "plot": _plot(paper.dots),
            "dots_are": paper.dots_are,
            "apart": [say(words) for words in paper.apart],
            "says": say(paper.says),
            "foot": paper.foot,
        }
        for paper in papers
    ]


def _table(table: PaperTable, say: Saying) -> dict[str, Any]:
    # a figure, or somebody's name, which is not broken
    styles = ["n" if n in table.figures else "who" if head == "who" else "" for n, head in enumerate(table.heads)]

    def styled(cells: Sequence[str]) -> list[tuple[str, str]]:
        return [(say(words), style) for words, style in zip(cells, styles, strict=True)]

    rows = [{"cells": styled(row.cells), "is_apart": row.is_apart, "note": say(row.note)} for row in table.rows]
    return {"heads": styled(table.heads), "limits": table.limits, "rows": rows, "wide": len(table.heads) - 1}


def _plot(dots: Sequence[PaperDot]) -> dict[str, Any] | None:
    if not dots:
        return None
    low, high = min(one.value for one in dots), max(one.value for one in dots)
    span = (high - low) or 1.0
    drawn = [Dot(MARGIN + (WIDE - 2 * MARGIN) * (one.value - low) / span, one.name, one.is_apart) for one in dots]
    return {"dots": drawn, "low": low, "high": high}


def judged_lines(papers: Iterable[Paper], say: Saying) -> Iterator[dict[str, str]]:
    """What was judged, line by line, for the first page."""
    for line in (paper.judged for paper in papers if paper.judged is not None):
        yield {"what": line.what, "wanted": say(line.wanted), "got": line.got, "word": line.word, "look": LOOKS.get(line.word, "tell")}


def first_rows(papers: Iterable[Paper]) -> list[tuple[str, ...]]:
    """Rows that are shown on the first page too: what, what it was, what it is now."""
    return [row.cells for paper in papers if paper.on_first for table in paper.tables for row in table.rows]
