"""Timing: degree wheels, true TDC, lift events and corrections.

``wheel`` reads the builder's own wheel; ``tdc`` and ``tdc_fit`` find true TDC; ``events`` turns readings into events,
centrelines and advance; ``correction`` says what to move. How far a figure can be trusted lies below all rooms.
"""

__all__ = [
    "Correction",
    "DegreeWheel",
    "DropReading",
    "Estimate",
    "GaugeUncertainty",
    "Judgement",
    "Move",
    "Numbering",
    "Runs",
    "Side",
    "TdcEstimate",
    "TdcPair",
    "Verdict",
    "advance_deg",
    "card_doubts",
    "centreline_deg",
    "corrections",
    "event_deg",
    "fit_tdc",
    "in_words",
    "judge",
    "overlap_deg",
    "profile_event_deg",
    "separation_cam_deg",
    "sides_of",
    "standard_uncertainty",
    "tdc_at_top",
    "tdc_by_equal_drops",
    "tdc_by_highest",
    "tdc_by_stop",
    "tdc_dwell_half_width_deg",
    "wheel_deg",
    "wheel_figure",
]

from gurvo_core.timing.card import card_doubts
from gurvo_core.timing.correction import Correction, Move, corrections
from gurvo_core.timing.events import (
    advance_deg,
    centreline_deg,
    event_deg,
    in_words,
    overlap_deg,
    profile_event_deg,
    separation_cam_deg,
)
from gurvo_core.timing.tdc import (
    TdcEstimate,
    TdcPair,
    tdc_at_top,
    tdc_by_equal_drops,
    tdc_by_highest,
    tdc_by_stop,
    tdc_dwell_half_width_deg,
)
from gurvo_core.timing.tdc_fit import DropReading, fit_tdc
from gurvo_core.timing.wheel import DegreeWheel, Numbering, Runs, Side, sides_of, wheel_deg, wheel_figure
from gurvo_core.uncertainty import Estimate, GaugeUncertainty, standard_uncertainty
from gurvo_core.verdict import Judgement, Verdict, judge
