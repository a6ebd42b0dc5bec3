"""What stands in a ledger: each room folds the kinds it takes, struck entries leave no trace.

A strike folds anew only the room whose entry it strikes; every other entry is applied to what stands. Nothing is changed in
place: what was folded may be kept, shared and gone on from.
"""

__all__ = ["Folded", "apply", "find_kind", "fold"]

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any
from uuid import UUID

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger.entry import LedgerEntry, Strike
from gurvo_core.ledger.room import Facts, Kind, Room

Rooms = tuple[Room[Any], ...]


@dataclass(frozen=True, eq=False, kw_only=True)
class Folded:
    """A ledger, and what stands in it for each room."""

    rooms: Rooms
    document: EngineDocument
    entries: tuple[LedgerEntry, ...]
    struck: Mapping[UUID, LedgerEntry]  # the strike by the id of the entry it strikes
    states: Mapping[str, Any]
    place: Mapping[UUID, int]  # where in ``entries`` each is

    @cached_property
    def facts(self) -> Facts:
        """What the rooms know, worked out in their order."""
        facts = Facts()
        for room in self.rooms:
            facts = facts.joined(room.facts(self.states[room.name], facts))
        return facts


def find_kind(rooms: Rooms, name: str) -> tuple[Room[Any], Kind[Any, Any]] | None:
    """Return a kind of entry and the room that brings it.

    Parameters
    ----------
    rooms : tuple of Room
        All rooms.
    name : str
        The kind.

    Returns
    -------
    found : (Room, Kind) or None
        None for a strike, which belongs to no room.

    Source
    ------
    House rule: every kind is in one place.

    Example
    -------
    >>> find_kind((), "note") is None
    True
    """
    return next(((room, kind) for room in rooms for kind in room.kinds if kind.name == name), None)


def fold(rooms: Rooms, document: EngineDocument, entries: Sequence[LedgerEntry]) -> Folded:
    """Return what stands in a ledger.

    Parameters
    ----------
    rooms : tuple of Room
        In the order of their arrows.
    document : EngineDocument
        The engine.
    entries : sequence of LedgerEntry
        The ledger, oldest first.

    Returns
    -------
    folded : Folded
        A struck entry leaves no trace in any state.

    Source
    ------
    House rules in this module's head.

    Example
    -------
    >>> fold((), quern_4(), []).entries
    ()
    """
    struck = {entry.body.strikes: entry for entry in entries if isinstance(entry.body, Strike)}
    states = {room.name: _state(room, document, entries, struck) for room in rooms}
    place = {entry.id: n for n, entry in enumerate(entries)}
    return Folded(rooms=rooms, document=document, entries=tuple(entries), struck=struck, states=states, place=place)


def _state(room: Room[Any], document: EngineDocument, entries: Iterable[LedgerEntry], struck: Mapping[UUID, LedgerEntry]) -> Any:
    state, kinds = room.empty(document), {kind.name: kind for kind in room.kinds}
    for entry in entries:
        kind = kinds.get(entry.body.kind)
        if kind is not None and entry.id not in struck:
            state = kind.take(state, entry, entry.body)
    return state


def apply(folded: Folded, entry: LedgerEntry) -> Folded:
    """Return what stands after one more entry.

    Parameters
    ----------
    folded : Folded
        What stands before it; it is left as it is.
    entry : LedgerEntry
        The ledger's next entry.

    Returns
    -------
    folded : Folded
        The same as ``fold`` of the whole ledger.

    Source
    ------
    A strike changes what stood before in one room; every other entry only adds.

    Example
    -------
    >>> from datetime import UTC, datetime
    >>> strike = Strike(kind="strike", strikes=UUID(int=9), reason="none such")
    >>> entry = LedgerEntry(id=UUID(int=1), seq=1, at=datetime.now(UTC), by="x", body=strike)
    >>> len(apply(fold((), quern_4(), []), entry).entries)
    1
    """
    grown: dict[str, Any] = {"entries": (*folded.entries, entry), "place": {**folded.place, entry.id: len(folded.entries)}}
    states = dict(folded.states)
    if isinstance(entry.body, Strike):
        struck = {**folded.struck, entry.body.strikes: entry}
        place = folded.place.get(entry.body.strikes)
        found = find_kind(folded.rooms, folded.entries[place].body.kind) if place is not None else None
        if found:
            states[found[0].name] = _state(found[0], folded.document, folded.entries, struck)
        return replace(folded, **grown, struck=struck, states=states)
    found = find_kind(folded.rooms, entry.body.kind)
    if found:
        room, kind = found
        states[room.name] = kind.take(states[room.name], entry, entry.body)
    return replace(folded, **grown, states=states)
