"""The twin in one piece: the frames of a whole cycle, and the drawing of the front that they turn."""

__all__ = ["Phasers", "Twin", "places_with_phasers", "show_twin"]

from collections.abc import Mapping
from typing import Literal

from gurvo_core.drive.drawing import DriveDrawing, draw_drive
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.unknown import not_known
from gurvo_core.motion import CamPlace, TwinFrames, twin_frames
from gurvo_core.motion.twin import Shown

Phasers = Literal["rest", "other stop"]


class Twin(Shown):
    """Frames and drawing; whether the engine has phasers, from where angles count, and what is not known."""

    frames: TwinFrames
    drawing: DriveDrawing
    phasers: bool
    counted_from: str
    not_known: list[str]


def places_with_phasers(document: EngineDocument, measured: Mapping[str, CamPlace], phasers: Phasers) -> dict[str, CamPlace]:
    """Return where the camshafts stand: as measured, with all phasers at rest or on their other stop. Definition of a phaser's travel."""
    places = {}
    for cam in document.camshafts:
        off_deg = (cam.phaser.travel_deg or 0.0) if cam.phaser and phasers == "other stop" else 0.0
        advance_deg = measured[cam.id].advance_deg if cam.id in measured else 0.0
        places[cam.id] = CamPlace(advance_deg=advance_deg, phaser_off_deg=off_deg)
    return places


def show_twin(document: EngineDocument, places: Mapping[str, CamPlace]) -> Twin:
    """Return the twin of an engine."""
    return Twin(
        frames=twin_frames(document, places),
        drawing=draw_drive(document),
        phasers=any(cam.phaser for cam in document.camshafts),
        counted_from=_counted_from(document),
        not_known=[open_.sentence for open_ in not_known(document)],
    )


def _counted_from(document: EngineDocument) -> str:
    if not document.is_timed:
        return document.timing_positions[0].name
    return f"firing TDC of cylinder {document.firing_order[0] if document.firing_order else document.reference_cylinder}"
