"""What the bench is sent: all of it, or after an entry only what that entry changed."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any, cast

from django.contrib.auth.models import User
from django.http import HttpResponse
from django.utils import timezone

from config.answers import etag, json_answer
from engine.bridge import document_of
from gurvo_core.run.ready import ready_at
from gurvo_core.verdict import judged_by
from gurvo_core.work import RULES_VERSION
from gurvo_core.work.state import StepView
from gurvo_core.work.whereabouts import Whereabouts
from shop.models import working_hours
from shop.roles import may_record, may_sign, may_write_documents, role_of
from work import bridge
from work.models import Engine
from work.schemas import Bench, BenchChange, EngineHead
from work.services import Recorded

TAPE_SHOWN = 60


def bench_tag(moment: tuple[object, ...] | None, by: User) -> str:
    """Changes with everything the bench shows: ledger, revision, rules, who looks, and whether there is a newer document."""
    return f"{moment}-{RULES_VERSION}-{by.pk}-{role_of(by)}"


def _ready_at(ledger: bridge.Ledger) -> datetime | None:
    """When it will be done, if somebody works at it all day; None where nobody knows, or nothing is left."""
    run = ledger.shown.run if hasattr(ledger.shown, "run") else None
    left = run.left_minutes if run else 0
    return ready_at(timezone.localtime(), left, working_hours()) if left and not ledger.shown.signed else None


def _head(engine: Engine, ledger: bridge.Ledger, by: User) -> EngineHead:
    document, about, role = document_of(engine.revision_id), engine.about, role_of(by)
    return EngineHead.model_construct(
        serial=engine.serial,
        family=about.name,
        family_code=about.family,
        revision=about.number,
        newest_revision=engine.newest_revision,
        purpose=engine.purpose,
        stand=engine.stand,
        builder=by.username if engine.builder_id == by.pk else engine.builder.username if engine.builder else "",
        whereabouts=cast("Whereabouts", engine.whereabouts),
        aside_because=engine.aside_because,
        ready_at=_ready_at(ledger),
        running_direction=document.running_direction,
        cautions=list(document.cautions),
        judged_by=judged_by(document.decision_rule),
        may_record=may_record(role),
        may_sign=may_sign(role),
        may_move=may_write_documents(role),
        misfit=engine.chain or ledger.misfit,
        head=ledger.code,
    )


def whole_bench(engine: Engine, ledger: bridge.Ledger, by: User) -> HttpResponse:
    """What the bench shows; it was checked when it was built, so it is written out once and not read again."""
    tag = bench_tag(engine.bench_moment, by)
    tape = bridge.tape_of(ledger, limit=TAPE_SHOWN)
    shown: dict[str, Any] = {"state": ledger.shown, "tape": tape, "entries": len(ledger.entries), "tag": etag(tag)}
    bench = Bench.model_construct(engine=_head(engine, ledger, by), **shown)
    return json_answer(bench.model_dump_json(serialize_as_any=True, warnings=False), tag=tag)


def _changed(before: Sequence[StepView], after: Sequence[StepView]) -> tuple[list[str], list[StepView]]:
    """The steps that changed, and the order of all of them where that did; a step that nothing changed is the very same view."""
    pairs = [(old, new) for old, new in zip(before, after, strict=False) if new is not old]
    if len(before) == len(after) and all(old.key == new.key for old, new in pairs):
        return [], [new for old, new in pairs if new != old]
    had = {step.key: step for step in before}
    return [step.key for step in after], [step for step in after if step != had.get(step.key)]


def bench_after(recorded: Recorded, by: User, has: str | None) -> HttpResponse:
    """What an entry changed, for a page that has what the bench showed just before it; all of it for any other."""
    engine, before, after = recorded.engine, recorded.before, recorded.ledger
    if before is None or not has or has != etag(bench_tag(recorded.moment_before, by)):
        return whole_bench(engine, after, by)
    tag = bench_tag(engine.bench_moment, by)
    order, changed = _changed(before.shown.steps, after.shown.steps)
    change = BenchChange.model_construct(
        kind="change",
        tag=etag(tag),
        engine=_head(engine, after, by),
        order=order,
        state=after.shown.model_copy(update={"steps": changed}),
        tape=bridge.tape_since(before, after),
        entries=len(after.entries),
    )
    return json_answer(change.model_dump_json(serialize_as_any=True, warnings=False), tag=tag)
