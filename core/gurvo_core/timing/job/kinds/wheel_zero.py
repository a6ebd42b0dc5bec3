"""The wheel's true zero taken over as it was shown."""

__all__ = ["KIND", "ZeroQuestion"]

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Basis, Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.timing.job.entries import WheelZero
from gurvo_core.timing.job.rules import SAME_SHOWN_DEG
from gurvo_core.timing.job.state import Placed, TimingState
from gurvo_core.timing.job.stood import what_stood
from gurvo_core.timing.job.true_tdc import find_tdc, tdc_basis
from gurvo_core.timing.job.words import METHOD_NAMES
from gurvo_core.timing.tdc import TdcMethod


class ZeroQuestion(PlainQuestion):
    """Whether true TDC is taken over."""

    kind: Literal["wheel_zero"] = "wheel_zero"
    zero_deg: float | None
    method: TdcMethod
    rests_on: Basis


TOPIC = Topic(
    id="wheel_zero",
    title="The pointer error",
    drawing="wheel",
    meant="Where the pointer stands when the piston truly is at the top; all later readings are corrected by it.",
    by_hand=["Take it over, or set the pointer to zero there and read both sides once more."],
    goes_wrong=["The pointer is bent to zero after it was taken over: then it is corrected twice."],
)


def _say(body: WheelZero) -> Words:
    """True TDC taken over."""
    return Words(title="Pointer error taken over", value=f"{body.zero_deg:+.2f}°", detail=METHOD_NAMES[body.method])


def _check(now: TimingState, body: WheelZero, _facts: Facts) -> Iterator[Objection]:
    """True TDC is taken over as it was shown, with the readings it was shown for."""
    estimate = find_tdc(now)
    if estimate is None:
        yield Objection("zero_deg", "true TDC is not known yet: take the readings first")
        return
    same = body.method == now.method and body.rests_on in (None, tdc_basis(now))
    rule = f"the readings now say {estimate.zero_deg:+.2f}°: look again and take that over"
    yield from need(same and abs(estimate.zero_deg - body.zero_deg) <= SAME_SHOWN_DEG, "zero_deg", rule)


def _take(now: TimingState, entry: LedgerEntry, body: WheelZero) -> TimingState:
    """True TDC taken over."""
    return replace(now, zero=Placed(entry.seq, body))


def _completed(body: WheelZero, document: EngineDocument, before: Sequence[LedgerEntry]) -> WheelZero:
    """Version 1 named only the figure: it rested on the readings that stood."""
    return body if body.rests_on else body.model_copy(update={"rests_on": tdc_basis(what_stood(document, before))})


KIND: Kind[WheelZero, TimingState] = Kind(
    body=WheelZero,
    question=ZeroQuestion,
    topic=TOPIC,
    does="decide",
    words=_say,
    take=_take,
    check=_check,
    completes=_completed,
)
