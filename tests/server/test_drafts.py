"""Drafts: begun, answered, undone, written by two leads at once, handed in; whatever is refused is said at its word."""

import json
import uuid

from django.contrib.auth.models import Group, User

from demo.documents import family_data
from engine.models import Revision
from engine.services import add_revision
from shop.models import Shop
from tests.server.cases import JSON, PASSWORD, ShopCase
from tests.server.played import play_until
from work.models import StepTime
from work.services import put_on_stand
from writer.models import DraftEdit

FIVE_MINUTES = {
    "name": "Bracken 4",
    "fuel": "petrol",
    "layout": "inline",
    "cylinders": "4",
    "cams": "two",
    "drives": "belt",
    "passes.belt": "crank, idler back, exhaust, intake, tensioner back",
    "tensioner.belt": "eccentric",
    "known_by": "marks",
    "mark.crank-wheel": "notch to arrow",
    "mark.exhaust-wheel": "dot to line on the head at 12",
    "mark.intake-wheel": "dot",
}


class DraftsCase(ShopCase):
    def setUp(self):
        super().setUp()
        other = User.objects.create_user("greta", password=PASSWORD, first_name="Greta")
        other.groups.add(Group.objects.get(name="lead"))
        self.sign_in("lena")

    def begin(self, **how):
        answer = self.client.post("/api/drafts", how, content_type=JSON)
        self.assertEqual(answer.status_code, 201, answer.content[:300])
        self.draft = answer.json()
        return self.draft

    def ask(self, path="", body=None, method="post"):
        answer = getattr(self.client, method)(f"/api/drafts/{self.draft['id']}{path}", body or {}, content_type=JSON)
        if answer.status_code == 200:
            self.draft = answer.json()
        return answer

    def edit(self, edit, made_on=None):
        return self.ask("/edits", {"edit": edit, "made_on": self.draft["last"] if made_on is None else made_on})

    def answer(self, question, text, **more):
        return self.edit({"does": "answer", "question": question, "text": text, **more})

    def question(self, key):
        return next(one for one in self.draft["view"]["questions"] if one["key"] == key)

    def get(self, path):
        return self.client.get(f"/api/drafts/{self.draft['id']}{path}").json()

    def described(self):
        self.begin()
        for key, text in FIVE_MINUTES.items():
            self.assertEqual(self.answer(key, text).status_code, 200, key)


class AnsweredTests(DraftsCase):
    def test_five_minutes_give_a_document_that_can_be_built_by_and_is_handed_in(self):
        self.described()
        self.assertEqual(self.get("/standing")["faults"], [])
        walk = self.get("/walk")
        self.assertEqual((walk["faults"], walk["stuck"], walk["revision"]), ([], [], 1))
        self.assertGreater(walk["steps"], 20)
        shots = {one["step"]: one for one in walk["shots"]}
        self.assertEqual((shots["park"]["free"], shots["in-cams-row"]["loose_ends"]), (True, []))
        self.assertFalse(shots["let-go-intake"]["free"])  # the holder is on: nothing turns
        self.assertIn("holder", " ".join(shots["let-go-intake"]["loose_ends"]).lower())
        answer = self.ask("/hand-in", {"remark": "as it stands here"})
        self.assertEqual((answer.status_code, answer.json()), (201, {"family": "bracken-4", "revision": 1}))
        self.assertEqual(Revision.objects.get(family="bracken-4").document["identity"]["name"], "Bracken 4")
        self.assertEqual(self.answer("fuel", "diesel").status_code, 409)  # what was handed in is not changed any more

    def test_a_doubt_leads_to_the_question_that_settles_it(self):
        self.described()
        doubt = self.get("/standing")["doubtful"][0]
        self.assertIn("the crank wheel pulls", doubt["sentence"])
        offer = self.question(doubt["question"])["offers"][0]
        self.answer(doubt["question"], offer["text"])
        self.assertEqual(self.get("/standing")["doubtful"], [])

    def test_a_refusal_points_at_the_word_and_keeps_what_there_was(self):
        self.described()
        answer = self.answer("passes.belt", "crank, exhuast, intake")
        problem = answer.json()
        self.assertEqual((answer.status_code, problem["field"]), (422, "edit.text"))
        self.assertIn("“exhuast” is no wheel known here", problem["sentence"])
        self.assertEqual(problem["at"], {"begin": 7, "end": 14})
        self.assertEqual(self.question("passes.belt")["answer"], FIVE_MINUTES["passes.belt"])

    def test_what_does_not_fit_any_more_is_said_and_not_dropped(self):
        self.described()
        self.answer("cams", "one")
        asked = self.question("passes.belt")
        self.assertEqual((asked["status"], asked["answer"]), ("does not fit", FIVE_MINUTES["passes.belt"]))
        self.assertIn("exhaust", asked["why"])

    def test_not_known_is_an_answer_where_it_may_be(self):
        self.begin()
        self.assertEqual(self.answer("cylinders", None).status_code, 200)
        self.assertEqual(self.question("cylinders")["status"], "not known")
        self.assertIn("must be known", self.answer("fuel", None).json()["sentence"])

    def test_undone_and_done_again_without_end(self):
        self.described()
        whole = self.get("/document.json")
        for _ in FIVE_MINUTES:
            self.assertEqual(self.ask("/undo").status_code, 200)
        self.assertEqual(self.ask("/undo").status_code, 409)
        for _ in FIVE_MINUTES:
            self.assertEqual(self.ask("/redo").status_code, 200)
        self.assertEqual(self.get("/document.json"), whole)
        self.ask("/undo")
        self.answer("variant", "the pump's")
        self.assertEqual(self.ask("/redo").status_code, 409)  # something else was written since
        self.assertEqual(DraftEdit.objects.count(), len(FIVE_MINUTES) + 1)  # and what was undone is kept all the same


