"""From rows to the core's engine documents, twins and differences. A revision never changes, so each is worked out once and kept."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from engine.models import Revision
from gurvo_core.clearway import Ground
from gurvo_core.clearway.shown import shown_of
from gurvo_core.drive import Phasers, places_with_phasers, show_twin
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.same import Same
from gurvo_core.motion import CamPlace, Snapshot, snapshot_at, twin_words
from gurvo_core.scene import StepScene, scene_of, side_turning, steps_of

# frozen, so that it can be kept by: where each camshaft stands
Places = frozenset[tuple[str, CamPlace]]


@dataclass(frozen=True)
class About:
    """Which revision of which family a document is."""

    family: str  # its code
    name: str
    number: int


@lru_cache(maxsize=128)
def about_of(revision_id: int) -> About:
    """Return which revision of which family it is; neither is ever changed."""
    family, name, number = Revision.objects.values_list("family", "family__name", "number").get(pk=revision_id)
    return About(family, name, number)


@lru_cache(maxsize=128)
def document_of(revision_id: int) -> EngineDocument:
    """Return the engine document of a revision."""
    return EngineDocument.model_validate(Revision.objects.get(pk=revision_id).document)


def places_of(document: EngineDocument, measured: Mapping[str, CamPlace], phasers: Phasers) -> Places:
    """Return where the camshafts stand, ready to be kept by."""
    return frozenset(places_with_phasers(document, measured, phasers).items())


def twin_json(document: EngineDocument, places: Places) -> str:
    """Return the twin of a document as it is sent."""
    return _twin_json(Same(document), places)


@lru_cache(maxsize=64)
def _twin_json(of: Same, places: Places) -> str:
    return show_twin(of.document, dict(places)).model_dump_json()


def scene_json(document: EngineDocument, crank_deg: float) -> str:
    """Return the pictures of an engine as they are sent."""
    return _scene_json(Same(document), crank_deg)


@lru_cache(maxsize=64)
def _scene_json(of: Same, crank_deg: float) -> str:
    return scene_of(of.document, crank_deg, _steps_of(of)).model_dump_json()


@lru_cache(maxsize=32)
def _steps_of(of: Same) -> list[StepScene]:
    return steps_of(of.document)


def turning_json(document: EngineDocument) -> str:
    """Return the engine from the side as its crank turns, as it is sent."""
    return _turning_json(Same(document))


@lru_cache(maxsize=32)
def _turning_json(of: Same) -> str:
    return side_turning(of.document).model_dump_json()


@lru_cache(maxsize=4)  # each keeps some MB of maps
def ground_of(of: Same) -> Ground:
    """Return the valves and pistons of a document."""
    return Ground(document=of.document, measured={})


@lru_cache(maxsize=32)
def clearway_json(of: Same) -> str:
    """Return the clearway of a document as it is sent."""
    return shown_of(ground_of(of), {}).model_dump_json()


def words_of(document: EngineDocument, places: Places) -> list[str]:
    """Return the big sentence of every degree."""
    return _words_of(Same(document), places)


@lru_cache(maxsize=64)
def _words_of(of: Same, places: Places) -> list[str]:
    return twin_words(of.document, dict(places))


def snapshot_of(document: EngineDocument, crank_deg: float, places: Places) -> Snapshot:
    """Return everything that is to be seen at one crank angle."""
    return snapshot_at(document, crank_deg, dict(places))
