"""An entry's figures in mm, degrees and turns, once, at the door."""

__all__ = ["lash_si", "typed_deg", "typed_turns"]

from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.lash.job.entries import LashReading
from gurvo_core.units import read_figure


def typed_deg(text: str | None) -> float:
    """Return where the crank stands.

    text: as typed, after the first cylinder's firing TDC [deg].
    Returned: 0 to 720; 0 where nothing was typed [deg].
    Raises FigureError if it is no number.
    """
    return read_figure(text, "stands_deg") % CYCLE_DEG if text else 0.0


def typed_turns(text: str) -> float:
    """Return turns of a screw.

    Returned: turns [-].
    Raises FigureError if it is no number.
    """
    above, slash, below = text.partition("/")
    if not slash:
        return read_figure(text, "turns")
    divisor = read_figure(below, "turns")
    return read_figure(above, "turns") / divisor if divisor else read_figure("", "turns")


def lash_si(body: LashReading) -> dict[str, float]:
    """Return the figures of a reading.

    Returned: ``goes_mm``, ``not_goes_mm``, ``shim_mm`` [mm] and ``turns``, as far as they were typed.
    """
    typed = {"goes_mm": body.goes, "not_goes_mm": body.not_goes, "shim_mm": body.shim}
    figures = {name: one.inside("length", f"{name.removesuffix('_mm')}.text") for name, one in typed.items() if one is not None}
    return {**figures, **({"turns": typed_turns(body.turns)} if body.turns else {})}
