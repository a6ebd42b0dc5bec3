"""Worked out once: what follows from something that is never changed is kept with it, and goes when it goes."""

__all__ = ["Beside", "kept_last", "kept_with"]

from collections.abc import Callable, Hashable
from functools import wraps
from typing import Concatenate, ParamSpec, TypeVar

Stands = TypeVar("Stands")
Rest = ParamSpec("Rest")
Found = TypeVar("Found")
_ABSENT = object()


def kept_with(work: Callable[Concatenate[Stands, Rest], Found]) -> Callable[Concatenate[Stands, Rest], Found]:
    """Return a function whose result is kept with its first argument, by the others.

    Most entries change one room: what all other rooms show then need not be worked out again.
    States are never changed in place.
    """
    name = f"_kept {work.__qualname__} {id(work)}"

    @wraps(work)
    def look(stands: Stands, *rest: Rest.args, **named: Rest.kwargs) -> Found:
        beside = vars(stands)
        kept: dict[Hashable, Found] | None = beside.get(name)
        if kept is None:  # one of its own for each such function: it is asked some hundred times after an entry
            kept = beside[name] = {}
        key = (rest, *named.items()) if named else rest
        found = kept.get(key, _ABSENT)
        if found is _ABSENT:
            found = kept[key] = work(stands, *rest, **named)
        return found  # type: ignore[return-value]

    return look  # type: ignore[return-value]


class Beside:
    """Several things as a key: the same only when each is the very same, or an equal piece of text."""

    def __init__(self, *things: object) -> None:
        self._things = things

    def __eq__(self, other: object) -> bool:
        """Whether the other key is made of the same."""
        if not isinstance(other, Beside) or len(self._things) != len(other._things):
            return False
        return all(one is two or (isinstance(one, str) and one == two) for one, two in zip(self._things, other._things, strict=True))

    __hash__ = None  # type: ignore[assignment]  # it is compared with one other and never looked up


def kept_last(stands: object, what: str, key: object, work: Callable[[], Found]) -> Found:
    """Return what follows from something that is never changed and from what stands beside it, worked out anew when that differs.

    States are never changed in place.
    """
    kept: dict[str, tuple[object, Found]] | None = getattr(stands, "__dict__", None)
    if kept is None:
        return work()
    slot = f"_kept {what}"
    last = kept.get(slot)
    if last is None or last[0] != key:
        last = kept[slot] = (key, work())
    return last[1]
