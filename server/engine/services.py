"""Changes to families: a new revision, whole or not at all."""

from dataclasses import dataclass, field

from django.contrib.auth.models import User
from django.db import transaction
from django.dispatch import Signal

from engine.models import Family, Revision
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.difference import Change
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.reading import read_document
from press.documents import document_in, identity_in, looked_at, walked_in
from shop.errors import Conflict, Forbidden
from shop.roles import may_write_documents, role_of

# whoever keeps something by a family's newest revision hears of it, within the same transaction
revision_added = Signal()


@dataclass(frozen=True, kw_only=True)
class Checked:
    """What a document's text would become: its faults, or the revision it would be and what would change."""

    faults: list[Fault]
    family: str = ""
    name: str = ""
    layout: str = ""
    revision: int | None = None
    changes: list[Change] = field(default_factory=list)
    doubtful: list[Fault] = field(default_factory=list)
    not_known: list[Fault] = field(default_factory=list)


def check_text(text: str) -> Checked:
    """Return what a text would become, with every fault; nothing is kept."""
    try:
        identity = identity_in(text)
    except DocumentError as error:
        return Checked(faults=error.faults)
    newest = Revision.objects.newest_of(identity.family)
    seen = looked_at(text, newest.document if newest else None)
    return Checked(
        faults=[],
        family=identity.family,
        name=identity.name,
        layout=identity.layout,
        revision=newest.number + 1 if newest else 1,
        changes=seen.changes,
        doubtful=seen.doubtful,
        not_known=seen.not_known,
    )


def import_text(text: str, *, remark: str, by: User) -> Revision:
    """Take a document's text in as its family's next revision; only the lead writes engine documents."""
    if not may_write_documents(role_of(by)):
        raise Forbidden("Only the lead takes engine documents in; hand the file to the lead.")
    document = document_in(text)
    if stuck := walked_in(text).stuck:
        raise DocumentError(stuck)
    return _add(document, by=by, remark=remark)


def add_revision(data: object, *, by: User | None, remark: str = "") -> Revision:
    """Take an engine document as the family's next revision, or refuse it with every fault."""
    return _add(read_document(data), by=by, remark=remark)


@transaction.atomic
def _add(document: EngineDocument, *, by: User | None, remark: str) -> Revision:
    identity = document.identity
    family, _ = Family.objects.get_or_create(code=identity.family, defaults={"name": identity.name})
    newest = Revision.objects.newest_of(identity.family)
    plain = document.model_dump(mode="json")
    if newest is not None and EngineDocument.model_validate(newest.document) == document:
        raise Conflict(f"This is the same as revision {newest.number}: nothing is to be taken in.", "text")
    number = newest.number + 1 if newest else 1
    revision = Revision.objects.create(family=family, number=number, document=plain, by=by, remark=remark)
    revision_added.send(Revision, revision=revision)
    return revision
