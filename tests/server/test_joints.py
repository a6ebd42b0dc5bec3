"""Joints through the API: entries refused or asked about with their field, what they carry, what is handed over."""

import json

from django.contrib.auth.models import User

from engine.services import add_revision
from gurvo_core.joints.job.kept import keep_trace
from tests.core.test_trace import pulled
from tests.engines import family_copy_with_run
from tests.server.cases import ShopCase
from tests.server.played import play_until
from work import bridge
from work.models import Engine, Entry
from work.record import as_json
from work.record.paper import as_pdf


class JointCase(ShopCase):
    family = "wick-1"

    def setUp(self):
        super().setUp()
        revision = add_revision(family_copy_with_run(self.family), by=None)
        Engine.objects.create(serial="W-1", revision=revision, builder=User.objects.get(username="bo"))

    @property
    def engine(self):
        return Engine.objects.at_the_bench().get(pk="W-1")

    @property
    def ledger(self):
        return bridge.ledger_of(self.engine)

    def enter(self, body, **how):
        return super().enter(body, "W-1", **how)

    def refused(self, body, status, field, words, **how):
        response = self.enter(body, **how)
        self.assertEqual(response.status_code, status, response.content)
        self.assertEqual(response.json()["field"], f"entry.{field}")
        self.assertIn(words, response.json()["sentence"].lower())
        return response.json()


READY = {"kind": "joint_ready", "step": "studs", "threads": "oiled", "wrench": "T1"}
PULL = {"kind": "pull", "step": "studs", "stage": 1, "fastener": "all"}


class EntryTests(JointCase):
    def setUp(self):
        super().setUp()
        play_until("W-1", "studs")

    def test_what_is_refused_and_what_is_asked(self):
        self.refused(PULL, 422, "step", "first say how the threads are")
        self.refused({**READY, "wrench": "W1"}, 422, "wrench", "no wrench called w1")
        self.refused({**READY, "wrench": "T3"}, 422, "wrench", "begins at 40 n·m")
        said = self.refused({**READY, "threads": "dry"}, 409, "threads", "dry the same torque")
        self.assertEqual(said["way_out"], "reason")
        self.assertEqual(self.enter({**READY, "threads": "dry"}, because="no oil in the house").status_code, 201)
        self.refused({**PULL, "fastener": "9"}, 422, "fastener", "no such pull")
        self.refused({**PULL, "stage": 2, "fastener": "1"}, 422, "stage", "still has")
        self.refused({"kind": "bolt", "step": "studs", "fastener": "2", "found": "loose", "note": "x"}, 422, "fastener", "not been pulled")

    def test_a_pull_keeps_its_figures_its_wrench_and_what_was_asked(self):
        self.enter(READY)
        self.enter(PULL)
        typed = {"text": "7.4", "unit": "lbf·ft"}
        response = self.enter({**PULL, "stage": 2, "fastener": "1", "torque": typed, "wrench": "T1"})
        self.assertEqual(response.status_code, 201)
        row = Entry.objects.latest("seq")
        self.assertEqual((row.body["asked"], row.body["joint"], row.body["torque"]), ("10 N·m", "Stud nuts", typed))
        self.assertAlmostEqual(row.si_values["torque_nm"], 10.033, delta=0.001)
        self.assertEqual([(gauge["id"], gauge["most"]) for gauge in row.gauges], [("T1", 25)])
        line = response.json()["tape"][0]
        self.assertEqual((line["title"], line["value"]), ("Stud nuts 1, stage 2", "10 N·m · 7.4 lbf·ft"))

    def test_only_those_who_build_pull(self):
        self.sign_in("vi")
        self.assertEqual(self.enter(READY).status_code, 403)

    def test_an_answer_has_the_joint_that_is_worked_on_and_no_other(self):
        self.enter(READY)
        state = self.enter(PULL).json()["state"]
        joint = state["joints"]["joint"]
        self.assertEqual((joint["name"], [spot["id"] for spot in joint["spots"]]), ("Stud nuts", ["1", "2", "3", "4"]))
        self.assertEqual([stage["done"] for stage in joint["stages"]], [1, 0, 0])
        step = next(step for step in state["steps"] if step["key"] == "studs")
        self.assertEqual([question["fastener"] for question in step["questions"] if question["kind"] == "pull"], ["1", "2", "3"])

    def test_a_trace_is_kept_shown_and_handed_out(self):
        self.enter(READY)
        self.enter(PULL)
        kept = keep_trace(pulled("galled", to_nm=40)).model_dump()
        body = {**PULL, "stage": 2, "fastener": "1", "torque": {"text": "10", "unit": "N·m"}, "trace": kept}
        self.assertEqual(self.enter(body).status_code, 201)
        (line,) = self.client.get("/api/engines/W-1/joints/studs/traces").json()
        self.assertIn("galled", line["flags"][0])
        self.assertEqual(len(line["angle_deg"]), len(line["torque_nm"]))
        table = b"".join(self.client.get("/api/engines/W-1/joints/studs/traces.csv").streaming_content).decode().splitlines()
        self.assertEqual((table[0], len(table)), ("fastener,stage,round,angle_deg,torque_nm", 1 + len(line["angle_deg"])))
        self.refused({**body, "fastener": "2", "trace": {**kept, "packed": "nothing"}}, 422, "trace", "not packed as traces are")

    def test_a_struck_pull_gives_its_step_back(self):
        self.enter(READY)
        self.enter(PULL)
        for stage in (2, 3):
            for bolt in "1234":
                last = self.enter({**PULL, "stage": stage, "fastener": bolt})
        done = {step["key"]: step["status"] for step in last.json()["state"]["steps"]}
        self.assertEqual(done["studs"], "done")
        strike = {"kind": "strike", "strikes": str(Entry.objects.latest("seq").pk), "reason": "wrong nut"}
        state = self.enter(strike).json()["state"]
        self.assertEqual((state["current"], state["joints"]["joint"]["stages"][2]["done"]), ("studs", 3))


class HandedOverTests(JointCase):
    family = "mallow-2"

    def test_the_record_has_the_pulls_and_paper_says_what_is_generic(self):
        play_until("W-1", "cam:cam")
        record = json.loads("".join(as_json(self.engine)))
        pulls = [entry["body"] for entry in record["entries"] if entry["body"]["kind"] == "pull"]
        self.assertEqual({pull["joint"] for pull in pulls}, {"Thrust plate bolts"})
        paper, *rest = [one for one in bridge.HOUSE.papers(self.ledger.folded) if one.title == "Thrust plate bolts"]
        self.assertIn("generic figure", paper.warns)
        self.assertEqual((paper.dots, rest), ((), []))
        self.assertTrue(as_pdf(self.engine).startswith(b"%PDF"))

    def test_a_familys_page_shows_its_orders_before_use(self):
        joints = self.client.get("/api/families/mallow-2").json()["joints"]
        self.assertEqual([(joint["name"], joint["is_to_scale"]) for joint in joints], [("Thrust plate bolts", False)])
        self.assertEqual([stage["words"] for stage in joints[0]["stages"]], ["generic torque"])
