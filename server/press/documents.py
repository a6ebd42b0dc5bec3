"""Engine documents read from text: small ones here and now, large ones aside."""

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.reading import read_document, read_text
from gurvo_core.walk import Walked, walk_document
from press.aside import aside

LARGE = 100_000  # characters; the largest family has a sixth of it


def document_in(text: str) -> EngineDocument:
    """Return the engine document in a text; raises DocumentError with every fault."""
    if len(text) <= LARGE:
        return read_document(read_text(text))
    found = aside("documents", _read, text)
    if isinstance(found, EngineDocument):
        return found
    raise DocumentError(found)


def walked_in(text: str) -> Walked:
    """Return how far the run of work in a sound document's text can be gone through; aside, since it builds a whole engine."""
    found = aside("documents", _walk, text)
    if isinstance(found, Walked):
        return found
    raise DocumentError(found)


def _walk(text: str) -> Walked | list[Fault]:
    found = _read(text)
    return walk_document(found) if isinstance(found, EngineDocument) else found


def _read(text: str) -> EngineDocument | list[Fault]:
    """Read a text; faults are handed back, since an exception loses what it carries on its way between processes."""
    try:
        return read_document(read_text(text))
    except DocumentError as error:
        return list(error.faults)
