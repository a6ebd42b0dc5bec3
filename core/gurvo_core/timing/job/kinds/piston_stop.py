"""The piston stop has been fitted, or taken out."""

__all__ = ["KIND", "StopQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.timing.job.entries import PistonStop
from gurvo_core.timing.job.state import TimingState


class StopQuestion(PlainQuestion):
    """Whether the piston stop is in, or out."""

    kind: Literal["piston_stop"] = "piston_stop"
    fitted: bool


TOPIC = Topic(
    id="piston_stop",
    title="The positive stop",
    drawing="stop",
    meant="Something solid stops the piston short of its top on both sides; the middle is the top.",
    by_hand=["Screw it in with the piston well down, then come up to it gently from one side, and later from the other."],
    goes_wrong=["It bends, or a valve is met instead of the stop."],
    caution="By hand and gently: the whole crank is a lever on it.",
)


def _say(body: PistonStop) -> Words:
    """The stop in or out."""
    return Words(title="Piston stop", value="in" if body.fitted else "out")


def _check(now: TimingState, body: PistonStop, _facts: Facts) -> Iterator[Objection]:
    """A stop goes in once and comes out once."""
    yield from need(now.setup is not None, "kind", "set up the wheel first")
    if body.fitted:
        yield from need(not now.stop_in, "fitted", "the piston stop is in already")
        yield from need(now.method == "positive_stop", "fitted", "true TDC is looked for without a stop; choose that method first")
    else:
        yield from need(bool(now.stop_in), "fitted", "no piston stop is in")


def _take(now: TimingState, entry: LedgerEntry, body: PistonStop) -> TimingState:
    """The stop in or out."""
    return replace(now, stop_in=entry.seq if body.fitted else 0)


KIND: Kind[PistonStop, TimingState] = Kind(
    body=PistonStop, question=StopQuestion, topic=TOPIC, does="decide", words=_say, take=_take, check=_check
)
