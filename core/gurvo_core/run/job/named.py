"""Steps, things and marks as they are called on the day they are named."""

__all__ = ["named_today"]

from collections.abc import Sequence

from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.ledger import LedgerEntry
from gurvo_core.motion.told import told_by
from gurvo_core.run.job.entries import (
    HoldSigned,
    MarkLook,
    MarksTaken,
    OwnMark,
    Reopened,
    ShaftSeen,
    StepDone,
    StepSkipped,
    ThingMoved,
    TroubleTold,
    TurnedAlone,
    TurnSeen,
)

Named = StepDone | TurnSeen | HoldSigned | StepSkipped | Reopened | ThingMoved | TroubleTold | MarksTaken | TurnedAlone | ShaftSeen


def named_today(body: Named, document: EngineDocument, before: Sequence[LedgerEntry]) -> Named:
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
