"""A clearance that is out or cannot be told, accepted by the lead."""

__all__ = ["KIND", "LashDecisionQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.lash.job.entries import LashDecided
from gurvo_core.lash.job.state import LashState
from gurvo_core.lash.job.take import weighed
from gurvo_core.lash.job.words import valve_called
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.sentence import at_start
from gurvo_core.verdict import Verdict


class LashDecisionQuestion(PlainQuestion):
    """A valve that is out or cannot be told."""

    kind: Literal["lash_decided"] = "lash_decided"
    step: str
    valve: str
    verdict: Verdict


TOPIC = Topic(
    id="lash_decided",
    title="A gap that is out",
    drawing="gap",
    meant="A valve's gap outside its limits, or not to be told: set, changed, or accepted by the lead.",
    by_hand=["Set it and read it anew; what was read before stays on the tape."],
    goes_wrong=["Too small a gap is the worse one: the valve does not sit, and burns."],
)


def _say(body: LashDecided) -> Words:
    """Accepted by the lead."""
    called = valve_called(body.valve)
    return Words(title=at_start(called), value="accepted by the lead", detail=body.reason)


def _check(now: LashState, body: LashDecided, _facts: Facts) -> Iterator[Objection]:
    """A valve that was read and is not in; the lead alone."""
    one, read = now.book.valves(body.step).get(body.valve), now.reads.get(body.valve)
    if one is None or read is None:
        yield Objection("valve", "this valve has not been read; there is nothing to accept")
        return
    yield from need(bool(body.reason), "reason", "say why it may stay so")
    yield from need(read.verdict in ("out", "can't tell"), "decision", "it is neither out nor untold; there is nothing to accept")
    said = "is out" if read.verdict == "out" else "cannot be told"
    yield Objection("decision", f"{one.key.words} {said}: only the lead accepts that, with the reason", "lead and reason")


def _take(now: LashState, entry: LedgerEntry, body: LashDecided) -> LashState:
    """Accepted by the lead."""
    return weighed(replace(now, decided={**now.decided, body.valve: (entry.seq, body.reason)}), body.step)


KIND: Kind[LashDecided, LashState] = Kind(
    body=LashDecided,
    question=LashDecisionQuestion,
    topic=TOPIC,
    happening="valve gap decided",
    does="decide",
    words=_say,
    take=_take,
    check=_check,
)
