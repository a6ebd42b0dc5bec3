"""Angles on a circle: wrapping, shortest differences, midpoints.

Degrees throughout, positive in the running direction. A circle is 360 for the crank wheel and 720 for a four-stroke cycle.
"""

__all__ = ["circular_mean_deg", "midpoint_deg", "nearest_turn_deg", "signed_deg", "wrap_deg"]

import math
from collections.abc import Iterable


def wrap_deg(angle_deg: float, circle_deg: float = 360.0) -> float:
    """Return the angle in 0 <= angle < circle.

    angle_deg: any angle [deg].
    circle_deg: full circle [deg], 360 or 720.
    Returned: the same place, 0 <= wrapped < circle [deg].
    """
    wrapped = math.fmod(angle_deg, circle_deg)
    if wrapped < 0:
        wrapped += circle_deg
    return 0.0 if wrapped >= circle_deg else wrapped


def signed_deg(angle_deg: float, circle_deg: float = 360.0) -> float:
    """Return the same place as an angle in -circle/2 <= angle < circle/2.

    angle_deg: any angle [deg].
    circle_deg: full circle [deg], 360 or 720.
    Returned: shortest way from zero [deg], positive in the running direction.
    """
    half = circle_deg / 2
    return wrap_deg(angle_deg + half, circle_deg) - half


def midpoint_deg(from_deg: float, to_deg: float) -> float:
    """Return the middle of the arc that runs from one place forward to another on a 360 circle.

    from_deg: where the arc begins [deg].
    to_deg: where it ends, going the running way [deg].
    Returned: middle of that arc, 0 <= middle < 360 [deg]; never the middle of the other arc.
    """
    return wrap_deg(from_deg + wrap_deg(to_deg - from_deg) / 2)


def nearest_turn_deg(angle_deg: float, near_deg: float, circle_deg: float = 360.0) -> float:
    """Return the angle on the turn that brings it nearest to another.

    angle_deg: a place on the circle [deg].
    near_deg: where it is expected, not wrapped [deg].
    circle_deg: full circle [deg].
    Returned: ``angle_deg`` plus whole circles, within half a circle of ``near_deg`` [deg].
    """
    return near_deg + signed_deg(angle_deg - near_deg, circle_deg)


def circular_mean_deg(angles_deg: Iterable[float]) -> float:
    """Return the direction in which places on a circle lie on the whole.

    angles_deg: places on a 360 circle [deg].
    Returned: direction of the sum of their unit vectors, -180 to 180 [deg]; figures either side of a zero are not averaged across it.
    Source: [circular-mean] mean direction of directional statistics.
    >>> round(circular_mean_deg([350.0, 20.0]), 6), round(circular_mean_deg([170.0, -170.0]), 6) % 360
    (5.0, 180.0)
    """
    east, north = zip(*((math.cos(math.radians(deg)), math.sin(math.radians(deg))) for deg in angles_deg), strict=True)
    return math.degrees(math.atan2(math.fsum(north), math.fsum(east)))
