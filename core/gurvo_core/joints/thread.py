"""Screw threads: what a designation such as M10x1.25 or 7/16-20 UNF says, and the geometry that follows.

Lengths in mm, areas in mm². The basic profile of both families is the same 60 degree triangle; only the size of the root that the
stress area counts with differs.
"""

__all__ = ["Thread", "read_thread"]

import math
import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from gurvo_core.errors import FigureError
from gurvo_core.units import per_unit

PITCH_DIA = 0.649519  # x pitch below the nominal diameter: 3/8 of the triangle's height twice
METRIC_STRESS = 0.938194  # x pitch: half of (0.649519 + 1.226869)
UNIFIED_STRESS = 0.974279  # x pitch: 0.9743 / n, the inch standard's own figure
# coarse pitches, from memory of ISO 261; M7, M9 and M11 are of its third choice
COARSE_MM = {
    3: 0.5,
    4: 0.7,
    5: 0.8,
    6: 1,
    7: 1,
    8: 1.25,
    9: 1.25,
    10: 1.5,
    11: 1.5,
    12: 1.75,
    14: 2,
    16: 2,
    18: 2.5,
    20: 2.5,
    22: 2.5,
    24: 3,
}
# threads to the inch, coarse and fine, from memory of ASME B1.1
PER_INCH = {
    "1/4": (20, 28),
    "5/16": (18, 24),
    "3/8": (16, 24),
    "7/16": (14, 20),
    "1/2": (13, 20),
    "9/16": (12, 18),
    "5/8": (11, 18),
    "3/4": (10, 16),
    "7/8": (9, 14),
    "1": (8, 12),
}
_METRIC = re.compile(r"M\s*(\d+(?:\.\d+)?)(?:\s*[x×]\s*(\d+(?:\.\d+)?))?", re.I)
_UNIFIED = re.compile(r"(\d+/\d+|1)\s*(?:in)?\s*-?\s*(\d+)?\s*(UNC|UNF)?", re.I)


@dataclass(frozen=True, kw_only=True)
class Thread:
    """One thread, by its nominal diameter and pitch [mm]."""

    name: str
    family: Literal["metric", "unified"]
    diameter_mm: float
    pitch_mm: float

    @property
    def pitch_diameter_mm(self) -> float:
        """Where thread and gap are equally wide [mm]."""
        return self.diameter_mm - PITCH_DIA * self.pitch_mm

    @property
    def stress_area_mm2(self) -> float:
        """The area of a plain bar that is as strong [mm²]."""
        less = METRIC_STRESS if self.family == "metric" else UNIFIED_STRESS
        return math.pi / 4 * (self.diameter_mm - less * self.pitch_mm) ** 2

    @property
    def stress_diameter_mm(self) -> float:
        """The diameter of that bar [mm]."""
        return math.sqrt(4 * self.stress_area_mm2 / math.pi)


def read_thread(text: str) -> Thread:
    """Return the thread that a designation names.

    Raises FigureError if it is no metric or unified thread, or its pitch must be said.
    Source: [iso-metric-thread] and [unified-thread] in docs/sources.md.
    >>> round(read_thread("M10").stress_area_mm2, 1), round(read_thread("3/8-16 UNC").pitch_mm, 4)
    (58.0, 1.5875)
    """
    plain = text.strip()
    metric = _METRIC.fullmatch(plain)
    thread = _metric(plain, *metric.groups()) if metric else _unified(plain)
    if not thread.pitch_mm < 0.4 * thread.diameter_mm:
        raise FigureError("thread", text, f"a pitch of {thread.pitch_mm:g} mm is too coarse for {thread.diameter_mm:g} mm: check both")
    return thread


def _metric(text: str, diameter: str, pitch: str | None) -> Thread:
    size = float(diameter)
    pitch_mm = float(pitch) if pitch else COARSE_MM.get(int(size)) if size == int(size) else None
    if not size > 0 or not pitch_mm:
        raise FigureError("thread", text, f"the coarse pitch of M{size:g} is not known here: say it, such as M10x1.25")
    return Thread(name=text, family="metric", diameter_mm=size, pitch_mm=float(pitch_mm))


def _unified(text: str) -> Thread:
    found = _UNIFIED.fullmatch(text)
    if found is None or found[1] not in PER_INCH:
        raise FigureError("thread", text, f"“{text[:20]}” is no thread known here; write M10x1.25, or 3/8-16 UNC")
    coarse, fine = PER_INCH[found[1]]
    series = (found[3] or "").upper()
    turns = int(found[2]) if found[2] else fine if series == "UNF" else coarse
    if series and turns != {"UNC": coarse, "UNF": fine}[series]:
        raise FigureError("thread", text, f"{found[1]} {series} has {fine if series == 'UNF' else coarse} threads to the inch, not {turns}")
    if not turns:
        raise FigureError("thread", text, "threads to the inch are above 0")
    inch_mm = per_unit("in")
    return Thread(name=text, family="unified", diameter_mm=float(Fraction(found[1])) * inch_mm, pitch_mm=inch_mm / turns)
