"""What is kept beside the ledgers, written only where an entry changed it: always what would be worked out anew."""

import uuid
from datetime import date
from itertools import count
from unittest.mock import patch

from django.contrib.auth.models import User
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from config.written_once import by_key, insert_one, update_one
from demo.player import answer
from engine.services import add_revision
from gurvo_core.errors import CoreError
from gurvo_core.walk import next_question
from shop.gauges import all_gauges
from shop.models import Gauge, GaugeUse
from tests.engines import family_copy_with_run, quern_4_copy
from tests.server.cases import ShopCase
from tests.server.played import play_until
from work import bridge, services
from work.floor import forget
from work.models import Engine, EngineSummary
from work.services import keep_summary
from work.watch import AT_MOST, EVERY_S, Watch

LEAD_ONLY = ("hold_point", "sign_off", "strike", "step_opened")


class RunCase(ShopCase):
    """An engine with a whole run, built through the services."""

    def setUp(self):
        super().setUp()
        revision = add_revision(family_copy_with_run("wick-1"), by=None)
        keep_summary(Engine.objects.create(serial="W-1", revision=revision, builder=User.objects.get(username="bo")))

    @property
    def ledger(self):
        return bridge.ledger_of(Engine.objects.at_the_bench().get(pk="W-1"))

    def record(self, body):
        read = bridge.HOUSE.bodies.validate_python(body)
        by = User.objects.get(username="lena" if read.kind in LEAD_ONLY else "bo")
        with self.captureOnCommitCallbacks(execute=True):  # what a process keeps, it keeps once the entry has held
            return services.record("W-1", entry_id=uuid.uuid4(), body=read, by=by, because="seen", proof=services.PROVEN)

    def go_on(self):
        """Answer what is asked."""
        ledger = self.ledger
        return self.record(answer(ledger.shown, next_question(ledger.shown), ledger.folded.document))


class FloorRowTests(RunCase):
    """The Floor's row of an engine."""

    def row(self):
        shown = EngineSummary.objects.values().get(pk="W-1")
        return {name: value for name, value in shown.items() if name != "engine_id"}

    def check(self):
        kept = self.row()
        engine = Engine.objects.get(pk="W-1")
        self.assertEqual(engine.summed_at, engine.last_entry)
        self.assertFalse(Engine.objects.stale().filter(pk="W-1").exists())
        bridge._kept.clear()
        keep_summary(engine)
        self.assertEqual(self.row(), kept)

    def test_after_every_entry_it_says_what_would_be_worked_out_anew(self):
        for _ in range(14):
            recorded = self.go_on()
        self.check()
        struck = recorded.ledger.entries[-3].id
        for body in ({"kind": "strike", "strikes": str(struck), "reason": "a slip"}, {"kind": "note", "text": "looked again"}):
            self.record(body)
            self.check()
        for _ in range(6):
            self.go_on()
            self.check()

    def test_an_entry_that_changes_nothing_there_does_not_write_it(self):
        self.record({"kind": "note", "text": "begun"})
        with CaptureQueriesContext(connection) as queries:
            self.record({"kind": "note", "text": "wiped"})
        self.assertEqual([query["sql"] for query in queries if "work_enginesummary" in query["sql"] and "UPDATE" in query["sql"]], [])
        self.check()

    def test_one_that_was_never_worked_out_is_so_with_the_next_entry(self):
        for spoil in ({"summed_at": uuid.uuid4()}, {"summed_at": None}):
            self.record({"kind": "note", "text": "begun"})
            Engine.objects.filter(pk="W-1").update(**spoil)
            EngineSummary.objects.filter(pk="W-1").update(waits_for="nonsense", loose_ends=9)
            self.record({"kind": "note", "text": "wiped"})
            self.check()

    def test_one_by_other_rules_is_worked_out_anew_whatever_the_entry_changes(self):
        self.record({"kind": "note", "text": "begun"})
        EngineSummary.objects.filter(pk="W-1").update(rules=0, waits_for="what it was")
        self.go_on()
        forget()
        self.client.get("/api/engines")
        self.check()

    def test_every_engine_knows_its_familys_newest_document(self):
        said = lambda: dict(Engine.objects.values_list("serial", "newest_revision"))  # noqa: E731
        self.assertEqual(said(), {"T-1": 1, "T-2": 1, "W-1": 1})
        data = quern_4_copy()
        data["identity"]["name"] = "Quern 4, second thoughts"
        second = add_revision(data, by=None)
        self.assertEqual(said(), {"T-1": 2, "T-2": 2, "W-1": 1})
        Engine.objects.create(serial="T-3", revision=second)
        self.assertEqual(said()["T-3"], 2)


