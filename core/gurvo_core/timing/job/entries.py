"""What the timing's entries hold: the wheel set up, the piston stop, readings, true TDC taken over, what is done about a cam."""

__all__ = [
    "Approach",
    "CamDecision",
    "LiftReading",
    "MoveMade",
    "PistonStop",
    "TdcMethodChoice",
    "TdcReading",
    "Turn",
    "TypedWheel",
    "WheelCheck",
    "WheelSetup",
    "WheelZero",
]

from typing import Literal

from pydantic import Field

from gurvo_core.engine import Flank, Valve
from gurvo_core.engine.part import Word
from gurvo_core.ledger.entry import Basis, Body, Reason, Shape, Text, Typed
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.timing.wheel import Numbering, Runs, Side

Approach = Literal["running way", "back", "back, play taken up"]


class TypedWheel(Shape):
    """A degree wheel's figure as typed, with its side on a folded wheel."""

    text: Text
    side: Side | None = None


class WheelSetup(Body):
    """The wheel and dial as they are set up."""

    kind: Literal["wheel_setup"]
    numbering: Numbering
    runs: Runs
    wheel_gauge: Word
    dial_gauge: Word
    plugs_out: bool


class WheelCheck(Body):
    """What a second pointer, opposite the first, reads at one place."""

    kind: Literal["wheel_check"]
    wheel: TypedWheel
    opposite: TypedWheel


class TdcMethodChoice(Body):
    """How true TDC is looked for."""

    kind: Literal["tdc_method"]
    method: TdcMethod


class PistonStop(Body):
    """The piston stop has been fitted, or taken out."""

    kind: Literal["piston_stop"]
    fitted: bool


class TdcReading(Body):
    """One reading towards true TDC."""

    kind: Literal["tdc_reading"]
    method: TdcMethod
    place: Literal["before", "after"] | None = Field(
        default=None,
        description="Before or after TDC. At a stop: before = met turning forward, after = met turning backward. At the top: "
        "before = where the dial stops rising, after = where it begins to fall",
    )
    wheel: TypedWheel
    drop: Typed | None = Field(default=None, description="Piston drop by dial, for equal drops and the fit")
    approach: Approach = "running way"


class WheelZero(Body):
    """The wheel's true zero taken over as it was shown."""

    kind: Literal["wheel_zero"]
    method: TdcMethod
    zero_deg: float = Field(ge=-180, le=180, description="Wheel zero as shown when it was taken over [deg]")
    rests_on: Basis | None = Field(default=None, description="The readings it rests on; left out = all that stand when it is made")


class LiftReading(Body):
    """Where a valve passed a lift, or stood at its highest (flank `top`)."""

    kind: Literal["lift_reading"]
    camshaft: Word
    cylinder: int = Field(ge=1, le=32)
    valve: Valve
    flank: Flank | Literal["top"]
    lift: Typed | None = Field(default=None, description="Checking lift; left out at the top")
    wheel: TypedWheel
    approach: Approach = "running way"


class MoveMade(Shape):
    """One adjustment and the place it was moved to."""

    adjustment: str = Field(max_length=120)
    place: str = Field(max_length=120)


class CamDecision(Body):
    """What is done about a camshaft: left as it is, or adjusted (no moves = left)."""

    kind: Literal["cam_decision"]
    camshaft: Word
    advance_deg: float | None = Field(
        default=None, ge=-360, le=360, description="Advance as shown when it was decided [deg]; left out where no card is known"
    )
    moves: tuple[MoveMade, ...] = Field(default=(), max_length=8)
    reason: Reason = ""
    rests_on: Basis | None = Field(default=None, description="The entries it rests on; left out = all that stand when it is made")


class Turn(Body):
    """The crank has been turned to a place in the cycle."""

    kind: Literal["turn"]
    to: Text = Field(description="Crank degrees after the firing TDC of the first cylinder, 0 to 720, as typed")
