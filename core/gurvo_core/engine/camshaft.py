"""Camshafts: their lobes, how the lobes act on the valves, and phasers.

Valve lift is the follower's ``ratio`` times lobe lift less lash, never below zero.
"""

__all__ = ["Camshaft", "Follower", "Lobe", "Phaser", "Valve"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import ClockDeg, CylinderNumber, Name, Part, Word

Valve = Literal["intake", "exhaust"]


class Follower(Part):
    """How the lobes of one sort act, and from which side the follower meets them."""

    valve: Valve
    kind: Literal["bucket", "finger", "rocker", "pushrod"] | None = None
    clock_deg: ClockDeg | None = Field(
        default=None, description="From the cam's axis towards the follower: there the nose points at full lift"
    )
    ratio: float | None = Field(default=None, gt=0, le=4, description="Valve lift over lobe lift [-]")


class Phaser(Part):
    """A cam phaser; lobes and card describe the cam with the phaser at rest."""

    name: Name
    travel_deg: float | None = Field(default=None, gt=0, le=120, description="Lost motion between its stops, crank degrees")
    rests: Literal["advanced", "retarded"] | None = Field(default=None, description="On which stop it stands without oil pressure")
    pinned: bool = Field(default=True, description="Whether a pin holds it there")

    @property
    def other_stop_deg(self) -> float | None:
        """How far the other stop lies from where it rests, positive = advanced [crank deg]; None while not known."""
        if self.travel_deg is None or self.rests is None:
            return None
        return -self.travel_deg if self.rests == "advanced" else self.travel_deg


class Lobe(Part):
    """One lobe: whose valve it opens, its shape and where its nose stands."""

    cylinder: CylinderNumber
    valve: Valve
    profile: Word | None = None
    nose_deg: float | None = Field(
        default=None, ge=0, le=200, description="Crank degrees of the nose from the overlap TDC: after it for intake, before it for exhaust"
    )
    lash_mm: float | None = Field(default=None, ge=0, le=3, description="Working lash at the valve [mm]; 0 with hydraulic lifters")
    place: str = Field(default="", max_length=40, description="Tells twin lobes of one valve sort apart, such as front and rear")

    @property
    def nose_after_overlap_deg(self) -> float | None:
        """Crank degrees of the nose after its cylinder's overlap TDC, negative before it; None while not known."""
        if self.nose_deg is None:
            return None
        return self.nose_deg if self.valve == "intake" else -self.nose_deg


class Camshaft(Part):
    """One camshaft with all its lobes. Its place and what drives it are in the drive, under the same id."""

    id: Word
    name: Name
    bank: Word | None = Field(default=None, description="The bank it serves; left out when it serves all")
    followers: tuple[Follower, ...] = Field(default=(), max_length=2)
    phaser: Phaser | None = None
    base_circle_mm: float | None = Field(default=None, gt=0, le=200, description="Radius of its lobes' base circle [mm]")
    friction: float | None = Field(default=None, gt=0, le=1, description="Of its lobes on their followers [-]; null = not known")
    lobes: tuple[Lobe, ...] = Field(default=(), max_length=128)

    @property
    def valves(self) -> tuple[Valve, ...]:
        """The sorts of valve it works, as far as known, in the order of its followers or lobes."""
        return tuple(dict.fromkeys([*(one.valve for one in self.followers), *(one.valve for one in self.lobes)]))

    def follower(self, valve: Valve) -> Follower | None:
        """How its lobes for that valve act; None while not known."""
        return next((follower for follower in self.followers if follower.valve == valve), None)

    def ratio(self, valve: Valve) -> float | None:
        """Valve lift over lobe lift for that valve [-]; None while not known."""
        follower = self.follower(valve)
        return follower.ratio if follower else None
