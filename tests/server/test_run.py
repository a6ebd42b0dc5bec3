"""The run of work through the API: who may, what is refused where, and that one entry of two is the one that holds."""

from django.contrib.auth.models import User

from demo.documents import family_data
from engine.services import add_revision
from tests.engines import family_copy
from tests.server.cases import ShopCase
from work.models import Engine
from work.record.sheets import check_sheet_page
from work.services import put_on_stand


class RunTests(ShopCase):
    def setUp(self):
        super().setUp()
        lead = User.objects.get(username="lena")
        add_revision(family_data("wick-1"), by=lead)
        put_on_stand(serial="W-1", family="wick-1", purpose="sprayer", stand=None, promised=None, by=User.objects.get(username="bo"))

    def done(self, step, **answers):
        return self.enter(
            {"kind": "step_done", "step": step, "answers": {k.replace("_", "-"): v for k, v in answers.items()}}, serial="W-1"
        )

    def questions(self):
        bench = self.client.get("/api/engines/W-1").json()
        return {question["key"]: question for step in bench["state"]["steps"] for question in step["questions"]}

    def test_a_step_is_recorded_and_the_tape_says_what_it_was_called(self):
        bench = self.done("wire-on").json()
        self.assertEqual((bench["tape"][0]["title"], bench["tape"][0]["value"]), ("Chain on a wire", "done"))
        self.assertEqual((bench["state"]["permission"]["free"], bench["state"]["loose_ends"][0]["by"]), (False, "Bo"))

    def test_refusals_name_the_answer_they_are_about(self):
        self.refused(self.done("look", found="fine"), 422, "entry.answers.found", "Choose one of good")
        self.refused(self.done("barrel"), 422, "entry.step", "first")
        self.refused(self.done("nowhere"), 422, "entry.step", "load the bench again")
        self.refused(self.done("bore-fit", piston_clearance="0.4"), 409, "entry.answers.piston-clearance", "the lead decides")

    def test_a_step_from_an_old_screen_is_refused_with_what_happened_meanwhile(self):
        self.must({"kind": "step_done", "step": "wire-on"}, serial="W-1")
        self.refused(self.done("wire-on"), 422, "entry.step", "done already")

    def test_only_a_lead_leaves_a_step_out_and_only_another_signs_its_hold_point(self):
        skip = {"kind": "step_skipped", "step": "look", "reason": "a new cam"}
        self.refused(self.enter(skip, serial="W-1"), 403, "", "Only the lead")
        self.sign_in("lena")
        self.must(skip, serial="W-1")
        self.assertEqual(self.questions()["look"]["status"], "done")
        self.refused(self.enter({"kind": "hold_point", "step": "closed"}, serial="W-1"), 403, "password", "PIN or password")
        self.confirm({"kind": "hold_point", "step": "closed"}, serial="W-1")
        self.refused(self.enter({"kind": "hold_point", "step": "closed"}, serial="W-1"), 422, "entry.step", "not done yet")

    def test_an_engine_begun_before_its_run_was_written_is_moved_on_to_it(self):
        self.sign_in("lena")
        add_revision({**family_copy("teasel-4")}, by=None)
        engine = put_on_stand(serial="T-9", family="teasel-4", purpose="", stand=None, promised=None, by=User.objects.get(username="lena"))
        add_revision(family_data("teasel-4"), by=None)
        moved = self.must({"kind": "revision", "number": 2, "reason": "its run is written now"}, serial="T-9")
        self.assertTrue(moved["state"]["run"]["is_planned"])
        self.assertEqual(Engine.objects.get(pk=engine.pk).revision.number, 2)

    def test_check_sheet_and_labels_are_printed_by_what_the_book_says(self):
        self.must({"kind": "step_done", "step": "wire-on"}, serial="W-1")
        for path in ("run.pdf", "labels.pdf"):
            sheet = self.client.get(f"/api/engines/W-1/{path}")
            self.assertEqual((sheet.headers["Content-Type"], sheet.content[:4]), ("application/pdf", b"%PDF"))
        page = check_sheet_page(Engine.objects.at_the_bench().get(pk="W-1"))
        self.assertRegex(page, r'box done"></span>Chain on a wire')
        self.assertRegex(page, r"box\"></span>Covers looked at <span class=\"soft\">hold point")
        self.assertRegex(page, r"cam chain <span class=\"soft\">new; lot")

    def test_the_floor_shows_stages_what_is_left_and_what_runs_by_the_clock(self):
        row = next(row for row in self.client.get("/api/engines").json()["rows"] if row["serial"] == "W-1")
        self.assertEqual([bead["title"] for bead in row["beads"]][:3], ["Receive", "Cylinder", "True TDC"])
        self.assertGreater(row["left_minutes"], 60)
        self.assertEqual((row["clock"], row["clock_at"]), ("", None))
