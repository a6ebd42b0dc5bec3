"""Readings as they come from an instrument: when a pull has ended, when a figure has come to rest, when the next of a sweep is due.

Torque in N·m, angles in degrees, times in seconds. Each of these is fed one reading after the other and remembers a bounded number.
"""

__all__ = ["MOST_POINTS", "EndedPull", "PullWatch", "RestWatch", "SweepWatch"]

from collections import deque
from dataclasses import dataclass

import numpy as np

from gurvo_core.joints.trace import Trace

MOST_POINTS = 200_000  # of one pull: an hour at sixty a second
BEGINS_NM = 1.0
LET_GO = 0.35  # of the peak: below it the hand has let go
REST_S = 0.7
REST_STEPS = 2.0  # of the smallest step, that a figure at rest may wander
SWEEP_DEG = 3.0


@dataclass(frozen=True, kw_only=True)
class EndedPull:
    """One pull, from the first torque to where the hand let go."""

    trace: Trace
    end_nm: float  # at the farthest angle
    peak_nm: float


class PullWatch:
    """Sees a pull begin and end in a stream of torque and angle."""

    def __init__(self) -> None:
        self._points: list[tuple[float, float]] = []
        self._peak_nm = 0.0

    def feed(self, angle_deg: float, torque_nm: float) -> EndedPull | None:
        """Take one reading; the pull, once it has ended."""
        if not self._points and torque_nm < BEGINS_NM:
            return None
        self._peak_nm = max(self._peak_nm, torque_nm)
        if torque_nm < LET_GO * self._peak_nm and self._peak_nm > 2 * BEGINS_NM:
            return self._ended()
        if torque_nm < BEGINS_NM / 2 and self._peak_nm <= 2 * BEGINS_NM:
            self._points, self._peak_nm = [], 0.0  # only touched
        elif len(self._points) < MOST_POINTS:
            self._points.append((angle_deg, torque_nm))
        return None

    def _ended(self) -> EndedPull:
        angle, torque = (np.array(column) for column in zip(*self._points, strict=True))
        # the ratchet's way back is no part of the pull
        farthest = int(angle.argmax())
        pull = EndedPull(
            trace=Trace(np.maximum.accumulate(angle[: farthest + 1]), torque[: farthest + 1]),
            end_nm=float(torque[max(0, farthest - 2) : farthest + 1].max()),
            peak_nm=self._peak_nm,
        )
        self._points, self._peak_nm = [], 0.0
        return pull


class RestWatch:
    """Sees a figure come to rest; said once, until it moves again."""

    def __init__(self, resolution: float) -> None:
        self._within = REST_STEPS * resolution
        self._last: deque[tuple[float, float]] = deque(maxlen=600)
        self._is_said = False

    def feed(self, at_s: float, value: float) -> bool:
        """Take one reading; whether it has just come to rest."""
        self._last.append((at_s, value))
        while self._last[-1][0] - self._last[0][0] > 2 * REST_S:
            self._last.popleft()
        recent = [one for moment, one in self._last if at_s - moment <= REST_S]
        rests = at_s - self._last[0][0] >= REST_S and max(recent) - min(recent) <= self._within
        was_said, self._is_said = self._is_said, rests
        return rests and not was_said


class SweepWatch:
    """Says which readings of a sweep are kept: one every few degrees, the way it is turned."""

    def __init__(self) -> None:
        self._last_deg: float | None = None

    def feed(self, angle_deg: float) -> bool:
        """Take one reading; whether it is kept."""
        if self._last_deg is not None and abs(angle_deg - self._last_deg) < SWEEP_DEG:
            return False
        self._last_deg = angle_deg
        return True
