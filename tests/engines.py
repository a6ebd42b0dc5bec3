"""The engine the tests work on, and entries to put in its ledger."""

import copy
import json
import uuid
from datetime import UTC, datetime
from functools import cache
from pathlib import Path

from pydantic import TypeAdapter

from gurvo_core.engine import EngineDocument
from gurvo_core.reading import read_document
from gurvo_core.work.entries import EntryBody, Gauge, LedgerEntry

FAMILIES = Path(__file__).parent.parent / "demo" / "families"
QUERN_4 = FAMILIES / "quern-4.json"
CODES = ("corrie-v6", "garth-d6", "quern-4", "sorrel-f4", "tarn-f4", "teasel-4", "wick-1")
BODY = TypeAdapter(EntryBody)
WHEEL = Gauge(id="W1", name="wheel", kind="wheel", resolution=0.5, expanded_uncertainty=0.2)
DIAL = Gauge(id="D2", name="dial", kind="dial", resolution=0.01, expanded_uncertainty=0.008)
SETUP = {"subject": "setup", "numbering": "0-90-0-90-0", "runs": "grows", "wheel_gauge": "W1", "dial_gauge": "D2", "plugs_out": True}


@cache
def quern_4_data() -> str:
    return QUERN_4.read_text("utf-8")


def quern_4_copy() -> dict:
    """Plain data that a test may spoil."""
    return copy.deepcopy(json.loads(quern_4_data()))


@cache
def quern_4() -> EngineDocument:
    return read_document(json.loads(quern_4_data()))


def family_copy(code: str) -> dict:
    """Plain data of one of the shipped families, that a test may spoil."""
    return json.loads((FAMILIES / f"{code}.json").read_text("utf-8"))


@cache
def family(code: str) -> EngineDocument:
    return read_document(family_copy(code))


def decision(subject: str, **rest) -> dict:
    return {"kind": "decision", "decision": {"subject": subject, **rest}}


def stop(place: str, text: str, side: str | None = None) -> dict:
    wheel = {"text": text, "side": side or f"{place} TDC"}
    return {"kind": "tdc_reading", "method": "positive_stop", "place": place, "wheel": wheel}


def lift(valve: str, flank: str, text: str, side: str, **rest) -> dict:
    body = {"kind": "lift_reading", "camshaft": "cam", "cylinder": 1, "valve": valve, "flank": flank}
    return {**body, "lift": {"text": "1.00", "unit": "mm"}, "wheel": {"text": text, "side": side}, **rest}


class Ledger:
    """Builds a ledger entry by entry, without a server."""

    def __init__(self) -> None:
        self.entries: list[LedgerEntry] = []

    def add(self, body: dict, entry_id: uuid.UUID | None = None) -> uuid.UUID:
        seq = len(self.entries) + 1
        gauges = (WHEEL, DIAL) if body.get("decision", {}).get("subject") == "setup" else ()
        at = datetime(2026, 11, 23, 8, seq // 60 % 60, seq % 60, tzinfo=UTC)
        entry = LedgerEntry(id=entry_id or uuid.uuid4(), seq=seq, at=at, by="Della", body=BODY.validate_python(body), gauges=gauges)
        self.entries.append(entry)
        return entry.id


def found_tdc() -> Ledger:
    """A ledger in which true TDC has been found and taken over: stop met at 41.5 before and 41 after."""
    from gurvo_core.work import replay

    ledger = Ledger()
    ledger.add({"kind": "decision", "decision": SETUP})
    ledger.add(stop("before", "41.5"))
    ledger.add(stop("after", "41"))
    tdc = replay(quern_4(), ledger.entries).tdc
    ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": tdc.zero_deg})
    ledger.add(decision("stop_out"))
    return ledger
