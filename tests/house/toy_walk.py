"""The toy room through the API. Run by ``test_toy_room`` in a process of its own, whose settings name the room."""

import json

from config.api import api
from tests.engines import SETUP
from tests.server.cases import ShopCase

TIE = {"kind": "toy_tether", "tied": True, "colour": "blue"}


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

    def test_it_is_in_the_api_document(self):
        document = json.dumps(api.get_openapi_schema())
        for name in ("Tether", "TetherQuestion", "ToyView"):
            self.assertIn(f'"{name}"', document)
