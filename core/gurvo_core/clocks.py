"""Clock positions as they are typed: ``12``, ``half past 3``, ``3:30``, ``7 o'clock``, or ``225°`` from straight up."""

__all__ = ["ClockRead", "read_clock"]

import re
from typing import NamedTuple

from gurvo_core.errors import ReadingError

_CLOCK = re.compile(r"(?P<half>half past )?(?P<hour>\d{1,2})(?::(?P<minutes>\d{2}))?(?: ?o['’]?clock)?")
_DEGREES = re.compile(r"(?P<deg>\d{1,3}(?:[.,]\d+)?) ?(?:°|deg(?:rees)?)")
HOUR_DEG, MINUTE_DEG, HALF_HOUR_DEG = 30.0, 0.5, 15.0
# a decision of ours: by eye a clock position is told to a quarter of an hour, one with minutes or degrees to some degrees
BY_EYE_DEG, BY_MINUTES_DEG, BY_DEGREES_DEG = 7.0, 3.0, 2.0


class ClockRead(NamedTuple):
    """Clockwise from straight up, and how far off that may be either way [deg]."""

    deg: float
    within_deg: float


def read_clock(text: str) -> ClockRead:
    """Return a clock position; raises ReadingError with what would be one."""
    said = text.strip().lower()
    degrees = _DEGREES.fullmatch(said)
    if degrees and float(degrees["deg"].replace(",", ".")) <= 360:
        return ClockRead(float(degrees["deg"].replace(",", ".")) % 360, BY_DEGREES_DEG)
    found = _CLOCK.fullmatch(said)
    hour, minutes = (int(found["hour"]), int(found["minutes"] or 0)) if found else (0, 0)
    if found is None or not 1 <= hour <= 12 or minutes > 59:
        rule = f"“{text.strip()}” is no clock position; write such as 12, half past 3 or 3:30, or 225° from straight up"
        raise ReadingError("clock", text, rule)
    more = HALF_HOUR_DEG if found["half"] else minutes * MINUTE_DEG
    return ClockRead(hour % 12 * HOUR_DEG + more, BY_MINUTES_DEG if found["minutes"] else BY_EYE_DEG)
