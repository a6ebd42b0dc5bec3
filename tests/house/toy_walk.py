"""The toy room through the API. Run by ``test_toy_room`` in a process of its own, whose settings name the room."""

import json
from datetime import timedelta

from django.contrib.auth.models import User
from django.template.loader import render_to_string
from django.utils import timezone

from config.api import api
from demo.documents import family_data
from engine.services import add_revision
from shop.models import Gauge
from tests.engines import SETUP
from tests.server.cases import ShopCase
from work.models import Engine
from work.record.paper import shown_on_paper
from work.services import put_on_stand

TIE = {"kind": "toy_tether", "tied": True, "colour": "blue", "gauge": ""}


class ToyWalk(ShopCase):
    def test_it_is_recorded_asked_for_held_back_struck_and_handed_over(self):
        bench = self.client.get("/api/engines/T-1").json()
        self.assertIn("Tie the tether", [step["title"] for step in bench["state"]["steps"]])
        bench = self.must(SETUP)
        self.assertTrue(bench["state"]["permission"]["free"])
        bench = self.must(TIE)
        line = bench["tape"][0]
        self.assertEqual((line["title"], line["value"], line["detail"]), ("Tether", "on", "blue"))
        self.assertEqual(bench["state"]["toy"], {"tied": True})
        self.assertEqual([end["title"] for end in bench["state"]["loose_ends"]], ["Tether tied on"])
        self.assertFalse(bench["state"]["permission"]["free"])
        self.refused(self.enter({"kind": "turn", "to": "30"}), 422, "entry.kind", "tether tied on: take it off first")
        self.refused(self.enter(TIE), 422, "entry.tied", "It is so already")
        record = json.loads(self.client.get("/api/engines/T-1/record.json").getvalue())
        self.assertEqual((record["entries"][1]["body"], record["entries"][1]["si_values"]), (TIE, {"tether_n": 9.5}))
        self.assertEqual(self.client.get("/api/engines/T-1/record.pdf").status_code, 200)
        self.assertEqual(self.client.get("/api/engines").json()["rows"][0]["loose_ends"], 1)
        bench = self.must({"kind": "strike", "strikes": line["id"], "reason": "wrong engine"})
        self.assertEqual((bench["state"]["loose_ends"], bench["state"]["permission"]["free"]), ([], True))
        self.must({"kind": "turn", "to": "30"})

    def test_what_may_be_taken_all_the_same_is_asked_back(self):
        self.must(SETUP)
        red, black = {**TIE, "colour": "red"}, {**TIE, "colour": "black"}
        for body, way_out in ((red, "reason"), (black, "lead and reason")):
            answer = self.enter(body)
            self.refused(answer, 409, "entry.colour", "take another")
            self.assertEqual(answer.json()["way_out"], way_out)
        self.refused(self.enter(black, because="no other"), 409, "entry.colour", "cannot be seen")
        self.sign_in("lena")
        bench = self.must(black, because="no other at hand")
        self.assertEqual(bench["tape"][0]["because"], "no other at hand")
        record = json.loads(self.client.get("/api/engines/T-1/record.json").getvalue())
        self.assertEqual(record["entries"][-1]["because"], "no other at hand")

    def test_it_is_asked_for_in_a_step_of_a_run_and_its_gauge_is_looked_at(self):
        """What stands before the run's first step keeps it waiting; a wrench past its day is taken for a reason."""
        add_revision(family_data("wick-1"), by=None)
        put_on_stand(serial="R-1", family="wick-1", purpose="", stand=3, promised=None, by=User.objects.get(username="bo"))
        first = self.client.get("/api/engines/R-1").json()["state"]["steps"][0]
        self.assertEqual((first["status"], first["questions"][0]["kind"]), ("now", "toy_tether"))
        Gauge.objects.filter(code="T1").update(due=timezone.localdate() - timedelta(days=1))
        self.refused(self.enter({**TIE, "gauge": "T9"}, serial="R-1"), 422, "entry.gauge", "no wrench called T9")
        self.refused(self.enter({**TIE, "gauge": "T1"}, serial="R-1"), 409, "entry.gauge", "ran out")
        self.must({**TIE, "gauge": "T1"}, serial="R-1", because="no other")
        bench = self.must({**TIE, "tied": False}, serial="R-1")
        self.assertNotIn("toy_tether", [one["kind"] for one in bench["state"]["steps"][0]["questions"] if one["status"] == "open"])

    def test_its_page_of_the_record_and_its_line_on_the_first(self):
        self.must(SETUP)
        self.must(TIE)
        shown = shown_on_paper(Engine.objects.get(pk="T-1"))
        paper = next(one for one in shown["papers"] if one["title"] == "The tether")
        self.assertEqual((paper["tables"][0]["rows"][0]["cells"], paper["says"]), ([("2", ""), ("on", "")], "the running way"))
        self.assertIn({"what": "Tether", "wanted": "off", "got": "on", "word": "out", "look": "out"}, shown["judged"])
        self.assertIn("The tether", render_to_string("work/record.html", shown))

    def test_its_table_is_offered_once_something_stands_in_it(self):
        self.must(SETUP)
        self.assertEqual(self.client.get("/api/engines/T-1/tables").json(), [])
        self.assertEqual(self.client.get("/api/engines/T-1/tethers.csv").getvalue(), b"tied_at\r\n")
        self.must(TIE)
        self.assertEqual(self.client.get("/api/engines/T-1/tables").json(), [{"name": "tethers", "title": "Tethers", "rows": 1}])
        self.assertEqual(self.client.get("/api/engines/T-1/tethers.csv").getvalue(), b"tied_at\r\n2\r\n")

    def test_it_is_in_the_api_document(self):
        document = json.dumps(api.get_openapi_schema())
        for name in ("Tether", "TetherQuestion", "ToyView"):
            self.assertIn(f'"{name}"', document)
