"""The instruments: each answers commands and gives a reading, with its true resolution, noise and drift."""

import math
import random
from dataclasses import dataclass, field
from time import monotonic

from gurvo_core.motion.crank import SliderCrank, drop_mm
from standins.joint import PracticeBolt

THINKS_S = 0.8  # from being told a target to the first pull
PULL_S = 2.2
TIGHT_NM = 64.0
SWEEP_DEG_S = 9.0
CRANK = SliderCrank(throw_mm=43.0, rod_mm=143.0, pin_offset_mm=0.0)
ZERO_DEG = 1.3  # by how much the encoder's zero is out


class Crank:
    """A crank that a hand turns slowly, seen by encoder and dial at once."""

    def __init__(self) -> None:
        self._begun, self._from, self._to = monotonic(), -40.0, -40.0

    def turn(self, from_deg: float, to_deg: float) -> None:
        """Begin to turn it."""
        self._begun, self._from, self._to = monotonic(), from_deg, to_deg

    @property
    def at_deg(self) -> float:
        """Where it is, from true TDC [deg]."""
        moved = SWEEP_DEG_S * max(0.0, monotonic() - self._begun - THINKS_S)
        way = math.copysign(min(moved, abs(self._to - self._from)), self._to - self._from)
        return self._from + way


@dataclass
class Instrument:
    """What all have: a name, a unit, noise, and a zero that may be set."""

    name: str
    unit: str
    resolution: float
    noise: float = 0.0
    chance: random.Random = field(default_factory=lambda: random.Random(7))
    zero: float = 0.0

    def true(self) -> float:
        """What there is to be read."""
        return 0.0

    def reading(self) -> str:
        """What it shows, in steps of its resolution."""
        value = self.true() - self.zero + self.chance.gauss(0, self.noise)
        return f"{round(value / self.resolution) * self.resolution:.3f}"

    def command(self, words: list[str]) -> str:
        """Answer a command of its own; raises ValueError for one it does not know."""
        if words == ["ZERO"]:
            self.zero = self.true()
            return "OK"
        raise ValueError(words[0])


@dataclass
class Wrench(Instrument):
    """Torque and angle, on a practice bolt that a simulated hand pulls once it is told how far."""

    bolt: PracticeBolt = field(default_factory=PracticeBolt)
    target_nm: float = 0.0
    target_deg: float = 0.0
    begun: float | None = None

    def command(self, words: list[str]) -> str:
        """TARGET torque angle; JOINT kind [torque it was pulled to before]."""
        if words[0] == "TARGET":
            self.target_nm, self.target_deg = float(words[1]), float(words[2])
            # an angle is turned from where the torque before it left the bolt
            self.bolt.start_nm = (self.bolt.start_nm or TIGHT_NM) if self.target_deg else 0.0
            self.begun = monotonic()
            return "OK"
        if words[0] == "JOINT" and words[1] in ("normal", "yielding", "galled", "bottoming", "dry"):
            self.bolt = PracticeBolt(words[1], float(words[2]) if len(words) > 2 else 0.0)  # type: ignore[arg-type]
            return "OK"
        if words == ["ZERO"]:
            return "OK"
        return super().command(words)

    def reading(self) -> str:
        """Torque and angle."""
        angle, torque = self._now()
        return f"{max(0.0, round(torque / self.resolution) * self.resolution):.2f},{angle:.1f}"

    def _end_deg(self) -> float:
        """How far the hand turns: the angle it was told, or until the torque is there."""
        if self.target_deg:
            return self.target_deg
        quiet = random.Random(1)
        return next((deg / 2 for deg in range(1, 1440) if self.bolt.torque_nm(deg / 2, quiet) >= self.target_nm), 360.0)

    def _now(self) -> tuple[float, float]:
        if self.begun is None:
            return 0.0, abs(self.chance.gauss(0, 0.02))
        share = (monotonic() - self.begun - THINKS_S) / PULL_S
        end_deg = self._end_deg()
        if share <= 0:
            return 0.0, abs(self.chance.gauss(0, 0.02))
        if share < 1:
            angle = end_deg * share
            return angle, self.bolt.torque_nm(angle, self.chance)
        gone = (share - 1) * PULL_S
        if gone > 0.4:
            self.begun = None
        return end_deg, self.bolt.torque_nm(end_deg, self.chance) * max(0.0, 1 - gone / 0.25)


@dataclass
class Encoder(Instrument):
    """The crank's angle; TARGET from to has a hand turn it."""

    crank: Crank = field(default_factory=Crank)

    def true(self) -> float:
        """Degrees on its scale."""
        return self.crank.at_deg + ZERO_DEG

    def command(self, words: list[str]) -> str:
        """TARGET from to: turn the crank so far, on the encoder's scale."""
        if words[0] == "TARGET":
            self.crank.turn(float(words[1]) - ZERO_DEG, float(words[2]) - ZERO_DEG)
            return "OK"
        return super().command(words)


@dataclass
class Dial(Instrument):
    """The piston's drop from the top, on the same crank."""

    crank: Crank = field(default_factory=Crank)

    def true(self) -> float:
        """Drop [mm]."""
        return float(drop_mm(self.crank.at_deg, CRANK))


@dataclass
class BoreGauge(Instrument):
    """A bore a little out of round, that warms in the hand."""

    begun: float = field(default_factory=monotonic)

    def true(self) -> float:
        """Diameter [mm]."""
        turned = (monotonic() - self.begun) * 0.4
        return 86.012 + 0.004 * math.sin(2 * turned) + 0.001 * min(1.0, turned / 60)


def all_instruments() -> dict[str, Instrument]:
    """Every stand-in, by the name its port goes by."""
    crank = Crank()
    return {
        "wrench": Wrench(name="wrench", unit="N.m", resolution=0.1),
        "dial": Dial(name="dial", unit="mm", resolution=0.001, noise=0.0008, crank=crank),
        "encoder": Encoder(name="encoder", unit="deg", resolution=0.1, noise=0.02, crank=crank),
        "bore": BoreGauge(name="bore", unit="mm", resolution=0.001, noise=0.0006),
    }
