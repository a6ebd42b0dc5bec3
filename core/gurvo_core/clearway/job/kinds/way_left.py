"""The way that is proposed is left: whoever stands there brings the shafts there by feel."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.clearway.job.entries import WayLeft
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need


def _say(body: WayLeft) -> Words:
    """A way that was left."""
    return Words(title="Way left", value="brought there by feel", detail=body.reason, look_again=True)


def _take(now: ClearwayState, entry: LedgerEntry, body: WayLeft) -> ClearwayState:
    return replace(now, left={**now.left, body.step: entry.seq})


def _check(now: ClearwayState, body: WayLeft, _facts: Facts) -> Iterator[Objection]:
    steps = {step.id for step in now.document.work_steps}
    yield from need(body.step in steps, "step", f"this engine's run has no step {body.step}; load the bench again")
    yield from need(bool(body.reason), "reason", "say how they are brought there, and what is known that the document does not say")


KIND: Kind[WayLeft, ClearwayState] = Kind(body=WayLeft, does="look", words=_say, take=_take, check=_check)
