"""Worked out once: what follows from something that is never changed is kept with it, and goes when it goes."""

__all__ = ["kept_with"]

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

    Parameters
    ----------
    work : callable
        Its first argument is never changed; the others can be hashed. The result must follow from them alone, and be no iterator.

    Returns
    -------
    look : callable
        The same, worked out once.

    Source
    ------
    House rule: states are never changed in place.

    Example
    -------
    >>> from types import SimpleNamespace
    >>> look = kept_with(lambda pile, more: [pile.stones + more])
    >>> pile = SimpleNamespace(stones=3)
    >>> look(pile, 2) is look(pile, 2), look(pile, 2) is look(pile, 4)
    (True, False)
    """

    @wraps(work)
    def look(stands: Stands, *rest: Rest.args, **named: Rest.kwargs) -> Found:
        kept: dict[Hashable, Found] = vars(stands).setdefault("_kept", {})
        key = (work, rest, *named.items())
        found = kept.get(key, _ABSENT)
        if found is _ABSENT:
            found = kept[key] = work(stands, *rest, **named)
        return found  # type: ignore[return-value]

    return look  # type: ignore[return-value]
