"""Engine documents read from text, aside: to read one takes the interpreter for long at a stretch, and every bench would wait for it."""

from functools import lru_cache
from typing import NamedTuple

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.difference import Change, difference
from gurvo_core.engine.identity import Identity
from gurvo_core.engine.unknown import not_known
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.reading import doubts_of, read_document, read_text
from gurvo_core.walk import Walked, walk_document
from press.aside import aside

SORT = "documents"


class LookedAt(NamedTuple):
    """What a sound document changes against another of its family, and what is doubtful or not known in it."""

    changes: list[Change]
    doubtful: list[Fault]
    not_known: list[Fault]


def document_in(text: str) -> EngineDocument:
    """Return the engine document in a text; raises DocumentError with every fault."""
    found = aside(SORT, _read, text)
    if isinstance(found, EngineDocument):
        return found
    raise DocumentError(found)


def identity_in(text: str) -> Identity:
    """Return whose document is in a text; raises DocumentError with every fault of it."""
    found = aside(SORT, _identity, text)
    if isinstance(found, Identity):
        return found
    raise DocumentError(found)


def looked_at(text: str, newest: object | None) -> LookedAt:
    """Return what is to be said of the sound document in a text, beside the newest of its family, if there is one."""
    return aside(SORT, _look, text, newest)


def walked_in(text: str) -> Walked:
    """Return how far the run of work in a sound document's text can be gone through: a whole engine is built."""
    found = aside(SORT, _walk, text)
    if isinstance(found, Walked):
        return found
    raise DocumentError(found)


def _identity(text: str) -> Identity | list[Fault]:
    found = _read(text)
    return found.identity if isinstance(found, EngineDocument) else found


def _look(text: str, newest: object | None) -> LookedAt:
    found = _read(text)
    assert isinstance(found, EngineDocument)  # its identity was asked before
    changes = difference(EngineDocument.model_validate(newest), found) if newest is not None else []
    return LookedAt(changes, doubts_of(found), not_known(found))


def _walk(text: str) -> Walked | list[Fault]:
    found = _read(text)
    return walk_document(found) if isinstance(found, EngineDocument) else found


@lru_cache(maxsize=1)  # one text is asked about several times in a row
def _read(text: str) -> EngineDocument | list[Fault]:
    """Read a text; faults are handed back, since an exception loses what it carries on its way between processes."""
    try:
        return read_document(read_text(text))
    except DocumentError as error:
        return list(error.faults)
