"""The engine the tests work on, and entries to put in its ledger."""

import uuid
from dataclasses import replace
from datetime import UTC, datetime
from functools import cache

from demo.documents import family_data, without_run
from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import GAUGES, Folded, Gauge, LedgerEntry
from gurvo_core.ledger.versions import ENTRY_VERSION
from gurvo_core.reading import read_document
from gurvo_core.timing.job import TimingView
from gurvo_core.work import HOUSE

CODES = ("brae-v8", "corrie-v6", "garth-d6", "quern-4", "sorrel-f4", "tarn-f4", "teasel-4", "wick-1")
LITTLE_KNOWN = "mallow-2"
WHEEL = Gauge(id="W1", name="wheel", kind="wheel", resolution=0.5, expanded_uncertainty=0.2)
DIAL = Gauge(id="D2", name="dial", kind="dial", resolution=0.01, expanded_uncertainty=0.008)
WRENCHES = (
    Gauge(id="T1", name="small wrench", kind="wrench", resolution=0.1, expanded_uncertainty=0.4, least=4, most=25),
    Gauge(id="T2", name="wrench", kind="wrench", resolution=0.5, expanded_uncertainty=2, least=10, most=100),
    Gauge(id="T3", name="long wrench", kind="wrench", resolution=1, expanded_uncertainty=6, least=40, most=300),
)
LENGTHS = tuple(
    Gauge(id=code, name=kind, kind=kind, resolution=0.01 if kind == "feeler" else 0.001, expanded_uncertainty=0.003, least=least, most=most)
    for code, kind, least, most in (
        ("P1", "bore", 50, 100),
        ("P2", "bore", 35, 60),
        ("M1", "micrometer", 50, 75),
        ("M3", "micrometer", 75, 100),
        ("M4", "micrometer", 25, 50),
        ("F1", "feeler", 0.03, 1.0),
    )
)
SETUP = {"kind": "wheel_setup", "numbering": "0-90-0-90-0", "runs": "grows", "wheel_gauge": "W1", "dial_gauge": "D2", "plugs_out": True}


def quern_4_copy() -> dict:
    """Plain data that a test may spoil."""
    return family_copy("quern-4")


def quern_4() -> EngineDocument:
    return family("quern-4")


def family_copy(code: str) -> dict:
    """Plain data of one of the shipped families before its run was written, that a test may spoil."""
    return without_run(family_data(code))


def family_copy_with_run(code: str) -> dict:
    """Plain data of one of the shipped families as it is, that a test may spoil."""
    return family_data(code)


@cache
def family(code: str) -> EngineDocument:
    return read_document(family_copy(code))


@cache
def family_with_run(code: str) -> EngineDocument:
    return read_document(family_data(code))


STOP_IN, STOP_OUT = {"kind": "piston_stop", "fitted": True}, {"kind": "piston_stop", "fitted": False}


def act(kind: str, **rest) -> dict:
    return {"kind": kind, **rest}


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

    def add(self, body: dict, entry_id: uuid.UUID | None = None, version: int = ENTRY_VERSION) -> uuid.UUID:
        seq = len(self.entries) + 1
        gauges = (WHEEL, DIAL) if body["kind"] == "wheel_setup" else ()
        at = datetime(2026, 11, 23, 8, seq // 60 % 60, seq % 60, tzinfo=UTC)
        entry = LedgerEntry(id=entry_id or uuid.uuid4(), seq=seq, at=at, by="Della", body=HOUSE.read(body, version), gauges=gauges)
        settled = HOUSE.completed(entry.body, quern_4(), self.entries)
        self.entries.append(replace(entry, body=settled))
        return entry.id


def found_tdc() -> Ledger:
    """A ledger in which true TDC has been found and taken over: stop met at 41.5 before and 41 after."""
    from gurvo_core.work import replay

    ledger = Ledger()
    ledger.add(SETUP)
    ledger.add(STOP_IN)
    ledger.add(stop("before", "41.5"))
    ledger.add(stop("after", "41"))
    tdc = replay(quern_4(), ledger.entries).timing.tdc
    ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": tdc.zero_deg})
    ledger.add(STOP_OUT)
    return ledger


def standing(ledger: Ledger, engine: EngineDocument | None = None) -> Folded:
    """What stands in a ledger."""
    return HOUSE.fold(engine or quern_4(), ledger.entries)


def timing(ledger: Ledger, engine: EngineDocument | None = None) -> TimingView:
    """What the bench shows of the timing."""
    return HOUSE.show(standing(ledger, engine)).timing


def check(ledger: Ledger, body: dict, *, engine: EngineDocument | None = None, gauges=(WHEEL, DIAL), **how) -> None:
    """Refuse an entry, or let it pass."""
    HOUSE.check(standing(ledger, engine), HOUSE.read(body, ENTRY_VERSION), {GAUGES: {gauge.id: gauge for gauge in gauges}}, **how)
