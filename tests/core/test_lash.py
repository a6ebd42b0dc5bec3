"""Valve clearances at the bench: stops, valves on their base circle, screws set until they are in, shims that change places."""

import random
import unittest
from dataclasses import replace
from unittest.mock import Mock

from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from gurvo_core.errors import AskFirst, CoreError
from gurvo_core.lash.job.book import lash_book
from gurvo_core.lash.job.kept import shims_taken
from gurvo_core.lash.job.sheet import lash_sheet
from gurvo_core.lash.job.words import valve_called
from gurvo_core.ledger import CLEAR, STOCK, Gauge
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.engines import family_copy_with_run

WALKS = settings(max_examples=8, phases=[Phase.explicit, Phase.reuse, Phase.generate])
READY = {"kind": "lash_ready", "step": "lash", "way": "fewest", "gauge": "F1", "engine_is": "cold"}
CALLED = ["cylinder 1 intake", "cylinder 2 exhaust, front", "cam"]
STOP = {"kind": "lash_stop", "step": "lash", "stop": 1}


def mm(text):
    return {"text": text, "unit": "mm"}


class LashCase(unittest.TestCase):
    code = "wick-1"
    camshaft = "cam"

    def setUp(self):
        self.build = Build(self.code).to("lash")

    @property
    def now(self):
        return self.build.folded.states["lash"]

    def enter(self, body, **how):
        return self.build.enter(**body, **how)

    def body(self, valve, goes, *, cylinder=1, **more):
        where = {"kind": "lash_reading", "step": "lash", "camshaft": more.pop("camshaft", self.camshaft), "cylinder": cylinder}
        return {**where, "valve": valve, "goes": mm(goes) if goes else None, **more}

    def read(self, valve, goes, **more):
        how = {key: more.pop(key) for key in ("because", "by") if key in more}
        return self.enter(self.body(valve, goes, **more), **how)

    def refused(self, words, body, error=CoreError, **how):
        with self.assertRaises(error) as refused:
            self.enter(body, **how)
        self.assertIn(words.lower(), str(refused.exception).lower())
        return refused.exception.field

    def asked(self):
        return next_question(self.build.state)


class ScrewTests(LashCase):
    def begin(self):
        self.enter(READY)
        self.enter(STOP)

    def test_the_single_is_set_at_one_stop_and_done_when_both_are_in(self):
        self.begin()
        self.assertEqual(self.build.folded.entries[-1].body.called, "cylinder 1 at firing TDC")
        self.read("intake", "0.08")
        self.read("exhaust", "0.10")
        self.assertIn("lash", self.build.folded.states["run"].done)

    def test_a_screw_that_is_out_says_how_far_and_is_read_again(self):
        """By hand: 0.15 read, 0.08 wanted, pitch 0.75 at the valve: 0.0933 of a turn in, 0.6 of a flat."""
        self.begin()
        self.read("intake", "0.15")
        question = self.asked()
        self.assertEqual((question.id, question.is_again), ("cam|1|intake|", True))
        self.assertIn("Screw in by 0.09 of a turn, 0.6 of a flat", question.advice)
        self.assertIn("Cylinder 1 intake is out", self.build.ends())
        self.read("intake", "0.08")
        view = next(one for one in self.build.state.lash.valves if one.valve == "intake")
        self.assertEqual((view.verdict, view.found_mm), ("in", 0.15))

    def test_what_is_out_is_called_so_and_goes_back_to_its_stop_once_the_step_is_opened(self):
        self.begin()
        self.read("intake", "0.15")
        body = {"kind": "lash_decided", "step": "lash", "valve": "cam|1|intake|", "reason": "hot climate"}
        self.refused("cylinder 1 intake is out: only the lead accepts", body, AskFirst)
        self.assertEqual([valve_called(one) for one in ("cam|1|intake|", "cam|2|exhaust|front", "cam")], CALLED)
        self.read("intake", "0.08")
        self.read("exhaust", "0.10")
        self.build.enter("step_opened", step="lash", reason="a rocker was changed")
        self.assertEqual((self.now.stop, self.now.ready, self.now.reads), ({}, {}, {}))

    def test_two_leaves_tell_more_than_one(self):
        self.begin()
        self.read("intake", "0.08", not_goes=mm("0.09"))
        self.assertAlmostEqual(self.now.reads["cam|1|intake|"].lash.value, 0.085, delta=1e-9)

    def test_near_a_limit_it_cannot_be_told_and_only_the_lead_accepts_it(self):
        self.begin()
        self.read("intake", "0.10")
        self.read("exhaust", "0.10")
        self.assertNotIn("lash", self.build.folded.states["run"].done)
        body = {"kind": "lash_decided", "step": "lash", "valve": "cam|1|intake|", "reason": "hot climate"}
        self.assertEqual(self.refused("cylinder 1 intake cannot be told: only the lead accepts", body, AskFirst), "decision")
        self.enter(body, by=LEAD, because="seen")
        self.assertIn("lash", self.build.folded.states["run"].done)
        said = [cell for paper in HOUSE.papers(self.build.folded) for table in paper.tables for row in table.rows for cell in row.cells]
        self.assertIn("hot climate", " ".join(said))

    def test_what_is_refused(self):
        body = self.body("intake", "0.08")
        self.assertEqual(self.refused("first say which way", body), "step")
        self.enter(READY)
        self.assertEqual(self.refused("first turn the crank", body), "step")
        self.assertEqual(self.refused("only 1 stops", {**STOP, "stop": 2}), "stop")
        self.enter(STOP)
        for change, words, field in (
            ({"goes": None}, "thickest leaf that goes", "goes"),
            ({"goes": mm("8")}, "no valve clearance", "goes.text"),
            ({"not_goes": mm("0.07")}, "thicker than the 0.08", "not_goes.text"),
            ({"cylinder": 2}, "no such valve", "valve"),
            ({"gauge": "T1"}, "no set of feelers called T1", "gauge"),
        ):
            with self.subTest(words):
                self.assertEqual(self.refused(words, {**body, **change}), field)
        self.assertEqual(self.refused("did you mean 0.08?", self.body("intake", "0.8"), AskFirst), "goes.text")

    def test_before_the_first_valve(self):
        for change, words, error, field in (
            ({"engine_is": "hot"}, "a cold engine", AskFirst, "engine_is"),
            ({"way": "book"}, "no stops of its own", CoreError, "way"),
            ({"gauge": None}, "no feelers are named", AskFirst, "gauge"),
            ({"gauge": "T1"}, "no set of feelers called T1", CoreError, "gauge"),
            ({"stands_deg": "at the top"}, "number", CoreError, "stands_deg"),
        ):
            with self.subTest(words):
                self.assertEqual(self.refused(words, {**READY, **change}, error), field)
        rough = Gauge(id="F9", name="rough", kind="feeler", resolution=0.05, expanded_uncertainty=0)
        self.build.gauges = (*self.build.gauges, rough)
        self.assertEqual(self.refused("nothing could be in", {**READY, "gauge": "F9"}, AskFirst), "gauge")

    def test_a_step_opened_again_is_set_anew(self):
        self.begin()
        self.read("intake", "0.08")
        self.read("exhaust", "0.10")
        self.build.enter("step_opened", step="lash", reason="the cam was out again")
        self.assertEqual((dict(self.now.reads), self.asked().kind), ({}, "lash_ready"))


