"""Plugs or injectors out and the stand locked, or back in, where the run of work has no step for it."""

__all__ = ["KIND", "PlugsQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.run.job.entries import Plugs
from gurvo_core.run.job.state import RunState


class PlugsQuestion(PlainQuestion):
    """Whether the plugs are out, where the run of work has no step for it."""

    kind: Literal["plugs"] = "plugs"


TOPIC = Topic(
    id="plugs",
    title="Are the plugs out?",
    drawing="turn",
    meant="With plugs in nobody feels what the crank meets.",
    by_hand=["Look; do not remember."],
    goes_wrong=["Springy resistance is compression; a dead stop is contact."],
    caution="Ignition and fuel off.",
)


def _check(now: RunState, body: Plugs, _facts: Facts) -> Iterator[Objection]:
    """Only where the run has no step for it, and it is another state than before."""
    planned = bool(now.has_still("plugs_out", "plugs_in"))
    yield from need(not planned, "kind", "the run of work has a step for it: do that")
    yield from need(body.out != now.plugs_out, "out", f"they are {'out' if now.plugs_out else 'in'} already")


def _take(now: RunState, _entry: LedgerEntry, body: Plugs) -> RunState:
    """Out, or in again."""
    return replace(now, plugs_out=body.out)


KIND: Kind[Plugs, RunState] = Kind(
    body=Plugs,
    question=PlugsQuestion,
    topic=TOPIC,
    does="look",
    words=lambda body: Words(title="Plugs", value="out, stand locked" if body.out else "in"),
    take=_take,
    check=_check,
)
