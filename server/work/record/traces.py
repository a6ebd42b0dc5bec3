"""The traces of a joint as they are handed over to a spreadsheet."""

from collections.abc import Iterable, Iterator
from itertools import chain

from gurvo_core.joints.job.view import TraceLine
from work.record.table import csv_of


def traces_csv(lines: Iterable[TraceLine]) -> Iterator[str]:
    """Return traces as a table, one row a reading."""
    readings = ((line, angle, torque) for line in lines for angle, torque in zip(line.angle_deg, line.torque_nm, strict=True))
    rows = ((line.fastener, line.stage, line.turn, angle, torque) for line, angle, torque in readings)
    return csv_of(chain([("fastener", "stage", "round", "angle_deg", "torque_nm")], rows))
