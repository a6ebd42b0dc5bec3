"""A whole four-stroke cycle in one table: every piston's drop and every valve's lift at even steps of the crank."""

__all__ = ["CycleFrames", "cycle_frames", "frames_at", "slider_of", "timed_cylinders"]

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.motion.clock import CamPlace, advance_of, nose_crank_deg
from gurvo_core.motion.crank import SliderCrank, drop_mm
from gurvo_core.motion.lobe import valve_lift_mm


@dataclass(frozen=True, kw_only=True)
class CycleFrames:
    """Tables over one cycle; rows follow ``cylinders`` and ``valves`` (camshaft and lobe), columns follow ``crank_deg``.

    Only cylinders and valves of which enough is known are in it.
    """

    crank_deg: NDArray[np.float64]
    cylinders: tuple[int, ...]
    drop_mm: NDArray[np.float64]
    valves: tuple[tuple[str, int], ...]
    lift_mm: NDArray[np.float64]


def slider_of(document: EngineDocument, cylinder: int | None = None) -> SliderCrank | None:
    """Return the slider-crank of a cylinder.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    cylinder : int, optional
        Which; the reference cylinder when left out.

    Returns
    -------
    slider : SliderCrank or None
        Throw, rod and pin offset [mm]; None while stroke or rod is not known.

    Source
    ------
    Definition: the throw is half the stroke.

    Example
    -------
    >>> slider_of(quern_4()).throw_mm
    43.0
    """
    train = document.bank_of(cylinder or document.reference_cylinder).cranktrain
    if train.stroke_mm is None or train.rod_mm is None:
        return None
    return SliderCrank(throw_mm=train.stroke_mm / 2, rod_mm=train.rod_mm, pin_offset_mm=train.offset_mm)


def timed_cylinders(document: EngineDocument) -> tuple[int, ...]:
    """Return the cylinders whose strokes can be told from a crank angle.

    Parameters
    ----------
    document : EngineDocument
        The engine.

    Returns
    -------
    cylinders : tuple of int
        Growing; none while crank angles count from a timing position whose own angle is not known.

    Source
    ------
    Definition.

    Example
    -------
    >>> timed_cylinders(quern_4())
    (1, 2, 3, 4)
    """
    return tuple(n for n in document.cylinders if n in document.firing_deg) if document.is_timed else ()


def cycle_frames(document: EngineDocument, step_deg: float = 1.0, places: Mapping[str, CamPlace] | None = None) -> CycleFrames:
    """Return piston drops and valve lifts over 720 degrees of the crank.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    step_deg : float
        Step between frames [deg].
    places : mapping of CamPlace, optional
        Where camshafts stand, by id, as far as known; as on the card otherwise.

    Returns
    -------
    frames : CycleFrames
        Crank angle [deg], drops and lifts [mm].

    Source
    ------
    As ``frames_at``.

    Example
    -------
    >>> cycle_frames(quern_4()).drop_mm.shape
    (4, 720)
    """
    return frames_at(document, np.arange(0, CYCLE_DEG, step_deg), places or {})


def frames_at(document: EngineDocument, crank_deg: ArrayLike, places: Mapping[str, CamPlace]) -> CycleFrames:
    """Return piston drops and valve lifts at given crank angles.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    crank_deg : array_like
        Crank angles, one-dimensional [deg].
    places : mapping of CamPlace
        Where camshafts stand, by id, as far as known.

    Returns
    -------
    frames : CycleFrames
        Crank angle [deg], drops and lifts [mm].

    Source
    ------
    ``drop_mm`` and ``valve_lift_mm``, each cylinder from its own firing TDC.

    Example
    -------
    >>> frames_at(quern_4(), [0.0], {}).drop_mm[0].tolist()
    [0.0]
    """
    angles = np.asarray(crank_deg, dtype=np.float64)
    timed = timed_cylinders(document)
    sliders = {n: slider for n in timed if (slider := slider_of(document, n))}
    drops = np.array([drop_mm(angles - document.firing_deg[n], slider) for n, slider in sliders.items()])
    names, lifts = [], []
    for cam in document.camshafts:
        on_deg = advance_of(cam, places.get(cam.id))
        for place, lobe in enumerate(cam.lobes):
            profile = document.shape(cam, lobe)
            if profile is None or lobe.nose_deg is None or lobe.cylinder not in timed:
                continue
            from_nose = (angles - nose_crank_deg(document, lobe) + on_deg) / 2
            lifts.append(valve_lift_mm(from_nose, profile, cam, lobe))
            names.append((cam.id, place))
    return CycleFrames(crank_deg=angles, cylinders=tuple(sliders), drop_mm=drops, valves=tuple(names), lift_mm=np.array(lifts))
