"""Engines that are built by their whole run of work, each left at a place that tells something."""

from collections.abc import Callable
from datetime import timedelta
from typing import TYPE_CHECKING, Any

from demo.player import answer, next_question

if TYPE_CHECKING:
    from django.contrib.auth.models import User

    from demo.scenario import Bench


def play(bench: "Bench", lead: "User", *, until: str = "") -> Any:
    """Answer everything that is asked until a question comes up; return what the bench shows then."""
    from work import bridge

    builder = bench.by
    while True:
        state = bench.state()
        question = next_question(state)
        if question is None or question.key == until:
            return state
        body = answer(state, question, bridge.ledger_of(bench.engine).folded.document)
        bench.by = lead if body["kind"] in ("hold_point", "sign_off") else builder
        _enter(bench, body)
        bench.by = builder


def _enter(bench: "Bench", body: dict[str, Any]) -> None:
    """Make an entry; where a sealant has still to cure, come back when it has."""
    from gurvo_core.errors import EntryRefused

    try:
        bench.enter(**body)
    except EntryRefused as refused:
        if "cures" not in str(refused):
            raise
        bench.clock += timedelta(hours=3)
        bench.enter(**body)


def load(bench: "Callable[..., Bench]", lead: "User") -> None:
    """Put them on their stands."""
    belt = bench("F4-0045", "railcar generator", 10, 5, timedelta(hours=-30), family="tarn-f4")
    play(belt, lead, until="tie-off")
