"""From rows to the core's engine documents. A revision never changes, so it is read once."""

from functools import lru_cache

from engine.models import Revision
from gurvo_core.engine import EngineDocument


@lru_cache(maxsize=128)
def document_of(revision_id: int) -> EngineDocument:
    """Return the engine document of a revision."""
    return EngineDocument.model_validate(Revision.objects.get(pk=revision_id).document)