class FlatFourTests(LashCase):
    code = "tarn-f4"

    def cam(self, cylinder):
        return "cam-right" if cylinder in (1, 3) else "cam-left"

    def test_the_books_four_stops_begin_where_the_crank_stands(self):
        """By hand: firing order 1-3-2-4; from 400 degrees on the next firing TDC is that of 4, at 540."""
        self.enter({**READY, "way": "book", "stands_deg": "400"})
        where = [stop.where for stop in self.build.state.lash.stops]
        self.assertEqual([words.split(" at ")[0] for words in where], ["cylinder 4", "cylinder 1", "cylinder 3", "cylinder 2"])

    def test_a_valve_that_is_not_on_its_base_circle_is_refused_with_its_stop(self):
        self.enter(READY)
        self.enter(STOP)
        body = self.body("intake", "0.20", cylinder=2, camshaft=self.cam(2))
        self.assertEqual(self.refused("is not on its base circle at stop 1: it is set at stop 2", body), "valve")

    def test_each_stop_shows_its_marks(self):
        self.enter(READY)
        question = self.asked()
        self.assertEqual((question.kind, question.doing), ("lash_stop", "turn"))
        self.assertIn("{clock:", question.sees)


class ShimTests(LashCase):
    code = "teasel-4"

    def all_read(self, *found):
        """Every valve read with the shim that is in; the first ones as they are given."""
        self.enter(READY)
        given = iter(found)
        while (question := self.asked()).kind in ("lash_stop", "lash_reading"):
            if question.kind == "lash_stop":
                self.enter({**STOP, "stop": question.stop})
                continue
            goes, shim = next(given, ("0.25" if question.valve == "exhaust" else "0.20", "2.50"))
            self.read(question.valve, goes, cylinder=question.cylinder, camshaft=question.camshaft, shim=mm(shim))

    def test_two_shims_change_places_and_are_read_once_more(self):
        """By hand: 0.30 over 2.40 and 0.10 over 2.50 become 0.20 and 0.20 when they change places."""
        self.all_read(("0.30", "2.40"), ("0.25", "2.50"), ("0.10", "2.50"))
        self.assertEqual(self.asked().kind, "lash_shims")
        sheet = lash_sheet(self.now, "lash")
        rows = {row.words: row for row in sheet.rows}
        swapped = [words for words, row in rows.items() if row.came_from]
        self.assertEqual((len(swapped), sheet.words[:26]), (2, "2 moved within the engine,"))
        self.enter({"kind": "lash_shims", "step": "lash", "shims": {row.valve: f"{row.shim_mm:.2f}" for row in sheet.rows}})
        self.assertEqual(self.build.end_count("another shim, not read again"), 2)
        self.assertNotIn("lash", self.build.folded.states["run"].done)
        self.build.play("lash-look")
        self.assertIn("lash", self.build.folded.states["run"].done)
        self.assertEqual(shims_taken(self.now), {})

    def test_shims_of_two_sorts_change_places_among_their_own_and_come_each_from_its_own_shelf(self):
        """By hand: an intake 0.10 loose over 2.40, an exhaust 0.10 tight over 2.50: of one sort they change places, of two not."""
        self.all_read(("0.30", "2.40"), ("0.15", "2.50"))
        one_sort = lash_sheet(self.now, "lash", {"Bucket shims 31": {"2.50": 9, "2.40": 9}})
        self.assertEqual(sum(bool(row.came_from) for row in one_sort.rows), 2)
        data = family_copy_with_run(self.code)
        exhaust = next(lash for lash in data["lash"] if lash["valve"] == "exhaust")
        exhaust["shims"]["part"] = "Bucket shims 28"
        two = read_document(data)
        now = replace(self.now, document=two, book=lash_book(two))
        sheet = lash_sheet(now, "lash", {"Bucket shims 31": {"2.50": 1}})
        changed = {row.valve.split("|")[2]: (row.source, row.shim_mm) for row in sheet.rows if row.shim_mm != row.shim_now_mm}
        self.assertEqual(changed, {"intake": ("stock", 2.5), "exhaust": ("to buy", 2.4)})
        self.assertEqual(sheet.part, "Bucket shims 31 and Bucket shims 28")

    def test_a_new_shim_is_taken_from_stock(self):
        self.all_read(("0.30", "2.40"))
        sheet = lash_sheet(self.now, "lash", {"Bucket shims 31": {"2.50": 1}})
        self.assertIn("1 from stock", sheet.words)
        body = {"kind": "lash_shims", "step": "lash", "shims": {row.valve: f"{row.shim_mm:.2f}" for row in sheet.rows}}
        with self.assertRaises(AskFirst) as asked:
            known = {**self.build.known(), STOCK: {"Bucket shims 31": {}}}
            HOUSE.check(self.build.folded, HOUSE.read(body, 2), known)
        self.assertIn("1 new one is needed and 0 are free", str(asked.exception))
        self.enter(body)
        self.assertEqual(shims_taken(self.now), {("Bucket shims 31", "2.50"): 1})

    def test_what_is_refused_of_shims(self):
        self.all_read(("0.30", "2.40"))
        valve = "intake|1|intake|"
        for shims, words, field in (
            ({valve: "2.47"}, "a shim of 2.47 mm is not made: there are 2.45, 2.5", f"shims.{valve}"),
            ({valve: "thick"}, "number", f"shims.{valve}"),
            ({"nobody": "2.45"}, "sets no such valve", "shims.nobody"),
        ):
            with self.subTest(words):
                self.assertEqual(self.refused(words, {"kind": "lash_shims", "step": "lash", "shims": shims}), field)

    def test_the_crank_is_not_turned_under_do_not_turn(self):
        """The stop is a turn: whatever keeps the crank from turning keeps it from the stop."""
        self.enter(READY)
        self.build.enter("thing", thing="crank-pin", on=True, note="put on again")
        self.refused("turn", STOP)

    def test_what_is_met_on_the_way_is_looked_for_up_to_the_stop_that_is_named(self):
        self.enter(READY)
        places = [stop.crank_deg for stop in self.build.state.lash.stops]
        clear = Mock(crank_to=lambda place_deg: f"something is met before {place_deg:g}°")
        self.assertEqual(len(set(places)), 2)
        for stop, place_deg in enumerate(places, 1):
            with self.assertRaises(AskFirst) as asked:
                HOUSE.check(self.build.folded, HOUSE.read({**STOP, "stop": stop}, 2), {**self.build.known(), CLEAR: clear})
            self.assertIn(f"met before {place_deg:g}°", str(asked.exception))

    def test_the_shim_that_is_in_is_asked_for_once(self):
        self.enter(READY)
        self.enter(STOP)
        question = self.asked()
        where = {"cylinder": question.cylinder, "camshaft": question.camshaft}
        self.assertEqual(self.refused("say which shim is in", self.body(question.valve, "0.20", **where)), "shim")
        self.assertEqual(self.refused("is no shim", self.body(question.valve, "0.20", **where, shim=mm("24"))), "shim.text")
        self.read(question.valve, "0.30", **where, shim=mm("2.40"))
        self.read(question.valve, "0.30", **where)
        self.assertEqual(self.now.reads[question.id].shim_mm, 2.40)


