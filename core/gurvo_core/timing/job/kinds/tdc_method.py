"""How true TDC is looked for."""

__all__ = ["KIND", "MethodQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing.job.entries import TdcMethodChoice
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.view import Option
from gurvo_core.timing.job.words import METHOD_NAMES


class MethodQuestion(PlainQuestion):
    """How true TDC is looked for."""

    kind: Literal["tdc_method"] = "tdc_method"
    options: list[Option]


TOPIC = Topic(
    id="tdc_method",
    title="How true TDC is found",
    drawing="stop",
    meant="The piston stands still around its top, so its top is found from both sides of it.",
    by_hand=["With a positive stop, or with a dial at equal drops. By a mark or by feel it is only as good as the mark or the feel."],
    goes_wrong=["The highest reading of the dial is taken: the crank turns several degrees while the piston does not move."],
)


def _say(body: TdcMethodChoice) -> Words:
    """The method chosen."""
    return Words(title="True TDC by", value=METHOD_NAMES[body.method])


def _check(now: TimingState, body: TdcMethodChoice, _facts: Facts) -> Iterator[Objection]:
    """The wheel is set up before anybody looks for TDC on it, and what the method rests on is known."""
    rule = "stroke and rod of this engine are not known: find TDC by a positive stop or by equal drops"
    yield from need(body.method not in ("fit", "top") or slider_of(now.document) is not None, "method", rule)
    yield from need(now.setup is not None, "kind", "set up the wheel first")


def _take(now: TimingState, _entry: LedgerEntry, body: TdcMethodChoice) -> TimingState:
    """Another way to look for true TDC; readings by the others are kept for when it is chosen again."""
    return replace(now, method=body.method, method_chosen=True)


KIND: Kind[TdcMethodChoice, TimingState] = Kind(
    body=TdcMethodChoice, question=MethodQuestion, topic=TOPIC, does="decide", words=_say, take=_take, check=_check
)
