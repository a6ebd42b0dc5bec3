"""Where engines are and whose they are, what is due after hand-over, what others did meanwhile, how long steps take here."""

import uuid
from datetime import datetime, timedelta
from unittest.mock import patch

from django.contrib.auth.models import User
from django.utils import timezone

from demo.documents import family_data
from demo.player import answer
from engine.services import add_revision
from gurvo_core.walk import next_question
from tests.server.cases import JSON, ShopCase
from work import bridge, services
from work.models import Engine, StepTime
from work.record.sheets import first_start_page
from work.services import put_on_stand


def moved(**how):
    return {"kind": "engine_moved", "stand": 1, "builder": "bo", "whereabouts": "at work", "reason": "", **how}


class MoveTests(ShopCase):
    def rows(self, **wanted):
        return {row["serial"]: row for row in self.client.get("/api/engines", wanted).json()["rows"]}

    def test_an_engine_goes_to_another_stand_and_another_builder_and_its_tape_says_so(self):
        bench = self.must(moved(stand=5, builder="lena"))
        self.assertEqual((bench["tape"][0]["value"], bench["tape"][0]["detail"]), ("stand 5", "built by Lena"))
        self.assertEqual((bench["engine"]["stand"], bench["engine"]["builder"]), (5, "lena"))
        self.assertEqual((self.rows()["T-1"]["stand"], self.rows()["T-1"]["builder"]), (5, "Lena"))

    def test_what_cannot_be(self):
        self.refused(self.enter(moved(stand=2)), 409, "entry.stand", "Stand 2 holds T-2")
        self.refused(self.enter(moved(builder="vi")), 422, "entry.builder", "Nobody called vi builds here")
        self.refused(self.enter(moved(whereabouts="set aside", stand=None)), 422, "entry.reason", "Say why it is set aside")
        self.refused(self.enter(moved(whereabouts="archived", reason="sold")), 422, "entry.stand", "leaves its stand")
        entry = self.must(moved(stand=5))["tape"][0]["id"]
        self.refused(self.enter({"kind": "strike", "strikes": entry, "reason": "no"}), 422, "entry.strikes", "move it again")
        self.sign_in("vi")
        self.refused(self.enter(moved(stand=6)), 403, "", "viewer")

    def test_set_aside_it_leaves_its_stand_and_says_what_it_waits_for(self):
        self.must(moved(whereabouts="set aside", stand=None, reason="a head from the foundry"))
        row = self.rows()["T-1"]
        self.assertEqual((row["stand"], row["whereabouts"], row["aside_because"]), (None, "set aside", "a head from the foundry"))
        self.must(moved(stand=1))
        self.assertEqual(self.rows()["T-1"]["aside_because"], "")

    def test_what_is_not_signed_is_archived_by_the_lead_alone_and_found_again(self):
        away = moved(whereabouts="archived", stand=None)
        self.refused(self.enter(away, because="sold"), 409, "entry.whereabouts", "only the lead archives it")
        self.sign_in("lena")
        self.must(away, because="sold as it is")
        self.assertNotIn("T-1", self.rows())
        self.assertEqual(list(self.rows(archived=True)), ["T-1"])


class MeanwhileTests(ShopCase):
    def test_from_an_old_screen_both_sentences_are_said(self):
        add_revision(family_data("wick-1"), by=None)
        put_on_stand(serial="W-1", family="wick-1", purpose="", stand=None, promised=None, by=User.objects.get(username="bo"))
        self.must({"kind": "step_done", "step": "wire-on"}, serial="W-1")
        self.sign_in("lena")
        self.must({"kind": "step_opened", "step": "wire-on", "reason": "the wire slipped"}, serial="W-1")
        self.must({"kind": "thing", "thing": "wire", "on": False}, serial="W-1")
        self.sign_in("bo")
        stale = {"kind": "step_done", "step": "chain-on"}
        answer = self.enter(stale, serial="W-1", seen=1)
        self.refused(answer, 409, "entry.step", "not parked")
        self.assertRegex(answer.json()["sentence"], r"\. Meanwhile, at \d\d:\d\d, Lena recorded: Wire on the cam chain, taken off\.$")
        self.assertEqual(answer.json()["code"], "meanwhile")
        self.refused(self.enter(stale, serial="W-1", seen=3), 422, "entry.step", "not parked")


