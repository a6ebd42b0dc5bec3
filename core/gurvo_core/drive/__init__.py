"""The cam drive: the path of chains and belts round their wheels (``path``), its drawing (``drawing``), what cannot be (``faults``)."""

__all__ = ["DriveDrawing", "LoopPath", "draw_drive", "drive_faults", "loop_path"]

from gurvo_core.drive.drawing import DriveDrawing, draw_drive
from gurvo_core.drive.faults import drive_faults
from gurvo_core.drive.path import LoopPath, loop_path