class OtherWaysTests(LashCase):
    code = "mallow-2"

    def test_an_engine_nobody_knows_is_set_cylinder_by_cylinder_and_nothing_is_judged(self):
        """Common practice: each at its own firing TDC; no limit is known."""
        self.enter({**READY, "way": "fewest"})
        stops = self.build.state.lash.stops
        self.assertEqual((stops[0].where, stops[0].crank_deg), ("cylinder 1 at firing TDC", None))
        self.build.play("cover-top")
        self.assertEqual({read.verdict for read in self.now.reads.values()}, {"no limit known"})

    def test_hydraulic_lifters_are_turned_on_after_zero(self):
        data = family_copy_with_run("quern-4")
        for lash in data["lash"]:
            lash |= {"least_mm": 0, "most_mm": 0, "set_by": "hydraulic", "turns": 0.75}
        for lobe in data["camshafts"][0]["lobes"]:
            lobe["lash_mm"] = 0
        self.build = Build(read_document(data)).to("lash")
        self.enter({**READY, "gauge": None})
        self.enter(STOP)
        self.assertEqual(self.refused("after zero lash", self.body("intake", None)), "turns")
        self.refused("the book turns it 0.75", self.body("intake", None, turns="1/4"), AskFirst)
        self.read("intake", None, turns="3/4")
        self.assertEqual(self.now.reads["cam|1|intake|"].turns, 0.75)
        self.build.play("lash-look")
        self.assertIn("lash", self.build.folded.states["run"].done)


