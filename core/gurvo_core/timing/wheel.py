"""The builder's own degree wheel: its numbering, which way its figures run, and what a figure on it means.

The wheel is bolted to the crank and the pointer stands still. ``wheel degrees`` are how far the crank has turned the running
way from the wheel's own zero, 0 <= w < 360. A folded numbering (0-180-0, 0-90-0-90-0) shows each figure more than once, so a
reading on it carries its side; it grows away from every zero whichever way it is mounted, so ``runs`` matters only for 0-360.
Figures are kept to a thousand-millionth of a degree, so that reading and writing back is exact.
"""

__all__ = ["DegreeWheel", "Numbering", "Runs", "Side", "sides_of", "wheel_deg", "wheel_figure"]

from dataclasses import dataclass
from typing import Literal

from gurvo_core.angles import wrap_deg
from gurvo_core.errors import ReadingError

Numbering = Literal["0-360", "0-180-0", "0-90-0-90-0"]
Runs = Literal["grows", "falls"]
Side = Literal["before TDC", "after TDC", "before BDC", "after BDC"]

HIGHEST: dict[Numbering, float] = {"0-360": 360.0, "0-180-0": 180.0, "0-90-0-90-0": 90.0}
KEPT_DECIMALS = 9
_SIDES: dict[Numbering, tuple[Side, ...]] = {
    "0-360": (),
    "0-180-0": ("before TDC", "after TDC"),
    "0-90-0-90-0": ("before TDC", "after TDC", "before BDC", "after BDC"),
}
_ZERO_AND_WAY: dict[Side, tuple[float, int]] = {
    "after TDC": (0.0, 1),
    "before BDC": (180.0, -1),
    "after BDC": (180.0, 1),
    "before TDC": (360.0, -1),
}


@dataclass(frozen=True, kw_only=True)
class DegreeWheel:
    """A degree wheel as it is bolted on."""

    numbering: Numbering
    runs: Runs = "grows"


def sides_of(numbering: Numbering) -> tuple[Side, ...]:
    """Return the sides a reading on this numbering must choose from; none for 0-360."""
    return _SIDES[numbering]


def wheel_deg(figure_deg: float, side: Side | None, wheel: DegreeWheel) -> float:
    """Return how far the crank has turned from the wheel's zero, from the figure under the pointer.

    figure_deg: what the wheel reads [deg].
    Returned: crank degrees from the wheel's zero, running way, 0 <= w < 360 [deg].
    Raises ReadingError if the wheel has no such figure, or the side is missing or not one of this wheel's.
    """
    highest_deg, sides = HIGHEST[wheel.numbering], _SIDES[wheel.numbering]
    if not 0 <= figure_deg <= highest_deg:
        rule = f"a {wheel.numbering} wheel has no {figure_deg:g}°; it reads from 0 to {highest_deg:g}"
        raise ReadingError("text", figure_deg, rule)
    if side not in sides and (sides or side is not None):
        wanted = f"say which side: {', '.join(sides)}" if sides else "it has no sides; leave the side out"
        raise ReadingError("side", side, f"on a {wheel.numbering} wheel {wanted}")
    if side is None:
        turned_deg = figure_deg if wheel.runs == "grows" else 360 - figure_deg
    else:
        zero_deg, way = _ZERO_AND_WAY[side]
        turned_deg = zero_deg + way * figure_deg
    return wrap_deg(round(turned_deg, KEPT_DECIMALS))


def wheel_figure(turned_deg: float, wheel: DegreeWheel) -> tuple[float, Side | None]:
    """Return what the wheel reads, and on which side, at a crank angle from its zero.

    turned_deg: crank degrees from the wheel's zero, running way [deg].
    Returned: the figure under the pointer [deg].
    """
    turned = wrap_deg(round(wrap_deg(turned_deg), KEPT_DECIMALS))
    if wheel.numbering == "0-360":
        return (turned if wheel.runs == "grows" else wrap_deg(round(360 - turned, KEPT_DECIMALS))), None
    highest_deg = HIGHEST[wheel.numbering]
    if turned <= highest_deg:
        side: Side = "after TDC"
    elif turned >= 360 - highest_deg:
        side = "before TDC"
    else:
        side = "before BDC" if turned < 180 else "after BDC"
    zero_deg, way = _ZERO_AND_WAY[side]
    return round(way * (turned - zero_deg), KEPT_DECIMALS), side
