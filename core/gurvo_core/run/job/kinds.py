"""The run's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.ledger import Kind, LedgerEntry, Words
from gurvo_core.motion.told import told_by
from gurvo_core.run.job import rules, take, words
from gurvo_core.run.job.entries import (
    HardStopSeen,
    HoldSigned,
    MarkLook,
    MarksTaken,
    OilChange,
    OwnMark,
    Plugs,
    Reopened,
    ShaftSeen,
    StepDone,
    StepSkipped,
    ThingMoved,
    TroubleTold,
    TurnedAlone,
    TurnSeen,
    VariantChosen,
)
from gurvo_core.run.job.shafts import clock_values
from gurvo_core.run.job.state import RunState
from gurvo_core.sentence import within

Named = StepDone | TurnSeen | HoldSigned | StepSkipped | Reopened | ThingMoved | TroubleTold | MarksTaken | TurnedAlone | ShaftSeen


def _named(body: Named, document: EngineDocument, before: Sequence[LedgerEntry]) -> Named:
    """Keep what a step, a thing or a mark is called today: the tape says it the same for ever."""
    if isinstance(body, StepDone | TurnSeen) and any(look.name is None for look in body.looks):
        body = body.model_copy(update={"looks": tuple(_look_named(look, document, before) for look in body.looks)})
    if isinstance(body, TurnedAlone | ShaftSeen) and body.at is not None and body.at.name is None:
        called = {one.of: one.name for one in told_by(document, body.shaft)}
        body = body.model_copy(update={"at": body.at.model_copy(update={"name": called.get(body.at.of)})})
    if body.title is not None:
        return body
    if isinstance(body, ThingMoved):
        thing = document.thing(body.thing)
        title = thing.name if thing else None
    elif isinstance(body, TurnedAlone | ShaftSeen):
        title = next((shaft.name for shaft in document.drive.shafts if shaft.id == body.shaft), None)
    else:
        title = next((step.says for step in document.work_steps if step.id == body.step), None)
    return body.model_copy(update={"title": title})


def _look_named(look: MarkLook, document: EngineDocument, before: Sequence[LedgerEntry]) -> MarkLook:
    links = [link for stage in document.drive.stages if isinstance(stage, LoopStage) for link in stage.marked]
    named = {one.id: one.name for one in links} | {one.id: one.name for one in document.drive.marks}
    named |= {one.id: one.name for one in document.things}
    named |= {f"own-{entry.seq}": entry.body.name for entry in before if isinstance(entry.body, OwnMark)}
    return look if look.name is not None else look.model_copy(update={"name": named.get(look.of)})


KINDS: tuple[Kind[Any, RunState], ...] = (
    Kind(
        body=StepDone, does="look", settle=_named, doing=rules.doing_of, words=words.say_done, take=take.take_done, check=rules.check_done
    ),
    Kind(body=TurnSeen, does="turn", settle=_named, words=words.say_turn, take=take.take_turn, check=rules.check_turn),
    Kind(
        body=HardStopSeen,
        happening="hard stop",
        does="decide",
        words=lambda body: Words(title="Hard stop looked into", detail=body.found),
        take=take.take_hard_stop,
        check=rules.check_hard_stop,
    ),
    Kind(
        body=TroubleTold,
        happening="trouble",
        does="look",
        settle=_named,
        words=words.say_trouble,
        take=take.take_trouble,
        check=rules.check_trouble,
    ),
    Kind(
        body=MarksTaken,
        settle=_named,
        does="decide",
        words=lambda body: Words(
            title=words.called(body.step, body.title), value="marks taken as they are", detail=body.reason, look_again=True
        ),
        take=take.take_marks,
        check=rules.check_marks_taken,
        by="lead",
    ),
    Kind(
        body=TurnedAlone,
        does="turn",
        doing=rules.doing_alone,
        settle=_named,
        words=words.say_shaft,
        take=take.take_shaft,
        check=rules.check_shaft,
        si_values=clock_values,
    ),
    Kind(
        body=ShaftSeen,
        does="look",
        settle=_named,
        words=words.say_seen,
        take=take.take_seen,
        check=rules.check_seen,
        si_values=clock_values,
    ),
    Kind(body=OwnMark, does="look", words=words.say_own_mark, take=take.take_own_mark, check=rules.check_own_mark),
    Kind(
        body=Plugs,
        does="look",
        words=lambda body: Words(title="Plugs", value="out, stand locked" if body.out else "in"),
        take=take.take_plugs,
        check=rules.check_plugs,
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
        happening="left out",
        settle=_named,
        does="decide",
        words=lambda body: Words(title=words.called(body.step, body.title), value="left out", detail=body.reason, look_again=True),
        take=take.take_skipped,
        check=rules.check_skipped,
        by="lead",
    ),
    Kind(
        body=Reopened,
        happening="opened again",
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
        words=lambda body: Words(title=words.plain(body.group), value=within(words.plain(body.option))),
        take=take.take_variant,
        check=rules.check_variant,
    ),
)
