"""What stands in a ledger: each room folds the kinds it takes, struck entries leave no trace.

A strike has its room forget an entry where what stands is enough for that; else it folds anew only that room, and those that talk with
it, from the last halt before the entry. Every other entry is applied to what stands. Rooms that see to the same steps hear of each
other what became of them, entry by entry.
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


@dataclass(frozen=True, eq=False)
class Halt:
    """What stood after so many entries, but for those that were struck since and are forgotten once it is gone on from."""

    states: States
    owed: tuple[LedgerEntry, ...] = ()

    def paid(self, rooms: Rooms) -> States | None:
        """What stood without them; None where that cannot be told from here."""
        states: States | None = self.states
        for entry in self.owed:
            states = states and _forgotten(rooms, states, entry)
        return states


@dataclass(frozen=True, eq=False, kw_only=True)
class Folded:
    """A ledger, and what stands in it for each room."""

    rooms: Rooms
    base: EngineDocument  # as its family has it
    document: EngineDocument  # the same with what was found at the bench
    entries: tuple[LedgerEntry, ...]
    struck: Mapping[UUID, LedgerEntry]  # the strike by the id of the entry it strikes
    states: States
    halts: tuple[Halt, ...]  # after none, 64, 128 … entries
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
    """Return a kind of entry and the room that brings it.

    Every kind is in one place.
    """
    return next(((room, kind) for room in rooms for kind in room.kinds if kind.name == name), None)


def fold(rooms: Rooms, document: EngineDocument, entries: Sequence[LedgerEntry]) -> Folded:
    """Return what stands in a ledger."""
    struck = {entry.body.strikes: entry for entry in entries if isinstance(entry.body, Strike)}
    base, document = document, _filled(rooms, document, entries, struck)
    run = _run(rooms, {room.name: room.empty(document) for room in rooms}, entries, struck)
    place = Places().joined(entry.id for entry in entries)
    halts = tuple(Halt(states) for states in run[: len(entries) // HALT + 1])
    return Folded(
        rooms=rooms, base=base, document=document, entries=tuple(entries), struck=struck, states=run[-1], halts=halts, place=place
    )


def _filled(rooms: Rooms, document: EngineDocument, entries: Sequence[LedgerEntry], struck: Mapping[UUID, LedgerEntry]) -> EngineDocument:
    """The document with what entries write into it; each room reads that one from the first entry on."""
    kinds = {kind.name for room in rooms for kind in room.kinds if kind.fills}
    standing = [entry for entry in entries if entry.body.kind in kinds and entry.id not in struck]
    for room in rooms if standing else ():
        document = room.fill(document, standing) if room.fill else document
    return document


def _run(rooms: Rooms, states: States, entries: Sequence[LedgerEntry], struck: Mapping[UUID, LedgerEntry]) -> list[States]:
    """What stands for some rooms at each halt, from the one before the first of these entries on; and at last after all of them."""
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
    """Return what stands after one more entry.

    A strike changes what stood before in its entry's room; every other entry only adds.
    """
    if _refills(folded, entry):
        return fold(folded.rooms, folded.base, (*folded.entries, entry))
    before = folded
    if isinstance(entry.body, Strike):
        before = replace(folded, struck={**folded.struck, entry.body.strikes: entry})
        if entry.body.strikes not in folded.struck:
            before = _without(before, entry.body.strikes)
    entries, states = (*folded.entries, entry), before.states
    found = find_kind(folded.rooms, entry.body.kind)
    if found:
        states = _after(folded.rooms, states, found, entry)
    halts = before.halts if len(entries) % HALT else (*before.halts, Halt(states))
    place = folded.place.joined([entry.id])
    return replace(before, entries=entries, states=states, halts=halts, place=place)


def _refills(folded: Folded, entry: LedgerEntry) -> bool:
    """Whether an entry, or the one it strikes, writes something into the document."""
    place = folded.place.get(entry.body.strikes) if isinstance(entry.body, Strike) else None
    of = folded.entries[place] if place is not None else entry
    found = find_kind(folded.rooms, of.body.kind)
    return found is not None and found[1].fills


def _without(folded: Folded, struck: UUID) -> Folded:
    """The same once an entry has been struck: forgotten where it may be, now and at the halts after it; else folded anew."""
    place = folded.place.get(struck)
    found = find_kind(folded.rooms, folded.entries[place].body.kind) if place is not None else None
    if place is None or found is None:
        return folded
    entry, after = folded.entries[place], place // HALT + 1
    states = _forgotten(folded.rooms, folded.states, entry)
    if states is None:
        return _anew(folded, found[0], place)
    owing = (Halt(halt.states, (*halt.owed, entry)) for halt in folded.halts[after:])
    return replace(folded, halts=(*folded.halts[:after], *owing), states=states)


def _forgotten(rooms: Rooms, states: States, entry: LedgerEntry) -> States | None:
    """What stands without an entry that was taken; None where its room cannot tell, or others have heard of it."""
    found = find_kind(rooms, entry.body.kind)
    if found is None or found[1].forget is None or len(_talking(rooms, found[0])) > 1:
        return None
    after = found[1].forget(states[found[0].name], entry, entry.body)
    return None if after is None else {**states, found[0].name: after}


def _anew(folded: Folded, room: Room[Any], place: int) -> Folded:
    """The same with a room, and those it talks with, folded anew from the last halt that can be gone on from before an entry."""
    first = place // HALT
    while (stood := folded.halts[first].paid(folded.rooms)) is None:  # nothing is owed at the first
        first -= 1
    rooms = _talking(folded.rooms, room)
    run = _run(rooms, {one.name: stood[one.name] for one in rooms}, folded.entries[first * HALT :], folded.struck)
    kinds = {kind.name for one in rooms for kind in one.kinds}
    halts = list(folded.halts[:first])
    for halt, states in zip(folded.halts[first:], run, strict=False):  # the run's last is what stands now, which is no halt
        halts.append(Halt({**halt.states, **states}, tuple(entry for entry in halt.owed if entry.body.kind not in kinds)))
    return replace(folded, halts=tuple(halts), states={**folded.states, **run[-1]})


def _talking(rooms: Rooms, room: Room[Any]) -> Rooms:
    """A room alone, or with all that tell each other of steps."""
    talking = tuple(one for one in rooms if one.news is not None or one.hears is not None)
    return talking if room in talking else (room,)
