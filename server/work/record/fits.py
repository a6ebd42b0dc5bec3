"""Fits and lash as they are handed over: on paper with every reading and its verdict, every reading that stands as CSV."""

import csv
from collections.abc import Callable, Iterator
from typing import Any

from gurvo_core.fits.job import FitsState
from gurvo_core.fits.job.paper import FitLine, fit_lines, fit_papers
from gurvo_core.lash.job import LashState
from gurvo_core.lash.job.paper import lash_papers
from work import bridge
from work.models import Engine
from work.record.table import Pass, safe_text

Saying = Callable[[str], str]


def fits_on_paper(now: FitsState, say: Saying) -> list[dict[str, Any]]:
    """Return every fit that was measured at, ready for the page."""
    return [
        {
            "name": paper.name,
            "limits": say(paper.limits),
            "about": "; ".join(filter(None, [say(paper.conditions), paper.gauges])),
            "columns": paper.columns,
            "rows": [
                {
                    "place": "" if place.id == "it" else place.id,
                    "cells": [_size(cell.size_mm, cell.count) if cell else "" for cell in line.cells],
                    "value": "" if place.value_mm is None else f"{place.value_mm:.3f}",
                    "u": "" if place.u_mm is None else f"{place.u_mm:.3f}",
                    "verdict": place.verdict or f"{place.read} of {place.of} read",
                    "notes": "; ".join(filter(None, [say(place.notes), f"size {place.size}" if place.size else "", place.decided])),
                    "decided": place.decided,
                    "is_apart": place.verdict in ("out", "can't tell"),
                }
                for place, line in paper.rows
            ],
            "gasket": paper.gasket,
        }
        for paper in fit_papers(now)
    ]


def _size(size_mm: float, count: int) -> str:
    return f"{size_mm:.3f}" + (f" ×{count}" if count > 1 else "")


def lash_on_paper(now: LashState, say: Saying) -> list[dict[str, Any]]:
    """Return every step that set valves, ready for the page."""
    return [
        {
            "title": paper.title,
            "limits": say(paper.limits),
            "about": paper.about,
            "way": say(paper.view.way),
            "has_shims": paper.has_shims,
            "rows": [
                {
                    "valve": valve.words,
                    "stop": valve.stop,
                    "found": _mm(valve.found_mm if valve.found_mm is not None else valve.lash_mm),
                    "left": _mm(valve.lash_mm),
                    "u": _mm(valve.u_mm),
                    "shim": "" if valve.shim_mm is None else f"{valve.shim_mm:.2f}",
                    "verdict": "another shim, not read again" if valve.is_pending else valve.verdict or "not read",
                    "decided": valve.decided,
                    "is_apart": valve.verdict in ("out", "can't tell") or valve.is_pending,
                }
                for valve in paper.view.valves
            ],
        }
        for paper in lash_papers(now)
    ]


def _mm(value: float | None) -> str:
    return "" if value is None else f"{value:.3f}"


def fits_csv(engine: Engine) -> Iterator[str]:
    """Return every reading of a fit that stands as a table."""
    table = csv.DictWriter(Pass(), list(FitLine.model_fields))
    yield str(table.writeheader())
    for line in fit_lines(bridge.ledger_of(engine).folded.states["fits"]):
        plain = line.model_dump()
        yield str(table.writerow({key: safe_text(value) if isinstance(value, str) else value for key, value in plain.items()}))
