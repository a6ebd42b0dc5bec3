"""What was found at the bench, on paper: beside it what the book says of it by now, where it says otherwise."""

__all__ = ["papers_of"]

from collections.abc import Iterator, Sequence

from gurvo_core.found.job.show import view_of
from gurvo_core.found.job.state import FoundState
from gurvo_core.ledger import Facts, LedgerEntry, Paper, PaperRow, PaperTable

HEADS = ("what the book leaves open", "found", "how", "who")


def papers_of(now: FoundState, facts: Facts, _standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """One table of all of it; nothing where nothing was found."""
    rows = tuple(
        PaperRow(cells=(one.called, one.value, one.how, one.by), note=f"the book says {one.book} by now" if one.book else "")
        for one in view_of(now, facts).facts
    )
    if rows:
        yield Paper(title="Found at the bench", tables=(PaperTable(heads=HEADS, rows=rows, figures=frozenset({1})),))
