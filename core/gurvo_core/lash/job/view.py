"""The shapes of what setting valve clearances asks and shows. Lengths mm, crank degrees."""

__all__ = [
    "LashReadingQuestion",
    "LashReadyQuestion",
    "LashSheet",
    "LashShimsQuestion",
    "LashView",
    "ShimRow",
    "StopView",
    "ValveView",
    "WayOfStops",
]

from typing import Literal

from pydantic import Field

from gurvo_core.engine import Valve
from gurvo_core.lash.stops import StopWay
from gurvo_core.ledger import Question, View
from gurvo_core.verdict import Verdict


class WayOfStops(View):
    """One way to reach all valves, and what is said of it."""

    way: StopWay
    stops: int
    words: str


class LashReadyQuestion(Question):
    """Which way, with what, and how the engine is."""

    kind: Literal["lash_ready"] = "lash_ready"
    step: str
    ways: list[WayOfStops]
    engine_is: Literal["cold", "hot"] | None
    limits: str
    needs_feelers: bool
    cautions: list[str]


class LashReadingQuestion(Question):
    """One valve's clearance."""

    kind: Literal["lash_reading"] = "lash_reading"
    step: str
    stop: int
    camshaft: str
    cylinder: int
    valve: Valve
    place: str
    id: str
    set_by: Literal["screw", "shim", "hydraulic"]
    limits: str
    gauge: str | None
    asks_shim: bool
    shim_mm: float | None
    turns: float | None = Field(description="Hydraulic: how many turns, as the book has it")
    advice: str = Field(description="What to do after the last reading")
    is_again: bool
    cautions: list[str]


class LashShimsQuestion(Question):
    """Which shim goes where."""

    kind: Literal["lash_shims"] = "lash_shims"
    step: str
    part: str


class StopView(View):
    """One stop."""

    number: int
    crank_deg: float | None
    where: str
    sees: str
    valves: list[str]
    is_now: bool
    left: int


class ValveView(View):
    """One valve as it stands."""

    id: str
    words: str
    cylinder: int
    valve: Valve
    place: str
    stop: int | None
    verdict: Verdict | None
    lash_mm: float | None
    u_mm: float | None
    found_mm: float | None = Field(description="As it was found, before anything was changed [mm]")
    shim_mm: float | None
    is_pending: bool = Field(description="Whether its shim was changed and it was not read again")
    advice: str
    decided: str
    low_mm: float | None
    high_mm: float | None


class LashView(View):
    """The step that sets valves, as it stands; empty where the step is another."""

    step: str
    way: str
    stops: list[StopView]
    valves: list[ValveView]


class ShimRow(View):
    """One valve before and after."""

    valve: str
    words: str
    shim_now_mm: float
    lash_now_mm: float
    shim_mm: float
    lash_mm: float
    source: str
    came_from: str
    is_in: bool


class LashSheet(View):
    """What shims would give."""

    rows: list[ShimRow]
    words: str
    part: str
    sizes: list[str]
