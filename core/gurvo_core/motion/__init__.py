"""Where everything is at a crank angle: pistons (``crank``), lobes and valves (``lobe``), a whole cycle (``frames``)."""

__all__ = [
    "Slider",
    "crossing_cam_deg",
    "cycle_frames",
    "drop_at_deg",
    "drop_mm",
    "half_arc_middle_deg",
    "lobe_lift_mm",
    "pair_middle_deg",
    "valve_lift_mm",
]

from gurvo_core.motion.crank import Slider, drop_at_deg, drop_mm, half_arc_middle_deg, pair_middle_deg
from gurvo_core.motion.frames import cycle_frames
from gurvo_core.motion.lobe import crossing_cam_deg, lobe_lift_mm, valve_lift_mm
