"""Little-known engines through the API: who may say what, what is refused where, and what paper and the next revision hold."""

import json
import uuid
from unittest.mock import patch

from django.contrib.auth.models import User

from demo.documents import family_data
from engine.services import add_revision
from gurvo_core.reading import read_document
from tests.server.cases import JSON, ShopCase
from tests.server.played import play_until
from work.models import Engine
from work.record.paper import as_pdf
from work.services import put_on_stand

CRANK = "/drive/wheels/crank-wheel/teeth"


class LittleKnownCase(ShopCase):
    def setUp(self):
        super().setUp()
        add_revision(family_data("heath-4"), by=None)
        put_on_stand(serial="H-1", family="heath-4", purpose="pump", stand=None, promised=None, by=User.objects.get(username="bo"))

    def say(self, kind, **body):
        return self.enter({"kind": kind, **body}, serial="H-1")

    def bench(self):
        return self.client.get("/api/engines/H-1").json()


class FoundTests(LittleKnownCase):
    def test_a_found_fact_is_checked_kept_and_handed_on(self):
        play_until("H-1", f"belt-on:{CRANK}")
        found = {"pointer": CRANK, "how": "counted"}
        self.refused(self.say("found", **found, value="many"), 422, "entry.value", "“many” is not a number")
        self.refused(self.say("found", **{**found, "pointer": "/identity/name"}, value="7"), 422, "entry.pointer", "")
        self.assertEqual(self.say("found", **found, value="24").status_code, 201)
        self.refused(self.say("found", **found, value="22"), 422, "entry.value", "24 was found there by Bo")
        handed = self.client.get("/api/engines/H-1/measured.json").json()
        self.assertEqual(read_document(handed).drive.wheel("crank-wheel").teeth, 24)

    def test_a_viewer_finds_nothing(self):
        self.sign_in("vi")
        self.refused(self.say("found", pointer=CRANK, value="24", how="counted"), 403, "", "")


class WalkedTests(ShopCase):
    """A document is gone through before it is taken in."""

    def text(self, change=lambda data: None):
        data = family_data("heath-4")
        change(data)
        return {"text": json.dumps(data)}

    def test_how_far_it_goes_is_said_and_where_it_sticks(self):
        whole = self.client.post("/api/families/walk", self.text(), content_type=JSON).json()
        self.assertEqual(whole["stuck"], [])
        self.assertGreater(whole["entries"], whole["steps"])

    def test_a_run_that_nobody_gets_through_is_not_taken_in(self):
        def hold(data):
            steps = next(stage["steps"] for stage in data["stages"] if stage["id"] == "belt-stage")
            next(step for step in steps if step["id"] == "belt-on")["needs"] = [{"held": "cam"}]

        self.sign_in("lena")
        answer = self.client.post("/api/families", {**self.text(hold), "remark": ""}, content_type=JSON)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("gets stuck before “Belt from the crank", answer.json()["faults"][0]["sentence"])


class ProofTests(LittleKnownCase):
    def test_a_mark_that_nobody_answered_for_is_named_in_the_refusal(self):
        play_until("H-1", "turn")
        self.refused(
            self.say("turn_seen", step="turn", stop=1, saw="meets", looks=[]), 422, "entry.looks.crank-notch", "otch of the crank wheel"
        )

    def test_only_a_lead_gives_his_word_or_takes_marks_as_they_are(self):
        play_until("H-1", "turn")
        for body in (
            {"kind": "cam_word", "camshaft": "cam", "reason": "turned by me"},
            {"kind": "marks_taken", "step": "turn", "reason": "half a tooth is allowed"},
        ):
            with self.subTest(body["kind"]):
                self.refused(self.enter(body, serial="H-1"), 403, "", "Only the lead")

    def test_a_word_needs_its_reason_and_a_cam_that_there_is(self):
        self.sign_in("lena")
        self.refused(self.say("cam_word", camshaft="cam", reason=" "), 422, "entry.reason", "")
        self.refused(self.say("cam_word", camshaft="left", reason="turned by me"), 422, "entry.camshaft", "")

    def test_floor_record_and_bench_say_the_proof_there_is(self):
        play_until("H-1", "")
        self.assertEqual(self.bench()["state"]["hand_over"]["proofs"][0]["by"], "marks")
        row = next(one for one in self.client.get("/api/engines").json()["rows"] if one["serial"] == "H-1")
        self.assertIn("marks", row["proof"])
        with patch("work.record.paper.pdf_of", side_effect=lambda page, *_: page.encode()):
            page = as_pdf(Engine.objects.at_the_bench().get(pk="H-1")).decode()
        self.assertIn("dot of the cam wheel met after 2 turns by hand", page)
        self.assertNotIn('class="arc', page)  # no timing diagram of angles that nobody knows