class PullCountTests(RunCase):
    """A wrench's pulls since its calibration: counted once, and counted on."""

    def setUp(self):
        super().setUp()
        play_until("W-1", "studs")
        self.go_on()

    def listed(self):
        return {one["code"]: one["pulls"] for one in all_gauges()}

    def last_said(self):
        return [gauge.pulls for gauge in self.ledger.entries[-1].gauges if gauge.kind == "wrench"]

    def next_pull(self):
        """Go on to the next entry that names a wrench; return what it says of it."""
        self.go_on()
        while not self.last_said():
            self.go_on()
        return self.last_said()

    def test_each_pull_says_how_many_were_made_before_it(self):
        said = [self.next_pull()[0] for _ in range(5)]
        wrench = self.ledger.entries[-1].gauges[-1].id
        self.assertEqual(said, list(range(said[0], said[0] + len(said))))
        self.assertEqual(self.listed()[wrench], said[-1] + 1)

    def test_an_entry_that_is_not_kept_is_not_counted(self):
        before = self.next_pull()[0]
        question = next_question(self.ledger.shown)
        body = answer(self.ledger.shown, question, self.ledger.folded.document)
        with self.assertRaises(CoreError):
            self.record({**body, "fastener": "9"})
        self.assertEqual(self.next_pull(), [before + 1])

    def test_a_new_calibration_begins_anew(self):
        self.next_pull()
        Gauge.objects.filter(kind="wrench").update(calibrated=date(2999, 1, 1))
        self.assertEqual(self.next_pull(), [0])


class WrittenOnceTests(ShopCase):
    """Queries whose SQL is written once."""

    def test_a_row_that_is_kept_so_reads_as_one_that_was_saved(self):
        """Second method: Django's own save and update, field by field."""
        how = {"serial": "T-1", "seq": 7, "kind": "pull", "at": timezone.now(), "by_name": "Bo's “%s”"}
        GaugeUse.objects.create(gauge_id="W1", **how)
        insert_one(GaugeUse(gauge_id="W1", **how))
        saved, kept = GaugeUse.objects.order_by("pk").values()
        self.assertEqual(saved | {"id": 0}, kept | {"id": 0})
        first, second = Engine.objects.get(pk="T-1"), Engine.objects.get(pk="T-2")
        changes = {"purpose": "a pump; DROP", "stand": None, "promised": None, "builder": first.builder, "revision_id": first.revision_id}
        Engine.objects.filter(pk="T-1").update(**changes)
        update_one(second, changes)
        one, other = Engine.objects.filter(pk__in=("T-1", "T-2")).order_by("pk").values()
        self.assertEqual(
            {key: one[key] for key in ("purpose", "stand", "builder_id")}, {key: other[key] for key in ("purpose", "stand", "builder_id")}
        )
        self.assertEqual((second.purpose, second.stand), ("a pump; DROP", None))

    def test_a_row_is_what_the_query_set_reads(self):
        for model, key, how in ((Engine, "T-1", "at_the_bench"), (Gauge, "D2", "")):
            plain = (getattr(model.objects, how)() if how else model.objects).get(pk=key)
            self.assertEqual(vars(by_key(model, key, how)) | {"_state": None}, vars(plain) | {"_state": None})
            self.assertEqual(by_key(model, key, how), plain)

    def test_what_is_not_there_is_nothing_and_what_is_odd_does_no_harm(self):
        for key in ("", "none", "T-1' OR 1=1 --", "%", "looked for"):
            self.assertIsNone(by_key(Engine, key, "at_the_bench"))

    def test_a_way_that_looks_for_more_than_the_key_is_a_fault_of_the_program(self):
        with self.assertRaises(TypeError):
            by_key(Engine, "T-1", "stale")


class WatchTests(ShopCase):
    def test_a_round_takes_no_longer_than_its_share_and_the_next_goes_on_where_it_ended(self):
        clock = count(0, int(EVERY_S * AT_MOST) + 1)  # each look takes longer than a whole round may
        watch, seen = Watch(lambda: next(clock)), []
        first = Engine.objects.get(serial="T-1")
        for name in ("T-3", "T-4"):
            keep_summary(Engine.objects.create(serial=name, revision=first.revision, builder=first.builder))
        with patch("work.watch.engine_looked_at", seen.append), patch("work.watch.engine_verified"):
            for _ in range(5):
                watch.look()
        self.assertEqual(seen, ["T-1", "T-2", "T-3", "T-4", "T-1"])

    def test_an_engine_that_cannot_be_looked_at_keeps_nobody_from_the_others(self):
        seen = []

        def look(serial):
            seen.append(serial)
            raise ValueError(serial)

        with patch("work.watch.engine_looked_at", look), patch("work.watch.engine_verified"), self.assertLogs("work.watch", "ERROR"):
            Watch().look()
        self.assertEqual(seen, ["T-1", "T-2"])
