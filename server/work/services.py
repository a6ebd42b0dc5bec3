"""Changes to engines. ``record`` is the one door through which every entry goes."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import partial
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.utils import timezone

from config.written_once import insert_one, update_one, update_rows
from engine.models import Revision
from gurvo_core.errors import CoreError
from gurvo_core.ledger import GAUGES, MAKER, NOW, STOCK, TYPED, Body, Fact, Folded, Gauge, LedgerEntry
from gurvo_core.ledger.chain import digest_of
from gurvo_core.work import RULES_VERSION
from gurvo_core.work.hand_over import RevisionMove
from shop.errors import Conflict, Forbidden, PasswordNeeded, Refusal, Unconfirmed
from shop.gauges import gauges_named, keep_uses, pulls_counted
from shop.roles import Role, may_record, may_write_documents, role_of, shown_name
from shop.stock import free_stock
from work import bridge
from work.errors import BrokenLedger
from work.finding import engine_of
from work.fits import keep_fits
from work.models import Engine, EngineSummary, Entry
from work.moves import follow, named
from work.pictures import check_there
from work.roll import ROLL
from work.seals import seal
from work.times import keep_time

USED_ID = "This id has been used for another entry; make a new one."


@dataclass(frozen=True)
class Proof:
    """How whoever makes an entry has shown who he is."""

    signs: Callable[[str], bool]  # whether this very signature was confirmed; asking uses it up
    has_password: bool  # whether his password was given just now


NO_PROOF = Proof(signs=lambda _about: False, has_password=False)
PROVEN = Proof(signs=lambda _about: True, has_password=True)  # for whatever runs without a door


@dataclass(frozen=True, kw_only=True)
class Recorded:
    """An engine and its ledger with an entry in it, and how they were just before: None of an entry that had been kept already."""

    engine: Engine
    ledger: bridge.Ledger
    before: bridge.Ledger | None = None
    moment_before: tuple[object, ...] = ()


@pulls_counted()
@transaction.atomic
def record(
    serial: str, *, entry_id: UUID, body: Body, by: User, typed_at: datetime | None = None, because: str = "", proof: Proof = NO_PROOF
) -> Recorded:
    """Append an entry if its maker may, and the core takes it; return the engine and its ledger as they are then.

    Nobody else writes while the entry is judged, so it is judged on the ledger and the revision that hold at that moment.
    The id is made by the client: the same entry sent twice is stored once.
    """
    role = role_of(by)
    _check_role(role)
    locked = engine_of(serial)  # one writer at a time: the transaction began with the lock
    ledger = bridge.ledger_of(locked)
    folded, house = ledger.folded, bridge.HOUSE
    if entry_id in folded.place:
        _check_same(Entry.objects.get(pk=entry_id), body)
        return Recorded(engine=locked, ledger=ledger)
    if not may_write_documents(role) and house.needs_lead(folded, body):
        raise Forbidden("Only the lead signs, leaves a step out, strikes a signature or moves an engine on; hand it to the lead.")
    if house.needs_confirming(body) and not proof.signs(signature_of(locked, ledger.head, body)):
        raise Unconfirmed
    check_there(body)
    gauges = gauges_named(house.gauges_named(body))
    known = _known(serial, body, gauges, by)
    if typed_at and _may_be(typed_at, ledger.entries):
        known[TYPED] = typed_at
    house.check(folded, body, known, because=because, is_lead=may_write_documents(role))
    if may_write_documents(role) and not proof.has_password:
        _check_no_concession(folded, body, known, because)
    target = _new_revision(locked, body)
    body = named(locked, body)
    body = house.signed(folded, house.completed(body, folded.document, folded.entries), RULES_VERSION)
    row = Entry(
        id=entry_id,
        engine=locked,
        seq=max(locked.last_seq, ledger.entries[-1].seq if ledger.entries else 0) + 1,
        kind=body.kind,
        body=house.bodies.dump_python(body, mode="json"),
        because=because,
        si_values=house.si_values(folded, body),
        gauges=[gauge.model_dump(mode="json") for gauge in gauges],
        at=timezone.now(),
        typed_at=typed_at,
        by=by,
        by_name=shown_name(by),
        revision_id=locked.revision_id,
    )
    seal(row, ledger.head)
    _insert(row)
    grown, moment_before = bridge.with_row(ledger, row, body, gauges), locked.bench_moment
    if target is not None:
        grown = bridge.on_revision(grown, target.pk)
    is_current = locked.summed_at == locked.last_entry
    moved = follow(body) | ({"revision": target} if target else {})
    _follow_entry(locked, row, moved | ({"summed_at": row.id} if is_current else {}))
    keep_uses([gauge.id for gauge in gauges], serial=serial, seq=row.seq, kind=row.kind, at=row.at, by_name=row.by_name)
    keep_fits(locked, folded, grown.folded)
    keep_time(locked, body, ledger.entries[-1] if ledger.entries else None, grown.entries[-1])
    _keep_next_summary(locked, ledger, grown, is_current=is_current)
    transaction.on_commit(partial(bridge.keep, locked, grown))
    transaction.on_commit(partial(ROLL.touch, locked.pk))
    return Recorded(engine=locked, ledger=grown, before=ledger, moment_before=moment_before)


def signature_of(engine: Engine, head: str, body: Body) -> str:
    """What one confirmation is for: this engine, as it stands, and this very entry."""
    return digest_of({"engine": engine.serial, "head": head, "entry": bridge.HOUSE.bodies.dump_python(body, mode="json")})


def _check_no_concession(folded: Folded, body: Body, known: dict[Fact[Any], Any], because: str) -> None:
    """What a lead alone decides, and what is taken only because he says so, asks for his password; a signature has its own."""
    house = bridge.HOUSE
    if house.needs_confirming(body):
        return
    if house.needs_lead(folded, body):
        raise PasswordNeeded
    if not because:  # without a reason a lead's word changes nothing, and it was judged already
        return
    try:
        house.check(folded, body, known, because=because, is_lead=False)
    except CoreError:
        raise PasswordNeeded from None


def _follow_entry(engine: Engine, row: Entry, moved: dict[str, Any]) -> None:
    """Set an engine's row to its last entry, and to what that entry moved; the rest of the row is left alone."""
    changes = {"last_seq": row.seq, "last_entry": row.id, "head": row.digest, **moved}
    update_one(engine, changes)


