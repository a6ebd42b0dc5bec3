"""The record as JSON, ``gurvo-record`` version 2: the engine document and the whole ledger, enough to replay it anywhere."""

import json

from engine.bridge import document_of
from shop.roles import shown_name
from work.models import Engine, Entry


def as_json(engine: Engine) -> bytes:
    """Return the record of an engine as JSON."""
    record = {
        "format": "gurvo-record",
        "version": 2,
        "engine": {
            "serial": engine.serial,
            "purpose": engine.purpose,
            "family": engine.revision.family_id,
            "revision": engine.revision.number,
        },
        "document": document_of(engine.revision_id).model_dump(mode="json"),
        "entries": [_entry(row) for row in Entry.objects.filter(engine=engine).since(1)],
    }
    return json.dumps(record, ensure_ascii=False, indent=1).encode()


def _entry(row: Entry) -> dict[str, object]:
    return {
        "id": str(row.id),
        "seq": row.seq,
        "at": row.at.isoformat(),
        "typed_at": row.typed_at.isoformat() if row.typed_at else None,
        "by": shown_name(row.by),
        "version": row.version,
        "body": row.body,
        "because": row.because,
        "si_values": row.si_values,
        "gauges": row.gauges,
    }
