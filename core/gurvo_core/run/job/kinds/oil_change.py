"""The early oil change after the first start: done, or waived by the lead."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.run.job.entries import OilChange
from gurvo_core.run.job.state import RunState


def _check(now: RunState, body: OilChange, _facts: Facts) -> Iterator[Objection]:
    """It is due, and only the lead does without, saying why."""
    due = bool(now.did("first_start"))
    yield from need(due, "kind", "no oil change is due before the first start")
    yield from need(not now.oil_changed, "kind", "the early oil change is done or waived already")
    rule = "an early oil change carries the assembly lube away: only the lead waives it, with the reason"
    yield from need(body.done or bool(body.reason), "reason", "say why it is waived")
    yield from need(body.done, "done", rule, "lead and reason")


def _take(now: RunState, _entry: LedgerEntry, _body: OilChange) -> RunState:
    """Done or waived: either way nothing is due any more."""
    return replace(now, oil_changed=True)


KIND: Kind[OilChange, RunState] = Kind(
    body=OilChange,
    does="keep",
    words=lambda body: Words(title="Early oil change", value="done" if body.done else "waived", detail=body.reason),
    take=_take,
    check=_check,
)
