"""A bolt to practise on: what it answers to being turned, as it should be or with something wrong."""

import math
import random
from dataclasses import dataclass
from typing import Literal

Kind = Literal["normal", "yielding", "galled", "bottoming", "dry"]
SNUG_DEG = 30.0  # run down by then
RUN_DOWN_NM = 1.6


@dataclass
class PracticeBolt:
    """Torque against angle; ``start_nm`` is what it was pulled to before."""

    kind: Kind = "normal"
    start_nm: float = 0.0
    stiff_nm_deg: float = 0.75

    def torque_nm(self, angle_deg: float, chance: random.Random) -> float:
        """What it takes to hold it at an angle [N·m]."""
        if self.start_nm:  # tight already: friction first, then on from there
            turned = max(0.0, angle_deg)
            torque = self.start_nm * min(1.0, turned / 4) + self._after(turned)
        else:
            turned = angle_deg - SNUG_DEG
            torque = RUN_DOWN_NM * min(1.0, angle_deg / 5) if turned <= 0 else RUN_DOWN_NM + self._after(turned)
        if self.kind == "galled":
            torque += 22 * min(1.0, angle_deg / 10)
        if self.kind == "dry":
            torque = torque * 1.6 + 9 * math.sin(angle_deg * 1.9) * min(1.0, angle_deg / 40)
        return max(0.0, torque + chance.gauss(0, 0.15))

    def _after(self, turned_deg: float) -> float:
        """What the turn from snug adds."""
        if self.start_nm:
            # a stretched bolt keeps turning and gains little; a sound one gains as its friction and preload have it
            gain, bend = (0.02, 30.0) if self.kind == "yielding" else (0.055, 1e9)
            return gain * min(turned_deg, bend)
        linear = self.stiff_nm_deg * turned_deg
        if self.kind == "yielding" and turned_deg > 45:
            return self.stiff_nm_deg * 45 + 0.12 * self.stiff_nm_deg * (turned_deg - 45)
        if self.kind == "bottoming" and turned_deg > 40:
            return linear + 4 * self.stiff_nm_deg * (turned_deg - 40)
        return linear
