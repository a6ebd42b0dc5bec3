"""Which way the valve springs push a camshaft where it stands: one that is let go turns that way by itself."""

__all__ = ["spring_way"]

import numpy as np

from gurvo_core.engine import EngineDocument
from gurvo_core.motion.frames import frames_at

STEP_DEG = 1.0
STEADY_MM2 = 0.1  # of lift squared a degree: less than this, friction holds it


def spring_way(document: EngineDocument, camshaft: str, crank_deg: float) -> int | None:
    """Return which way a camshaft would turn by itself.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    camshaft : str
        Its id.
    crank_deg : float
        Where the crank stands, everything on its marks [deg].

    Returns
    -------
    way : int or None
        +1 the way it runs, -1 against it, 0 where it rests; None while lift or nose of a lobe is not known.

    Source
    ------
    A spring gives what it holds: the work in all of a cam's springs grows as the square of the lifts, and the cam turns to where it is
    less. All springs of one cam are taken to be alike.

    Example
    -------
    >>> spring_way(quern_4(), "cam", 360.0)
    0
    """
    cam = document.camshaft(camshaft)
    frames = frames_at(document, [crank_deg - STEP_DEG, crank_deg + STEP_DEG], {})
    own = [row for row, (name, _) in enumerate(frames.valves) if name == camshaft]
    if cam is None or not own or len(own) < len(cam.lobes):
        return None
    work = np.sum(frames.lift_mm[own] ** 2, axis=0)
    grows = float(work[1] - work[0]) / (2 * STEP_DEG)
    return 0 if abs(grows) < STEADY_MM2 else -1 if grows > 0 else 1