class TwoLeadsTests(DraftsCase):
    def test_two_write_of_different_things_and_both_stand(self):
        self.described()
        seen = self.draft["last"]
        self.answer("variant", "the pump's")
        self.sign_in("greta")
        self.assertEqual(self.edit({"does": "answer", "question": "fires", "text": "1-3-4-2"}, made_on=seen).status_code, 200)
        self.assertEqual(self.question("variant")["answer"], "the pump's")

    def test_what_somebody_else_wrote_meanwhile_is_said_and_never_written_over_unseen(self):
        self.described()
        seen = self.draft["last"]
        self.answer("fuel", "diesel")
        self.sign_in("greta")
        clash = self.edit({"does": "answer", "question": "fuel", "text": "gas"}, made_on=seen)
        self.assertEqual((clash.status_code, clash.json()["code"]), (409, "meanwhile"))
        self.assertIn("Lena wrote meanwhile: fuel: diesel", clash.json()["sentence"])
        self.ask(method="get")
        self.assertEqual(self.answer("fuel", "gas").status_code, 200)  # seen, and meant all the same

    def test_where_the_shop_wants_it_another_lead_hands_it_in(self):
        Shop.objects.update(second_lead_looks=True)
        self.described()
        self.assertEqual(self.ask("/hand-in").status_code, 403)
        self.sign_in("greta")
        self.assertEqual(self.ask("/hand-in").status_code, 201)


class FromTheBenchTests(DraftsCase):
    def test_what_was_found_left_out_and_how_long_it_took_is_proposed_once(self):
        add_revision(family_data("heath-4"), by=None)
        engine = put_on_stand(serial="H-1", family="heath-4", purpose="pump", stand=None, promised=None, by=User.objects.get(username="bo"))
        crank = "/drive/wheels/crank-wheel/teeth"
        play_until("H-1", f"belt-on:{crank}")
        self.must({"kind": "found", "pointer": crank, "how": "counted", "value": "24"}, serial="H-1")
        self.must({"kind": "step_skipped", "step": "prime", "reason": "it has a hand pump"}, serial="H-1")
        StepTime.objects.bulk_create(StepTime(engine=engine, family="heath-4", step="oil", minutes=31) for _ in range(5))
        self.begin(family="heath-4")
        proposed = {one["edit"]["at"]: one for one in self.get("/proposals")}
        self.assertEqual(proposed[crank]["edit"]["value"], 24)
        self.assertEqual(proposed["/stages/hand-over/steps/prime"]["said"], "left out: it has a hand pump")
        self.assertEqual(proposed["/stages/hand-over/steps/oil/minutes"]["edit"]["value"], 31)
        self.assertEqual(self.edit(proposed[crank]["edit"]).status_code, 200)
        self.assertEqual(self.get("/document.json")["origins"]["/drive/wheels/0/teeth"], {"is": "measured"})
        leave = {"proposal": proposed["/stages/hand-over/steps/prime"]["id"]}
        left = self.client.post(f"/api/drafts/{self.draft['id']}/proposals/leave", leave, content_type=JSON)
        self.assertEqual([one["edit"]["at"] for one in left.json()], ["/stages/hand-over/steps/oil/minutes"])


