"""The difference of two revisions of an engine document, in plain words."""

__all__ = ["Change", "difference"]

from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ConfigDict

from gurvo_core.engine.document import EngineDocument
from gurvo_core.sentence import at_start

MAX_SAID = 6
UNITS = {"mm": " mm", "deg": "°", "n": " N", "n_mm": " N/mm"}
# what tells the parts of a list from each other, best first
NAMES = ("id", "cylinder", "valve", "place", "camshaft", "lift_mm", "driver", "driven", "wheel", "name", "title")


class Change(BaseModel):
    """One thing that differs: where, and a sentence."""

    model_config = ConfigDict(extra="forbid")

    path: str
    sentence: str


def difference(before: EngineDocument, after: EngineDocument) -> list[Change]:
    """Return what differs between two documents. Parts of lists are told apart by their ids, cylinders or names, not by their place."""
    old, new = before.model_dump(mode="json"), after.model_dump(mode="json")
    return list(_changes(old, new, "", []))


def _changes(old: Any, new: Any, path: str, where: list[str]) -> Iterator[Change]:
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict):
        for key in dict.fromkeys((*old, *new)):
            yield from _changes(old.get(key), new.get(key), f"{path}.{key}".lstrip("."), [*where, key])
    elif isinstance(old, list) and isinstance(new, list):
        yield from _list_changes(old, new, path, where)
    else:
        yield Change(path=path, sentence=f"{_said(where)}: was {_value(old, where)}, is {_value(new, where)}.")


def _list_changes(old: list[Any], new: list[Any], path: str, where: list[str]) -> Iterator[Change]:
    if all(isinstance(part, dict) for part in (*old, *new)):
        yield from _part_changes(old, new, path, where)
    elif len(old) == len(new) and len(old) > len(NAMES):
        pairs = [(a, b) for a, b in zip(old, new, strict=True) if a != b]
        if all(isinstance(one, int | float) for pair in pairs for one in pair):
            at_most = f"{max(abs(b - a) for a, b in pairs):g}{_unit(where[-1])}"
            yield Change(path=path, sentence=f"{_said(where)}: {len(pairs)} of {len(old)} figures differ, by {at_most} at most.")
        else:
            first = f"{_value(pairs[0][0], where)} is {_value(pairs[0][1], where)} now"
            yield Change(path=path, sentence=f"{_said(where)}: {len(pairs)} of {len(old)} differ; {first}.")
    elif max(len(old), len(new)) > len(NAMES):
        yield Change(path=path, sentence=f"{_said(where)}: had {len(old)} figures, has {len(new)}.")
    else:
        yield Change(path=path, sentence=f"{_said(where)}: was {_value(old, where)}, is {_value(new, where)}.")


def _part_changes(old: list[dict[str, Any]], new: list[dict[str, Any]], path: str, where: list[str]) -> Iterator[Change]:
    before = {_called(part, old): part for part in old}
    names = [_called(part, new) for part in new]
    if list(before) != names and sorted(before) == sorted(names):
        yield Change(path=path, sentence=f"{_said(where)}: in another order, {', '.join(f'“{name}”' for name in names[:MAX_SAID])}.")
    for place, part in enumerate(new):
        name = _called(part, new)
        if name in before:
            yield from _changes(before.pop(name), part, f"{path}.{place}", [*where, f"“{name}”"])
        else:
            yield Change(path=f"{path}.{place}", sentence=f"{_said([*where, f'“{name}”'])} is new.")
    for name in before:
        yield Change(path=path, sentence=f"{_said([*where, f'“{name}”'])} is gone.")


def _called(part: dict[str, Any], among: list[dict[str, Any]]) -> str:
    """Enough of a part's own names to tell it from the others of its list; what is done goes by its own words."""
    own = part.get("says") or (part.get("title") if "steps" in part else None)
    if own and sum(other.get("says", other.get("title")) == own for other in among) == 1:
        return str(own).rstrip(".")
    names: list[str] = []
    for key in NAMES:
        if part.get(key) in (None, ""):
            continue
        names.append(f"{part[key]:g} mm" if isinstance(part[key], float) else str(part[key]))
        alike = [other for other in among if all(other.get(k) == part.get(k) for k in NAMES[: NAMES.index(key) + 1])]
        if len(alike) == 1:
            break
    return " ".join(names)


def _unit(key: str) -> str:
    return next((unit for ending, unit in UNITS.items() if key.endswith(f"_{ending}")), "")


def _plain(key: str) -> str:
    ending = next((ending for ending in sorted(UNITS, key=len, reverse=True) if key.endswith(f"_{ending}")), "")
    return key.removesuffix(f"_{ending}").replace("_", " ")


def _said(where: list[str]) -> str:
    """Where a change lies, in words."""
    words = ", ".join(key if key.startswith("“") else _plain(key) for key in where).replace(", “", " “")
    return at_start(words)


def _value(value: Any, where: list[str]) -> str:
    if value is None or value in ("", []):
        return "not given"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return f"{value:g}{_unit(where[-1])}"
    if isinstance(value, list):
        return ", ".join(_value(part, where) for part in value)
    if isinstance(value, dict):
        given = [(key, part) for key, part in value.items() if part not in (None, "", [], False)]
        return " ".join(f"{_plain(key)} {_value(part, [*where, key])}" for key, part in given[:MAX_SAID]) or "given"
    return f"“{value}”"
