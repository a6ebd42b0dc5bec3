"""An entry's figures in mm, degrees and turns, once, at the door."""

__all__ = ["lash_si", "typed_deg", "typed_turns"]

from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.lash.job.entries import LashReading
from gurvo_core.units import read_figure


def typed_deg(text: str | None) -> float:
    """Return where the crank stands.

    Parameters
    ----------
    text : str or None
        As typed, after the first cylinder's firing TDC [deg].

    Returns
    -------
    crank_deg : float
        0 to 720; 0 where nothing was typed [deg].

    Raises
    ------
    FigureError
        If it is no number.

    Source
    ------
    ``units.read_figure``.

    Example
    -------
    >>> typed_deg("-90"), typed_deg(None)
    (630.0, 0.0)
    """
    return read_figure(text, "stands_deg") % CYCLE_DEG if text else 0.0


def typed_turns(text: str) -> float:
    """Return turns of a screw.

    Parameters
    ----------
    text : str
        As typed, also as a fraction such as 3/4.

    Returns
    -------
    turns : float
        Turns [-].

    Raises
    ------
    FigureError
        If it is no number.

    Source
    ------
    ``units.read_figure``.

    Example
    -------
    >>> typed_turns("3/4"), typed_turns("0,75")
    (0.75, 0.75)
    """
    above, slash, below = text.partition("/")
    if not slash:
        return read_figure(text, "turns")
    divisor = read_figure(below, "turns")
    return read_figure(above, "turns") / divisor if divisor else read_figure("", "turns")


def lash_si(body: LashReading) -> dict[str, float]:
    """Return the figures of a reading.

    Parameters
    ----------
    body : LashReading
        As it was typed.

    Returns
    -------
    figures : dict
        ``goes_mm``, ``not_goes_mm``, ``shim_mm`` [mm] and ``turns``, as far as they were typed.

    Source
    ------
    This module.

    Example
    -------
    >>> where = {"step": "x", "camshaft": "cam", "cylinder": 1, "valve": "intake"}
    >>> lash_si(LashReading(kind="lash_reading", **where, goes={"text": "0.20", "unit": "mm"}))
    {'goes_mm': 0.2}
    """
    typed = {"goes_mm": body.goes, "not_goes_mm": body.not_goes, "shim_mm": body.shim}
    figures = {name: one.inside("length", f"{name.removesuffix('_mm')}.text") for name, one in typed.items() if one is not None}
    return {**figures, **({"turns": typed_turns(body.turns)} if body.turns else {})}
