"""Fits: what is measured where, its limits, and what it is chosen from. A fit without sides or a gap is asked for as one figure.

Two sides, an outer and an inner one, make a clearance: smallest outer less largest inner. A gap is measured straight. Lengths in mm.
"""

__all__ = ["Fit", "FitSide", "Lash", "LashStop", "Select", "SideKey", "SizeClass", "StopValve"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from gurvo_core.engine.camshaft import Valve
from gurvo_core.engine.part import CylinderNumber, Name, Part, Sentence, Word

Short = Annotated[str, StringConstraints(min_length=1, max_length=24, strip_whitespace=True)]
SideKey = Literal["outer", "inner", "gap"]
STEEL = 11.5  # expansion of steel and cast iron [µm/m/K], as most blocks, shafts and gauges have it


class FitSide(Part):
    """What is measured at each place: how often, across which planes and axes, and how the part must be while it is."""

    name: Short = Field(description="Such as bore, journal, gap")
    nominal_mm: float | None = Field(default=None, gt=0, le=2000)
    planes: tuple[Short, ...] = Field(default=(), max_length=6, description="Such as front and rear, or top, middle and bottom")
    axes: tuple[Short, ...] = Field(default=(), max_length=4, description="Such as up and across")
    condition: Sentence | None = Field(default=None, description="How the part must be when it is read, such as caps torqued")
    radius_mm: float | None = Field(default=None, gt=0, le=2000, description="Of a backlash: the radius at which its limits hold [mm]")
    expansion_um_m_k: float = Field(default=STEEL, ge=0, le=40, description="Thermal expansion of the part [µm/m/K]")


class SizeClass(Part):
    """One size that a part is to be had in."""

    id: Short
    size_mm: float = Field(gt=0, le=2000, description="Thickness or diameter [mm]")
    tells: str = Field(default="", max_length=60, description="By what it is told: a colour, a letter")


class Select(Part):
    """The part that sets the clearance, and its sizes."""

    part: Name = Field(description="As the stock list calls it")
    classes: tuple[SizeClass, ...] = Field(min_length=1, max_length=64)
    on: SideKey = "outer"
    takes: float = Field(default=1, gt=0, le=4, description="Clearance lost for each mm of size [-]; 2 where two shells share a place")
    pieces: int = Field(default=1, ge=1, le=8, description="Pieces of one size that a place takes from stock")
    measured_in: Word | None = Field(
        default=None, description="The size that is in while it is measured; left out where it is measured without"
    )
    tolerance_mm: float = Field(default=0, ge=0, le=1, description="How far one piece may be from its size, either way [mm]")

    def size_of(self, name: str | None) -> float | None:
        """One of its sizes by name [mm]; None where there is none of that name."""
        return next((one.size_mm for one in self.classes if one.id == name), None)


At = Literal["mains", "rods", "cylinders", "cam_journals", "rings", "once"]


class Fit(Part):
    """A clearance and its limits; with sides or a gap it is measured place by place."""

    id: Word
    name: Name
    least_mm: float | None = Field(default=None, ge=-5, le=50)
    most_mm: float | None = Field(default=None, ge=-5, le=50)
    least_per_mm: float | None = Field(default=None, ge=0, le=0.1, description="Limit for each mm of diameter [-]")
    most_per_mm: float | None = Field(default=None, ge=0, le=0.1)
    wanted_mm: float | None = Field(default=None, ge=-5, le=50, description="What is aimed at; the middle of the limits when left out")
    at: At | None = Field(default=None, description="Which places of the engine; named or once when left out")
    count: int | None = Field(default=None, ge=1, le=64, description="mains; cam_journals: of each camshaft; rings: of each piston")
    places: tuple[Short, ...] = Field(default=(), max_length=128, description="The places by name, where the engine does not give them")
    outer: FitSide | None = None
    inner: FitSide | None = None
    gap: FitSide | None = None
    select: Select | None = None
    read_by: tuple[Literal["micrometer", "bore", "dial", "feeler", "caliper", "strip"], ...] = Field(
        default=(), max_length=6, description="Gauges it may be read with; strip = plastic strip by its width"
    )

    @property
    def sides(self) -> tuple[tuple[SideKey, FitSide], ...]:
        """What is measured, the outer side first; empty where it is asked for as one figure."""
        own: tuple[tuple[SideKey, FitSide | None], ...] = (("outer", self.outer), ("inner", self.inner), ("gap", self.gap))
        return tuple((key, side) for key, side in own if side is not None)

    @property
    def is_placed(self) -> bool:
        """Whether it is measured place by place."""
        return bool(self.sides)

    @property
    def nominal_mm(self) -> float | None:
        """The diameter that limits for each mm are about; the inner side's, as the journal gives the clearance its size."""
        return next((side.nominal_mm for side in (self.inner, self.outer, self.gap) if side and side.nominal_mm), None)

    @property
    def limits_mm(self) -> tuple[float | None, float | None]:
        """Least and most [mm], from the figures or from those for each mm of diameter."""
        nominal = self.nominal_mm
        per = [limit * nominal if limit is not None and nominal else None for limit in (self.least_per_mm, self.most_per_mm)]
        least = self.least_mm if self.least_mm is not None else per[0]
        return least, self.most_mm if self.most_mm is not None else per[1]

    @model_validator(mode="after")
    def _both_sides(self) -> "Fit":
        if (self.outer is None) != (self.inner is None):
            raise ValueError("a fit of two sides needs both of them, outer and inner")
        if self.gap is not None and self.outer is not None:
            raise ValueError("a fit has two sides or a gap, not both")
        if (self.at or self.places or self.select) and not self.is_placed:
            raise ValueError("places and sizes need sides or a gap that is measured there")
        if self.select is not None and self.select.on not in dict(self.sides):
            raise ValueError("the sizes are on a side that the fit does not have")
        if self.select is not None and self.select.measured_in is not None:
            known = {one.id for one in self.select.classes}
            if self.select.measured_in not in known:
                raise ValueError("the size that is in while it is measured is none of its sizes")
        if self.at in ("mains", "cam_journals") and self.count is None:
            raise ValueError("say how many of them there are")
        return self


class StopValve(Part):
    """One sort of valve of one cylinder."""

    cylinder: CylinderNumber
    valve: Valve


class LashStop(Part):
    """One stop of the book's own order: at whose firing TDC the crank stands, and the valves that are set there."""

    cylinder: CylinderNumber
    valves: tuple[StopValve, ...] = Field(min_length=1, max_length=64)


class Lash(Part):
    """Valve clearance as it is set."""

    valve: Valve
    least_mm: float | None = Field(default=None, ge=0, le=3)
    most_mm: float | None = Field(default=None, ge=0, le=3)
    engine_is: Literal["cold", "hot"] = "cold"
    set_by: Literal["screw", "shim", "hydraulic"]
    pitch_mm: float | None = Field(default=None, gt=0, le=3, description="Of the adjusting screw's thread [mm a turn]")
    acts_by: float = Field(default=1, gt=0, le=4, description="Lash at the valve for each mm of screw or shim [-]")
    shims: Select | None = None
    turns: float | None = Field(default=None, ge=0, le=4, description="hydraulic: turns of the screw after zero lash")
    bridge: bool = Field(default=False, description="Whether one rocker opens two valves over a bridge")
    margin_deg: float = Field(default=10, ge=0, le=60, description="Crank degrees left out at each end of the base circle, for the ramps")

    @property
    def wanted_mm(self) -> float | None:
        """The middle of the limits [mm]; None while not known."""
        return None if self.least_mm is None or self.most_mm is None else (self.least_mm + self.most_mm) / 2