class AfterTests(ShopCase):
    def setUp(self):
        super().setUp()
        add_revision(family_data("wick-1"), by=None)
        lead = User.objects.get(username="lena")
        put_on_stand(serial="W-1", family="wick-1", purpose="", stand=None, promised=None, by=lead)
        self.lead, self.builder = lead, User.objects.get(username="bo")
        self.at = timezone.now() - timedelta(days=2)

    def engine(self):
        return Engine.objects.at_the_bench().get(pk="W-1")

    def build(self, until=""):
        """The whole run, ten minutes a step."""
        document = bridge.document_of(self.engine().revision_id)
        while (question := next_question(state := bridge.ledger_of(self.engine()).shown)) and question.key != until:
            self.at += timedelta(minutes=10)
            by = self.lead if question.kind in ("hold_point", "sign_off") else self.builder
            body = bridge.HOUSE.bodies.validate_python(answer(state, question, document))
            with patch("django.utils.timezone.now", return_value=self.at):
                services.record("W-1", entry_id=uuid.uuid4(), body=body, by=by, proof=services.PROVEN)

    def row(self):
        return next(row for row in self.client.get("/api/engines").json()["rows"] if row["serial"] == "W-1")

    def test_the_floor_shows_the_oil_change_until_it_is_done(self):
        self.build()
        row = self.row()
        self.assertEqual((row["signed"], row["after"], row["loose_ends"]), (True, "Early oil change", 0))
        due = datetime.fromisoformat(row["after_at"])
        self.assertEqual((due - self.at).days, 13)  # fourteen from the first start, one entry before
        self.assertIn("whichever comes first", first_start_page(self.engine()))
        self.must({"kind": "oil_change", "done": True, "reason": "10.5 h"}, serial="W-1")
        self.assertEqual(self.row()["after"], "")
        self.refused(self.enter({"kind": "oil_change", "done": True}, serial="W-1"), 422, "entry.kind", "already")

    def test_the_floor_says_on_whom_it_waits(self):
        """A builder, the lead who signs, what was set aside; and by that it is found."""
        self.assertEqual(self.row()["waits_on"], "builder")
        self.build(until="sign_off")
        self.assertEqual(self.row()["waits_on"], "lead")
        found = self.client.get("/api/engines?waits_on=lead").json()["rows"]
        self.assertEqual([row["serial"] for row in found], ["W-1"])
        self.must(
            {"kind": "engine_moved", "stand": None, "builder": "bo", "whereabouts": "set aside", "reason": "the gasket"}, serial="W-1"
        )
        self.assertEqual(self.row()["waits_on"], "aside")
        self.assertEqual(self.client.get("/api/engines?waits_on=us").status_code, 422)

    def test_a_card_is_handed_out_once_it_is_measured(self):
        at = "/api/engines/W-1/measured.json"
        self.refused(self.client.get(at), 409, "", "no cam without a card measured")
        add_revision({**family_data("wick-1"), "cam_card": []}, by=None)
        self.sign_in("lena")
        self.must({"kind": "revision", "number": 2, "reason": "the card was another engine's"}, serial="W-1")
        self.build(until="cam:cam")
        card = self.client.get(at).json()["cam_card"]
        self.assertEqual([(line["valve"], line["tolerance_deg"]) for line in card], [("intake", None), ("exhaust", None)])

    def test_only_the_lead_does_without_and_says_why(self):
        self.refused(self.enter({"kind": "oil_change", "done": True}, serial="W-1"), 422, "entry.kind", "before the first start")
        self.build()
        waived = {"kind": "oil_change", "done": False, "reason": "sold to a museum"}
        self.refused(self.enter(waived, serial="W-1", because="sold"), 409, "entry.done", "only the lead")
        self.sign_in("lena")
        self.must(waived, serial="W-1", because="sold to a museum")
        self.assertEqual(self.row()["after"], "")

    def test_the_shops_own_times_take_the_place_of_the_books(self):
        before = self.row()["left_minutes"]
        for serial in ("W-7", "W-8", "W-9"):
            engine = Engine.objects.create(serial=serial, revision=self.engine().revision)
            StepTime.objects.create(engine=engine, family="wick-1", step="wire-on", minutes=41)
        bridge._kept.clear()
        self.must({"kind": "note", "text": "begun"}, serial="W-1")
        self.assertEqual(self.row()["left_minutes"], before + 40)  # the book says one minute
        questions = {q["key"]: q for step in self.client.get("/api/engines/W-1").json()["state"]["steps"] for q in step["questions"]}
        self.assertEqual(questions["wire-on"]["minutes"], 41)

    def test_how_long_a_step_took_is_kept_and_a_nights_rest_is_not(self):
        self.build(until="barrel")
        taken = dict(StepTime.objects.values_list("step", "minutes"))
        self.assertAlmostEqual(taken["bore-fit"], 10, delta=0.1)
        self.at += timedelta(hours=14)
        self.build(until="studs")
        self.assertNotIn("barrel", dict(StepTime.objects.values_list("step", "minutes")))

    def test_it_is_told_when_an_engine_will_be_done_by_the_shops_hours(self):
        self.assertIsNotNone(self.row()["expected"])
        self.sign_in("lena")
        chosen = {"alone_minutes": 0, "day_begins": "06:00", "day_ends": "14:00", "works_saturdays": True}
        self.assertEqual(self.client.put("/api/people/choices", chosen, content_type=JSON).status_code, 200)
        self.assertEqual(
            self.client.get("/api/people/choices").json(),
            {**chosen, "second_lead_looks": False, "instrument_hosts": "", "day_begins": "06:00:00", "day_ends": "14:00:00"},
        )
        answer = self.client.put("/api/people/choices", {**chosen, "day_ends": "05:00"}, content_type=JSON)
        self.refused(answer, 422, "day_ends", "before it begins")
