"""The edits that make one document of another, the fewest that the lists' ids allow."""

__all__ = ["Change", "edits_at", "edits_between"]

from collections.abc import Iterator
from typing import Any

from gurvo_core.writer.edits import Add, Move, Remove, Set

Change = Set | Add | Remove | Move


def edits_between(before: dict[str, Any], after: dict[str, Any]) -> list[Change]:
    """The edits after which ``before`` says what ``after`` says."""
    return list(_groups("", before, after))


def edits_at(at: str, before: Any, after: Any) -> list[Change]:
    """The edits after which one place, which said ``before``, says ``after``."""
    return [] if before == after else list(_values(at, before, after))


def _groups(path: str, before: dict[str, Any], after: dict[str, Any]) -> Iterator[Change]:
    for key in before.keys() - after.keys():
        yield Remove(at=f"{path}/{_escaped(key)}")
    for key, value in after.items():
        at = f"{path}/{_escaped(key)}"
        if key not in before:
            yield Set(at=at, value=value)
        elif before[key] != value:
            yield from _values(at, before[key], value)


def _escaped(key: str) -> str:
    return key.replace("~", "~0").replace("/", "~1")


def _values(at: str, before: Any, after: Any) -> Iterator[Change]:
    if isinstance(before, dict) and isinstance(after, dict) and before and after:
        yield from _groups(at, before, after)
    elif _have_ids(before) and _have_ids(after):
        yield from _members(at, before, after)
    else:
        yield Set(at=at, value=after)


def _have_ids(members: Any) -> bool:
    """Whether every member of a list can be named by an id of its own."""
    if not isinstance(members, list) or not all(isinstance(one, dict) and isinstance(one.get("id"), str) for one in members):
        return False
    names = [one["id"] for one in members]
    return bool(names) and len(set(names)) == len(names) and all(name and "/" not in name and len(name) <= 120 for name in names)


def _members(at: str, before: list[Any], after: list[Any]) -> Iterator[Change]:
    old, new = {one["id"]: one for one in before}, {one["id"]: one for one in after}
    for name in old:
        if name not in new:
            yield Remove(at=f"{at}/{name}")
    order = [name for name in old if name in new]
    last = ""
    for name, value in new.items():
        if name not in old:
            yield Add(to=at, after=last, value=value)
            order.insert(order.index(last) + 1 if last else 0, name)
        else:
            yield from _groups(f"{at}/{name}", old[name], value)
            if order.index(name) != (order.index(last) + 1 if last else 0):
                order.remove(name)
                order.insert(order.index(last) + 1 if last else 0, name)
                yield Move(at=f"{at}/{name}", after=last)
        last = name
