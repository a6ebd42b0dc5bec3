"""Units at the door: a typed figure and its unit become millimetres, newton metres or degrees, once.

The ledger keeps what was typed; this is the only place that converts.
"""

__all__ = ["Quantity", "Unit", "per_unit", "read_figure", "to_inside"]

import re
from typing import Literal

from gurvo_core.errors import FigureError

Unit = Literal["deg", "mm", "µm", "in", "thou", "N·m", "lbf·ft", "lbf·in"]
Quantity = Literal["angle", "length", "torque"]

_QUANTITY: dict[Unit, Quantity] = {
    "deg": "angle",
    "mm": "length",
    "µm": "length",
    "in": "length",
    "thou": "length",
    "N·m": "torque",
    "lbf·ft": "torque",
    "lbf·in": "torque",
}
_LBF_N, _FOOT_M, _INCH_M = 4.4482216152605, 0.3048, 0.0254  # exact by definition
_PER_UNIT: dict[Unit, float] = {
    "deg": 1.0,
    "mm": 1.0,
    "µm": 0.001,
    "in": 25.4,
    "thou": 0.0254,
    "N·m": 1.0,
    "lbf·ft": round(_LBF_N * _FOOT_M, 14),
    "lbf·in": round(_LBF_N * _INCH_M, 14),
}
_NUMBER = re.compile(r"[+-]?([0-9]+([.,][0-9]*)?|[.,][0-9]+)")


def per_unit(unit: Unit) -> float:
    """Return how much one of a unit is in the unit used inside (deg, mm or N·m).

    Source: [units] NIST SP 811, appendix B: 1 in = 25.4 mm, 1 ft = 0.3048 m, 1 lbf = 4.4482216152605 N, all exact.
    >>> per_unit("in")
    25.4
    """
    return _PER_UNIT[unit]


def read_figure(text: str, field: str = "text") -> float:
    """Return the number somebody typed; a comma is as good as a point.

    Returned: the figure, unit unknown [-].
    Raises FigureError if it is not a plain decimal number.
    We never alter a measured figure, we refuse it with a reason.
    """
    plain = text.strip()
    if not _NUMBER.fullmatch(plain):
        shown = f"“{plain[:20]}” is not a number" if plain else "nothing was typed"
        raise FigureError(field, text, f"{shown}; type digits with one point or comma, such as 41.5")
    if len(plain) > 12:
        raise FigureError(field, text, f"“{plain[:20]}” has more digits than any gauge shows; type 12 characters at most")
    return float(plain.replace(",", "."))


def to_inside(text: str, unit: Unit, quantity: Quantity, field: str = "text") -> float:
    """Return a typed figure in the unit used inside.

    Raises FigureError if it is not a number, or the unit measures something else.
    """
    if _QUANTITY[unit] != quantity:
        fitting = ", ".join(u for u, q in _QUANTITY.items() if q == quantity)
        raise FigureError("unit", unit, f"the unit {unit} does not measure {quantity}; use {fitting}")
    return read_figure(text, field) * per_unit(unit)