class RefusedTests(LittleKnownCase):
    """One clear sentence, with the field it is about, whatever is sent; nothing is kept of it."""

    REFUSED = (
        ({"kind": "trouble", "step": "turn", "what": "smell", "note": ""}, "entry.what"),
        ({"kind": "trouble", "step": "nowhere", "what": "noise", "note": "a click"}, "entry.step"),
        ({"kind": "shaft_turned", "shaft": "left", "then": "stands"}, "entry.shaft"),
        ({"kind": "shaft_turned", "shaft": "cam", "then": "fell"}, "entry.then"),
        ({"kind": "own_mark", "name": "", "meets": "the head"}, "entry.name"),
        ({"kind": "found", "pointer": CRANK, "value": "24", "how": "guessed"}, "entry.how"),
        ({"kind": "found", "pointer": "/nowhere/teeth", "value": "24", "how": "counted"}, "entry.pointer"),
        ({"kind": "not_known", "pointer": "/identity/name"}, "entry.pointer"),
        ({"kind": "turn_seen", "step": "turn", "stop": 0, "saw": "meets"}, "entry.stop"),
        ({"kind": "turn_seen", "step": "turn", "stop": 1, "saw": "nearly"}, "entry.saw"),
        ({"kind": "thing", "thing": "hammer", "on": True}, "entry.thing"),
    )

    def test_each_names_its_field(self):
        play_until("H-1", "turn")
        before = len(self.bench()["tape"])
        for body, field in self.REFUSED:
            with self.subTest(body["kind"], field=field):
                answer = self.enter(body, serial="H-1")
                self.assertEqual((answer.status_code, answer.json()["field"]), (422, field), answer.content)
                self.assertTrue(answer.json()["sentence"].endswith("."))
        self.assertEqual(len(self.bench()["tape"]), before)

    def test_looks_say_which_mark_they_are_about(self):
        play_until("H-1", "turn")
        for looks, field in (
            ([{"of": "crank-notch", "saw": "nearly"}], "entry.looks.0.saw"),
            ([{"of": "letter", "saw": "meets"}], "entry.looks.letter"),
            ([{"of": "crank-notch", "saw": "off", "teeth": -1}], "entry.looks.0.teeth"),
        ):
            with self.subTest(field):
                answer = self.say("turn_seen", step="turn", stop=1, saw="meets", looks=looks)
                self.assertEqual((answer.status_code, answer.json()["field"]), (422, field), answer.content)

    def test_a_viewer_makes_none_of_them(self):
        self.sign_in("vi")
        for body, _ in self.REFUSED[1:6]:
            with self.subTest(body["kind"]):
                self.assertIn(self.enter(body, serial="H-1").status_code, (403, 422))
        self.assertEqual(self.bench()["tape"], [])

    def test_sending_one_entry_twice_keeps_it_once(self):
        play_until("H-1", f"belt-on:{CRANK}")
        body, name = {"kind": "found", "pointer": CRANK, "value": "24", "how": "counted"}, uuid.uuid4()
        before = len(self.bench()["tape"])
        for status in (201, 200):
            self.assertEqual(self.enter(body, serial="H-1", entry_id=name).status_code, status)
        self.assertEqual(len(self.bench()["tape"]), before + 1)

    def test_what_was_found_is_drawn_by_the_twin(self):
        play_until("H-1", f"belt-on:{CRANK}")
        self.must({"kind": "found", "pointer": CRANK, "value": "24", "how": "counted"}, serial="H-1")
        twin = self.client.get("/api/engines/H-1/twin").json()
        wheel = next(one for one in twin["drawing"]["wheels"] if one["id"] == "crank-wheel")
        self.assertEqual(wheel["teeth"], 24)
