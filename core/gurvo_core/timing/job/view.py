"""The shapes of what the timing asks and shows. Built from what stands, sent as they are, never stored."""

__all__ = [
    "CamFigures",
    "CrankAt",
    "EventFigure",
    "LengthField",
    "LiftCurve",
    "LiftQuestion",
    "Offer",
    "Option",
    "SetupQuestion",
    "TdcFigures",
    "TdcQuestion",
    "TimingView",
    "ValveFigures",
    "WheelCheckQuestion",
    "WheelLabel",
    "WheelSetting",
]

from typing import Literal

from pydantic import Field

from gurvo_core.engine import Flank, Valve
from gurvo_core.ledger import Basis, Question, View
from gurvo_core.timing import Numbering, Runs, Side, Verdict
from gurvo_core.timing.job.entries import MoveMade
from gurvo_core.timing.tdc import TdcMethod


class Option(View):
    """One answer to choose from."""

    value: TdcMethod
    label: str
    detail: str


class LengthField(View):
    """A length typed beside the wheel's figure."""

    name: Literal["drop", "lift"]
    label: str
    asked_mm: float | None = Field(default=None, description="Length given by the question [mm]; null: the builder types it")


class SetupQuestion(Question):
    """How the wheel is numbered, and with which gauges it is read."""

    kind: Literal["wheel_setup"] = "wheel_setup"


class WheelCheckQuestion(Question):
    """What a second pointer reads, opposite the first."""

    kind: Literal["wheel_check"] = "wheel_check"
    doing: str = "turn"
    again: bool = Field(default=False, description="Whether it stays, to be answered at several places, until somebody goes on")
    found: str = Field(description="How the wheel sits, as far as it was told")


class TdcQuestion(Question):
    """One reading towards true TDC."""

    kind: Literal["tdc_reading"] = "tdc_reading"
    doing: str = "turn"
    wheel_detail: str
    field: LengthField | None = None
    expected_side: Side | None = None
    method: TdcMethod
    place: Literal["before", "after"] | None = None


class LiftQuestion(Question):
    """Where a valve passes a lift."""

    kind: Literal["lift_reading"] = "lift_reading"
    doing: str = "turn"
    wheel_detail: str
    field: LengthField | None = None
    expected_deg: float = Field(description="Where the card has it, crank degrees after the firing TDC of its own cylinder [deg]")
    expected_words: str
    expected_side: Side | None
    camshaft: str
    cylinder: int
    valve: Valve
    flank: Flank | Literal["top"]
    again: bool = Field(default=False, description="Whether it stays, to be answered at several places, until somebody goes on")


class WheelLabel(View):
    """A figure printed on the wheel, and where."""

    turned_deg: float
    text: str


class CrankAt(View):
    """Where the crank stands, from the last reading or turn that stands."""

    crank_deg: float = Field(description="Where the crank stands after the reference cylinder's TDC, within one turn [crank deg]")
    words: str
    cycle_deg: float | None = Field(
        description="Where it stands in the cycle, from the first cylinder's firing TDC; null when only the wheel is known [crank deg]"
    )
    sees: str = Field(description="What is to be seen there")


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
    outlier: int | None = Field(description="Place in the ledger of the reading that does not belong")
    rests_on: Basis
    taken_deg: float | None = Field(description="As it was shown when it was taken over [deg]")
    dial_zero_mm: float | None
    words: str


class EventFigure(View):
    """One event: measured and card, from the valve's own cylinder; and where on the wheel, which counts from the reference's."""

    crank_deg: float | None
    wheel_deg: float | None
    card_wheel_deg: float | None
    words: str
    expanded_deg: float | None
    card_deg: float | None = Field(description="By the card; null: no card says it [crank deg]")
    card_words: str
    readings: int


class LiftCurve(View):
    """A valve's whole lift curve against its profile."""

    readings: int
    centreline_deg: float | None = Field(description="Centreline of the lobe [crank deg from TDC]; null: too few readings yet")
    expanded_deg: float | None
    card_deg: float | None
    follows: bool | None = Field(description="Whether it is the profile's, within what wheel and dial explain")
    words: str


class ValveFigures(View):
    """What has been found for one valve at one checking lift."""

    valve: Valve
    cylinder: int
    lift_mm: float
    opening: EventFigure
    closing: EventFigure
    duration_deg: float | None
    card_duration_deg: float | None
    centreline_deg: float | None
    centreline_expanded_deg: float | None
    card_centreline_deg: float | None
    side_words: str
    tolerance_deg: float | None
    top_centreline_deg: float | None
    top_expanded_deg: float | None
    card_top_centreline_deg: float | None
    curve: LiftCurve | None = Field(description="The lift curve; null: nothing was read at other lifts than the card's")
    advance_deg: float | None
    verdict: Verdict | None
    settles: str


class Offer(View):
    """One thing that can be done about a cam."""

    value: str
    title: str
    order: str
    residual_deg: float
    residual: str
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
    gap: str = Field(default="", description="What is left between valves and pistons there, and how far it may still be moved")
    offers: list[Offer]
    rounds: int
    decided: str
    rests_on: Basis


class TimingView(View):
    """The wheel, true TDC and the cams as they stand."""

    wheel: WheelSetting | None
    crank: CrankAt | None
    tdc: TdcFigures | None
    cams: list[CamFigures]
