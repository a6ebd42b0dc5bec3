"""Gaps of valves on paper: the nearest of each sort with the camshafts as they were found, and those that were measured."""

from collections.abc import Iterator
from typing import Any

from gurvo_core.clearway.job.thought import ground_of
from gurvo_core.clearway.shown import gap_rows
from gurvo_core.timing.job import CAM_PLACES
from gurvo_core.work import BenchState
from work import bridge

SORTS = ("intake to piston", "exhaust to piston", "valve to valve")


def gaps_on_paper(ledger: bridge.Ledger, state: BenchState) -> dict[str, Any]:
    """Return the rows of both tables; none before a camshaft is in, or where nothing is known of them."""
    view = vars(state).get("clearway")
    if view is None:
        return {"gaps": [], "gaps_measured": []}
    return {"gaps": list(_nearest(ledger)), "gaps_measured": view.measured}


def _nearest(ledger: bridge.Ledger) -> Iterator[dict[str, Any]]:
    """The first of each sort: they come nearest first."""
    advances = {cam: place.advance_deg for cam, place in (ledger.folded.facts.get(CAM_PLACES) or {}).items()}
    rows = gap_rows(ground_of(ledger.folded.states["clearway"]), advances)
    for sort in SORTS:
        row = next((one for one in rows if _sort_of(one.words) == sort), None)
        if row is not None:
            yield {**row.model_dump(), "sort": sort}


def _sort_of(words: str) -> str:
    return f"{words.split(maxsplit=1)[0]} to piston" if "piston" in words else SORTS[-1]
