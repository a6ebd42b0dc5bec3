"""How stiff a bolt and what it clamps are, and what preload an angle of turn brings. Stiffness in N/mm, lengths in mm, loads in N."""

__all__ = ["MODULUS_N_MM2", "BoltShape", "Layer", "bolt_n_mm", "joint_n_mm", "preload_by_angle_n"]

import math
from collections.abc import Sequence
from dataclasses import dataclass

from gurvo_core.errors import FigureError
from gurvo_core.joints.preload import Seat
from gurvo_core.joints.thread import Thread

MODULUS_N_MM2 = {"steel": 206_000.0, "cast iron": 110_000.0, "aluminium": 71_000.0, "magnesium": 45_000.0}  # common handbook figures
CONE_DEG = 30.0  # half angle of the cone of pressure, as it is usually taken
HEAD_MM_PER_DIAMETER = 0.5  # of the head that stretches with the shank, in diameters
ENGAGED_MM_PER_DIAMETER = 0.5  # of the thread in its nut or hole that does


@dataclass(frozen=True, kw_only=True)
class Layer:
    """One of the parts that are clamped."""

    thickness_mm: float
    modulus_n_mm2: float


@dataclass(frozen=True, kw_only=True)
class BoltShape:
    """What is known of a bolt's length: free thread within the grip, and a waist where it has one [mm]."""

    thread: Thread
    grip_mm: float
    free_thread_mm: float = 0.0
    waist_mm: float | None = None


def bolt_n_mm(shape: BoltShape) -> float:
    """Return how stiff a bolt is.

    shape: grip, free thread and waist [mm].
    Returned: force for a millimetre of stretch [N/mm].
    Raises FigureError if more thread is free than the grip is long.
    Source: [bolt-stiffness] in docs/sources.md: lengths of one bar after the other, head and engaged thread half a diameter each.
    >>> from gurvo_core.joints.thread import read_thread
    >>> round(bolt_n_mm(BoltShape(thread=read_thread("M10"), grip_mm=50, free_thread_mm=20)), -2)
    235000.0
    """
    thread, shank_mm = shape.thread, shape.grip_mm - shape.free_thread_mm
    if not shape.grip_mm > 0 or shank_mm < 0:
        raise FigureError("grip_mm", shape.grip_mm, "the grip is above 0 mm and at least as long as the free thread in it")
    full = math.pi / 4 * thread.diameter_mm**2
    shank = math.pi / 4 * (shape.waist_mm or thread.diameter_mm) ** 2
    parts = [
        (HEAD_MM_PER_DIAMETER * thread.diameter_mm, full),
        (shank_mm, shank),
        (shape.free_thread_mm + ENGAGED_MM_PER_DIAMETER * thread.diameter_mm, thread.stress_area_mm2),
    ]
    return MODULUS_N_MM2["steel"] / sum(length / area for length, area in parts)


def joint_n_mm(layers: Sequence[Layer], seat: Seat, *, tapped: bool = True) -> float:
    """Return how stiff what is clamped is.

    Returned: force for a millimetre of squeeze [N/mm].
    Source: [bolt-stiffness] in docs/sources.md: cones of pressure of 30 degrees, each layer a frustum.
    >>> head = [Layer(thickness_mm=40, modulus_n_mm2=MODULUS_N_MM2["aluminium"])]
    >>> round(joint_n_mm(head, Seat(16, 11)), -3)
    1066000.0
    """
    grip_mm, squeeze, at_mm = sum(layer.thickness_mm for layer in layers), 0.0, 0.0
    for layer in layers:
        ends = at_mm, at_mm + layer.thickness_mm
        for begin, end in [ends] if tapped else _either_side(*ends, grip_mm / 2):
            outer = seat.outer_mm + 2 * math.tan(math.radians(CONE_DEG)) * (begin if tapped else min(begin, grip_mm - end))
            squeeze += 1 / _frustum_n_mm(end - begin, outer, seat.inner_mm, layer.modulus_n_mm2)
        at_mm = ends[1]
    return 1 / squeeze


def _either_side(begin: float, end: float, middle: float) -> list[tuple[float, float]]:
    """A layer cut in two where the cones meet."""
    return [(a, b) for a, b in ((begin, min(end, middle)), (max(begin, middle), end)) if b > a]


def _frustum_n_mm(thickness: float, outer: float, inner: float, modulus: float) -> float:
    tangent = math.tan(math.radians(CONE_DEG))
    wide = 2 * thickness * tangent + outer
    ratio = (wide - inner) * (outer + inner) / ((wide + inner) * (outer - inner))
    return math.pi * modulus * inner * tangent / math.log(ratio)


def preload_by_angle_n(angle_deg: float, thread: Thread, *, bolt: float, joint: float) -> float:
    """Return the preload that an angle of turn adds, as long as nothing yields.

    angle_deg: turn after everything lies on [deg].
    bolt, joint: stiffness of bolt and of what it clamps [N/mm].
    Returned: preload added [N].
    The turn's share of the pitch is taken up by stretch and squeeze, one after the other.
    """
    return thread.pitch_mm * angle_deg / 360 / (1 / bolt + 1 / joint)
