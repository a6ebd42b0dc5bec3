"""A trace as it is kept with its entry, and back; and what it says, in a few figures and words."""

__all__ = ["KEPT_POINTS", "keep_trace", "open_trace", "read_csv_head"]

import base64
import csv
import zlib
from collections.abc import Sequence

import numpy as np

from gurvo_core.errors import ReadingError
from gurvo_core.joints.job.entries import KeptTrace
from gurvo_core.joints.trace import Trace, thin

KEPT_POINTS = 1200
ANGLE_STEP, TORQUE_STEP = 0.1, 0.01  # deg, N·m
MOST_PACKED = 200_000  # bytes that a kept trace may unpack to
ANGLE_NAMES, TORQUE_NAMES = ("angle", "deg", "degree"), ("torque", "nm", "n·m", "n.m", "moment")


def keep_trace(trace: Trace, *, read: int | None = None) -> KeptTrace:
    """Return a trace as it is kept. read: how many readings there were [-]; those of the trace when left out."""
    small = thin(trace, KEPT_POINTS)
    steps = np.stack([np.rint(small.angle_deg / ANGLE_STEP), np.rint(small.torque_nm / TORQUE_STEP)]).astype("<i4")
    plain = np.diff(steps, axis=1, prepend=0).astype("<i4").tobytes()
    packed = base64.b64encode(zlib.compress(plain, 9)).decode()
    return KeptTrace(points=int(small.angle_deg.size), read=read or int(trace.angle_deg.size), packed=packed)


def open_trace(kept: KeptTrace) -> Trace:
    """Return a kept trace.

    Returned: angle [deg] and torque [N·m].
    Raises ReadingError if it was not made so, or unpacks to more than it says.
    """
    try:
        opener = zlib.decompressobj()
        plain = opener.decompress(base64.b64decode(kept.packed, validate=True), MOST_PACKED)
        steps = np.cumsum(np.frombuffer(plain, "<i4").reshape(2, -1), axis=1)
    except (ValueError, zlib.error):
        raise ReadingError("trace", None, "this trace was not packed as traces are; read it in again") from None
    if steps.shape[1] != kept.points:
        raise ReadingError("trace", kept.points, f"this trace says {kept.points} points and has {steps.shape[1]}; read it in again")
    return Trace(steps[0] * ANGLE_STEP, steps[1] * TORQUE_STEP)


def read_csv_head(head: Sequence[str]) -> tuple[str, int, int, bool]:
    """Return how the first lines of a table are to be read.

    Raises ReadingError if there are not two columns, or names that leave open which is which.
    The csv module's own sniffer; columns by their names, else angle first.
    """
    lines = [line for line in head if line.strip()]
    if not lines:
        raise ReadingError("trace", None, "this file is empty")
    delimiter = next((one for one in (";", "\t", ",") if one in lines[0]), "")
    if not delimiter:
        raise ReadingError("trace", None, "a trace is a table of two columns at least, parted by ; or , or tab")
    first = next(csv.reader([lines[0]], delimiter=delimiter))
    has_names = not all(_is_number(cell) for cell in first)
    if not has_names:
        return delimiter, 0, 1, False
    names = [cell.strip().lower() for cell in first]
    angle = next((n for n, name in enumerate(names) if any(word in name for word in ANGLE_NAMES)), None)
    torque = next((n for n, name in enumerate(names) if n != angle and any(word in name for word in TORQUE_NAMES)), None)
    if angle is None or torque is None:
        raise ReadingError("trace", None, f"which column is the angle and which the torque? They are called {', '.join(names)[:120]}")
    return delimiter, angle, torque, True


def _is_number(text: str) -> bool:
    try:
        float(text.strip().replace(",", "."))
    except ValueError:
        return False
    return True