class BegunTests(DraftsCase):
    def test_from_a_family_an_engine_or_a_file(self):
        quern = family_data("quern-4")
        self.begin(family="quern-4")
        self.assertEqual(self.get("/document.json")["joints"][0]["id"], quern["joints"][0]["id"])
        self.begin(engine="T-1")
        self.assertEqual(self.draft["begun_from"], "T-1, as it was built here")
        self.begin(text="{identity: {family: 'odd'}, /* not finished */}")
        self.assertGreater(len(self.get("/standing")["faults"]), 3)
        self.assertEqual(self.edit({"does": "set", "at": "/identity/name", "value": "Odd"}).status_code, 200)
        self.assertEqual(self.get("/document.json")["identity"], {"family": "odd", "name": "Odd"})

    def test_edits_by_hand_find_their_step_or_say_why_not(self):
        self.described()
        step = {"id": "look", "does": "do", "says": "Look behind the pump"}
        self.assertEqual(self.edit({"does": "add", "to": "/stages/turn/steps", "after": "turn-over", "value": step}).status_code, 200)
        run = {one["id"]: [step["id"] for step in one["steps"]] for one in self.draft["view"]["run"]}
        self.assertEqual(run["turn"][:2], ["turn-over", "look"])
        self.assertEqual(self.edit({"does": "move", "at": "/stages/turn/steps/look", "after": ""}).status_code, 200)
        gone = self.edit({"does": "remove", "at": "/stages/turn/steps/nowhere"})
        self.assertEqual(gone.status_code, 409)
        self.assertIn("“nowhere” is not there any more", gone.json()["sentence"])
        self.answer("drives", None)  # without any drive there is nothing to turn
        lost = [line for line in self.draft["view"]["tape"] if line["lost"]]
        self.assertEqual({line["what"] for line in lost}, {"turn, steps", "steps, look"})

    def test_who_may_and_what_is_refused(self):
        self.begin()
        for role in ("bo", "vi"):
            self.sign_in(role)
            self.assertEqual(self.client.get("/api/drafts").status_code, 200)
            self.assertFalse(self.client.get(f"/api/drafts/{self.draft['id']}").json()["may_write"])
            for path, body in (("/edits", {"edit": {"does": "clear", "question": "fuel"}, "made_on": 0}), ("/undo", {}), ("/hand-in", {})):
                self.assertEqual(self.ask(path, body).status_code, 403)
            self.assertEqual(self.client.post("/api/drafts", {}, content_type=JSON).status_code, 403)
        self.sign_in("lena")
        bad = (
            {"does": "set", "at": "identity", "value": 1},
            {"does": "answer", "question": "no such thing", "text": "x"},
            {"does": "fly", "at": "/identity"},
            {"does": "answer", "question": "name", "text": "x" * 2001},
        )
        for edit in bad:
            self.assertEqual(self.edit(edit).status_code, 422, edit)
        self.assertEqual(self.answer("teeth.nowhere", "22").status_code, 409)
        self.assertEqual(self.client.get(f"/api/drafts/{uuid.uuid4()}").status_code, 404)
        self.assertEqual(self.client.post("/api/drafts", {"family": "no-such"}, content_type=JSON).status_code, 404)
        self.assertEqual(self.client.post("/api/drafts", {"text": json.dumps([1])}, content_type=JSON).status_code, 422)
        self.assertEqual(self.ask("/hand-in").status_code, 422)  # nobody has said what it burns: nothing can be built by it

    def test_a_pasted_table_goes_in_whole_or_not_at_all(self):
        self.begin()
        table = {"kind": "joints", "text": "Joint\tno\tN·m\nSump screws\t14\t10\nPump\t4 in line\tten", "made_on": 0}
        rows = self.client.post(f"/api/drafts/{self.draft['id']}/table/read", table, content_type=JSON).json()["rows"]
        self.assertEqual([row["column"] for row in rows], [None, 2])
        refused = self.ask("/table", table)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("Line 3: “ten” cannot be read", refused.json()["sentence"])
        self.assertEqual(self.ask("/table", {**table, "text": table["text"].replace("ten", "10")}).status_code, 200)
        labels = [one["label"] for one in self.draft["view"]["addable"]]
        self.assertLessEqual({"Sump screws: in", "Sump screws: tight", "Pump: tight"}, set(labels))
        self.assertEqual(self.get("/standing")["faults"], [])
        many = self.client.post(f"/api/drafts/{self.draft['id']}/table/read", {**table, "text": "x;1\n" * 3000}, content_type=JSON)
        self.assertEqual((many.status_code, "3000 rows" in many.json()["sentence"]), (422, True))

    def test_a_whole_document_changed_as_json_becomes_edits(self):
        self.described()
        whole = self.get("/document.json")
        whole["sides"] = {"intake": "left"}
        whole["stages"][0]["steps"][0]["says"] = "Look at it first"
        before = self.draft["last"]
        answer = self.ask("/document", {"text": json.dumps(whole), "made_on": before}, "put")
        self.assertEqual((answer.status_code, self.draft["last"]), (200, before + 2))
        self.assertEqual(self.get("/document.json"), whole)
        self.answer("variant", "the pump's")  # and what is answered later leaves it as it is
        self.assertEqual(self.get("/document.json")["sides"], {"intake": "left"})
        self.assertEqual(self.ask("/document", {"text": "{", "made_on": self.draft["last"]}, "put").status_code, 422)
        self.assertEqual(self.ask("/document", {"text": "{}", "made_on": before - 1}, "put").status_code, 409)

    def test_one_place_as_a_form_becomes_edits_all_of_them_or_none(self):
        self.described()
        form = self.get("/form?at=/drive/wheels/crank-wheel")
        self.assertEqual((form["path"], "teeth" in form["json_schema"]["properties"]), ("drive.wheels.0", True))
        put = {"at": form["at"], "value": {**form["value"], "teeth": 22, "name": "Crank wheel"}, "made_on": self.draft["last"]}
        before = self.draft["last"]
        self.assertEqual(self.ask("/form", put, "put").status_code, 200)
        self.assertGreater(self.draft["last"], before)
        self.assertEqual(self.get("/form?at=drive.wheels.0.teeth")["value"]["teeth"], 22)  # as a fault names it
        self.assertEqual(self.ask("/form", {**put, "made_on": self.draft["last"]}, "put").json()["last"], self.draft["last"])  # nothing new
        for at in ("/drive/wheels/none", "/nowhere", "/drive/wheels/crank-wheel/teeth/deep"):
            answer = self.client.get(f"/api/drafts/{self.draft['id']}/form", {"at": at})
            self.assertEqual((answer.status_code, answer.json()["field"]), (409, "at"), at)
            self.assertEqual(self.ask("/form", {**put, "at": at}, "put").status_code, 409)
        self.sign_in("greta")
        self.answer("teeth.crank-wheel", "24")
        self.sign_in("lena")
        meanwhile = self.ask("/form", {**put, "value": {**form["value"], "teeth": 25}, "made_on": before}, "put")
        self.assertEqual(meanwhile.status_code, 200)  # an answer is another thing than the field: what was set by hand stays
        self.sign_in("bo")
        self.assertEqual(self.ask("/form", put, "put").status_code, 403)

    def test_places_from_a_photo_are_measured_ones(self):
        self.described()
        known = [{"ax": 0, "ay": 0, "bx": 100, "by": 0, "mm": 50}]
        marks = {"known": known, "axes": [{"shaft": "crank", "x": 0, "y": 0}, {"shaft": "intake", "x": 80, "y": -200}]}
        url = f"/api/drafts/{self.draft['id']}/photo"
        read = self.client.post(f"{url}/read", {"marks": marks}, content_type=JSON).json()
        self.assertEqual([(one["shaft"], one["x_mm"], one["y_mm"]) for one in read["places"]], [("crank", 0, 0), ("intake", 40, 100)])
        refused = self.ask("/photo", {"marks": {**marks, "known": []}, "made_on": self.draft["last"]})
        self.assertEqual((refused.status_code, refused.json()["field"]), (422, "marks"))
        self.assertEqual(self.ask("/photo", {"marks": marks, "made_on": self.draft["last"]}).status_code, 200)
        document = self.get("/document.json")
        shaft = next(one for one in document["drive"]["shafts"] if one["id"] == "intake")
        self.assertEqual((shaft["x_mm"], shaft["y_mm"]), (40, 100))
        self.assertIn("measured", {one["is"] for one in document["origins"].values()})
        for wrong in ({"known": [{**known[0], "mm": 0}]}, {"axes": [{"shaft": "crank", "x": "left", "y": 0}]}):
            answer = self.client.post(f"{url}/read", {"marks": {**marks, **wrong}}, content_type=JSON)
            self.assertEqual(answer.status_code, 422)

    def test_what_a_step_may_need_is_told_in_words(self):
        self.described()
        found = {one["words"]: one["need"] for one in self.get("/needs")}
        self.assertEqual(found["free to turn"], {"free_to_turn": True})
        self.assertEqual(found["Head bolts tight, stage 1"], {"tight": {"joint": "head", "stage": 1}})
        step = self.draft["view"]["run"][0]["steps"][0]
        self.assertNotIn("Head bolts tight, stage 1", [one["words"] for one in step["needs"]])
        need = {"does": "set", "at": f"{step['at']}/needs", "value": [found["Head bolts tight, stage 1"]]}
        self.assertEqual(self.edit(need).status_code, 200)
        self.assertEqual(self.draft["view"]["run"][0]["steps"][0]["needs"][0]["words"], "Head bolts tight, stage 1")
        self.assertEqual(self.client.get(f"/api/drafts/{uuid.uuid4()}/needs").status_code, 404)

    def test_a_run_of_four_hundred_steps_is_written_on(self):
        """Each step needs the one before it: what would be slow in a square of them would be seen here."""
        self.described()
        many = [{"id": f"s{n}", "does": "do", "says": f"Thing {n}", "needs": [{"done": f"s{n - 1}"}] if n else []} for n in range(400)]
        for part in range(8):
            stage = {"id": f"part-{part}", "title": f"Part {part}", "steps": many[part * 50 : part * 50 + 50]}
            self.assertEqual(self.edit({"does": "add", "to": "/stages", "value": stage}).status_code, 200)
        self.assertEqual(self.edit({"does": "move", "at": "/stages/part-3/steps/s170", "after": "s160"}).status_code, 200)
        self.assertEqual(self.edit({"does": "set", "at": "/stages/part-7/steps/s399/says", "value": "The last"}).status_code, 200)
        steps = [step["id"] for stage in self.draft["view"]["run"] for step in stage["steps"]]
        self.assertEqual(steps.index("s170"), steps.index("s160") + 1)
        self.assertEqual(self.get("/standing")["faults"], [])  # what a step needs decides, not where it stands on the sheet

    def test_what_is_too_large_is_refused_at_once(self):
        self.begin()
        three_megabytes = json.dumps({"note": "x" * 3_000_000})
        for path, body, method in (
            ("/document", {"text": three_megabytes, "made_on": 0}, "put"),
            ("/table", {"kind": "joints", "text": "x;1\n" * 100_000, "made_on": 0}, "post"),
            ("/form", {"at": "/sides", "value": {"intake": "x" * 1_000_000}, "made_on": 0}, "put"),
            ("/edits", {"edit": {"does": "set", "at": "/sides", "value": "x" * 1_000_000}, "made_on": 0}, "post"),
            ("/photo", {"marks": {"known": [], "axes": [{"shaft": "crank", "x": 0, "y": 0}] * 41}, "made_on": 0}, "post"),
        ):
            with self.subTest(path):
                answer = self.ask(path, body, method)
                self.assertIn(answer.status_code, (413, 422), answer.content[:200])
                self.assertTrue(answer.json()["sentence"])
        self.assertEqual(self.client.get(f"/api/drafts/{self.draft['id']}").json()["last"], 0)

    def test_put_away_and_taken_out_again(self):
        self.begin(name="the old pump")
        self.assertEqual(self.ask("/away", {"put_away": True}, "put").status_code, 200)
        row = next(one for one in self.client.get("/api/drafts").json() if one["id"] == self.draft["id"])
        self.assertEqual((row["put_away"], row["name"]), (True, "the old pump"))
