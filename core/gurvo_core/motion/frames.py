"""A whole four-stroke cycle in one table: every piston's drop and every valve's lift at even steps of the crank."""

__all__ = ["CycleFrames", "cycle_frames", "slider_of"]

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.engine import EngineDocument
from gurvo_core.motion.crank import Slider, drop_mm
from gurvo_core.motion.lobe import valve_lift_mm


@dataclass(frozen=True, kw_only=True)
class CycleFrames:
    """Tables over one cycle; rows follow ``cylinders`` and ``valves``, columns follow ``crank_deg``."""

    crank_deg: NDArray[np.float64]
    cylinders: tuple[int, ...]
    drop_mm: NDArray[np.float64]
    valves: tuple[str, ...]
    lift_mm: NDArray[np.float64]


def slider_of(document: EngineDocument) -> Slider:
    """Return the slider-crank of a document.

    Parameters
    ----------
    document : EngineDocument
        The engine.

    Returns
    -------
    slider : Slider
        Throw, rod and pin offset [mm].

    Source
    ------
    Definition: the throw is half the stroke.

    Example
    -------
    >>> slider_of(quern_4()).throw_mm
    43.0
    """
    train = document.cranktrain
    return Slider(throw_mm=train.stroke_mm / 2, rod_mm=train.rod_mm, pin_offset_mm=train.pin_offset_mm)


def cycle_frames(document: EngineDocument, step_deg: float = 1.0) -> CycleFrames:
    """Return piston drops and valve lifts over 720 degrees of the crank.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    step_deg : float
        Step between frames [deg].

    Returns
    -------
    frames : CycleFrames
        Crank angle [deg], drops and lifts [mm].

    Source
    ------
    ``drop_mm`` and ``valve_lift_mm``, each cylinder from its own firing TDC.

    Example
    -------
    >>> cycle_frames(quern_4()).drop_mm.shape
    (4, 720)
    """
    crank_deg = np.arange(0, 720, step_deg)
    slider, firing_deg = slider_of(document), document.firing_deg
    drops = np.array([drop_mm(crank_deg - firing_deg[n], slider) for n in document.cylinders])
    names, lifts = [], []
    for shaft in document.camshafts:
        for lobe in shaft.lobes:
            nose_deg = 360 + (lobe.nose_deg if lobe.valve == "intake" else -lobe.nose_deg)
            from_nose = (crank_deg - firing_deg[lobe.cylinder] - nose_deg) / 2
            lifts.append(valve_lift_mm(from_nose, document.profile(lobe.profile), shaft, lobe))
            names.append(f"{lobe.cylinder} {lobe.valve}")
    return CycleFrames(crank_deg=crank_deg, cylinders=document.cylinders, drop_mm=drops, valves=tuple(names), lift_mm=np.array(lifts))