STRUCK = ("lash_ready", "lash_stop", "lash_reading", "lash_shims", "lash_decided", "step_opened")
FITTED = ("fits_ready", "fit_reading", "fit_decided")


class WalkTests(unittest.TestCase):
    """Whatever happens, in whatever order: entry by entry is the same as all at once, and struck entries leave no trace."""

    def walk(self, code, until, kinds, odd, seed):
        build, chance = Build(code).to(until), random.Random(seed)
        for _ in range(30):
            try:
                drawn = chance.random()
                if drawn < 0.3:
                    build.enter(**odd(chance), because="all the same", by=LEAD)
                elif drawn < 0.4 and (own := [entry for entry in build.folded.entries if entry.body.kind in kinds]):
                    build.enter("strike", strikes=str(chance.choice(own).id), reason="slip", by=LEAD)
                elif (question := next_question(build.state)) and question.kind != "sign_off":
                    build.answer(question)
            except CoreError:
                continue
        return build

    def same(self, build, room):
        whole = HOUSE.fold(build.engine, build.folded.entries)
        self.assertEqual(HOUSE.show(whole).model_dump(), build.state.model_dump())
        plain = HOUSE.fold(
            build.engine, [one for one in build.folded.entries if one.id not in build.folded.struck and one.body.kind != "strike"]
        )
        self.assertEqual(plain.states["run"].done.keys(), build.folded.states["run"].done.keys())
        self.assertEqual(plain.states[room].complete, build.folded.states[room].complete)

    @WALKS
    @given(st.integers(0, 10**9))
    def test_valves(self, seed):
        def odd(chance):
            where = {"step": "lash", "camshaft": "cam", "cylinder": 1, "valve": chance.choice(["intake", "exhaust"])}
            return chance.choice(
                [
                    {"kind": "lash_reading", **where, "goes": mm(f"0.{chance.randint(5, 20):02}")},
                    {"kind": "lash_decided", "step": "lash", "valve": "cam|1|intake|", "reason": "seen"},
                    {"kind": "step_opened", "step": "lash", "reason": "undone"},
                    {**READY, "way": "firing"},
                ]
            )

        build = self.walk("wick-1", "lash", STRUCK, odd, seed)
        self.same(build, "lash")
        build.clock = build.clock.replace(year=2027)
        self.assertTrue(build.play().state.signed, build.ends())

    @WALKS
    @given(st.integers(0, 10**9))
    def test_fits(self, seed):
        fit = {"step": "float", "fit": "crank-float"}

        def odd(chance):
            decided = {"kind": "fit_decided", **fit, "place": "it", "decision": chance.choice(["accepted", "read_again"]), "reason": "seen"}
            reading = {"place": "it", "side": "gap", "reading": mm(f"0.{chance.randint(3, 40):02}")}
            return chance.choice(
                [decided, {"kind": "fit_reading", **fit, **reading}, {"kind": "step_opened", "step": "float", "reason": "undone"}]
            )

        self.same(self.walk("quern-4", "float", FITTED, odd, seed), "fits")
