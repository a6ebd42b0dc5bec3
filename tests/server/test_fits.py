"""Fits, lash and stock through the API: sheets, what a pasted one says, shells that two engines want, what is handed over."""

import csv
import io
import json
from datetime import date

from django.contrib.auth.models import User
from django.db import connection
from django.test.utils import CaptureQueriesContext

from demo.player import answer
from engine.services import add_revision
from gurvo_core.walk import next_question
from shop.gauges import shelf
from shop.models import Gauge, StockItem, StockTaken
from shop.stock import free_stock
from tests.engines import family_copy_with_run
from tests.server.cases import JSON, ShopCase
from tests.server.played import play_until
from work import bridge
from work.models import Engine, Entry, FitFigure
from work.record import as_json
from work.record.paper import as_pdf

MAINS = {"step": "main-fit", "fit": "main-clearance"}
SIZES = "main-fit:main-clearance:sizes"


class FitCase(ShopCase):
    """Two engines of one family side by side."""

    family = "corrie-v6"

    def setUp(self):
        super().setUp()
        revision = add_revision(family_copy_with_run(self.family), by=None)
        for serial in ("V-1", "V-2"):
            Engine.objects.create(serial=serial, revision=revision, builder=User.objects.get(username="bo"))

    def ledger(self, serial="V-1"):
        return bridge.ledger_of(Engine.objects.at_the_bench().get(pk=serial))

    def paper(self, says):
        return next(one for one in bridge.HOUSE.papers(self.ledger().folded) if says in one.title)

    def get(self, path, status=200):
        found = self.client.get(f"/api/engines/{path}")
        self.assertEqual(found.status_code, status, found.content)
        return found.json()

    def count(self, size, free, lot=""):
        body = {"part": "Corrie main shells", "size": size, "lot": lot, "free": free}
        return self.client.put("/api/stock", body, content_type=JSON)


