"""What stands in a ledger: each room folds the kinds it takes, struck entries leave no trace.

A strike takes away what its entry did: all is folded anew without it, from the last halt before it. Every other entry is applied to what
stands. Rooms that see to the same steps hear of each other what became of them, entry by entry.
Nothing is changed in place: what was folded may be kept, shared and gone on from.
"""

__all__ = ["Folded", "apply", "find_kind", "fold"]

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import chain
from typing import Any
from uuid import UUID

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger.entry import LedgerEntry, Strike
from gurvo_core.ledger.room import Fact, Facts, Hold, Kind, LooseEnd, Room

Rooms = tuple[Room[Any], ...]
States = Mapping[str, Any]  # of each room, by its name
HALT = 64  # entries from one halt to the next: a strike of a late entry replays no more than these and what follows it


class Places(Mapping[UUID, int]):
    """Where in a ledger each entry is. Put together from pieces, so that one more entry does not copy a long ledger's."""

    def __init__(self, full: tuple[Mapping[UUID, int], ...] = (), last: Mapping[UUID, int] | None = None) -> None:
        self._full, self._last = full, last or {}

    def __getitem__(self, entry_id: UUID) -> int:
        """The place of an entry."""
        for piece in (self._last, *reversed(self._full)):  # the latest are asked for most
            if entry_id in piece:
                return piece[entry_id]
        raise KeyError(entry_id)

    def __iter__(self) -> Iterator[UUID]:
        """Oldest first."""
        return chain(*self._full, self._last)

    def __len__(self) -> int:
        """How many there are."""
        return HALT * len(self._full) + len(self._last)

    def joined(self, more: Iterable[UUID]) -> "Places":
        """The same with some more at the end."""
        full, last, count = list(self._full), dict(self._last), len(self)
        for place, entry_id in enumerate(more, count):
            last[entry_id] = place
            if len(last) == HALT:
                full.append(last)
                last = {}
        return Places(tuple(full), last)


@dataclass(frozen=True, eq=False, kw_only=True)
class Folded:
    """A ledger, and what stands in it for each room."""

    rooms: Rooms
    base: EngineDocument  # as its family has it
    document: EngineDocument  # the same with what was found at the bench
    entries: tuple[LedgerEntry, ...]
    struck: Mapping[UUID, LedgerEntry]  # the strike by the id of the entry it strikes
    states: States
    halts: tuple[States, ...]  # what stood after none, 64, 128 … entries
    place: "Places"

    @cached_property
    def facts(self) -> Facts:
        """What the rooms know, worked out in their order."""
        facts = Facts()
        for room in self.rooms:
            facts = facts.joined(room.facts(self.states[room.name], facts))
        return facts

    def knowing(self, more: Mapping[Fact[Any], Any]) -> "Folded":
        """The same, with what is known from outside the ledger beside what the rooms know."""
        known = replace(self)
        vars(known).update(facts=self.facts.joined(more), loose_ends=self.loose_ends, holds=self.holds)
        return known

    @cached_property
    def loose_ends(self) -> tuple[LooseEnd, ...]:
        """Everything temporary or unfinished, of all rooms in their order."""
        return tuple(end for room in self.rooms for end in room.loose_ends(self.states[room.name], self.facts))

    @cached_property
    def holds(self) -> tuple[Hold, ...]:
        """Whatever else holds something back, of all rooms in their order."""
        return tuple(hold for room in self.rooms for hold in room.holds(self.states[room.name], self.facts))


def find_kind(rooms: Rooms, name: str) -> tuple[Room[Any], Kind[Any, Any]] | None:
    """Return a kind of entry and the room that brings it. Every kind is in one place."""
    return next(((room, kind) for room in rooms for kind in room.kinds if kind.name == name), None)


