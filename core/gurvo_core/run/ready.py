"""How long the rest of the work takes here, and on which day it will be done."""

__all__ = ["OWN_AT_LEAST", "WorkingHours", "own_minutes", "ready_at"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from statistics import median

OWN_AT_LEAST = 3  # builds, before the shop's own times are believed
MAX_DAYS = 3650


@dataclass(frozen=True, kw_only=True)
class WorkingHours:
    """When a shop works; days count from Monday = 0."""

    begins: time = time(7, 30)
    ends: time = time(16, 0)
    days: tuple[int, ...] = (0, 1, 2, 3, 4)

    @property
    def day_minutes(self) -> float:
        """Minutes of a working day [min]."""
        return (self.ends.hour - self.begins.hour) * 60 + self.ends.minute - self.begins.minute


def own_minutes(taken: Mapping[str, Sequence[float]]) -> dict[str, float]:
    """Return how long steps take in this shop.

    taken: minutes that each build took, by step [min].
    Returned: the median of each step that was done often enough [min].
    The median does not mind the one build that lay over a week-end.
    """
    return {step: median(minutes) for step, minutes in taken.items() if len(minutes) >= OWN_AT_LEAST}


def ready_at(now: datetime, minutes: float, hours: WorkingHours) -> datetime | None:
    """Return when so much work is done, if somebody works at it all day.

    minutes: work that is left [min].
    Arithmetic of the calendar.
    """
    if hours.day_minutes <= 0 or not hours.days:
        return None
    left = timedelta(minutes=minutes)
    for ahead in range(MAX_DAYS):
        day = now.date() + timedelta(days=ahead)
        if day.weekday() not in hours.days:
            continue
        begins, ends = (datetime.combine(day, at, tzinfo=now.tzinfo) for at in (hours.begins, hours.ends))
        begins = max(begins, now)
        if begins + left <= ends:
            return begins + left
        left -= max(timedelta(), ends - begins)
    return None
