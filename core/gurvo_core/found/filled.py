"""A document with what was found at the bench written where it was left open.

A pointer leads by ids, never by places in a list, so that it leads to the same part in the family's next revision.
"""

__all__ = ["Fact", "filled", "found_faults", "is_open", "value_at", "with_found"]

from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import Any, NamedTuple

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.plain import plain_document
from gurvo_core.engine.same import Same
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.reading import check_document, read_document

Value = str | int | float


class Fact(NamedTuple):
    """What was found, and where in the document it belongs."""

    pointer: str
    value: Value


def _steps(pointer: str) -> list[str]:
    return [part for part in pointer.split("/") if part]


def _inside(at: Any, part: str) -> Any:
    """What a part of a pointer leads to: a key, or the member of a list with that id; None where there is none."""
    if isinstance(at, tuple | list):
        return next((one for one in at if getattr(one, "id", None) == part), None)
    return getattr(at, part, None)


def is_open(document: EngineDocument, pointer: str) -> bool:
    """Whether a pointer leads to something that the document has and leaves open."""
    *above, last = _steps(pointer) or [""]
    at: Any = document
    for part in above:
        at = _inside(at, part)
    return at is not None and hasattr(at, last) and getattr(at, last) in (None, "", ())


def value_at(document: EngineDocument, pointer: str) -> Any:
    """What stands where a pointer leads; None where it leads nowhere."""
    at: Any = document
    for part in _steps(pointer):
        at = _inside(at, part)
    return at


def filled(document: EngineDocument, facts: Sequence[Fact]) -> EngineDocument:
    """The document with what was found; what it says itself by now stays. The same one where nothing is filled, or it cannot be."""
    own = tuple(fact for fact in facts if is_open(document, fact.pointer))
    return _filled(Same(document), own) if own else document


@lru_cache(maxsize=256)
def _filled(of: Same, facts: tuple[Fact, ...]) -> EngineDocument:
    try:
        return read_document(with_found(of.document, facts))
    except DocumentError:
        return of.document  # a later revision says otherwise of what hangs together with it: both are shown


def with_found(document: EngineDocument, facts: Iterable[Fact], note: str = "") -> dict[str, Any]:
    """The document as plain data with what was found; with a note, said to be measured where it stands."""
    plain = plain_document(document)
    origins = dict(plain.get("origins", {}))
    for fact in facts:
        path = _put(plain, fact)
        if note and path:
            origins[path] = {"is": "measured", "note": note}
    return {**plain, "origins": origins} if origins else plain


def _put(plain: dict[str, Any], fact: Fact) -> str:
    """Write a fact into plain data and return its JSON Pointer by places; empty where it leads nowhere."""
    *above, last = _steps(fact.pointer)
    at: Any = plain
    path = ""
    for part in above:
        if isinstance(at, list):
            place = next((n for n, one in enumerate(at) if isinstance(one, dict) and one.get("id") == part), None)
            if place is None:
                return ""
            at, path = at[place], f"{path}/{place}"
        else:
            at, path = at.setdefault(part, {}), f"{path}/{part}"
    at[last] = fact.value
    return f"{path}/{last}"


def found_faults(document: EngineDocument, facts: Sequence[Fact], new: Fact) -> list[Fault]:
    """What one more fact would make wrong in the document that is not wrong without it."""
    before = filled(document, facts)
    try:
        read_document(with_found(before, [new]))
    except DocumentError as error:
        known = {(fault.path, fault.sentence) for fault in check_document(before)}
        return [fault for fault in error.faults if (fault.path, fault.sentence) not in known]
    return []
