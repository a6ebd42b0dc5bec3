"""Where crank and camshafts stand, as far as the run of work says."""

__all__ = [
    "CAM_PLACES",
    "CLEAR",
    "CRANK_AT_STOP",
    "CRANK_TURNED",
    "SHAFTS",
    "Clear",
    "CrankTurned",
    "ShaftTold",
    "ShaftsTold",
    "met_on_the_way",
    "told_shafts",
]

from collections.abc import Callable, Iterator, Mapping
from typing import NamedTuple, Protocol

from gurvo_core.ledger.room import Fact, Facts, Objection, need
from gurvo_core.motion import CamPlace

# how far each camshaft that was measured is off its card, by its id
CAM_PLACES: Fact[Mapping[str, CamPlace]] = Fact("where the cams stand")


class ShaftTold(NamedTuple):
    """One shaft as somebody saw it: its place, how far off that may be [crank deg], and the entry that says so."""

    shaft: str
    place_deg: float
    within_deg: float
    seq: int
    then: str = ""  # how it came there: it stands, snapped round, met a dead stop
    way: int = 0  # which way it was turned last
    knows_stroke: bool = True  # a crank seen by its mark alone may stand on either
    of: str = ""  # by what it was told


class ShaftsTold(NamedTuple):
    """All shafts. Compared by what it says, so that an entry that moves nothing leaves everything that follows from it as it was."""

    crank: str = "crank"  # its id
    parked: str | None = None  # the position at which the crank stands
    parked_at: int = 0  # place in the ledger of the entry that brought it there
    told: tuple[ShaftTold, ...] = ()
    laid: frozenset[str] = frozenset()  # ids of the loops that are on
    cams: frozenset[str] = frozenset()  # ids of the camshafts that are in, with their valves above them
    held: frozenset[str] = frozenset()  # ids of the shafts that something holds
    stopped: int = 0  # place in the ledger of a dead stop that waits to be looked into

    def of(self, shaft: str) -> ShaftTold | None:
        """What was said of one of them."""
        return next((one for one in self.told if one.shaft == shaft), None)


class CrankTurned(NamedTuple):
    """Where the crank was turned to [deg], by the entry that says so; a piston alone does not tell on which stroke."""

    seq: int
    place_deg: float
    knows_stroke: bool = True
    within_deg: float = 2.0


# where the crank was turned to last: by what the timing reads, by where valves are set
CRANK_TURNED: Fact[CrankTurned] = Fact("where the crank was turned to")
CRANK_AT_STOP: Fact[CrankTurned] = Fact("the stop the crank was turned to")


def told_shafts(facts: Facts) -> ShaftsTold | None:
    """Return where shafts stand by everything that was said, the crank by what was said of it last; None where no run is planned."""
    told = facts.get(SHAFTS)
    turned = max((one for one in (facts.get(CRANK_TURNED), facts.get(CRANK_AT_STOP)) if one), default=None)
    if told is None or turned is None:
        return told
    seen = told.of(told.crank)
    if turned.seq <= max(told.parked_at if told.parked else 0, seen.seq if seen else 0):
        return told
    there = ShaftTold(
        shaft=told.crank,
        place_deg=turned.place_deg,
        within_deg=turned.within_deg,
        seq=turned.seq,
        then="stands",
        knows_stroke=turned.knows_stroke,
    )
    return told._replace(parked=None, told=(there, *(one for one in told.told if one.shaft != told.crank)))


# left out where no run of work is planned
SHAFTS: Fact[ShaftsTold] = Fact("where shafts stand")


class Clear(Protocol):
    """What turning would meet, by all that is known of the engine; nothing where it is clear, or nobody can say."""

    def turning(self, shaft: str, by_deg: int) -> str:
        """A shaft by so many crank degrees, in words."""

    def crank_to(self, place_deg: float, *, knows_stroke: bool = True) -> str:
        """The crank to a place, whichever way is clear; on either stroke where it is not known on which."""

    def crank_by(self, by_deg: int) -> str:
        """The crank by so many degrees."""


# left out until somebody has said where shafts stand
CLEAR: Fact[Clear] = Fact("what turning would meet")


def met_on_the_way(facts: Facts, field: str, met: Callable[[Clear], str]) -> Iterator[Objection]:
    """Yield what would be met on the way, by the document: taken for a reason, since whoever stands there may know better."""
    clear = facts.get(CLEAR)
    words = met(clear) if clear is not None else ""
    rule = f"by the document {words} on the way: look where all shafts stand, or say how it was found to be clear"
    yield from need(not words, field, rule, "reason")
