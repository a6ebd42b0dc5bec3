"""Gaps of valves on paper: the nearest of each sort with the camshafts as they were found, and those that were measured."""

__all__ = ["papers_of"]

from collections.abc import Iterator, Sequence

from gurvo_core.clearway.job.show import view_of
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.clearway.job.thought import ground_of
from gurvo_core.clearway.job.view import MeasuredView
from gurvo_core.clearway.shown import GapRow, gap_rows
from gurvo_core.ledger import CAM_PLACES, Facts, LedgerEntry, Paper, PaperRow, PaperTable

SORTS = ("intake to piston", "exhaust to piston", "valve to valve")
TIMED = ("nearest with everything timed", "gap, mm", "wanted, mm", "crank", "known by")
MEASURED = ("measured at this engine", "least, mm", "wanted, mm", "by", "verdict", "who")
AS_KNOWN = "As the document describes the engine, or as it was measured: flat heads, rigid parts, no carbon."


def papers_of(now: ClearwayState, facts: Facts, _standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """Both tables; nothing before a camshaft is in, or where nothing is known of them."""
    view = view_of(now, facts)
    if view is None:
        return
    nearest, measured = tuple(_nearest(now, facts)), tuple(_measured(one) for one in view.measured)
    timed = PaperTable(heads=TIMED, rows=nearest, figures=frozenset({1, 2, 3}))
    read = PaperTable(heads=MEASURED, rows=measured, figures=frozenset({1, 2}))
    tables = tuple(table for table in (timed, read) if table.rows)
    if tables:
        yield Paper(title="Gaps of valves", tables=tables, foot=AS_KNOWN)


def _nearest(now: ClearwayState, facts: Facts) -> Iterator[PaperRow]:
    """The first of each sort: they come nearest first."""
    advances_deg = {cam: place.advance_deg for cam, place in (facts.get(CAM_PLACES) or {}).items()}
    rows = gap_rows(ground_of(now), advances_deg)
    for sort in SORTS:
        row = next((one for one in rows if _sort_of(one.words) == sort), None)
        if row is not None:
            yield _timed(row)


def _sort_of(words: str) -> str:
    return f"{words.split(maxsplit=1)[0]} to piston" if "piston" in words else SORTS[-1]


def _timed(gap: GapRow) -> PaperRow:
    wanted = f"{gap.wanted_mm:.1f}{'' if gap.by_book else ' (trade)'}"
    cells = (gap.words, f"{gap.gap_mm:.2f} ± {gap.expanded_mm:.2f}", wanted, f"{gap.at_deg:.0f}°", gap.known_by)
    return PaperRow(cells=cells, is_apart=gap.gap_mm < gap.wanted_mm)


def _measured(one: MeasuredView) -> PaperRow:
    least = f"{one.least_mm:.2f} ± {one.expanded_mm:.2f}"
    return PaperRow(cells=(one.name, least, f"{one.wanted_mm:.1f}", one.how, one.verdict, one.by), is_apart=one.verdict == "out")
