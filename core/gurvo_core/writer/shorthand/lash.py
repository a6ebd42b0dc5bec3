"""Valve clearance on one line: ``0.15-0.20 by screw``, ``0.20-0.30 by shim, hot``, ``hydraulic``."""

__all__ = ["LashSaid", "read_lash", "write_lash"]

import re
from typing import Literal, NamedTuple

from gurvo_core.writer.shorthand.limits import Limits, read_limits, write_limits
from gurvo_core.writer.shorthand.words import Piece, refused

_LINE = re.compile(r"(?:(?P<limits>.*?)\s+)?by (?P<by>screw|shim)s?(?:,?\s*(?P<engine>hot|cold))?", re.I)


class LashSaid(NamedTuple):
    """How a clearance is set, within which limits [mm], and with the engine how."""

    set_by: Literal["screw", "shim", "hydraulic"]
    limits: Limits = (None, None)
    engine_is: Literal["cold", "hot"] = "cold"


def read_lash(text: str) -> LashSaid:
    """The clearance in a line."""
    plain = text.strip()
    if plain.lower() == "hydraulic":
        return LashSaid("hydraulic")
    found = _LINE.fullmatch(plain)
    if found is None:
        raise refused(Piece(text, 0), "write such as 0.15-0.20 by screw, 0.20-0.30 by shim, hot, or hydraulic")
    limits = read_limits(found["limits"]) if found["limits"] else (None, None)
    return LashSaid(
        "shim" if found["by"].lower() == "shim" else "screw", limits, "hot" if (found["engine"] or "").lower() == "hot" else "cold"
    )


def write_lash(said: LashSaid) -> str:
    """The same line in its one form."""
    if said.set_by == "hydraulic":
        return "hydraulic"
    limits = write_limits(said.limits)
    return f"{f'{limits} ' if limits else ''}by {said.set_by}{', hot' if said.engine_is == 'hot' else ''}"
