"""The shapes of what the bench shows. Built by ``replay``, sent as they are, never stored.

Sentences may hold ``{mm:1.5}``, a length each reader sees in his own unit, and ``{turn:clockwise}``, a direction seen from the
front that turns with the side he looks from.
"""

__all__ = [
    "BenchState",
    "CamFigures",
    "CrankAt",
    "EventFigure",
    "Field",
    "LooseEnd",
    "Offer",
    "Option",
    "Permission",
    "Question",
    "Step",
    "TdcFigures",
    "ValveFigures",
    "WheelLabel",
    "WheelSetting",
]

from typing import Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from gurvo_core.engine import Flank, Valve
from gurvo_core.timing import Numbering, Runs, Side, Verdict
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.work.entries import MoveMade


class View(BaseModel):
    """Base of what is shown."""

    model_config = ConfigDict(extra="forbid")


Status = Literal["done", "open", "optional"]


class Option(View):
    """One answer to choose from."""

    value: str
    label: str
    detail: str = ""


class Field(View):
    """A length typed beside the wheel's figure."""

    name: Literal["drop", "lift"]
    label: str
    asked_mm: float | None = None  # given by the question; None = the builder types it


class Question(View):
    """One thing to do or read; the client answers with an entry."""

    key: str
    kind: Literal["setup", "method", "tdc_reading", "wheel_zero", "stop_out", "lift_reading", "cam", "sign_off"]
    title: str
    ask: str
    hint: str
    status: Status
    wheel_label: str = ""
    wheel_detail: str = ""
    field: Field | None = None
    options: list[Option] = []
    expected_deg: float | None = None  # where the card has it, crank degrees after the firing TDC
    expected_words: str = ""
    expected_side: Side | None = None
    # what the answer is about
    method: TdcMethod | None = None
    place: Literal["before", "after"] | None = None
    zero_deg: float | None = None
    camshaft: str | None = None
    cylinder: int | None = None
    valve: Valve | None = None
    flank: Flank | Literal["top"] | None = None


class Step(View):
    """One bead on the rod."""

    key: Literal["wheel", "tdc", "degree", "record"]
    title: str
    status: Literal["done", "now", "open"]
    note: str = ""
    questions: list[Question]


class LooseEnd(View):
    """Something temporary or unfinished, and what it holds back."""

    title: str
    holds_back: str
    stops_turning: bool


class Permission(View):
    """Whether the crank may be turned, and why."""

    free: bool
    title: str
    reasons: list[str]


class WheelLabel(View):
    """A figure printed on the wheel, and where."""

    turned_deg: float
    text: str


class CrankAt(View):
    """Where the crank stands, from the last reading or turn that stands."""

    crank_deg: float  # after the reference cylinder's TDC, one turn
    words: str
    cycle_deg: float | None  # in the cycle, from the first cylinder's firing TDC; None when only the wheel is known
    sees: str  # what is to be seen there


class WheelSetting(View):
    """The wheel as it is set up."""

    numbering: Numbering
    runs: Runs
    sides: list[Side]
    wheel_gauge: str
    dial_gauge: str
    wheel_name: str
    dial_name: str
    labels: list[WheelLabel]


class TdcFigures(View):
    """True TDC as far as it is known."""

    method: TdcMethod
    method_name: str
    zero_deg: float
    expanded_deg: float
    spread_deg: float
    readings: int
    adopted: bool
    stray: UUID | None
    dial_zero_mm: float | None
    words: str


class EventFigure(View):
    """One event: measured and card, from the valve's own cylinder; and where on the wheel, which counts from the reference's."""

    crank_deg: float | None
    wheel_deg: float | None
    card_wheel_deg: float
    words: str
    expanded_deg: float | None
    card_deg: float
    card_words: str
    readings: int


class ValveFigures(View):
    """What has been found for one valve at one checking lift."""

    valve: Valve
    cylinder: int
    lift_mm: float
    opening: EventFigure
    closing: EventFigure
    duration_deg: float | None
    card_duration_deg: float
    centreline_deg: float | None
    centreline_expanded_deg: float | None
    card_centreline_deg: float
    side_words: str
    tolerance_deg: float
    top_centreline_deg: float | None
    top_expanded_deg: float | None
    card_top_centreline_deg: float
    advance_deg: float | None
    verdict: Verdict | None
    settles: str


class Offer(View):
    """One thing that can be done about a cam."""

    value: str
    title: str
    order: str
    leaves_deg: float
    leaves: str
    moves: list[MoveMade]


class CamFigures(View):
    """What has been found for one camshaft."""

    camshaft: str
    name: str
    valves: list[ValveFigures]
    separation_cam_deg: float | None
    card_separation_cam_deg: float | None
    overlap_deg: float | None
    advance_deg: float | None
    expanded_deg: float | None
    advance_words: str
    verdict: Verdict | None
    settles: str
    offers: list[Offer]
    rounds: int
    decided: str


class BenchState(View):
    """Everything the bench shows of one engine."""

    steps: list[Step]
    current: str | None
    waits_for: str
    permission: Permission
    loose_ends: list[LooseEnd]
    wheel: WheelSetting | None
    crank: CrankAt | None
    tdc: TdcFigures | None
    cams: list[CamFigures]
    warnings: list[str]
    signed: bool
