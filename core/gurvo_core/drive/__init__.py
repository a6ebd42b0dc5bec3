"""The cam drive: the path of chains and belts (``path``), what cannot be (``faults``), its drawing (``drawing``), the whole ``twin``."""

__all__ = [
    "DriveDrawing",
    "LoopPath",
    "Phasers",
    "Twin",
    "draw_drive",
    "drawn_if_known",
    "drive_doubts",
    "drive_faults",
    "loop_path",
    "places_with_phasers",
    "show_twin",
]

from gurvo_core.drive.doubts import drive_doubts
from gurvo_core.drive.drawing import DriveDrawing, draw_drive, drawn_if_known
from gurvo_core.drive.faults import drive_faults
from gurvo_core.drive.path import LoopPath, loop_path
from gurvo_core.drive.twin import Phasers, Twin, places_with_phasers, show_twin
