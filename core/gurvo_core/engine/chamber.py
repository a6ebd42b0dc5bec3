"""The combustion chamber: volumes for the compression ratio, and the head gaskets there are to choose from. Lengths mm, volumes cm³."""

__all__ = ["Chamber", "HeadGasket"]

from pydantic import Field

from gurvo_core.engine.part import Part, Word


class HeadGasket(Part):
    """One thickness of head gasket and the piston protrusion it is for."""

    id: Word
    squeezed_mm: float = Field(gt=0, le=20)
    bore_mm: float | None = Field(default=None, gt=0, le=1000, description="Diameter of its own hole; the cylinder's when left out")
    most_proud_mm: float | None = Field(
        default=None, ge=-20, le=20, description="The highest piston it still clears [mm above the deck]; no limit known when left out"
    )
    tells: str = Field(default="", max_length=60, description="By what it is told, such as two notches")


class Chamber(Part):
    """What encloses the charge at TDC, the same in every cylinder."""

    head_cm3: float = Field(gt=0, le=20000, description="Volume in the head, valves and plugs in")
    piston_cm3: float = Field(default=0, ge=-5000, le=5000, description="Bowl positive, dome negative")
    least_ratio: float | None = Field(default=None, gt=1, le=40)
    most_ratio: float | None = Field(default=None, gt=1, le=40)
    least_squish_mm: float | None = Field(default=None, ge=-5, le=20, description="Least distance from crown to head's flat")
    gaskets: tuple[HeadGasket, ...] = Field(default=(), max_length=12)
    protrusion_fit: Word | None = Field(default=None, description="Id of the fit that measures how far pistons stand above the deck")
