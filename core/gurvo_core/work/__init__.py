"""The job: entries in the ledger, what it takes (``accept``), and ``replay``, which works out all that the bench shows."""

__all__ = [
    "BenchState",
    "EntryBody",
    "Gauge",
    "LedgerEntry",
    "Situation",
    "TapeLine",
    "cam_places",
    "cams_of",
    "check_entry",
    "gather",
    "go_on",
    "inside_figures",
    "present",
    "replay",
    "struck_by",
    "tape_line",
]

from gurvo_core.work.accept import check_entry
from gurvo_core.work.cam_work import cam_places, cams_of
from gurvo_core.work.entries import EntryBody, Gauge, LedgerEntry
from gurvo_core.work.readings import inside_figures
from gurvo_core.work.replay import present, replay
from gurvo_core.work.situation import Situation, gather, go_on, struck_by
from gurvo_core.work.state import BenchState
from gurvo_core.work.tape import TapeLine, tape_line
