"""Families: look, check, take in, hand out, compare; who may; nothing half-saved. Engines move to a newer revision by the lead alone."""

import json
from contextlib import redirect_stdout
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory

from django.core.management import CommandError, call_command
from django.test import Client

from demo.documents import family_data
from engine.bridge import _twin_json
from engine.models import Family, Revision
from engine.services import add_revision
from gurvo_core.engine.reading import MAX_FAULTS
from gurvo_core.reading import read_document
from tests.engines import CODES, LITTLE_KNOWN, SETUP, act, family_copy, found_tdc, lift, quern_4_copy
from tests.server.cases import JSON, ShopCase
from work.models import Engine, Entry

LARGE = 100_000  # characters; the largest family has a sixth of it


def newer(**changes):
    """The test family's document with something changed."""
    data = quern_4_copy()
    data["camshafts"][0]["lobes"][0]["nose_deg"] = 107.5
    return json.dumps(data | changes)


class FamiliesCase(ShopCase):
    def send(self, path, **body):
        return self.client.post(f"/api/families{path}", body, content_type=JSON)

    def take_in(self, text=None, remark="lobe measured again"):
        self.sign_in("lena")
        answer = self.send("", text=text or newer(), remark=remark)
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.json()


class ImportTests(FamiliesCase):
    def test_a_large_text_is_read_like_any_other(self):
        """Comments make a sound document large; unknown keys make a large one faulty."""
        self.take_in(newer() + "/*" + "x" * LARGE + "*/")
        many = json.loads(newer()) | {f"k{n}": 1 for n in range(LARGE // 10)}
        self.sign_in("lena")
        answer = self.send("/check", text=json.dumps(many)).json()
        self.assertEqual((len(answer["faults"]), answer["faults"][0]["path"]), (MAX_FAULTS + 1, "k0"))

    def test_a_document_goes_in_comes_out_and_goes_in_again_the_same(self):
        for code in CODES:
            if code == "quern-4":
                continue
            with self.subTest(family=code):
                self.assertEqual(self.take_in(json.dumps(family_copy(code)))["revision"], 1)
                out = self.client.get(f"/api/families/{code}/revisions/1/document.json")
                self.assertIn(f"{code}-revision-1.json", out.headers["Content-Disposition"])
                self.assertEqual(read_document(out.json()), read_document(family_copy(code)))
                again = self.send("", text=out.content.decode())
                self.refused(again, 409, "text", "the same as revision 1")

    def test_a_document_with_faults_is_refused_with_all_of_them_and_nothing_is_kept(self):
        self.sign_in("lena")
        spoilt = quern_4_copy() | {"reference_cylinder": 9}
        spoilt["identity"]["family"] = "quern-5"
        spoilt["lash"][0]["most_mm"] = 0.1
        answer = self.send("", text=json.dumps(spoilt))
        self.refused(answer, 422, "reference_cylinder", "names cylinder 9")
        self.assertEqual({fault["path"] for fault in answer.json()["faults"]}, {"reference_cylinder", "lash.0.most_mm"})
        self.assertFalse(Family.objects.filter(code="quern-5").exists())

    def test_only_the_lead_takes_documents_in(self):
        for name in ("bo", "vi"):
            self.sign_in(name)
            self.refused(self.send("", text=newer()), 403, "", "Only the lead")
        self.assertEqual(Revision.objects.count(), 1)
        self.assertEqual(Client().post("/api/families", {"text": newer()}, content_type=JSON).status_code, 401)

    def test_bad_bodies_are_refused_by_field(self):
        self.sign_in("lena")
        self.refused(self.send(""), 422, "text", "missing")
        self.refused(self.send("", text="{", remark="x"), 422, "", "no JSON")
        self.refused(self.send("", text=newer(), remark="x" * 301), 422, "remark", "300")
        self.refused(self.send("", text=newer(), colour="red"), 422, "colour", "not known")


class CheckTests(FamiliesCase):
    def test_anybody_may_check_and_nothing_is_kept(self):
        self.sign_in("vi")
        found = self.send("/check", text=newer()).json()
        self.assertEqual((found["faults"], found["revision"], found["name"]), ([], 2, "Quern 4"))
        self.assertEqual(
            [change["sentence"] for change in found["changes"]], ["Camshafts “cam”, lobes “1 intake”, nose: was 107°, is 107.5°."]
        )
        spoilt = self.send("/check", text=json.dumps(quern_4_copy() | {"reference_cylinder": 9})).json()
        self.assertEqual((spoilt["revision"], [fault["path"] for fault in spoilt["faults"]]), (None, ["reference_cylinder"]))
        self.assertEqual(Revision.objects.count(), 1)

    def test_an_engine_of_which_little_is_known_is_taken_in_turned_and_handed_out_with_its_nulls(self):
        plain = family_data(LITTLE_KNOWN)
        found = self.send("/check", text=json.dumps(plain)).json()
        self.assertEqual(found["faults"], [])
        self.assertIn("drive.shafts", [one["path"] for one in found["not_known"]])
        self.take_in(json.dumps(plain))
        at = f"/api/families/{LITTLE_KNOWN}"
        twin = self.client.get(f"{at}/revisions/1/twin").json()
        self.assertEqual((twin["counted_from"], twin["drawing"]["is_to_scale"]), ("the flywheel pin's hole", False))
        self.assertEqual((twin["frames"]["cylinders"], len(twin["drawing"]["loops"][0]["arcs"])), ([], 2))
        front = self.client.get(f"{at}/revisions/1/front")
        self.assertEqual(front.json(), twin["drawing"])
        self.assertEqual(self.client.get(f"{at}/revisions/1/front", headers={"If-None-Match": front["ETag"]}).status_code, 304)
        self.assertEqual(self.client.get(f"{at}/revisions/9/front").status_code, 404)
        words = self.client.get(f"{at}/revisions/1/twin/words").json()
        self.assertEqual(words[450].split(";")[0], "one turn and 90° on from the flywheel pin's hole")
        self.assertEqual(self.client.get(f"{at}/revisions/1/snapshot?crank_deg=90").json()["lobes"][0]["lift_mm"], None)
        out = self.client.get(f"{at}/revisions/1/document.json").json()
        self.assertNotIn("x_mm", out["drive"]["shafts"][1])  # what is left out is not known
        self.assertEqual(read_document(out), read_document(plain))
        self.refused(self.send("", text=json.dumps(out), remark=""), 409, "text", "the same as revision 1")

    def test_what_is_doubtful_is_said_and_taken_in_all_the_same(self):
        data = quern_4_copy()
        data["cam_card"][0]["opens_deg"] = 24.0
        found = self.send("/check", text=json.dumps(data)).json()
        self.assertEqual(([one["path"] for one in found["doubtful"]], found["faults"]), (["cam_card.0.opens_deg"], []))
        self.assertEqual(self.take_in(json.dumps(data))["doubtful"], found["doubtful"])

    def test_a_lift_table_is_read_and_its_choices_are_guarded(self):
        found = self.send("/lift-table", text="0,0\n10,2\n20,5\n30,2\n40,0").json()
        self.assertEqual(found["profile"]["cam_deg"], [-20, -10, 0, 10, 20])
        answer = self.send("/lift-table", text="1", choices={"lift_unit": "ell"})
        self.refused(answer, 422, "choices.lift_unit", "'mm' or 'in'")


class RevisionTests(FamiliesCase):
    def test_revisions_are_listed_compared_and_never_changed(self):
        self.take_in()
        shown = self.client.get("/api/families/quern-4").json()
        self.assertEqual(
            [(row["number"], row["remark"], row["engines"]) for row in shown["revisions"]], [(2, "lobe measured again", 0), (1, "", 2)]
        )
        self.assertEqual(self.client.get("/api/families/quern-4/revisions/1").json()["revision"], 1)
        changes = self.client.get("/api/families/quern-4/difference?before=1&after=2").json()
        self.assertEqual(len(changes), 1)
        self.refused(self.client.get("/api/families/quern-4/difference?before=0&after=2"), 422, "before", "must be at least 1")
        self.refused(self.client.get("/api/families/quern-4/difference?before=1&after=9"), 404, "", "nothing here")
        self.refused(self.client.get("/api/families/nobody"), 404, "", "nothing here")
        with self.assertRaises(TypeError):
            Revision.objects.first().save()

    def test_the_lead_moves_an_engine_on_and_the_ledger_says_so(self):
        self.find_tdc()
        self.must(lift("intake", "opening", "16", "before TDC"))
        self.take_in()
        bench = self.must(act("revision", number=2, reason="lobe measured again"))
        self.assertEqual((bench["engine"]["revision"], bench["engine"]["newest_revision"]), (2, 2))
        self.assertEqual((bench["tape"][0]["title"], bench["tape"][0]["value"]), ("Moved to revision", "2"))
        # the readings that were taken still stand, on the new document
        self.assertEqual(bench["state"]["timing"]["cams"][0]["valves"][0]["card_top_centreline_deg"], 107.5)
        self.assertEqual(bench["state"]["timing"]["cams"][0]["valves"][0]["opening"]["readings"], 1)
        self.assertEqual(Engine.objects.get(serial="T-2").revision.number, 1)
        record = self.client.get("/api/engines/T-1/record.json").getvalue()
        record = json.loads(record)
        self.assertEqual(len(record["documents"]), 2)  # that which the readings were judged on is there too
        document = record["documents"][record["engine"]["document"]]
        self.assertEqual((record["engine"]["revision"], document["camshafts"][0]["lobes"][0]["nose_deg"]), (2, 107.5))

    def test_a_move_that_cannot_be_is_refused(self):
        self.must(SETUP)
        self.refused(self.enter(act("revision", number=2, reason="x")), 403, "", "moves an engine on")
        self.take_in()
        self.refused(self.enter(act("revision", number=2, reason=" ")), 422, "entry.reason", "Say why")
        self.refused(self.enter(act("revision", number=1, reason="x")), 422, "entry.number", "on revision 1; choose a newer")
        self.refused(self.enter(act("revision", number=7, reason="x")), 422, "entry.number", "choose a newer")
        moved = self.must(act("revision", number=2, reason="x"))["tape"][0]
        strike = {"kind": "strike", "strikes": moved["id"], "reason": "slip"}
        self.refused(self.enter(strike), 422, "entry.strikes", "moved to that revision since")
        self.assertEqual(Entry.objects.filter(kind="revision").count(), 1)


class TwinTests(FamiliesCase):
    def test_a_family_twin_is_worked_out_once_for_its_revision(self):
        _twin_json.cache_clear()
        for _ in range(3):
            answer = self.client.get("/api/families/quern-4/revisions/1/twin")
            self.assertEqual(len(answer.json()["frames"]["cylinders"][0]["drop_um"]), 720)
            self.assertEqual(len(self.client.get("/api/families/quern-4/revisions/1/twin/words").json()), 720)
        self.assertEqual(_twin_json.cache_info().misses, 1)

    def test_one_angle_and_what_cannot_be_one(self):
        stand = self.client.get("/api/families/quern-4/revisions/1/snapshot?crank_deg=690").json()
        self.assertTrue(stand["words"].startswith("cylinder 1 30° before firing TDC"))
        for angle in ("high", "nan", "9999"):
            answer = self.client.get(f"/api/families/quern-4/revisions/1/snapshot?crank_deg={angle}")
            with self.subTest(angle=angle):
                self.assertEqual((answer.status_code, answer.json()["field"]), (422, "crank_deg"))
        answer = self.client.get("/api/families/quern-4/revisions/1/twin?phasers=off")
        self.refused(answer, 422, "phasers", "'rest' or 'other stop'")

    def test_phasers_on_their_other_stop_move_their_cams(self):
        self.take_in(json.dumps(family_copy("corrie-v6")))
        clocks = []
        for phasers in ("rest", "other stop"):
            stand = self.client.get("/api/families/corrie-v6/revisions/1/snapshot", {"crank_deg": 0, "phasers": phasers}).json()
            clocks.append({mark["id"]: mark["now_deg"] for mark in stand["marks"]})
        self.assertAlmostEqual((clocks[1]["phaser-a-mark"] - clocks[0]["phaser-a-mark"]) % 360, 335)
        self.assertEqual(clocks[1]["ex-a-dot"], clocks[0]["ex-a-dot"])

    def test_an_engines_twin_has_its_cam_where_it_was_measured(self):
        """By hand: both flanks read a degree early on intake and exhaust: cam half a degree on, and its mark with it."""
        card = self.client.get("/api/engines/T-1/snapshot?crank_deg=0").json()
        bench = self.degree()
        advance = bench["state"]["timing"]["cams"][0]["advance_deg"]
        stand = self.client.get("/api/engines/T-1/snapshot?crank_deg=0").json()
        dots = [next(mark["now_deg"] for mark in one["marks"] if mark["id"] == "cam-dot") for one in (card, stand)]
        self.assertAlmostEqual(dots[1] - dots[0], advance / 2)
        self.assertEqual(self.client.get("/api/engines/T-9/twin").status_code, 404)


class TurnTests(FamiliesCase):
    def turn(self, to):
        return self.enter({"kind": "turn", "to": to})

    def test_a_turn_is_kept_as_typed_and_the_bench_knows_what_is_to_be_seen(self):
        self.find_tdc()
        self.assertEqual(self.turn("330,5").status_code, 201)
        row = Entry.objects.get(kind="turn")
        self.assertEqual((row.body["to"], row.si_values), ("330,5", {"crank_deg": 330.5}))
        bench = self.client.get("/api/engines/T-1").json()
        self.assertEqual(bench["state"]["timing"]["crank"]["cycle_deg"], 330.5)
        self.assertTrue(bench["state"]["timing"]["crank"]["sees"].startswith("cylinder 4 29.5° before firing TDC; cam dot at {clock:"))
        self.assertEqual(bench["tape"][0]["value"], "330,5°")

    def test_a_lift_reading_says_on_which_turn_the_crank_stands(self):
        """By hand: intake of cylinder 1 opens about 344 after its firing TDC, near the overlap and not near the firing TDC."""
        self.find_tdc()
        self.turn("10")
        bench = self.must(lift("intake", "opening", "16", "before TDC"))
        self.assertAlmostEqual(bench["state"]["timing"]["crank"]["cycle_deg"], 344, delta=0.5)

    def test_what_cannot_be_turned_to_is_refused(self):
        self.refused(self.turn("30"), 422, "entry.kind", "plugs out and stand locked not yet confirmed")
        self.must(SETUP)
        for text, words in (("721", "0 to 720"), ("-1", "0 to 720"), ("half", "number")):
            self.refused(self.turn(text), 422, "entry.to", words)

    def test_nobody_turns_against_a_stop_that_has_done_its_work(self):
        for entry in found_tdc().entries[:5]:
            self.must(entry.body.model_dump(mode="json"))
        self.refused(self.turn("30"), 422, "entry.kind", "piston stop fitted: take it out first")


class ReadingTests(FamiliesCase):
    def test_lists_and_looks_need_few_queries_however_many_families(self):
        for code in CODES:
            if code != "quern-4":
                add_revision(family_copy(code), by=None)
        self.client.get("/api/families")
        # session, person, families with their engines, revisions
        with self.assertNumQueries(4):
            self.assertEqual(len(self.client.get("/api/families").json()), len(CODES))
        self.client.get("/api/families/corrie-v6")  # its document is read once and kept
        # session, person, newest revision, all revisions with their engines
        with self.assertNumQueries(4):
            self.client.get("/api/families/corrie-v6")

    def test_a_stranger_sees_none_of_it(self):
        self.client = Client()
        for path in ("", "/quern-4", "/quern-4/revisions/1", "/quern-4/revisions/1/document.json", "/quern-4/revisions/1/twin"):
            with self.subTest(path=path):
                self.assertEqual(self.client.get(f"/api/families{path}").status_code, 401)
        for path in ("/check", "/lift-table", ""):
            with self.subTest(path=path):
                self.assertEqual(self.send(path, text="x").status_code, 401)

    def test_the_command_takes_json5_and_says_every_fault(self):
        with TemporaryDirectory() as folder:
            file = Path(folder) / "engine.json5"
            file.write_text("// ours\n" + json.dumps(family_copy("wick-1")), "utf-8")
            with redirect_stdout(StringIO()) as said:
                call_command("load_family", str(file))
            self.assertIn("wick-1 revision 1", said.getvalue())
            with self.assertRaisesMessage(CommandError, "the same as revision 1"):
                call_command("load_family", str(file))
            file.write_bytes(b"\xff\xfe{")
            with self.assertRaisesMessage(CommandError, "no text in UTF-8"):
                call_command("load_family", str(file))
