"""The seals of rows: what each covers, and the walk that names the first row that does not fit."""

from functools import lru_cache
from itertools import zip_longest
from typing import Any

from engine.models import Revision
from gurvo_core.ledger.chain import START, content_of, digest_of, misfit
from work.models import Engine, Entry

NO_TAIL = "its last entries are missing"
OTHER_DOCUMENT = "its row names another engine document than its entries were judged on"


@lru_cache(maxsize=256)
def document_digest(revision_id: int) -> str:
    """Return the digest of a revision's engine document, as it was when this process first asked."""
    return digest_of(Revision.objects.values_list("document", flat=True).get(pk=revision_id))


def plain_row(row: Entry) -> dict[str, Any]:
    """Return what a row says, as its seal and the record have it."""
    names = ("seq", "at", "typed_at", "version", "body", "because", "si_values", "gauges")
    plain = {name: getattr(row, name) for name in names}
    return {**plain, "id": str(row.id), "by": {"account": row.by.username, "name": row.by_name}}


def sealed_content(row: Entry, before: str) -> dict[str, Any]:
    """Return what the seal of a row covers."""
    return content_of(plain_row(row), engine=row.engine_id, document=document_digest(row.revision_id), before=before)


def seal(row: Entry, before: str) -> None:
    """Seal a new row behind the one before it."""
    row.digest = digest_of(sealed_content(row, before))


def row_misfit(row: Entry, *, seq: int, before: str) -> str:
    """Return what does not fit about a row that was read; empty when it does."""
    if row.kind != row.body.get("kind"):
        return f"entry {seq} is kept as another kind than it is"
    try:
        return misfit(sealed_content(row, before), row.digest, seq=seq, before=before)
    except (TypeError, ValueError) as error:
        return f"entry {seq} is not as it was sealed ({error})"


def engine_misfit(engine: Engine) -> str:
    """Walk a whole ledger as it is kept now; return the first thing that does not fit."""
    before, seq = START, 0
    for seq, row in enumerate(Entry.objects.filter(engine=engine).since(1).iterator(), 1):
        words = row_misfit(row, seq=seq, before=before)
        if words:
            return words
        before = row.digest
    return "" if (before, seq) == (engine.head, engine.last_seq) else NO_TAIL


def record_against_shop(record: dict[str, Any]) -> str:
    """Return what a record that was handed out has that this shop's ledger has not; empty when all of it is there."""
    kept = Entry.objects.filter(engine=record["engine"]["serial"]).since(1).values_list("digest", flat=True)
    here = list(kept[: len(record["entries"])])
    sealed = [entry["digest"] for entry in record["entries"]]
    place = next((n for n, (theirs, ours) in enumerate(zip_longest(sealed, here)) if theirs != ours), None)
    return "" if place is None else f"entry {place + 1} of the record is not in this shop's ledger"
