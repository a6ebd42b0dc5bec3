"""The clearway through the API: maps and gaps, who may tell where a shaft stands, what is refused where, and what paper says."""

from unittest.mock import patch

from django.contrib.auth.models import User

from demo.documents import family_data
from engine.services import add_revision
from tests.server.cases import ShopCase
from tests.server.played import play_until
from work.models import Engine
from work.record.paper import as_pdf
from work.services import put_on_stand

GAP = {"kind": "gap_measured", "camshaft": "intake", "cylinder": 1, "valve": "intake", "how": "clay"}
LINE = {"of": "intake-line", "clock": "11"}


class ClearwayCase(ShopCase):
    def setUp(self):
        super().setUp()
        add_revision(family_data("teasel-4"), by=None)
        put_on_stand(serial="V-1", family="teasel-4", purpose="tractor", stand=None, promised=None, by=User.objects.get(username="bo"))

    def say(self, body):
        return self.enter(body, serial="V-1")

    def look(self, path, **query):
        return self.client.get(f"/api/engines/V-1/clearway{path}", query)


class MapTests(ClearwayCase):
    def test_an_engine_and_its_family_have_the_same_maps_until_something_is_measured(self):
        own, family = self.look("/map", first="crank", second="intake").json(), "/api/families/teasel-4/revisions/1/clearway"
        self.assertEqual(own, self.client.get(f"{family}/map", {"first": "crank", "second": "intake"}).json())
        self.assertTrue(any(own["meets"]))
        shown = self.look("").json()
        self.assertEqual(shown, self.client.get(family).json())
        play_until("V-1", "plate-in")
        self.assertEqual(self.say({**GAP, "how": "dial", "gap": {"text": "3.0", "unit": "mm"}}).status_code, 201)
        nearer = self.look("").json()["gaps"][0]
        self.assertEqual((nearer["words"], nearer["known_by"]), ("intake 1 to piston 1", "measured"))
        self.assertLess(nearer["gap_mm"], shown["gaps"][0]["gap_mm"])
        self.assertNotEqual(self.look("/map", first="crank", second="intake").json(), own)

    def test_a_place_says_what_is_nearest(self):
        here = self.look("/at", first="crank", second="intake", at=0, to=110).json()
        self.assertEqual(here["gaps"][0]["words"], "intake 4 to piston 4")
        self.assertLess(here["gaps"][0]["gap_mm"], here["gaps"][0]["expanded_mm"])

    def test_what_there_is_no_map_of_is_said_with_what_there_is(self):
        self.refused(self.look("/map", first="crank", second="left"), 422, "second", "crank and intake")
        self.refused(self.look("/at", first="crank", second="intake", at=720, to=0), 422, "at", "")
        self.assertEqual(self.client.get("/api/engines/V-9/clearway").status_code, 404)
        self.client.logout()
        self.assertEqual(self.look("").status_code, 401)

    def test_of_an_engine_of_which_little_is_known_it_says_what_the_firing_order_tells_and_what_would_add_most(self):
        for code, parks, adds in (
            ("holm-d4", "Near the top: pistons 1 and 4", "heads"),
            ("scar-v6", "", "In which order its cylinders fire"),
        ):
            add_revision(family_data(code), by=None)
            shown = self.client.get(f"/api/families/{code}/revisions/1/clearway").json()
            self.assertEqual((shown["gaps"], {cam["is_known"] for cam in shown["cams"]}), ([], {False}))
            self.assertIn(parks, " ".join(words for park in shown["parks"] for words in park["words"]))
            self.assertIn(adds, shown["would_add"])


class ToldTests(ClearwayCase):
    REFUSED = (
        ({"kind": "shaft_seen", "shaft": "left", "at": LINE}, "entry.shaft"),
        ({"kind": "shaft_seen", "shaft": "intake", "at": {"of": "exhaust-line", "clock": "11"}}, "entry.at.of"),
        ({"kind": "shaft_seen", "shaft": "intake", "at": {"of": "intake-line", "clock": "half"}}, "entry.at.clock"),
        ({"kind": "shaft_seen", "shaft": "intake", "at": {**LINE, "seen_from": "above"}}, "entry.at.seen_from"),
        ({**GAP, "gap": {"text": "-1", "unit": "mm"}}, "entry.gap.text"),
        ({**GAP, "gap": {"text": "2", "unit": "N·m"}}, "entry.gap.text"),
        ({**GAP, "camshaft": "exhaust", "gap": {"text": "2", "unit": "mm"}}, "entry.valve"),
        ({**GAP, "gap": {"text": "2", "unit": "mm"}, "gauge": "Z9"}, "entry.gauge"),
        ({**GAP, "how": "by eye", "gap": {"text": "2", "unit": "mm"}}, "entry.how"),
        ({"kind": "way_left", "step": "nowhere", "reason": "by feel"}, "entry.step"),
        ({"kind": "way_left", "step": "plate-in", "reason": " "}, "entry.reason"),
    )

    def test_each_refusal_names_its_field_and_keeps_nothing(self):
        play_until("V-1", "plate-in")
        before = len(self.client.get("/api/engines/V-1").json()["tape"])
        for body, field in self.REFUSED:
            with self.subTest(body["kind"], field=field):
                answer = self.say(body)
                self.assertEqual((answer.status_code, answer.json()["field"]), (422, field), answer.content)
                self.assertTrue(answer.json()["sentence"].endswith("."))
        self.assertEqual(len(self.client.get("/api/engines/V-1").json()["tape"]), before)

    def test_a_viewer_tells_nothing(self):
        self.sign_in("vi")
        self.refused(self.say({"kind": "shaft_seen", "shaft": "intake", "at": LINE}), 403, "", "")

    def test_a_turn_that_would_bend_a_valve_needs_its_reason(self):
        play_until("V-1", "plate-in")
        for shaft, clock in (("intake", "11"), ("exhaust", "1")):
            self.say({"kind": "shaft_seen", "shaft": shaft, "at": {"of": f"{shaft}-line", "clock": clock}})
        question = self.client.get("/api/engines/V-1").json()["state"]["steps"]
        asked = next(one for step in question for one in step["questions"] if one["kind"] == "clearway_move")
        self.assertTrue(asked["ways"][0]["moves"])
        turned = {"kind": "shaft_turned", "shaft": "intake", "by_deg": 180, "then": "stands"}
        self.refused(self.say(turned), 409, "entry.by_deg", "meets")


class PaperTests(ClearwayCase):
    def test_gaps_stand_on_the_record_with_what_was_measured(self):
        play_until("V-1", "pointer-again")
        self.say({**GAP, "gap": {"text": "2.15", "unit": "mm"}})
        with patch("work.record.paper.pdf_of", side_effect=lambda page, *_: page.encode()):
            page = as_pdf(Engine.objects.at_the_bench().get(pk="V-1")).decode()
        self.assertIn("Gaps of valves", page)
        self.assertIn("2.15 ± 0.20", page)
        self.assertIn("exhaust 1 to piston 1", page)
        put_on_stand(serial="V-2", family="teasel-4", purpose="", stand=None, promised=None, by=User.objects.get(username="bo"))
        with patch("work.record.paper.pdf_of", side_effect=lambda page, *_: page.encode()):
            self.assertNotIn("Gaps of valves", as_pdf(Engine.objects.at_the_bench().get(pk="V-2")).decode())
