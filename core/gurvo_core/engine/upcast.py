"""Engine documents of earlier versions, read as today's. Nothing here is ever taken away.

Version 1 (November 2026): the kit had names and no ids, and steps were sentences alone.
"""

__all__ = ["upcast_document"]

import re
from collections.abc import Callable, Mapping
from typing import Any


def _slug(name: str, taken: set[str]) -> str:
    """An id out of a name, unlike any before it."""
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:34] or "part"
    numbered = (f"{stem}-{n}" for n in range(2, 1000))
    found = stem if stem not in taken else next(slug for slug in numbered if slug not in taken)
    taken.add(found)
    return found


def _from_1(plain: Mapping[str, Any]) -> dict[str, Any]:
    taken: set[str] = set()
    named = [{"id": _slug(str(part["name"]), taken), **part} if _has_name(part) else part for part in plain.get("kit") or ()]
    return {**plain, "version": 2, **({"kit": named} if "kit" in plain else {})}


def _has_name(part: object) -> bool:
    return isinstance(part, Mapping) and "name" in part and "id" not in part


_STEPS: dict[int, Callable[[Mapping[str, Any]], dict[str, Any]]] = {1: _from_1}


def upcast_document(data: object) -> object:
    """Return an engine document's plain data as today's version has it.

    Parameters
    ----------
    data : object
        Parsed JSON of any version; not checked.

    Returns
    -------
    data : object
        Of today's version where it was of an earlier one, else as it came.

    Source
    ------
    The versions in this module's head.

    Example
    -------
    >>> upcast_document({"version": 1, "kit": [{"name": "head bolts"}]})
    {'version': 2, 'kit': [{'id': 'head-bolts', 'name': 'head bolts'}]}
    """
    if not isinstance(data, Mapping) or not isinstance(data.get("version"), int) or not isinstance(data.get("kit", []), list | tuple):
        return data
    plain = dict(data)
    while (step := _STEPS.get(plain["version"])) is not None:
        plain = step(plain)
    return plain
