"""Loads the demo: people, gauges, nine families, and engines at different places of the work.

Everything goes through the same door as a real entry. Only the clock is set back, so that the ledger reads like days of work.
"""

import sys
import uuid
from collections.abc import Callable
from contextlib import AbstractContextManager
from datetime import datetime, timedelta
from typing import Any
from unittest import mock

import django

from demo.documents import FAMILIES, family_data, without_run

WHEEL = {"numbering": "0-90-0-90-0", "runs": "grows", "wheel_gauge": "W1", "dial_gauge": "D2", "plugs_out": True}
EVENTS = (("intake", "opening"), ("intake", "closing"), ("exhaust", "opening"), ("exhaust", "closing"))


class Bench:
    """One builder working at one engine, some hours or days ago."""

    def __init__(self, engine: "Engine", by: "User", begun: datetime) -> None:  # noqa: F821 - known once Django is ready
        self.engine, self.by, self.clock = engine, by, begun

    def _at(self) -> AbstractContextManager[object]:
        self.clock += timedelta(seconds=95)
        return mock.patch("django.utils.timezone.now", return_value=self.clock)

    def enter(self, **body: object) -> uuid.UUID:
        """Make one entry."""
        from work import bridge, services

        entry_id = uuid.uuid4()
        with self._at():
            read = bridge.HOUSE.bodies.validate_python(body)
            services.record(self.engine.serial, entry_id=entry_id, body=read, by=self.by, proof=services.PROVEN)
        return entry_id

    def picture(self, taken: bytes, **body: object) -> str:
        """Have a picture kept and enter it; return its digest."""
        from work.pictures import kept, piece

        name = uuid.uuid4()
        piece(name, at=0, content=taken, by=self.by)
        digest, width, height = kept(name, by=self.by)
        self.enter(kind="picture", digest=digest, width=width, height=height, **body)
        return digest

    def now(self) -> datetime:
        """The time as it really is."""
        from django.utils import timezone

        return timezone.now()

    def state(self) -> Any:
        """What the bench shows now."""
        from work import bridge

        self.engine.refresh_from_db()
        return bridge.ledger_of(self.engine).shown

    def timing(self) -> "TimingView":  # noqa: F821 - known once Django is ready
        """What the bench shows of the timing now."""
        return self.state().timing

    def find_tdc(self, before: str, after: str) -> None:
        """Set up the wheel and find true TDC by a positive stop."""
        self.enter(kind="wheel_setup", **WHEEL)
        self.enter(kind="tdc_method", method="positive_stop")
        self.enter(kind="piston_stop", fitted=True)
        for place, text in (("before", before), ("after", after)):
            wheel = {"text": text, "side": f"{place} TDC"}
            self.enter(kind="tdc_reading", method="positive_stop", place=place, wheel=wheel)
        tdc = self.timing().tdc
        assert tdc is not None
        self.enter(kind="wheel_zero", method="positive_stop", zero_deg=tdc.zero_deg)
        self.enter(kind="piston_stop", fitted=False)

    def lift(self, valve: str, flank: str, text: str, side: str) -> uuid.UUID:
        """Take one lift reading at 1.00 mm."""
        body = {"camshaft": "cam", "cylinder": 1, "valve": valve, "flank": flank}
        return self.enter(kind="lift_reading", lift={"text": "1.00", "unit": "mm"}, wheel={"text": text, "side": side}, **body)

    def degree(self, *figures: tuple[str, str]) -> None:
        """Take the four events' readings."""
        for (valve, flank), (text, side) in zip(EVENTS, figures, strict=True):
            self.lift(valve, flank, text, side)


def _mark_as_demo() -> None:
    """No backup of the demo is ever taken for a shop's."""
    from shop.models import Letterhead, Shop

    Shop.objects.update_or_create(defaults={"is_demo": True})
    Letterhead.objects.create(name="Hillside Engine Works", address="Upper Yard 4, Fallow", zone="Europe/Zurich")


def _add_people() -> None:
    from demo.people import PEOPLE
    from shop.people import add_person, change_person

    for person in PEOPLE:
        pin = person["pin"]
        change_person(add_person(**{key: value for key, value in person.items() if key != "pin"}), pin=pin)


