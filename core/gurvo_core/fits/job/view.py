"""The shapes of what a fit asks and shows. Sizes in mm at 20 °C."""

__all__ = [
    "ChoiceRow",
    "ChoiceView",
    "FitChosenQuestion",
    "FitReadingQuestion",
    "FitSheet",
    "FitView",
    "FitsReadyQuestion",
    "FitsView",
    "PlaceView",
    "SheetCell",
    "SheetColumn",
    "SheetLine",
    "SideView",
    "SizeView",
    "TrendLine",
    "WayView",
]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.fit import SideKey
from gurvo_core.ledger import Question, View
from gurvo_core.verdict import Verdict


class FitsReadyQuestion(Question):
    """With what a side of a fit is read."""

    kind: Literal["fits_ready"] = "fits_ready"
    step: str
    fit: str
    side: SideKey
    side_name: str
    nominal_mm: float | None
    condition: str
    radius_mm: float | None = Field(description="Of a backlash: radius at which its limits hold [mm]")
    kinds: list[str] = Field(description="Kinds of gauges it may be read with; any where there are none")
    limits: str
    cautions: list[str]


class FitReadingQuestion(Question):
    """One reading at one spot."""

    kind: Literal["fit_reading"] = "fit_reading"
    step: str
    fit: str
    place: str
    side: SideKey
    plane: str
    axis: str
    spot: str = Field(description="What it is called")
    nominal_mm: float | None
    set_to_mm: float | None
    gauge: str | None
    about: str
    places: list[str]
    planes: list[str]
    axes: list[str]
    cautions: list[str]


class FitChosenQuestion(Question):
    """Which size goes where."""

    kind: Literal["fit_chosen"] = "fit_chosen"
    step: str
    fit: str
    part: str


class PlaceView(View):
    """One place."""

    id: str
    label: str
    cylinder: int | None
    read: int
    of: int
    verdict: Verdict | None = Field(description="In, out, or cannot be told; null while something is missing")
    end: str
    value_mm: float | None
    u_mm: float | None = Field(description="U: the true figure lies within so much 95 times of 100 [mm]")
    least_mm: float | None
    most_mm: float | None
    outer_mm: float | None
    inner_mm: float | None
    notes: str = Field(description="Taper and out of round")
    size: str
    decided: str


class SideView(View):
    """What is measured at each place."""

    key: SideKey
    name: str


class FitView(View):
    """One fit as it stands."""

    id: str
    name: str
    step: str
    drawn: str
    sides: list[SideView]
    low_mm: float | None
    high_mm: float | None
    limits: str
    about: list[str]
    places: list[PlaceView]
    read: int
    of: int


class FitsView(View):
    """The fits of the step that is done now."""

    fits: list[FitView]


class SheetColumn(View):
    """One spot, as a column of the sheet."""

    side: SideKey
    plane: str
    axis: str
    label: str


class SheetCell(View):
    """What was read at one spot."""

    size_mm: float
    count: int
    gauge: str
    by: str


class SheetLine(View):
    """One place, spot by spot."""

    place: str
    cells: list[SheetCell | None]


class WayView(View):
    """One way to settle a place that cannot be told."""

    place: str
    words: str
    settles: bool


class SizeView(View):
    """One size of a part, and how many places the free stock reaches for."""

    id: str
    tells: str
    size_mm: float
    free: int


class ChoiceRow(View):
    """One place before and after."""

    place: str
    size_now: str
    now_mm: float | None
    size: str
    gives_mm: float = Field(description="What it would give: the middle of least and most [mm]")
    least_mm: float
    most_mm: float


class ChoiceView(View):
    """What stock would give."""

    part: str
    pieces: int
    wanted_mm: float | None
    sizes: list[SizeView]
    rows: list[ChoiceRow]
    words: str


class TrendLine(View):
    """One place against all of its family that were built here."""

    place: str
    value_mm: float
    mean_mm: float
    spread_mm: float
    count: int


class FitSheet(View):
    """All of one fit: every reading, what would settle it, what stock would give, how others of its family came out."""

    fit: FitView
    columns: list[SheetColumn]
    lines: list[SheetLine]
    ways: list[WayView]
    choice: ChoiceView | None
    trend: list[TrendLine]
    gasket: str
