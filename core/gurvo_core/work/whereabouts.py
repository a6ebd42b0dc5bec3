"""Where an engine is and whose it is: its stand, its builder, at work, set aside or archived. Kept in its ledger like all else."""

__all__ = ["ROOM", "Moved", "Whereabouts"]

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Body, Facts, Kind, LedgerEntry, Objection, Room, Words, need
from gurvo_core.ledger.entry import Reason
from gurvo_core.work.hand_over import SIGNED

Whereabouts = Literal["at work", "set aside", "archived"]


class Moved(Body):
    """An engine moved to a stand, given to a builder, set aside, archived or fetched again; all of it as it is from now on."""

    kind: Literal["engine_moved"]
    stand: int | None = Field(default=None, ge=1, le=99, description="None = it stands on none")
    builder: Annotated[str, StringConstraints(max_length=150)] = Field(description="Sign-in name of whoever builds it from now on")
    builder_name: str | None = Field(default=None, max_length=150, description="What he is called; completed when it is taken")
    whereabouts: Whereabouts = "at work"
    reason: Reason = ""


@dataclass(frozen=True, kw_only=True)
class MovedState:
    """The last move."""

    moved: Moved | None = None


def _begin(_document: EngineDocument) -> MovedState:
    return MovedState()


def _take(_now: MovedState, _entry: LedgerEntry, body: Moved) -> MovedState:
    return MovedState(moved=body)


def _check(_now: MovedState, body: Moved, facts: Facts) -> Iterator[Objection]:
    """What is set aside says why; what is not handed over is archived by the lead alone."""
    yield from need(body.whereabouts != "set aside" or bool(body.reason), "reason", "say why it is set aside, and what it waits for")
    yield from need(
        body.whereabouts == "at work" or body.stand is None, "stand", "what is set aside or archived leaves its stand to another"
    )
    rule = "its record is not signed: only the lead archives it, with the reason"
    yield from need(body.whereabouts != "archived" or facts.get(SIGNED) is not None, "whereabouts", rule, "lead and reason")


def _words(body: Moved) -> Words:
    where = f"stand {body.stand}" if body.stand else "off the stands"
    value = where if body.whereabouts == "at work" else body.whereabouts
    return Words(
        title="Moved", value=value, detail=" · ".join(filter(None, (f"built by {body.builder_name or body.builder}", body.reason)))
    )


ROOM: Room[MovedState] = Room(
    name="whereabouts",
    empty=_begin,
    kinds=(
        Kind(
            body=Moved, does="keep", words=_words, take=_take, check=_check, stays="the engine has been moved since: move it again instead"
        ),
    ),
)