def _known(serial: str, body: Body, gauges: Sequence[Gauge], by: User) -> dict[Fact[Any], Any]:
    """What an entry is judged by beside the ledger: its gauges as they are now, the time, who makes it, the stock where it asks for it."""
    known: dict[Fact[Any], Any] = {GAUGES: {gauge.id: gauge for gauge in gauges}, NOW: timezone.now(), MAKER: shown_name(by)}
    return known | {STOCK: free_stock(serial)} if bridge.HOUSE.asks_stock(body) else known


def _may_be(typed_at: datetime, before: Sequence[LedgerEntry]) -> bool:
    """Whether the clock by which an entry was typed can be right: after the entry before it, and not to come."""
    return (not before or before[-1].at <= typed_at) and typed_at <= timezone.now()


def _insert(row: Entry) -> None:
    """Keep a new row, within its transaction; an id may have been used for an entry of another engine."""
    try:
        insert_one(row)
    except IntegrityError:
        raise Conflict(USED_ID, "id") from None


def _check_same(kept: Entry, body: Body) -> None:
    """An entry sent again must be the one that was kept; what was left unsaid was completed when it was."""
    sent = bridge.HOUSE.bodies.dump_python(body, mode="json")
    if {**kept.body, **{key: value for key, value in sent.items() if value is not None}} != kept.body:
        raise Conflict(USED_ID, "id")


def _new_revision(engine: Engine, body: Body) -> Revision | None:
    """The revision that an entry moves the engine to; only onward."""
    if not isinstance(body, RevisionMove):
        return None
    number, present = body.number, engine.about.number
    target: Revision | None = Revision.objects.filter(family=engine.about.family, number=number).first()
    if target is None or number <= present:
        raise Refusal(f"{engine.serial} is on revision {present}; choose a newer one that is there.", "entry.number")
    return target


def _check_role(role: Role) -> None:
    if not may_record(role):
        raise Forbidden("A viewer may look but not record; ask a builder or the lead.")


def keep_summary(engine: Engine, ledger: bridge.Ledger | None = None) -> None:
    """Keep what the Floor shows of an engine, worked out at its last entry; of one that cannot be read, why."""
    key: dict[str, object] = {"revision_id": engine.revision_id, "rules": RULES_VERSION}
    try:
        shown, at_entry = (ledger or bridge.ledger_of(engine)).summed, engine.last_entry
    except BrokenLedger as error:  # not worked out at any entry: the next that is taken does so
        shown, at_entry = {"broken": error.sentence[:600], "waits_for": "somebody to look into it"}, None
    if not EngineSummary.objects.filter(engine=engine).update(**key, **shown):
        EngineSummary.objects.create(engine=engine, **key, **shown)
    if engine.summed_at != at_entry:
        engine.summed_at = at_entry
        Engine.objects.filter(pk=engine.pk).update(summed_at=at_entry)


def _keep_next_summary(engine: Engine, before: bridge.Ledger, after: bridge.Ledger, *, is_current: bool) -> None:
    """Keep what the Floor shows after one more entry: where it was current before, only what that entry changed."""
    if not (is_current and before.is_summed) or before.revision_id != after.revision_id:
        return keep_summary(engine, after)
    changed = {name: value for name, value in after.summed.items() if before.summed.get(name) != value}
    key = {"engine": engine.pk, "revision_id": after.revision_id, "rules": RULES_VERSION}
    if changed and not update_rows(EngineSummary, key, changed):
        keep_summary(engine, after)
    return None


def refresh_summaries(engines: Iterable[Engine]) -> None:
    """Work out anew what the Floor shows of some engines."""
    for engine in engines:
        keep_summary(engine)


def hear_of_revision(revision: Revision, **_: object) -> None:
    """Engines know the number of their family's newest revision: it is asked with every entry and every look."""
    Engine.objects.filter(revision__family=revision.family_id).update(newest_revision=revision.number)


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
    engine: Engine = Engine.objects.create(serial=serial, revision=revision, purpose=purpose, stand=stand, promised=promised, builder=by)
    keep_summary(engine)
    return engine
