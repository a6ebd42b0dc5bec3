"""Where everything is at a crank angle.

Pistons (``crank``), lobes and valves (``lobe``, ``polynomial``), clock positions (``clock``), strokes in words (``strokes``), a whole
cycle (``frames``), what is high and what is pressed open (``overlap``), and the twin that is drawn from all of it (``twin``).
"""

__all__ = [
    "CamPlace",
    "SliderCrank",
    "Snapshot",
    "TwinFrames",
    "crossing_cam_deg",
    "cycle_frames",
    "drop_at_deg",
    "drop_mm",
    "half_arc_middle_deg",
    "lobe_clock_deg",
    "lobe_lift_mm",
    "mark_clock_deg",
    "pair_middle_deg",
    "snapshot_at",
    "twin_frames",
    "twin_words",
    "valve_lift_mm",
]

from gurvo_core.motion.clock import CamPlace, lobe_clock_deg, mark_clock_deg
from gurvo_core.motion.crank import SliderCrank, drop_at_deg, drop_mm, half_arc_middle_deg, pair_middle_deg
from gurvo_core.motion.frames import cycle_frames
from gurvo_core.motion.lobe import crossing_cam_deg, lobe_lift_mm, valve_lift_mm
from gurvo_core.motion.twin import Snapshot, TwinFrames, snapshot_at, twin_frames, twin_words
