"""What an engine came to, and what happened on the way, each with its day: for looking back over many."""

__all__ = ["Happened", "Seen", "came_to", "happened"]

from collections.abc import Iterator
from datetime import datetime
from typing import NamedTuple

from gurvo_core.ledger import Folded
from gurvo_core.ledger.came_to import CameTo
from gurvo_core.work.house import House


class Seen(NamedTuple):
    """A figure, and when it was read."""

    figure: CameTo
    at: datetime


class Happened(NamedTuple):
    """Something that is worth counting: what sort it is of, what it was about, why."""

    sort: str
    title: str
    because: str
    at: datetime


def came_to(house: House, folded: Folded) -> Iterator[Seen]:
    """Every figure that stands of an engine, in all rooms."""
    days = {entry.seq: entry.at for entry in folded.entries}
    for room in house.rooms:
        for figure in room.came_to(folded.states[room.name]):
            if figure.seq in days:
                yield Seen(figure, days[figure.seq])


def happened(house: House, folded: Folded) -> Iterator[Happened]:
    """What was opened again, moved, decided or found on the way; what was struck did not happen."""
    for entry in folded.entries:
        kind = house.kinds.get(entry.body.kind)
        if kind is None or not kind.happening or entry.id in folded.struck:
            continue
        words = house.words(entry.body)
        yield Happened(kind.happening, words.title, words.detail or words.value, entry.at)
