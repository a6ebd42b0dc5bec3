"""Joints as they are handed over: on paper with their siblings plotted, every pull as CSV, traces as CSV."""

import csv
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from gurvo_core.joints.job import JointsState
from gurvo_core.joints.job.paper import JointPaper, joint_papers
from gurvo_core.joints.job.show import pull_lines
from gurvo_core.joints.job.view import PullLine, TraceLine
from work import bridge
from work.models import Engine
from work.record.table import Pass, safe_text

WIDE, MARGIN = 240.0, 10.0


@dataclass(frozen=True)
class Dot:
    """One sibling on a line."""

    x: float
    fastener: str
    is_apart: bool


@dataclass(frozen=True)
class Plot:
    """Siblings on one line, with what its ends are."""

    dots: list[Dot]
    low: float
    high: float


def on_paper(now: JointsState) -> list[tuple[JointPaper, Plot | None]]:
    """Return the joints as they stand on paper, with a plot of the siblings of each where something was measured."""
    return [(paper, _plot(paper)) for paper in joint_papers(now)]


def _plot(paper: JointPaper) -> Plot | None:
    values = [one.value for one in paper.siblings]
    if len(values) < 2:
        return None
    low, high = min(values), max(values)
    span = (high - low) or 1.0
    dots = [Dot(MARGIN + (WIDE - 2 * MARGIN) * (one.value - low) / span, one.fastener, one.is_apart) for one in paper.siblings]
    return Plot(dots, low, high)


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
