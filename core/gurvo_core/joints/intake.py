"""A trace that comes in pieces, as long as it may be: read, counted, thinned as it comes, so that memory stays bounded.

Angles in degrees, torques in N·m.
"""

__all__ = ["MOST_ROWS", "TraceIntake"]

import io

import numpy as np
from numpy.typing import NDArray

from gurvo_core.errors import ReadingError
from gurvo_core.joints.trace import Gap, Trace, clean, thin
from gurvo_core.units import Unit, per_unit

PIECE_POINTS, HELD_POINTS = 2_000, 40_000
MOST_ROWS = 20_000_000
LONGEST_LINE = 2_000


class TraceIntake:
    """Takes pieces of a table in order, whole lines or not, and gives the trace they make."""

    def __init__(self, *, delimiter: str, angle: int, torque: int, has_names: bool, unit: Unit = "N·m") -> None:
        self._delimiter, self._columns, self._skip = delimiter, (angle, torque), int(has_names)
        self._per_unit = per_unit(unit)
        self._rest = ""
        self._held: list[NDArray[np.float64]] = []
        self.rows = 0
        self.bad = 0

    def feed(self, text: str, *, is_last: bool) -> None:
        """Take the next piece; raises ReadingError when it is no table, or has too many rows."""
        whole, _, self._rest = (self._rest + text, "", "") if is_last else (self._rest + text).rpartition("\n")
        if len(self._rest) > LONGEST_LINE:
            raise ReadingError("trace", None, "a line of this file is far too long for a table of figures")
        lines = whole.splitlines()
        lines, self._skip = lines[self._skip :] if lines else lines, 0 if lines else self._skip
        if not lines:
            return
        rows = self._parsed(lines)
        self.rows += len(rows)
        if self.rows > MOST_ROWS:
            raise ReadingError("trace", self.rows, f"more than {MOST_ROWS // 1_000_000} million rows is no pull")
        sound = np.isfinite(rows).all(axis=1)
        self.bad += int(len(rows) - np.count_nonzero(sound))
        rows = rows[sound]
        if rows.size:
            small = thin(Trace(rows[:, 0], rows[:, 1] * self._per_unit), PIECE_POINTS)
            self._held.append(np.stack([small.angle_deg, small.torque_nm], axis=1))
        if sum(map(len, self._held)) > HELD_POINTS:
            every = self._joined()
            small = thin(Trace(every[:, 0], every[:, 1]), HELD_POINTS // 2)
            self._held = [np.stack([small.angle_deg, small.torque_nm], axis=1)]

    def _joined(self) -> NDArray[np.float64]:
        return np.concatenate(self._held) if self._held else np.empty((0, 2))

    def _parsed(self, lines: list[str]) -> NDArray[np.float64]:
        """Numbers of the two columns; not a number where a cell is text."""
        text = "\n".join(lines)
        if self._delimiter != ",":
            text = text.replace(",", ".")
        try:
            return np.loadtxt(io.StringIO(text), delimiter=self._delimiter, usecols=self._columns, ndmin=2, comments=None)
        except ValueError:
            return np.array([self._row(line) for line in text.splitlines() if line.strip()]).reshape(-1, 2)

    def _row(self, line: str) -> tuple[float, float]:
        cells = line.split(self._delimiter)
        try:
            angle, torque = (float(cells[column]) for column in self._columns)
        except (ValueError, IndexError):
            return float("nan"), float("nan")
        return angle, torque

    def trace(self) -> tuple[Trace, list[Gap]]:
        """The trace as it came, and what is to be said of it; raises ReadingError when there is none in it."""
        every = self._joined()
        trace, gaps = clean(every[:, 0], every[:, 1])
        if self.bad:
            are, were = ("s are", "were") if self.bad > 1 else (" is", "was")
            gaps.insert(0, Gap(f"{self.bad} reading{are} no number and {were} left out"))
        return trace, gaps
