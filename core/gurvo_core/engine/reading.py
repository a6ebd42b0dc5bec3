"""Plain data in, a document whose types are right out, or every fault of its types with its JSON path."""

__all__ = ["parse_document", "plain_sentence"]

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from gurvo_core.engine.document import EngineDocument
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.sentence import within

MAX_FAULTS = 200  # more than anybody reads; a file of another kind altogether would have one a line


# lists too short or too long: pydantic would say what sort of list it makes of them
_COUNTED = {"too_short": ", it has {}", "too_long": ", it has more"}


def plain_sentence(error: Mapping[str, Any]) -> str:
    """Return one pydantic error as a sentence a builder can act on.

    Parameters
    ----------
    error : mapping
        One item of ``ValidationError.errors()``.

    Returns
    -------
    sentence : str
        What is wrong and what would be right.

    Source
    ------
    House wording.

    Example
    -------
    >>> plain_sentence({"type": "extra_forbidden", "loc": ("colour",), "msg": ""})
    '“colour” is not known here; leave it out or correct its spelling.'
    """
    name = str(error["loc"][-1]) if error["loc"] else "the body"
    kind, context = error["type"], error.get("ctx", {})
    if kind == "extra_forbidden":
        return f"“{name}” is not known here; leave it out or correct its spelling."
    if kind == "missing":
        return f"“{name}” is missing; give it."
    if kind == "literal_error":
        return f"“{name}” must be {context['expected']}."
    if kind in {"union_tag_invalid", "union_tag_not_found"}:
        known = f": {context['expected_tags']}" if "expected_tags" in context else ""
        return f"“{name}” needs a known {context['discriminator']}{known}."
    if kind in _COUNTED:
        bound = context.get("min_length", context.get("max_length"))
        return (
            f"“{name}” needs at {'least' if kind == 'too_short' else 'most'} {bound}{_COUNTED[kind].format(context.get('actual_length'))}."
        )
    return f"“{name}”: {within(error['msg'])}."


def _json_path(location: Sequence[object], data: object) -> str:
    """Where an error lies in the data itself: pydantic also names the kind of a tagged union, which is no key."""
    path, at = [], data
    for part in location:
        if isinstance(at, Mapping) and part not in at and part == at.get("kind"):
            continue
        path.append(str(part))
        if isinstance(at, Mapping):
            at = at.get(part)
        elif isinstance(at, Sequence) and not isinstance(at, str) and isinstance(part, int) and part < len(at):
            at = at[part]
        else:
            at = None
    return ".".join(path)


def parse_document(data: object) -> EngineDocument:
    """Return the engine document in some plain data; only types are looked at.

    Parameters
    ----------
    data : object
        Parsed JSON.

    Returns
    -------
    document : EngineDocument
        A document that the cross-checks have still to see.

    Raises
    ------
    DocumentError
        With every fault of its types, each a sentence and its path.

    Source
    ------
    docs/formats/engine.md.

    Example
    -------
    >>> try: parse_document({"format": "gurvo-engine"})
    ... except DocumentError as error: error.faults[0].path
    'version'
    """
    try:
        return EngineDocument.model_validate(data)
    except ValidationError as error:
        errors = error.errors(include_url=False, include_input=False)
        faults = [Fault(path=_json_path(e["loc"], data), sentence=plain_sentence(e)) for e in errors[:MAX_FAULTS]]
        if len(errors) > MAX_FAULTS:
            faults.append(Fault(path="", sentence=f"There are {len(errors) - MAX_FAULTS} more faults of this sort; correct these first."))
        raise DocumentError(faults) from None
