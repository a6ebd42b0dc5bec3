"""The record as JSON, ``gurvo-record`` version 3: the engine documents and the whole ledger, sealed, enough to replay and to check
it anywhere. It is written out in pieces, so that a long one is never held whole.
"""

import json
from collections.abc import Iterator
from datetime import UTC

from engine.models import Revision
from gurvo_core.ledger.chain import START
from work.heads import head_now
from work.models import Engine, Entry
from work.seals import document_digest, sealed_content

VERSION = 3


def as_json(engine: Engine) -> Iterator[str]:
    """Return the record of an engine as JSON, piece by piece."""
    engine.refresh_from_db(fields=["head", "last_seq"])
    own = document_digest(engine.revision_id)
    about = {"serial": engine.serial, "purpose": engine.purpose, "family": engine.about.family, "revision": engine.about.number}
    yield f'{{"format": "gurvo-record",\n"version": {VERSION},\n"engine": {_json({**about, "document": own})},\n"documents": {{'
    judged_on = set(Entry.objects.filter(engine=engine).values_list("revision", flat=True).distinct())
    for n, revision_id in enumerate(sorted({engine.revision_id, *judged_on})):
        document = Revision.objects.values_list("document", flat=True).get(pk=revision_id)
        yield f'{"," if n else ""}\n"{document_digest(revision_id)}": {_json(document)}'
    yield '},\n"entries": ['
    before = START
    for n, row in enumerate(Entry.objects.filter(engine=engine).in_pieces(engine.last_seq)):
        yield f"{',' if n else ''}\n{_json({**sealed_content(row, before), 'digest': row.digest})}"
        before = row.digest
    shop = head_now()
    yield f'],\n"head": "{engine.head}",\n"shop": "{shop.at.astimezone(UTC).isoformat()} {shop.root}"}}\n'


def _json(value: object) -> str:
    return json.dumps(value, ensure_ascii=False)
