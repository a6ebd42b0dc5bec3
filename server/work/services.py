"""Changes to engines. ``record`` is the one door through which every entry goes."""

from collections.abc import Sequence
from datetime import date, datetime
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from engine.models import Revision
from gurvo_core.work import EntryBody, LedgerEntry, check_entry, inside_figures
from gurvo_core.work.entries import Decision, RevisionDecision, SetupDecision, SignOffDecision, Strike
from shop.errors import Conflict, Forbidden, Refusal
from shop.roles import Role, may_record, may_sign, may_write_documents, role_of
from work import bridge
from work.models import Engine, Entry


@transaction.atomic
def record(engine: Engine, *, entry_id: UUID, body: EntryBody, by: User, typed_at: datetime | None = None) -> bridge.Ledger:
    """Append an entry if its maker may, and the core takes it; return the ledger with it.

    The id is made by the client: the same entry sent twice is stored once.
    """
    role = role_of(by)
    _check_role(role)
    plain = bridge.BODY.dump_python(body, mode="json")
    known = Entry.objects.filter(pk=entry_id).first()
    ledger = bridge.ledger_of(engine)
    if known is not None:
        if known.engine_id != engine.pk or known.body != plain:
            raise Conflict("This id has been used for another entry; make a new one.", "id")
        return ledger
    _check_signing(role, ledger.entries, body)
    now = ledger.situation
    setup = body.decision if isinstance(body, Decision) and isinstance(body.decision, SetupDecision) else None
    gauges = bridge.gauges_named([setup.wheel_gauge, setup.dial_gauge]) if setup else ()
    check_entry(now, ledger.entries, body, gauges)
    target = _new_revision(engine, role, body)
    row = Entry.objects.create(
        id=entry_id,
        engine=engine,
        seq=len(ledger.entries) + 1,
        kind=body.kind,
        body=plain,
        inside=inside_figures(body, now.wheel),
        gauges=[gauge.model_dump(mode="json") for gauge in gauges],
        at=timezone.now(),
        typed_at=typed_at,
        by=by,
    )
    grown = bridge.with_row(ledger, row)
    if target is None:
        return grown
    engine.revision = target
    engine.save(update_fields=["revision"])
    return bridge.on_revision(grown, target.pk)


def _new_revision(engine: Engine, role: Role, body: EntryBody) -> Revision | None:
    """The revision that an entry moves the engine to; only the lead moves it, and only onward."""
    if not isinstance(body, Decision) or not isinstance(body.decision, RevisionDecision):
        return None
    if not may_write_documents(role):
        raise Forbidden("Only the lead moves an engine to another revision of its document; ask the lead.")
    engine.refresh_from_db(fields=["revision"])
    number, present = body.decision.number, engine.revision.number
    target: Revision | None = Revision.objects.filter(family=engine.revision.family_id, number=number).first()
    if target is None or number <= present:
        raise Refusal(f"{engine.serial} is on revision {present}; choose a newer one that is there.", "entry.decision.number")
    return target


def _check_role(role: Role) -> None:
    if not may_record(role):
        raise Forbidden("A viewer may look but not record; ask a builder or the lead.")


def _check_signing(role: Role, entries: Sequence[LedgerEntry], body: EntryBody) -> None:
    target = next((entry.body for entry in entries if isinstance(body, Strike) and entry.id == body.strikes), body)
    if isinstance(target, Decision) and isinstance(target.decision, SignOffDecision) and not may_sign(role):
        raise Forbidden("Only the lead signs the record, or strikes a signature; hand it to the lead.")


@transaction.atomic
def put_on_stand(*, serial: str, family: str, purpose: str, stand: int | None, promised: date | None, by: User) -> Engine:
    """Begin an engine on the newest revision of its family."""
    _check_role(role_of(by))
    revision = Revision.objects.newest_of(family)
    if revision is None:
        raise Refusal(f"There is no family {family}; choose one of the list.", "family")
    if Engine.objects.filter(serial__iexact=serial).exists():
        raise Conflict(f"There is an engine {serial} already; give another serial.", "serial")
    taken = Engine.objects.filter(stand=stand).first() if stand else None
    if taken is not None:
        raise Conflict(f"Stand {stand} holds {taken.serial}; choose a free stand.", "stand")
    return Engine.objects.create(serial=serial, revision=revision, purpose=purpose, stand=stand, promised=promised, builder=by)
