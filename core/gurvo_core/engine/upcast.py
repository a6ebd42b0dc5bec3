"""Engine documents of earlier versions, read as today's. Nothing here is ever taken away.

Version 1 (November 2026): the kit had names and no ids, and steps were sentences alone.
Version 2 (November 2026): what was left out had a figure of its own in some places; it is written down here, since in version 3 what is
left out is not known.
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


# what version 2 took for granted where it was left out, by where it stands: * is every one of a list
_TAKEN_FOR_GRANTED: tuple[tuple[str, str, object], ...] = (
    ("banks.*", "axis_deg", 0),
    ("banks.*.cranktrain", "pin_offset_mm", 0),
    ("camshafts.*.followers.*", "ratio", 1),
    ("camshafts.*.lobes.*", "lash_mm", 0),
    ("drive.shafts.*", "x_mm", 0),
    ("drive.shafts.*", "y_mm", 0),
    ("timing_positions.*", "stroke", "firing"),
    ("timing_positions.*", "after_tdc_deg", 0),
    ("joints.*.stages.*.draw", "turn_deg", 180),
)


def _from_2(plain: Mapping[str, Any]) -> dict[str, Any]:
    data: Any = dict(plain)
    for path, key, granted in _TAKEN_FOR_GRANTED:
        data = _granted(data, path.split("."), key, granted)
    return {**data, "version": 3}


def _granted(data: Any, path: list[str], key: str, granted: object) -> Any:
    """The same with a key wherever a path leads and it was left out; what is no group or list is left for others to refuse."""
    if not path:
        return {key: granted, **data} if isinstance(data, Mapping) else data
    if path[0] == "*":
        return [_granted(one, path[1:], key, granted) for one in data] if isinstance(data, list | tuple) else data
    if not isinstance(data, Mapping) or path[0] not in data:
        return data
    return {**data, path[0]: _granted(data[path[0]], path[1:], key, granted)}


_STEPS: dict[int, Callable[[Mapping[str, Any]], dict[str, Any]]] = {1: _from_1, 2: _from_2}


def upcast_document(data: object) -> object:
    """Return an engine document's plain data as today's version has it."""
    if not isinstance(data, Mapping) or not isinstance(data.get("version"), int) or not isinstance(data.get("kit", []), list | tuple):
        return data
    plain = dict(data)
    while (step := _STEPS.get(plain["version"])) is not None:
        plain = step(plain)
    return plain
