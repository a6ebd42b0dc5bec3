"""Joints as they are handed over to a spreadsheet: every pull and every trace as CSV."""

import csv
from collections.abc import Iterable, Iterator

from gurvo_core.joints.job.show import pull_lines
from gurvo_core.joints.job.view import PullLine, TraceLine
from work import bridge
from work.models import Engine
from work.record.table import Pass, safe_text


def traces_csv(lines: Iterable[TraceLine]) -> Iterator[str]:
    """Return traces as a table, one row a reading."""
    table = csv.writer(Pass())
    yield str(table.writerow(["fastener", "stage", "round", "angle_deg", "torque_nm"]))
    for line in lines:
        for angle, torque in zip(line.angle_deg, line.torque_nm, strict=True):
            yield str(table.writerow([line.fastener, line.stage, line.turn, angle, torque]))


def pulls_csv(engine: Engine) -> Iterator[str]:
    """Return every pull that stands as a table."""
    table = csv.DictWriter(Pass(), list(PullLine.model_fields))
    yield str(table.writeheader())
    for line in pull_lines(bridge.ledger_of(engine).folded.states["joints"]):
        plain = line.model_dump()
        yield str(table.writerow({key: safe_text(value) if isinstance(value, str) else value for key, value in plain.items()}))
