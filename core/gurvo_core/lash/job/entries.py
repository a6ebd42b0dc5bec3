"""What is entered while valve clearances are set."""

__all__ = ["LashDecided", "LashReading", "LashReady", "LashShims", "LashStopped"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import CylinderNumber, Word
from gurvo_core.lash.stops import StopWay
from gurvo_core.ledger.entry import Body, Reason, Text, Typed

Short = Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)]


class LashReady(Body):
    """How the valves are reached, with what they are read, and that the engine is as it must be."""

    kind: Literal["lash_ready"]
    step: Word
    way: StopWay
    gauge: Word | None = None
    engine_is: Literal["cold", "hot"]
    stands_deg: Text | None = Field(default=None, description="Where the crank stands after the first firing TDC, as typed [deg]")


class LashStopped(Body):
    """The crank turned to one of the stops."""

    kind: Literal["lash_stop"]
    step: Word
    stop: int = Field(ge=1, le=64)
    called: Short | None = Field(default=None, description="Where that is; completed when it is taken")


class LashReading(Body):
    """One valve's clearance: the largest leaf that goes, and the smallest that does not."""

    kind: Literal["lash_reading"]
    step: Word
    camshaft: Word
    cylinder: CylinderNumber
    valve: Valve
    place: Annotated[str, StringConstraints(max_length=40)] = ""
    goes: Typed | None = None
    not_goes: Typed | None = None
    shim: Typed | None = Field(default=None, description="The shim that is in, where it has not been said")
    turns: Text | None = Field(default=None, description="hydraulic: turns of the screw after zero lash, as typed")
    gauge: Word | None = Field(default=None, description="Where it differs from what was said before the first reading")


class LashShims(Body):
    """Which shim goes to which valve."""

    kind: Literal["lash_shims"]
    step: Word
    shims: dict[Short, Text] = Field(min_length=1, max_length=128, description="Thickness by valve, as typed [mm]")
    lot: Short = ""


class LashDecided(Body):
    """A clearance that is out or cannot be told, accepted by the lead."""

    kind: Literal["lash_decided"]
    step: Word
    valve: Short = Field(description="As the bench names it: camshaft, cylinder, valve and place")
    decision: Literal["accepted"] = "accepted"
    reason: Reason = ""
