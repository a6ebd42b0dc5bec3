"""Records as they were handed out, folded by today's rules."""

import json
import uuid
from datetime import datetime
from pathlib import Path

from gurvo_core.ledger import Folded, Gauge, LedgerEntry
from gurvo_core.reading import read_document
from gurvo_core.work import HOUSE

HERE = Path(__file__).parent


def record_of(version: str, serial: str) -> dict:
    """One frozen record."""
    return json.loads((HERE / version / f"{serial}.record.json").read_text("utf-8"))


def folded(version: str, serial: str) -> Folded:
    """What stands in it."""
    record = record_of(version, serial)
    document, entries = read_document(record["documents"][record["engine"]["document"]]), []
    for row in record["entries"]:
        body = HOUSE.completed(HOUSE.read(row["body"], row["version"]), document, entries)
        gauges = tuple(Gauge.model_validate(gauge) for gauge in row["gauges"])
        at = datetime.fromisoformat(row["at"])
        entries.append(LedgerEntry(id=uuid.UUID(row["id"]), seq=row["seq"], at=at, by=row["by"]["name"], body=body, gauges=gauges))
    return HOUSE.fold(document, entries)
