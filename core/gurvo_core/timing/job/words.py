"""How the timing's entries are said on tape, paper and in the table."""

__all__ = ["say_cam_decision", "say_check", "say_lift", "say_method", "say_setup", "say_stop", "say_tdc", "say_turn", "say_zero"]

from gurvo_core.ledger import Words
from gurvo_core.timing.job.asks import METHOD_NAMES
from gurvo_core.timing.job.entries import (
    Approach,
    CamDecision,
    LiftReading,
    PistonStop,
    TdcMethodChoice,
    TdcReading,
    Turn,
    TypedWheel,
    WheelCheck,
    WheelSetup,
    WheelZero,
)

_PLACES = {"before": ", before TDC", "after": ", after TDC", None: ""}


def _wheel(typed: TypedWheel) -> str:
    return f"{typed.text.strip()}° {typed.side or ''}".strip()


def _details(*parts: str) -> str:
    return " · ".join(part for part in parts if part and part != "running way")


def _look_again(approach: Approach) -> bool:
    return approach == "back"


def say_setup(body: WheelSetup) -> Words:
    """The wheel set up."""
    runs = f" · {body.runs} the running way" if body.numbering == "0-360" else ""
    return Words(title="Wheel set up", value=body.numbering, detail=f"{body.wheel_gauge} · {body.dial_gauge}{runs} · plugs out")


def say_check(body: WheelCheck) -> Words:
    """Two opposite pointers."""
    return Words(title="Opposite pointers", value=f"{_wheel(body.wheel)} and {_wheel(body.opposite)}")


def say_method(body: TdcMethodChoice) -> Words:
    """The method chosen."""
    return Words(title="True TDC by", value=METHOD_NAMES[body.method])


def say_stop(body: PistonStop) -> Words:
    """The stop in or out."""
    return Words(title="Piston stop", value="in" if body.fitted else "out")


def say_tdc(body: TdcReading) -> Words:
    """A reading towards true TDC."""
    drop = f"drop {body.drop.text.strip()} {body.drop.unit}" if body.drop else ""
    title = METHOD_NAMES[body.method].capitalize() + _PLACES[body.place]
    detail = _details(drop, body.approach)
    return Words(title=title, value=_wheel(body.wheel), detail=detail, look_again=_look_again(body.approach))


def say_zero(body: WheelZero) -> Words:
    """True TDC taken over."""
    return Words(title="Pointer error taken over", value=f"{body.zero_deg:+.2f}°", detail=METHOD_NAMES[body.method])


def say_lift(body: LiftReading) -> Words:
    """A lift reading."""
    lift = f"{body.lift.text.strip()} {body.lift.unit}" if body.lift else "full lift"
    moves = {"opening": "opens", "closing": "closes", "top": "stands"}[body.flank]
    detail = _details(f"cylinder {body.cylinder}", body.approach)
    title = f"{body.valve.capitalize()} {moves}, {lift}"
    return Words(title=title, value=_wheel(body.wheel), detail=detail, look_again=_look_again(body.approach))


def say_cam_decision(body: CamDecision) -> Words:
    """What is done about a cam."""
    if not body.moves:
        return Words(title="Cam", value="left as it is", detail=body.reason)
    moved = ", ".join(f"{move.adjustment}: {move.place}" for move in body.moves)
    return Words(title="Cam moved", value=moved, detail=body.reason)


def say_turn(body: Turn) -> Words:
    """The crank turned."""
    return Words(title="Crank turned to", value=f"{body.to.strip()}°", detail="after firing TDC of the first cylinder")
