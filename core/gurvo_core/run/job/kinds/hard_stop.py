"""A hard stop has been looked into: what it was."""

__all__ = ["KIND", "HardStopQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.run.job.entries import HardStopSeen
from gurvo_core.run.job.state import RunState


class HardStopQuestion(PlainQuestion):
    """A hard stop that must be looked into."""

    kind: Literal["hard_stop"] = "hard_stop"


TOPIC = Topic(
    id="hard_stop",
    title="What did it meet?",
    drawing="turn",
    meant="The crank stopped dead. Until its reason is known nothing is turned.",
    by_hand=["Go back a little, out of it. Look through a plug hole, at the marks, at every tool that may still be in."],
    goes_wrong=["It is called compression because that would be easier."],
    caution="Never turn on with a longer bar: a bent valve does not show until it runs.",
)


def _check(now: RunState, body: HardStopSeen, _facts: Facts) -> Iterator[Objection]:
    """There was one, and something is said of it."""
    yield from need(now.hard_stop is not None, "kind", "no hard stop waits to be looked into")
    yield from need(bool(body.found), "found", "say what it was: look for a valve on a piston, something in the cylinder, a tool left in")


def _take(now: RunState, _entry: LedgerEntry, _body: HardStopSeen) -> RunState:
    """It has been looked into."""
    return replace(now, hard_stop=None)


KIND: Kind[HardStopSeen, RunState] = Kind(
    body=HardStopSeen,
    question=HardStopQuestion,
    topic=TOPIC,
    happening="hard stop",
    does="decide",
    words=lambda body: Words(title="Hard stop looked into", detail=body.found),
    take=_take,
    check=_check,
)
