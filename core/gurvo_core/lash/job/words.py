"""How entries about valve clearances are said on tape and paper."""

__all__ = ["say_decided", "say_reading", "say_ready", "say_shims", "say_stop"]

from gurvo_core.lash.job.entries import LashDecided, LashReading, LashReady, LashShims, LashStopped
from gurvo_core.ledger import Words
from gurvo_core.sentence import at_start

WAYS = {"fewest": "in the fewest stops", "book": "by the book's stops", "firing": "each cylinder at its firing TDC"}


def say_ready(body: LashReady) -> Words:
    """Which way, with what."""
    said = [WAYS[body.way], f"engine {body.engine_is}", f"feelers {body.gauge}" if body.gauge else "no feelers named"]
    said += [f"crank at {body.stands_deg}°"] if body.stands_deg else []
    return Words(title="Valve clearances, before the first", detail=", ".join(said))


def say_stop(body: LashStopped) -> Words:
    """The crank turned on."""
    return Words(title=f"Crank at stop {body.stop}", detail=body.called or "")


def say_reading(body: LashReading) -> Words:
    """One valve."""
    value = f"{body.goes.text} {body.goes.unit} goes" if body.goes else f"{body.turns or '0'} turns after zero"
    detail = [f"{body.not_goes.text} {body.not_goes.unit} does not"] if body.not_goes else []
    detail += [f"shim {body.shim.text} {body.shim.unit}"] if body.shim else []
    detail += [f"feelers {body.gauge}"] if body.gauge else []
    place = f", {body.place}" if body.place else ""
    return Words(title=f"Cylinder {body.cylinder} {body.valve}{place}", value=value, detail=", ".join(detail))


def say_shims(body: LashShims) -> Words:
    """All that were put in."""
    listed = "; ".join(f"{_called(valve)}: {text}" for valve, text in body.shims.items())
    return Words(title="Shims put in", value=str(len(body.shims)), detail=listed + (f"; lot {body.lot}" if body.lot else ""))


def say_decided(body: LashDecided) -> Words:
    """Accepted by the lead."""
    called = _called(body.valve)
    return Words(title=at_start(called), value="accepted by the lead", detail=body.reason)


def _called(valve: str) -> str:
    """A valve as it is called, from what it is kept under."""
    parts = valve.split("|")
    if len(parts) < 3:
        return valve
    return f"cylinder {parts[1]} {parts[2]}{f', {parts[3]}' if len(parts) > 3 and parts[3] else ''}"
