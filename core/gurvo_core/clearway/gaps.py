"""How far a valve is from its piston, and two valves of one chamber from each other. Lengths mm; heads are flat discs, parts rigid.

Seen across the engine with the bore upright: x to the right, y up, z towards the rear. A valve that opens goes along its axis, down and
away from the side its tip leans to.
"""

__all__ = ["LIFT_STEP_MM", "Disc", "can_meet", "disc_of", "heads_apart_mm", "lift_table", "pair_gap_mm", "piston_gap_mm", "side_by_side"]

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
import scipy
from numpy.typing import ArrayLike, NDArray

from gurvo_core.clearway.valves import MovingValve

RIM_POINTS = 64
LIFT_STEP_MM = 0.2  # in the table of two valves: between its lines their gap changes by no more than half a step of either
NEVER_MM = 3.0  # two heads that are further apart than this along the engine never come near each other

Floats = NDArray[np.float64]


def piston_gap_mm(drop_mm: ArrayLike, lift_mm: ArrayLike, valve: MovingValve) -> Floats:
    """Return how far a valve may still be opened before it meets its piston.

    drop_mm: how far the piston is below TDC [mm], any shape.
    lift_mm: how far the valve is open [mm], of a shape that goes with it.
    Returned: along the valve's axis [mm], negative where they would be in each other.
    Source: [valve-to-piston] in docs/sources.md.
    At TDC 4 mm are left while it is shut; the piston 10 mm down, the valve 6 mm open, along the bore:
    >>> valve = next(one for one in moving_valves(quern_4()) if one.name == "intake 1")
    >>> float(piston_gap_mm(10.0, 6.0, valve)) == valve.shut_mm.value + 4.0
    True
    """
    assert valve.shut_mm is not None  # valves of which nothing is known are left out beforehand
    gap = valve.shut_mm.value + valve.falls * np.asarray(drop_mm, dtype=np.float64) - np.asarray(lift_mm, dtype=np.float64)
    return np.asarray(gap, dtype=np.float64)


@dataclass(frozen=True)
class Disc:
    """A valve's head: its middle while shut, its valve's angle from the bore's axis, its radius [mm]."""

    x: float
    y: float
    z: float
    angle_deg: float
    radius: float

    @property
    def opens(self) -> Floats:
        """Which way it goes, one mm long: a tip that leans to the right sends the head to the left."""
        leaning = math.radians(self.angle_deg)
        return np.array([-math.sin(leaning), -math.cos(leaning), 0.0])

    def middle(self, lift_mm: ArrayLike) -> Floats:
        """Where its middle is, by lift [mm]; one more axis than ``lift_mm``, of x, y and z."""
        lift = np.asarray(lift_mm, dtype=np.float64)[..., None]
        return np.asarray(np.array([self.x, self.y, self.z]) + lift * self.opens, dtype=np.float64)

    def rim(self) -> Floats:
        """Points round its rim from its middle [mm], one a row."""
        leaning = math.radians(self.angle_deg)
        across, along = np.array([math.cos(leaning), -math.sin(leaning), 0.0]), np.array([0.0, 0.0, 1.0])
        turn = np.linspace(0, 2 * math.pi, RIM_POINTS, endpoint=False)[:, None]
        return np.asarray(self.radius * (np.cos(turn) * across + np.sin(turn) * along), dtype=np.float64)


def disc_of(valve: MovingValve) -> Disc:
    """Return a valve's head while it is shut."""
    head = valve.head
    return Disc(x=head.across_mm, y=valve.roof_mm, z=valve.along_mm, angle_deg=head.angle_deg, radius=head.head_mm / 2)


def can_meet(first: Disc, second: Disc) -> bool:
    """Whether two heads may come near each other at all, whatever their lifts."""
    return abs(first.z - second.z) < first.radius + second.radius + NEVER_MM


def heads_apart_mm(first: Disc, second: Disc, first_lift_mm: ArrayLike, second_lift_mm: ArrayLike) -> Floats:
    """Return how far two valves' heads are apart.

    first_lift_mm, second_lift_mm: how far each is open [mm], of one shape.
    Returned: the least distance of the two discs [mm]; 0 where they would be in each other.
    Source: The nearest points of two discs apart lie on the rim of at least one; two that meet cut each other along a line that ends on a
    rim. Checked against shapely in ``tests/core/test_clearway_figures.py``.
    >>> one, other = (Disc(x=x, y=0.0, z=0.0, angle_deg=0.0, radius=10.0) for x in (-12.0, 12.0))
    >>> round(float(heads_apart_mm(one, other, 3.0, 0.0)), 6)
    5.0
    """
    one, other = first.middle(first_lift_mm), second.middle(second_lift_mm)
    return np.minimum(_rim_to_disc(first, one, second, other), _rim_to_disc(second, other, first, one))


def _rim_to_disc(of: Disc, at: Floats, disc: Disc, middle: Floats) -> Floats:
    points = at[..., None, :] + of.rim() - middle[..., None, :]
    above = points @ disc.opens
    out = np.sqrt(np.maximum(np.sum(points**2, axis=-1) - above**2, 0.0))
    apart = np.hypot(np.maximum(out - disc.radius, 0.0), above)
    nearest = apart.min(axis=-1)
    goes_through = (above * np.roll(above, 1, axis=-1) < 0) & (np.minimum(out, np.roll(out, 1, axis=-1)) < disc.radius)
    return np.asarray(np.where(goes_through.any(axis=-1), 0.0, nearest), dtype=np.float64)


def side_by_side(first: Disc, second: Disc) -> tuple[Disc, Disc]:
    """Return the same two heads with the first at the front: how they lie to each other is all that counts."""
    return replace(first, z=0.0), replace(second, z=abs(second.z - first.z))


@lru_cache(maxsize=64)
def lift_table(first: Disc, second: Disc, first_most: int, second_most: int) -> Floats:
    """Return two heads' distance at every ``LIFT_STEP_MM`` of the lift of each, up to so many steps [mm]."""
    lifts = np.meshgrid(np.arange(first_most + 1) * LIFT_STEP_MM, np.arange(second_most + 1) * LIFT_STEP_MM, indexing="ij")
    return heads_apart_mm(first, second, *lifts)


def pair_gap_mm(first: MovingValve, second: MovingValve, first_lift_mm: ArrayLike, second_lift_mm: ArrayLike) -> Floats:
    """Return how far two valves are apart by their lifts [mm], of one shape; between the lines of ``lift_table`` by a straight line."""
    lifts = np.broadcast_arrays(*(np.asarray(one, dtype=np.float64) / LIFT_STEP_MM for one in (first_lift_mm, second_lift_mm)))
    table = lift_table(*side_by_side(disc_of(first), disc_of(second)), *(_most(one) for one in lifts))
    return np.asarray(scipy.ndimage.map_coordinates(table, lifts, order=1), dtype=np.float64)


def _most(steps: Floats) -> int:
    """Tens of steps, so that a table serves lobes that lift nearly alike."""
    return 10 * (int(steps.max(initial=0.0)) // 10 + 1)
