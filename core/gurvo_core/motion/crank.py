"""Slider-crank motion with an offset pin: where the piston is, and its inverse either side of TDC.

Angles: crank degrees after *true* TDC (where throw and rod line up), positive in the running direction.
Drop: millimetres the piston has come down from its highest place. Rigid parts.
The pin offset is positive towards the major thrust side, the side on which the crank pin rises.
"""

__all__ = ["SliderCrank", "drop_at_deg", "drop_mm", "half_arc_middle_deg", "pair_middle_deg"]

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray

from gurvo_core.errors import GeometryError, ReadingError


@dataclass(frozen=True, kw_only=True)
class SliderCrank:
    """One crank throw, its rod and the offset of the piston pin's line."""

    throw_mm: float
    rod_mm: float
    pin_offset_mm: float = 0.0

    def __post_init__(self) -> None:
        if not self.throw_mm > 0:
            raise GeometryError("throw_mm", self.throw_mm, f"throw_mm is {self.throw_mm:g}, but a crank throw must be above 0 mm")
        least_mm = self.throw_mm + abs(self.pin_offset_mm)
        if not self.rod_mm > least_mm:
            rule = f"rod_mm is {self.rod_mm:g}, but it must exceed throw and pin offset together ({least_mm:g} mm)"
            raise GeometryError("rod_mm", self.rod_mm, rule)

    @property
    def top_mm(self) -> float:
        """Height of the pin above the crank's axis at TDC [mm]."""
        return float(np.sqrt((self.rod_mm + self.throw_mm) ** 2 - self.pin_offset_mm**2))

    @property
    def tdc_pin_angle_deg(self) -> float:
        """Throw angle at TDC, from the cylinder's axis [deg]."""
        return float(-np.degrees(np.arcsin(self.pin_offset_mm / (self.rod_mm + self.throw_mm))))

    @property
    def bdc_deg(self) -> float:
        """Crank angle after TDC at which the piston is lowest [deg]; 180 without a pin offset."""
        lowest = 180 - float(np.degrees(np.arcsin(self.pin_offset_mm / (self.rod_mm - self.throw_mm))))
        return lowest - self.tdc_pin_angle_deg

    @property
    def travel_mm(self) -> float:
        """Whole travel from TDC to BDC [mm]; a little more than the stroke when the pin is offset."""
        return self.top_mm - float(np.sqrt((self.rod_mm - self.throw_mm) ** 2 - self.pin_offset_mm**2))


def drop_mm(crank_deg: ArrayLike, slider: SliderCrank) -> NDArray[np.float64]:
    """Return how far the piston is below its highest place.

    crank_deg: crank angle after true TDC [deg]. Any shape, any sign; not wrapped.
    slider: throw, rod and pin offset [mm].
    Returned: drop below TDC [mm], same shape as ``crank_deg``.
    Source: [rod-triangle] in docs/sources.md: y = r cos f + sqrt(L^2 - (r sin f + e)^2), f from the cylinder's axis.
    Throw 40, rod 140, crank square to the bore; by hand 180 - 60*sqrt(5).
    >>> round(float(drop_mm(90, SliderCrank(throw_mm=40, rod_mm=140))), 4)
    45.8359
    """
    from_axis = np.radians(np.asarray(crank_deg, dtype=np.float64) + slider.tdc_pin_angle_deg)
    side_mm = slider.throw_mm * np.sin(from_axis) + slider.pin_offset_mm
    height_mm = slider.throw_mm * np.cos(from_axis) + np.sqrt(slider.rod_mm**2 - side_mm**2)
    return np.asarray(slider.top_mm - height_mm, dtype=np.float64)


def drop_at_deg(drop: float, side: Literal["before", "after"], slider: SliderCrank) -> float:
    """Return the crank angle at which the piston has a given drop, before or after TDC.

    drop: drop below TDC [mm], between 0 and the travel.
    slider: throw, rod and pin offset [mm].
    Returned: crank angle after true TDC, negative before it [deg].
    Raises ReadingError if the piston never has that drop.
    Source: [rod-triangle]: cosine rule on throw, rod and the line from crank axis to piston pin; closed form.
    >>> round(drop_at_deg(45.835921, "before", SliderCrank(throw_mm=40, rod_mm=140)), 4)
    -90.0
    """
    if not 0 <= drop <= slider.travel_mm:
        rule = f"a drop of {drop:g} mm cannot be: this piston moves from 0 to {slider.travel_mm:.2f} mm"
        raise ReadingError("drop", drop, rule)
    height_mm = slider.top_mm - drop
    leaning_deg, half_deg = _line_to_pin(height_mm, slider)
    turned_deg = half_deg if side == "after" else -half_deg
    return leaning_deg + turned_deg - slider.tdc_pin_angle_deg


def _line_to_pin(height_mm: float, slider: SliderCrank) -> tuple[float, float]:
    """Lean of the line from crank axis to piston pin, and the throw's angle from that line [deg]."""
    reach_mm = float(np.hypot(slider.pin_offset_mm, height_mm))
    leaning_deg = float(np.degrees(np.arctan2(-slider.pin_offset_mm, height_mm)))
    cosine = (slider.throw_mm**2 + reach_mm**2 - slider.rod_mm**2) / (2 * slider.throw_mm * reach_mm)
    return leaning_deg, float(np.degrees(np.arccos(np.clip(cosine, -1, 1))))  # rounding may pass 1 at TDC itself


def pair_middle_deg(drop: float, slider: SliderCrank) -> float:
    """Return where the middle between two equal drops lies, from true TDC.

    drop: the drop at both places [mm].
    slider: throw, rod and pin offset [mm].
    Returned: middle of the pair after true TDC [deg]; 0 without a pin offset.
    Raises ReadingError if the piston never has that drop.
    Source: [rod-triangle], from ``drop_at_deg`` both sides.
    >>> pair_middle_deg(10.0, SliderCrank(throw_mm=43, rod_mm=143))
    0.0
    """
    return (drop_at_deg(drop, "before", slider) + drop_at_deg(drop, "after", slider)) / 2


def half_arc_middle_deg(arc_deg: float, slider: SliderCrank) -> float:
    """Return where the middle of an arc between two equal drops lies, from true TDC, when only the arc is known.

    A positive stop blocks an arc; the arc itself tells how far down the stop holds the piston.
    arc_deg: arc from the place before TDC to the place after it [deg], 0 to 360.
    slider: throw, rod and pin offset [mm].
    Returned: middle of the arc after true TDC [deg].
    Source: [rod-triangle]: D = r cos a + sqrt(L^2 - r^2 sin^2 a) for the half arc a, then the lean of D.
    >>> round(half_arc_middle_deg(80.0, SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=0.8)), 4)
    -0.0181
    """
    half = np.radians(arc_deg / 2)
    r_mm, rod_mm = slider.throw_mm, slider.rod_mm
    reach_mm = r_mm * np.cos(half) + np.sqrt(rod_mm**2 - (r_mm * np.sin(half)) ** 2)
    leaning_deg = np.degrees(-np.arcsin(slider.pin_offset_mm / reach_mm))
    return float(leaning_deg - slider.tdc_pin_angle_deg)
