"""From rows to the core's engine documents, twins and differences. A revision never changes, so each is worked out once and kept."""

from collections.abc import Mapping
from functools import lru_cache

from engine.models import Revision
from engine.schemas import Phasers, TwinOut
from gurvo_core.drive import draw_drive
from gurvo_core.engine import EngineDocument
from gurvo_core.motion import CamPlace, Stand, stand_at, twin_frames

# frozen, so that it can be kept by: where each camshaft stands
Places = frozenset[tuple[str, CamPlace]]


@lru_cache(maxsize=128)
def document_of(revision_id: int) -> EngineDocument:
    """Return the engine document of a revision."""
    return EngineDocument.model_validate(Revision.objects.get(pk=revision_id).document)


def places_of(document: EngineDocument, measured: Mapping[str, CamPlace], phasers: Phasers) -> Places:
    """Return where the camshafts stand: as measured, with the phasers at rest or on their other stop."""
    places = {}
    for cam in document.camshafts:
        off_deg = cam.phaser.travel_deg if cam.phaser and phasers == "other stop" else 0.0
        advance_deg = measured[cam.id].advance_deg if cam.id in measured else 0.0
        places[cam.id] = CamPlace(advance_deg=advance_deg, phaser_off_deg=off_deg)
    return frozenset(places.items())


@lru_cache(maxsize=64)
def twin_json(revision_id: int, places: Places) -> str:
    """Return the twin of a revision as it is sent."""
    document = document_of(revision_id)
    has_phasers = any(cam.phaser for cam in document.camshafts)
    first = document.firing_order[0]
    return TwinOut(
        frames=twin_frames(document, dict(places)), drawing=draw_drive(document), phasers=has_phasers, first_cylinder=first
    ).model_dump_json()


def stand_of(revision_id: int, crank_deg: float, places: Places) -> Stand:
    """Return everything that is to be seen at one crank angle."""
    return stand_at(document_of(revision_id), crank_deg, dict(places))


def newest_number(family: str) -> int:
    """Return the number of a family's newest revision."""
    number: int = Revision.objects.filter(family=family).newest_first().values_list("number", flat=True)[0]
    return number
