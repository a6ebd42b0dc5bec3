"""From torque to preload and back, as a band: friction is never known better than within one.

Torque in N·m, loads in N, lengths in mm, stresses in N/mm².
"""

__all__ = ["FRICTION", "Band", "Seat", "preload_n", "seat_of", "share_of_yield", "torque_nm"]

import math
from dataclasses import dataclass

from gurvo_core.joints.strength import strength_of
from gurvo_core.joints.thread import Thread

LEAD = 0.15915  # 1 / (2 pi)
FLANK = 0.57735  # 1 / (2 cos 30 deg)
NM_PER_NMM = 1e-3
HEAD_OF_DIAMETER, HOLE_OF_DIAMETER = 1.5, 1.1  # a hexagon head and a medium hole, where nobody says
# coefficient of friction from least to most by how a surface is left; common practice, no source
FRICTION = {
    "dry": (0.14, 0.24),
    "oiled": (0.08, 0.16),
    "moly": (0.06, 0.12),
    "assembly lube": (0.07, 0.13),
    "threadlocker": (0.12, 0.20),
    "sealant": (0.10, 0.18),
}


@dataclass(frozen=True)
class Band:
    """A figure from least to most."""

    least: float
    most: float

    @property
    def middle(self) -> float:
        """Half-way."""
        return (self.least + self.most) / 2


@dataclass(frozen=True)
class Seat:
    """The ring under the head that rubs: its outer and inner diameter [mm]."""

    outer_mm: float
    inner_mm: float

    @property
    def mean_mm(self) -> float:
        """The diameter at which the friction acts [mm]."""
        return (self.outer_mm + self.inner_mm) / 2


def seat_of(thread: Thread, head_mm: float | None = None, hole_mm: float | None = None) -> Seat:
    """Return the ring under a head.

    head_mm: outer diameter of the seat [mm]; that of a hexagon head when left out.
    hole_mm: diameter of the hole [mm]; a medium one when left out.
    Returned: outer and inner diameter [mm].
    Source: Common practice: heads of about one and a half, holes of about eleven tenths of the thread.
    >>> from gurvo_core.joints.thread import read_thread
    >>> round(seat_of(read_thread("M10")).mean_mm, 3)
    13.0
    """
    return Seat(head_mm or HEAD_OF_DIAMETER * thread.diameter_mm, hole_mm or HOLE_OF_DIAMETER * thread.diameter_mm)


def _arm_mm(thread: Thread, seat: Seat, thread_friction: float, head_friction: float) -> float:
    """Torque for one of preload: lead, flanks and seat [mm]."""
    flanks = FLANK * thread.pitch_diameter_mm * thread_friction
    return LEAD * thread.pitch_mm + flanks + 0.5 * seat.mean_mm * head_friction


def torque_nm(load_n: float, thread: Thread, seat: Seat, *, thread_friction: float, head_friction: float) -> float:
    """Return the torque that brings a preload.

    load_n: preload wanted [N].
    thread_friction, head_friction: coefficients of friction [-].
    Returned: at the head [N·m].
    Source: [bolt-torque] in docs/sources.md.
    >>> from gurvo_core.joints.thread import read_thread
    >>> m10 = read_thread("M10")
    >>> round(torque_nm(25_000, m10, seat_of(m10), thread_friction=0.12, head_friction=0.12), 1)
    41.1
    """
    return load_n * _arm_mm(thread, seat, thread_friction, head_friction) * NM_PER_NMM


def preload_n(torque: float, thread: Thread, seat: Seat, *, thread_friction: Band, head_friction: Band) -> Band:
    """Return the preload that a torque brings: a band, since friction is one.

    torque: at the head [N·m].
    thread_friction, head_friction: coefficients of friction, least to most [-].
    Returned: least with the most friction [N].
    Source: [bolt-torque] in docs/sources.md.
    >>> from gurvo_core.joints.thread import read_thread
    >>> m10, oiled = read_thread("M10"), Band(*FRICTION["oiled"])
    >>> band = preload_n(45, m10, seat_of(m10), thread_friction=oiled, head_friction=oiled)
    >>> round(band.least, -2), round(band.most, -2)
    (21300.0, 38300.0)
    """
    least = _arm_mm(thread, seat, thread_friction.most, head_friction.most)
    most = _arm_mm(thread, seat, thread_friction.least, head_friction.least)
    return Band(torque / least / NM_PER_NMM, torque / most / NM_PER_NMM)


def share_of_yield(load_n: float, thread: Thread, property_class: str, *, twisted_with: float | None = None) -> float:
    """Return how near a bolt is to where it stays stretched.

    load_n: preload [N].
    twisted_with: coefficient of friction in the thread while it is being turned [-]; left out = tension alone.
    Returned: 1 at yield [-]. With torsion it is the distortion-energy stress of both.
    Source: [bolt-torque] in docs/sources.md; the torsion is what lead and flanks take of the torque.
    >>> from gurvo_core.joints.thread import read_thread
    >>> m10 = read_thread("M10")
    >>> round(share_of_yield(30_000, m10, "8.8"), 3), round(share_of_yield(30_000, m10, "8.8", twisted_with=0.12), 3)
    (0.808, 0.985)
    """
    tension = load_n / thread.stress_area_mm2
    twist = 0.0
    if twisted_with is not None:
        moment = load_n * (LEAD * thread.pitch_mm + FLANK * thread.pitch_diameter_mm * twisted_with)
        twist = moment * 16 / (math.pi * thread.stress_diameter_mm**3)
    return math.sqrt(tension**2 + 3 * twist**2) / strength_of(property_class, thread).yield_n_mm2