def fold(rooms: Rooms, document: EngineDocument, entries: Sequence[LedgerEntry]) -> Folded:
    """Return what stands in a ledger."""
    struck = {entry.body.strikes: entry for entry in entries if isinstance(entry.body, Strike)}
    base, document = document, _filled(rooms, document, entries, struck)
    *halts, states = _run(rooms, {room.name: room.empty(document) for room in rooms}, entries, struck)
    place = Places().joined(entry.id for entry in entries)
    return Folded(
        rooms=rooms,
        base=base,
        document=document,
        entries=tuple(entries),
        struck=struck,
        states=states,
        halts=tuple(halts),
        place=place,
    )


def _filled(rooms: Rooms, document: EngineDocument, entries: Sequence[LedgerEntry], struck: Mapping[UUID, LedgerEntry]) -> EngineDocument:
    """The document with what entries write into it; each room reads that one from the first entry on."""
    kinds = {kind.name for room in rooms for kind in room.kinds if kind.fills}
    standing = [entry for entry in entries if entry.body.kind in kinds and entry.id not in struck]
    for room in rooms if standing else ():
        document = room.fill(document, standing) if room.fill else document
    return document


def _run(rooms: Rooms, states: States, entries: Sequence[LedgerEntry], struck: Mapping[UUID, LedgerEntry]) -> list[States]:
    """What stands at each halt, from the one before the first of these entries on; and at last after all of them."""
    kinds, run = {kind.name: (room, kind) for room in rooms for kind in room.kinds}, [states]
    for n, entry in enumerate(entries, 1):
        found = kinds.get(entry.body.kind)
        if found is not None and entry.id not in struck:
            states = _after(rooms, states, found, entry)
        if n % HALT == 0:
            run.append(states)
    return [*run, states]


def _after(rooms: Rooms, states: States, found: tuple[Room[Any], Kind[Any, Any]], entry: LedgerEntry) -> States:
    room, kind = found
    return _spread(rooms, states, room, kind.take(states[room.name], entry, entry.body), entry)


def _spread(rooms: Rooms, states: States, room: Room[Any], after: Any, entry: LedgerEntry) -> States:
    """What stands once a room's state has changed and all others have heard what became of their steps."""
    before = states[room.name]
    states = {**states, room.name: after}
    if room.news is None or after is before:
        return states
    for news in room.news(before, after):
        for other in rooms:
            if other is not room and other.hears is not None:
                heard = other.hears(states[other.name], entry, news)
                if heard is not states[other.name]:
                    states = _spread(rooms, states, other, heard, entry)
    return states


def apply(folded: Folded, entry: LedgerEntry) -> Folded:
    """Return what stands after one more entry. A strike changes what stood before; every other entry only adds."""
    if _refills(folded, entry):
        return fold(folded.rooms, folded.base, (*folded.entries, entry))
    if isinstance(entry.body, Strike):
        folded = _without(folded, entry)
    entries, states = (*folded.entries, entry), folded.states
    found = find_kind(folded.rooms, entry.body.kind)
    if found:
        states = _after(folded.rooms, states, found, entry)
    halts = folded.halts if len(entries) % HALT else (*folded.halts, states)
    return replace(folded, entries=entries, states=states, halts=halts, place=folded.place.joined([entry.id]))


def _refills(folded: Folded, entry: LedgerEntry) -> bool:
    """Whether an entry, or the one it strikes, writes something into the document."""
    place = folded.place.get(entry.body.strikes) if isinstance(entry.body, Strike) else None
    of = folded.entries[place] if place is not None else entry
    found = find_kind(folded.rooms, of.body.kind)
    return found is not None and found[1].fills


def _without(folded: Folded, strike: LedgerEntry) -> Folded:
    """The same once an entry is struck. What was struck before, or is not there, changes nothing."""
    gone: UUID = strike.body.strikes  # type: ignore[attr-defined]
    place, is_new = folded.place.get(gone), gone not in folded.struck
    struck = {**folded.struck, gone: strike}
    if place is None or not is_new or find_kind(folded.rooms, folded.entries[place].body.kind) is None:
        return replace(folded, struck=struck)
    first = place // HALT
    *halts, states = _run(folded.rooms, folded.halts[first], folded.entries[first * HALT :], struck)
    return replace(folded, struck=struck, states=states, halts=(*folded.halts[:first], *halts))
