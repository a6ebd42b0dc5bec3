"""The run's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.ledger import Kind, LedgerEntry, Words
from gurvo_core.run.job import rules, take, words
from gurvo_core.run.job.entries import (
    HardStopSeen,
    HoldSigned,
    OilChange,
    Reopened,
    StepDone,
    StepSkipped,
    ThingMoved,
    TurnSeen,
    VariantChosen,
)
from gurvo_core.run.job.state import RunState

Named = StepDone | TurnSeen | HoldSigned | StepSkipped | Reopened | ThingMoved


def _named(body: Named, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Named:
    """Keep what a step or thing is called today: the tape says it the same for ever."""
    if body.title is not None:
        return body
    if isinstance(body, ThingMoved):
        thing = document.thing(body.thing)
        title = thing.name if thing else None
    else:
        steps = (step for stage in document.stages for step in stage.steps if isinstance(step, WorkStep))
        title = next((step.says for step in steps if step.id == body.step), None)
    return body.model_copy(update={"title": title})


KINDS: tuple[Kind[Any, RunState], ...] = (
    Kind(
        body=StepDone, does="look", settle=_named, doing=rules.doing_of, words=words.say_done, take=take.take_done, check=rules.check_done
    ),
    Kind(body=TurnSeen, does="turn", settle=_named, words=words.say_turn, take=take.take_turn, check=rules.check_turn),
    Kind(
        body=HardStopSeen,
        does="decide",
        words=lambda body: Words(title="Hard stop looked into", detail=body.found),
        take=take.take_hard_stop,
        check=rules.check_hard_stop,
    ),
    Kind(body=ThingMoved, does="look", settle=_named, words=words.say_thing, take=take.take_thing, check=rules.check_thing),
    Kind(
        body=HoldSigned,
        settle=_named,
        does="decide",
        words=lambda body: Words(title=f"{words.called(body.step, body.title)}, hold point", value="signed", detail=body.remark),
        take=take.take_hold,
        check=rules.check_hold,
        by="lead",
        confirmed=True,
    ),
    Kind(
        body=StepSkipped,
        settle=_named,
        does="decide",
        words=lambda body: Words(title=words.called(body.step, body.title), value="left out", detail=body.reason, look_again=True),
        take=take.take_skipped,
        check=rules.check_skipped,
        by="lead",
    ),
    Kind(
        body=Reopened,
        settle=_named,
        does="decide",
        words=lambda body: Words(title=words.called(body.step, body.title), value="open again", detail=body.reason, look_again=True),
        take=take.take_opened,
        check=rules.check_opened,
    ),
    Kind(
        body=OilChange,
        does="keep",
        words=lambda body: Words(title="Early oil change", value="done" if body.done else "waived", detail=body.reason),
        take=take.take_oil_change,
        check=rules.check_oil_change,
    ),
    Kind(
        body=VariantChosen,
        does="decide",
        words=lambda body: Words(title=words.plain(body.group), value=words.plain(body.option).lower()),
        take=take.take_variant,
        check=rules.check_variant,
    ),
)
