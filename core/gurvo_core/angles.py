"""Angles on a circle: wrapping, shortest differences, midpoints.

Degrees throughout, positive in the running direction. A circle is 360 for the crank wheel and 720 for a four-stroke cycle.
"""

__all__ = ["circular_mean_deg", "midpoint_deg", "nearest_turn_deg", "signed_deg", "wrap_deg"]

import math
from collections.abc import Iterable


def wrap_deg(angle_deg: float, circle_deg: float = 360.0) -> float:
    """Return the angle in 0 <= angle < circle.

    Parameters
    ----------
    angle_deg : float
        Any angle [deg].
    circle_deg : float
        Full circle [deg], 360 or 720.

    Returns
    -------
    wrapped_deg : float
        The same place, 0 <= wrapped < circle [deg].

    Source
    ------
    Plain arithmetic. ``-1e-17 % 360`` is 360.0 in floats, hence the last step.

    Example
    -------
    >>> wrap_deg(-10.0), wrap_deg(-1e-17)
    (350.0, 0.0)
    """
    wrapped = math.fmod(angle_deg, circle_deg)
    if wrapped < 0:
        wrapped += circle_deg
    return 0.0 if wrapped >= circle_deg else wrapped


def signed_deg(angle_deg: float, circle_deg: float = 360.0) -> float:
    """Return the same place as an angle in -circle/2 <= angle < circle/2.

    Parameters
    ----------
    angle_deg : float
        Any angle [deg].
    circle_deg : float
        Full circle [deg], 360 or 720.

    Returns
    -------
    signed_deg : float
        Shortest way from zero [deg], positive in the running direction.

    Source
    ------
    Plain arithmetic.

    Example
    -------
    >>> signed_deg(350.0)
    -10.0
    """
    half = circle_deg / 2
    return wrap_deg(angle_deg + half, circle_deg) - half


def midpoint_deg(from_deg: float, to_deg: float) -> float:
    """Return the middle of the arc that runs from one place forward to another on a 360 circle.

    Parameters
    ----------
    from_deg : float
        Where the arc begins [deg].
    to_deg : float
        Where it ends, going the running way [deg].

    Returns
    -------
    middle_deg : float
        Middle of that arc, 0 <= middle < 360 [deg]; never the middle of the other arc.

    Source
    ------
    Plain arithmetic; figures are never averaged across the zero.

    Example
    -------
    >>> midpoint_deg(350.0, 20.0)
    5.0
    """
    return wrap_deg(from_deg + wrap_deg(to_deg - from_deg) / 2)


def nearest_turn_deg(angle_deg: float, near_deg: float, circle_deg: float = 360.0) -> float:
    """Return the angle on the turn that brings it nearest to another.

    Parameters
    ----------
    angle_deg : float
        A place on the circle [deg].
    near_deg : float
        Where it is expected, not wrapped [deg].
    circle_deg : float
        Full circle [deg].

    Returns
    -------
    unwrapped_deg : float
        ``angle_deg`` plus whole circles, within half a circle of ``near_deg`` [deg].

    Source
    ------
    Plain arithmetic. A wheel shows 360 degrees and a cycle has 720: the event's name decides the turn.

    Example
    -------
    >>> nearest_turn_deg(232.0, 590.0)
    592.0
    """
    return near_deg + signed_deg(angle_deg - near_deg, circle_deg)


def circular_mean_deg(angles_deg: Iterable[float]) -> float:
    """Return the direction in which places on a circle lie on the whole.

    Parameters
    ----------
    angles_deg : iterable of float
        Places on a 360 circle [deg].

    Returns
    -------
    mean_deg : float
        Direction of the sum of their unit vectors, -180 to 180 [deg]; figures either side of a zero are not averaged across it.

    Source
    ------
    [circular-mean] mean direction of directional statistics.

    Example
    -------
    >>> round(circular_mean_deg([350.0, 20.0]), 6), round(circular_mean_deg([170.0, -170.0]), 6) % 360
    (5.0, 180.0)
    """
    east, north = zip(*((math.cos(math.radians(deg)), math.sin(math.radians(deg))) for deg in angles_deg), strict=True)
    return math.degrees(math.atan2(math.fsum(north), math.fsum(east)))
