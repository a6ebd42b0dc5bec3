"""The door for engine documents: plain data in, a sound document or all of its faults out."""

__all__ = ["plain_sentence", "read_document"]

from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from gurvo_core.engine.checks import find_faults
from gurvo_core.engine.document import EngineDocument
from gurvo_core.errors import DocumentError, Fault


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
        return f"“{name}” needs a known {context['discriminator']}."
    return f"“{name}”: {error['msg'][0].lower()}{error['msg'][1:]}."


def read_document(data: object) -> EngineDocument:
    """Return the engine document in some plain data.

    Parameters
    ----------
    data : object
        Parsed JSON.

    Returns
    -------
    document : EngineDocument
        A document without faults.

    Raises
    ------
    DocumentError
        With every fault, each a sentence and its path.

    Source
    ------
    docs/formats/engine.md.

    Example
    -------
    >>> try: read_document({"format": "gurvo-engine"})
    ... except DocumentError as error: error.faults[0].path
    'version'
    """
    try:
        document = EngineDocument.model_validate(data)
    except ValidationError as error:
        faults = [Fault(path=".".join(map(str, e["loc"])), sentence=plain_sentence(e)) for e in error.errors()]
        raise DocumentError(faults) from None
    faults = find_faults(document)
    if faults:
        raise DocumentError(faults)
    return document