class SheetTests(FitCase):
    def test_a_sheet_shows_readings_stock_and_what_others_came_to(self):
        self.count("C", 20)
        play_until("V-2", "bore-fit")
        play_until("V-1", SIZES)
        sheet = self.get("V-1/fits/main-fit/main-clearance")
        self.assertEqual((len(sheet["columns"]), len(sheet["lines"]), sheet["fit"]["read"]), (4, 4, 16))
        size = next(one for one in sheet["choice"]["sizes"] if one["id"] == "C")
        self.assertEqual(size["free"], (20 - 8) // 2, "what the other engine took is gone")
        play_until("V-1", "crank")
        self.assertEqual({line["count"] for line in self.get("V-1/fits/main-fit/main-clearance")["trend"]}, {1})

    def test_what_is_not_there_is_404(self):
        for path in (
            "V-1/fits/main-fit/gone",
            "V-1/fits/bore-fit/main-clearance",
            "gone/fits/main-fit/main-clearance",
            "V-1/lash/main-fit",
            "V-1/gone.csv",
        ):
            with self.subTest(path):
                self.get(path, 404)
        self.assertIsNone(self.get("V-1/chamber"))

    def test_a_stranger_sees_nothing(self):
        self.client.logout()
        for path in ("V-1/fits/main-fit/main-clearance", "V-1/lash/lash", "V-1/chamber", "V-1/fits.csv", "V-1/tables"):
            self.assertEqual(self.client.get(f"/api/engines/{path}").status_code, 401)
        self.assertEqual(self.client.get("/api/stock").status_code, 401)

    def test_a_pasted_sheet_keeps_nothing_until_each_reading_is_entered(self):
        play_until("V-1", "main-fit:main-clearance:main 1|outer||up")
        before = Entry.objects.count()
        body = {"text": "place;housing up;housing across\nmain 1;67,004;6.7\nmain 9;67.0;67.0"}
        read = self.client.post("/api/engines/V-1/fits/main-fit/main-clearance/pasted", body, content_type=JSON).json()
        self.assertEqual(([one["called"] for one in read["taken"]], len(read["not_taken"])), (["Main 1 housing, ↕"], 3))
        self.assertIn("did you mean 67?", read["not_taken"][0]["why_not"])
        self.assertEqual(Entry.objects.count(), before)
        self.must(read["taken"][0]["entry"], serial="V-1")
        self.assertEqual(Entry.objects.count(), before + 1)

    def test_too_long_a_sheet_is_refused(self):
        path = "/api/engines/V-1/fits/main-fit/main-clearance/pasted"
        answered = self.client.post(path, {"text": "x" * 200_001}, content_type=JSON)
        self.refused(answered, 422, "text", "200000")


class EntryTests(FitCase):
    def setUp(self):
        super().setUp()
        play_until("V-1", "main-fit:main-clearance:main 1|outer||up")
        spot = {"place": "main 1", "side": "outer", "plane": "", "axis": "up"}
        self.body = {"kind": "fit_reading", **MAINS, **spot, "reading": {"text": "67.004", "unit": "mm"}}

    def asked(self, change, status, field, words):
        self.refused(self.enter({**self.body, **change}, "V-1"), status, f"entry.{field}", words)

    def test_refusals_name_their_field(self):
        self.asked({"reading": {"text": "6.7004", "unit": "mm"}}, 422, "reading.text", "did you mean 67.004?")
        self.asked({"reading": {"text": "sixty", "unit": "mm"}}, 422, "reading.text", "number")
        self.asked({"reading": {"text": "67.004", "unit": "deg"}}, 422, "reading.unit", "mm, inches or thou")
        self.asked({"place": "main 8"}, 422, "place", "no such place")
        self.asked({"gauge": "gone"}, 422, "gauge", "no gauge for lengths called gone")
        self.asked({"reading": {"text": "68.1", "unit": "mm"}}, 409, "reading.text", "look at the scale once more")
        self.asked({"side": "middle"}, 422, "side", "")

    def test_who_only_looks_enters_nothing(self):
        self.sign_in("vi")
        self.assertEqual(self.enter(self.body, "V-1").status_code, 403)

    def test_a_row_keeps_text_figures_gauge_and_what_it_was_called(self):
        self.must({**self.body, "reading": {"text": "2,63795", "unit": "in"}}, serial="V-1")
        row = Entry.objects.filter(engine="V-1").last()
        self.assertEqual((row.body["reading"], row.body["called"]), ({"text": "2,63795", "unit": "in"}, "Main 1 housing, ↕"))
        self.assertAlmostEqual(row.si_values["read_mm"], 67.00393, delta=1e-6)
        ready = Entry.objects.filter(engine="V-1", kind="fits_ready").last()
        self.assertEqual(ready.gauges[0]["id"], "P1")

    def test_repeats_on_one_engine_are_known_of_the_gauge_on_the_next(self):
        """By hand: 67.004 and 67.008 on one spot: squares 8e-6, one beyond the first; struck, nothing of it is left."""
        self.must(self.body, serial="V-1")
        self.must({**self.body, "reading": {"text": "67.008", "unit": "mm"}}, serial="V-1")
        again = Entry.objects.filter(engine="V-1").last()
        play_until("V-2", "main-fit:main-clearance:main 1|outer||up")
        gauge = Entry.objects.filter(engine="V-2", kind="fits_ready").last().gauges[0]
        self.assertEqual((gauge["id"], gauge["scatter_of"]), ("P1", 1))
        self.assertAlmostEqual(gauge["scatter"], 8e-6**0.5, delta=1e-7)
        self.must({"kind": "strike", "strikes": str(again.id), "reason": "slipped"}, serial="V-1")
        self.assertEqual({one.scatter_of for one in shelf()}, {0})


class StockTests(FitCase):
    def choose(self, serial, **how):
        places = [f"main {n}" for n in range(1, 5)]
        return self.enter({"kind": "fit_chosen", **MAINS, "sizes": dict.fromkeys(places, "C")}, serial, **how)

    def test_two_engines_cannot_be_planned_with_the_same_shells(self):
        self.count("C", 12, "CM-1")
        for serial in ("V-1", "V-2"):
            play_until(serial, SIZES)
        self.assertEqual(self.choose("V-1").status_code, 201)
        answered = self.choose("V-2")
        self.refused(answered, 409, "entry.sizes", "8 are needed and 4 are free")
        self.assertEqual(answered.json()["way_out"], "reason")
        self.assertEqual(self.choose("V-2", because="four more come on Friday").status_code, 201)
        row = next(one for one in self.client.get("/api/stock").json() if one["size"] == "C")
        self.assertEqual((row["free"], row["lots"], [one["serial"] for one in row["taken"]]), (-4, ["CM-1"], ["V-1", "V-2"]))

    def test_a_struck_choice_gives_its_shells_back(self):
        self.count("C", 8)
        play_until("V-1", SIZES)
        self.assertEqual(self.choose("V-1").status_code, 201)
        self.assertEqual(free_stock()["Corrie main shells"]["C"], 0)
        entry = Entry.objects.filter(engine="V-1", kind="fit_chosen").last()
        self.must({"kind": "strike", "strikes": str(entry.id), "reason": "others are on their way"}, serial="V-1")
        self.assertEqual((free_stock()["Corrie main shells"]["C"], StockTaken.objects.count(), FitFigure.objects.count()), (8, 0, 0))

    def test_who_counts_types_what_lies_there(self):
        self.count("C", 12)
        play_until("V-1", SIZES)
        self.choose("V-1")
        rows = self.count("C", 3).json()
        self.assertEqual([(row["free"], row["count"]) for row in rows if row["size"] == "C"], [(3, 11)])
        self.assertEqual(StockItem.objects.get(size="C").count, 11)

    def test_counts_that_cannot_be(self):
        self.refused(self.count("C", -1), 422, "free", "0")
        self.refused(self.client.put("/api/stock", {"part": " ", "size": "C", "free": 1}, content_type=JSON), 422, "part", "which part")
        self.refused(self.client.put("/api/stock", {"part": "x", "free": 1}, content_type=JSON), 422, "size", "")
        self.sign_in("vi")
        self.refused(self.count("C", 1), 403, "", "Only who works here")

    def test_nothing_left_and_nothing_taken_is_no_row(self):
        self.count("C", 5)
        self.count("C", 0)
        self.assertEqual(self.client.get("/api/stock").json(), [])


class HandedOverTests(FitCase):
    family = "wick-1"

    def test_lash_on_paper_has_every_valve_as_found_and_as_left(self):
        play_until("V-1", "lash-look")
        rows = self.paper("Both valves").tables[0].rows
        self.assertEqual([(row.cells[0], row.cells[-1]) for row in rows], [("cylinder 1 intake", "in"), ("cylinder 1 exhaust", "in")])
        self.assertTrue(as_pdf(Engine.objects.at_the_bench().get(pk="V-1")).startswith(b"%PDF"))

    def test_lash_as_a_table_has_every_valve_once(self):
        play_until("V-1", "lash-look")
        self.assertEqual([(one["name"], one["rows"]) for one in self.get("V-1/tables") if one["name"] == "lash"], [("lash", 2)])
        rows = list(csv.DictReader(io.StringIO(self.client.get("/api/engines/V-1/lash.csv").getvalue().decode())))
        self.assertEqual([(row["valve"], row["verdict"]) for row in rows], [("cylinder 1 intake", "in"), ("cylinder 1 exhaust", "in")])
        self.assertTrue(all(float(row["least_mm"]) <= float(row["left_mm"]) <= float(row["most_mm"]) for row in rows))

    def test_what_shims_would_give_is_a_look(self):
        play_until("V-1", "lash-look")
        sheet = self.get("V-1/lash/lash")
        self.assertEqual((sheet["rows"], sheet["part"]), ([], ""))


class RecordTests(FitCase):
    family = "quern-4"

    def test_every_reading_is_handed_over_as_a_table_on_paper_and_as_json(self):
        play_until("V-1", "rod-fit")
        engine = Engine.objects.at_the_bench().get(pk="V-1")
        rows = list(csv.DictReader(io.StringIO(self.client.get("/api/engines/V-1/fits.csv").getvalue().decode())))
        self.assertEqual((len(rows), rows[0]["side"], rows[0]["gauge"], rows[-1]["side"]), (40, "bore", "P1", "journal"))
        rows = self.paper("Main bearing").tables[0].rows
        self.assertEqual((len(rows), len(rows[0].cells), rows[0].cells[-1]), (5, 12, "in"))
        kinds = [entry["body"]["kind"] for entry in json.loads("".join(as_json(engine)))["entries"]]
        self.assertEqual((kinds.count("fit_reading"), kinds.count("fits_ready")), (40, 2))
        self.assertEqual(FitFigure.objects.filter(engine=engine, fit="main-clearance").count(), 5)


class ShelfTests(FitCase):
    family = "quern-4"

    def test_only_gauges_whose_calibration_holds_are_offered_to_settle_a_place(self):
        lengths = {gauge.id for gauge in shelf()}
        self.assertLessEqual({"P1", "M1", "F1", "D2"}, lengths)
        self.assertFalse(lengths & {"T1", "W1"})
        Gauge.objects.filter(code="M1").update(due=date(2020, 1, 1))
        self.assertNotIn("M1", {gauge.id for gauge in shelf()})

    def test_a_gauge_tells_what_it_was_used_on(self):
        play_until("V-1", "rod-fit")
        history = self.client.get("/api/gauges/M1/history").json()
        self.assertEqual((history["engines"], {use["kind"] for use in history["uses"]}), (["V-1"], {"fits_ready"}))

    def test_a_sheet_says_which_gauge_would_settle_it(self):
        hundredths = {"kind": "micrometer", "resolution": 0.01, "expanded_uncertainty": 0.003, "least": 50, "most": 75}
        Gauge.objects.create(code="M2", name="hundredths", **hundredths)
        play_until("V-1", "main-fit:main-clearance:inner")
        self.must({"kind": "fits_ready", **MAINS, "side": "inner", "gauge": "M2", "part_c": "20"}, serial="V-1")
        for place in range(1, 6):
            for plane in ("front", "rear"):
                for axis in ("up", "across"):
                    spot = {"place": f"main {place}", "side": "inner", "plane": plane, "axis": axis}
                    self.must({"kind": "fit_reading", **MAINS, **spot, "reading": {"text": "57.99", "unit": "mm"}}, serial="V-1")
        ways = self.get("V-1/fits/main-fit/main-clearance")["ways"]
        self.assertTrue(any(way["words"].startswith("Read the journal again with M1") for way in ways), ways)
        ends = [end["title"] for end in self.get("V-1")["state"]["loose_ends"]]
        self.assertIn("Main 1 cannot be told", ends)


class ChamberTests(FitCase):
    family = "garth-d6"

    def test_before_anything_is_measured_it_follows_from_the_document(self):
        view = self.get("V-1/chamber")
        self.assertEqual((len(view["rows"]), {row["is_measured"] for row in view["rows"]}), (6, {False}))
        skimmed = self.get("V-1/chamber?skimmed_mm=0.3&gasket=3")
        self.assertGreater(skimmed["rows"][0]["squish_mm"], view["rows"][0]["squish_mm"] - 1e-9)
        self.assertIn("What if gasket 3", skimmed["says"])

    def test_what_cannot_be_is_refused_by_its_field(self):
        for query, field, words in (("gasket=9", "gasket", "There is no gasket 9"), ("skimmed_mm=-1", "skimmed_mm", "0")):
            with self.subTest(query):
                self.refused(self.client.get(f"/api/engines/V-1/chamber?{query}"), 422, field, words)


class ShimTests(FitCase):
    family = "teasel-4"

    def read(self, question, given):
        """Answer a stop, or a valve with the clearance and shim that are given."""
        body = answer(self.ledger().shown, question, self.ledger().folded.document)
        if question.kind == "lash_reading":
            goes, shim = next(given, ("0.20" if question.valve == "intake" else "0.25", "2.50"))
            body |= {"goes": {"text": goes, "unit": "mm"}, "shim": {"text": shim, "unit": "mm"}}
        self.must(body, serial="V-1")

    def test_shims_are_planned_from_the_engines_own_and_from_stock_and_taken(self):
        for size in ("2.45", "2.55"):
            StockItem.objects.create(part="Bucket shims 31", size=size, count=1)
        play_until("V-1", "lash")
        given = iter((("0.30", "2.40"), ("0.30", "2.50"), ("0.14", "2.50")))
        while (question := next_question(self.ledger().shown)).kind != "lash_shims":
            self.read(question, given)
        sheet = self.get("V-1/lash/lash")
        self.assertEqual(len(sheet["rows"]), 8)
        self.assertTrue(all(row["is_in"] for row in sheet["rows"]), sheet["words"])
        new = sorted(f"{row['shim_mm']:.2f}" for row in sheet["rows"] if row["source"] == "stock")
        shims = {row["valve"]: f"{row['shim_mm']:.2f}" for row in sheet["rows"]}
        self.must({"kind": "lash_shims", "step": "lash", "shims": shims}, serial="V-1")
        taken = StockTaken.objects.filter(serial="V-1")
        self.assertEqual(sorted(one.size for one in taken for _ in range(one.pieces)), new)
        state = self.get("V-1")["state"]
        self.assertTrue(any("another shim, not read again" in end["title"] for end in state["loose_ends"]))
        self.assertEqual(state["lash"]["step"], "lash")

    def test_shims_that_are_not_there_ask_where_they_come_from(self):
        play_until("V-1", "lash")
        given = iter((("0.30", "2.40"),))
        while (question := next_question(self.ledger().shown)).kind != "lash_shims":
            self.read(question, given)
        body = {"kind": "lash_shims", "step": "lash", "shims": {"intake|1|intake|": "2.50"}}
        self.refused(self.enter(body, "V-1"), 409, "entry.shims", "1 new one is needed and 0 are free")
        self.assertEqual(self.enter(body, "V-1", because="lent by the works next door").status_code, 201)


class CostTests(FitCase):
    family = "quern-4"

    def test_a_reading_asks_the_database_no_more_than_any_entry(self):
        """Pinned: what the stock and others of the family came to is asked only by what needs it."""
        play_until("V-1", "main-fit:main-clearance:main 2|outer|front|up")
        spot = {"place": "main 2", "side": "outer", "plane": "front", "axis": "up"}
        reading = {"kind": "fit_reading", **MAINS, **spot, "reading": {"text": "58.045", "unit": "mm"}}
        with CaptureQueriesContext(connection) as note:
            self.must({"kind": "note", "text": "wiped"}, serial="V-1")
        with CaptureQueriesContext(connection) as read:
            self.must(reading, serial="V-1")
        self.assertLessEqual(len(read), len(note))
