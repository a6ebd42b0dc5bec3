"""Changes to families: a new revision."""

from django.contrib.auth.models import User
from django.db import transaction

from engine.models import Family, Revision
from gurvo_core.engine import read_document
from gurvo_core.errors import DocumentError
from gurvo_core.timing import card_faults


@transaction.atomic
def add_revision(data: object, *, by: User | None) -> Revision:
    """Take an engine document as the family's next revision, or refuse it with every fault."""
    document = read_document(data)
    faults = card_faults(document)
    if faults:
        raise DocumentError(faults)
    identity = document.identity
    family, _ = Family.objects.get_or_create(code=identity.family, defaults={"name": identity.name})
    newest = Revision.objects.filter(family=family).newest_first().first()
    number = newest.number + 1 if newest else 1
    return Revision.objects.create(family=family, number=number, document=document.model_dump(mode="json"), by=by)
