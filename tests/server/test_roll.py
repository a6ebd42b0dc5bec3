"""The Floor from the roll kept in memory is the Floor from the database, whoever changed what."""

from datetime import timedelta

from django.utils import timezone

from tests.server.cases import ShopCase, put_row
from work.floor import floor_json, floor_moment, forget
from work.models import Engine, EngineSummary
from work.schemas import FloorFilter
from work.services import keep_summary

WISHES = (FloorFilter(), FloorFilter(open_only=True, free_to_turn=False), FloorFilter(search="PUMP wheel"), FloorFilter(page=2))


class RollTests(ShopCase):
    def setUp(self):
        super().setUp()
        first = Engine.objects.get(serial="T-1")
        for n in range(60):
            keep_summary(Engine.objects.create(serial=f"L-{n:02}", revision=first.revision, purpose="pump"))
        self.client.get("/api/engines")

    def shown(self):
        moment = floor_moment()
        return [floor_json(wish, moment) for wish in WISHES]

    def same_as_anew(self):
        kept = self.shown()
        forget()
        self.assertEqual(kept, self.shown())

    def enter_and_commit(self, body, **how):
        with self.captureOnCommitCallbacks(execute=True):
            self.must(body, **how)

    def test_after_an_entry_one_engine_is_read(self):
        before = self.shown()
        self.enter_and_commit({"kind": "note", "text": "x"}, serial="L-07")
        with self.assertNumQueries(3):  # what changed, what does not fit, the engine
            self.shown()
        self.assertEqual(before, self.shown())  # a note is not shown there
        self.same_as_anew()

    def test_an_engine_that_moves_stands_elsewhere_in_the_list(self):
        before = self.shown()
        to_stand_7 = {"kind": "engine_moved", "stand": 7, "builder": "bo", "whereabouts": "at work", "reason": ""}
        self.enter_and_commit(to_stand_7, serial="L-40")
        self.assertNotEqual(before, self.shown())
        self.same_as_anew()

    def test_what_another_process_wrote_is_seen(self):
        put_row(Engine.objects.get(serial="T-2"), body={"kind": "note", "text": "x"})
        self.same_as_anew()
        keep_summary(Engine.objects.create(serial="A-1", revision=Engine.objects.get(serial="T-1").revision, stand=3))
        self.assertIn('"A-1"', self.shown()[0])
        self.same_as_anew()

    def test_what_was_worked_out_by_other_rules_is_counted_as_it_is_now(self):
        EngineSummary.objects.filter(pk="L-00").update(rules=1, verdict="out")
        forget()
        self.assertIn('"out":0', self.shown()[0])

    def test_late_follows_the_day(self):
        Engine.objects.filter(serial="L-01").update(promised=timezone.localdate() - timedelta(days=1))
        forget()
        self.assertIn('"late":1', self.shown()[0])