def load(*, whole: bool = True) -> None:
    """Load the demo into an empty database; not whole, the engines whose run of work is long are left out."""
    from django.contrib.auth.models import User
    from django.utils import timezone

    from demo import runs
    from demo.people import GAUGES, STOCK
    from engine.services import add_revision
    from shop.models import Gauge, StockItem
    from work.services import put_on_stand

    _mark_as_demo()
    _add_people()
    for gauge in GAUGES:
        Gauge.objects.create(**gauge)
    for part, size, count, lot in STOCK:
        StockItem.objects.create(part=part, size=size, count=count, lot=lot)
    lead, builder = User.objects.get(username="oren"), User.objects.get(username="della")
    documents = {file.stem: family_data(file.stem) for file in sorted(FAMILIES.glob("*.json"))}
    for document in documents.values():
        add_revision(without_run(document), by=lead, remark="first taken in")

    today = timezone.localdate()
    morning = timezone.now().replace(hour=7, minute=12, second=8, microsecond=0) - timedelta(days=1)

    def bench(serial: str, purpose: str, stand: int, days: int, begun: timedelta, *, family: str = "quern-4") -> Bench:
        engine = put_on_stand(serial=serial, family=family, purpose=purpose, stand=stand, promised=today + timedelta(days=days), by=builder)
        return Bench(engine, builder, morning + begun)

    finished = bench("Q4-0169", "village fire pump", 1, -1, timedelta(hours=-22))
    finished.find_tdc("38", "37.5")
    slipped = finished.lift("intake", "opening", "27.5", "before TDC")
    finished.enter(kind="strike", strikes=str(slipped), reason="went past it, turned back")
    finished.degree(("16.5", "before TDC"), ("51.5", "after BDC"), ("54", "before BDC"), ("13.5", "after TDC"))
    advance = finished.timing().cams[0].advance_deg
    finished.enter(kind="cam_decision", camshaft="cam", advance_deg=advance, reason="")
    finished.by = lead
    finished.enter(kind="sign_off", remark="Marks and wheel agree.")

    out = bench("Q4-0170", "irrigation pump", 2, 1, timedelta(hours=1))
    out.find_tdc("41", "41.5")
    out.degree(("20.5", "before TDC"), ("48", "after BDC"), ("58", "before BDC"), ("10", "after TDC"))

    half = bench("Q4-0171", "vineyard tractor", 3, 3, timedelta(hours=3))
    half.find_tdc("41.5", "41")
    half.enter(kind="note", text="Cam sprocket bolts at hand; oil on the lobes.")
    wrong = half.lift("intake", "opening", "72.5", "before TDC")
    half.enter(kind="strike", strikes=str(wrong), reason="misread the wheel")
    half.lift("intake", "opening", "17.5", "before TDC")

    found = bench("Q4-0172", "railcar heater set", 4, 4, timedelta(hours=5))
    found.find_tdc("36.5", "38")

    bench("Q4-0173", "vineyard tractor", 5, 9, timedelta(hours=6))

    _other_families(bench)
    for document in documents.values():
        add_revision(document, by=lead, remark="its whole run of work")
    if whole:
        runs.load(bench, lead)
    add_revision(_with_wider_lash(documents["wick-1"]), by=lead, remark="exhaust lash wider after the dry summer")


def _with_wider_lash(document: dict[str, Any]) -> dict[str, Any]:
    document["lash"][1]["most_mm"] = 0.13
    document["camshafts"][0]["lobes"][1]["lash_mm"] = 0.11
    return document


def _other_families(bench: Callable[..., Bench]) -> None:
    """Engines of other families: the crank turned to where it is parked, or just put on the stand."""
    pump = bench("C6-0031", "village fire pump", 6, 6, timedelta(hours=2), family="corrie-v6")
    pump.find_tdc("40", "41")
    pump.enter(kind="turn", to="150")
    railcar = bench("D6-0012", "railcar", 7, 14, timedelta(hours=4), family="garth-d6")
    railcar.enter(kind="wheel_setup", **WHEEL)
    railcar.enter(kind="turn", to="0")
    why = "an injector from the maker, promised for Thursday week"
    railcar.enter(kind="engine_moved", stand=None, builder="della", whereabouts="set aside", reason=why)
    bench("F4-0044", "railcar generator", 8, 12, timedelta(hours=6), family="tarn-f4")
    bench("W1-0007", "orchard sprayer", 9, 2, timedelta(hours=7), family="wick-1")


if __name__ == "__main__":
    django.setup()
    load(whole="--short" not in sys.argv)
