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

    Returned: throw, rod and pin offset [mm]; None while stroke or rod is not known.
    The throw is half the stroke.
    """
    train = document.bank_of(cylinder or document.reference_cylinder).cranktrain
    if train.stroke_mm is None or train.rod_mm is None:
        return None
    return SliderCrank(throw_mm=train.stroke_mm / 2, rod_mm=train.rod_mm, pin_offset_mm=train.offset_mm)


def timed_cylinders(document: EngineDocument) -> tuple[int, ...]:
    """Return the cylinders whose strokes can be told from a crank angle."""
    return tuple(n for n in document.cylinders if n in document.firing_deg) if document.is_timed else ()


def cycle_frames(document: EngineDocument, step_deg: float = 1.0, places: Mapping[str, CamPlace] | None = None) -> CycleFrames:
    """Return piston drops and valve lifts over 720 degrees of the crank.

    step_deg: step between frames [deg].
    Returned: crank angle [deg], drops and lifts [mm].
    """
    return frames_at(document, np.arange(0, CYCLE_DEG, step_deg), places or {})


def frames_at(document: EngineDocument, crank_deg: ArrayLike, places: Mapping[str, CamPlace]) -> CycleFrames:
    """Return piston drops and valve lifts at given crank angles.

    crank_deg: crank angles, one-dimensional [deg].
    Returned: crank angle [deg], drops and lifts [mm].
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
