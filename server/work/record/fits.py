"""Fits as they are handed over to a spreadsheet: every reading that stands as CSV."""

import csv
from collections.abc import Iterator

from gurvo_core.fits.job.paper import FitLine, fit_lines
from work import bridge
from work.models import Engine
from work.record.table import Pass, safe_text


def fits_csv(engine: Engine) -> Iterator[str]:
    """Return every reading of a fit that stands as a table."""
    table = csv.DictWriter(Pass(), list(FitLine.model_fields))
    yield str(table.writeheader())
    for line in fit_lines(bridge.ledger_of(engine).folded.states["fits"]):
        plain = line.model_dump()
        yield str(table.writerow({key: safe_text(value) if isinstance(value, str) else value for key, value in plain.items()}))
