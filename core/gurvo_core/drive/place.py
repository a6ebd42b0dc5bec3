"""A place on the drawing of the front: x to the right and y up from the crank."""

__all__ = ["Place"]

from gurvo_core.motion.twin import Shown


class Place(Shown):
    """A place on the drawing."""

    x_mm: float
    y_mm: float
