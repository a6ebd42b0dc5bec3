"""Fits at the bench: readings in their order, verdicts, what settles them, sizes from stock, what is refused and what is asked."""

import unittest
from datetime import date

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import AskFirst, CoreError, DocumentError
from gurvo_core.fits.job.figures import reading_si
from gurvo_core.fits.job.intake import intake_of
from gurvo_core.fits.job.kept import figures_kept, pieces_taken, scatter_kept
from gurvo_core.fits.job.paper import fit_lines
from gurvo_core.fits.job.sheet import Others, fit_sheet
from gurvo_core.fits.job.whatif import ChamberAsked, chamber_view
from gurvo_core.ledger import STOCK, Gauge
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.engines import LENGTHS, family_copy_with_run

MAINS = {"step": "main-fit", "fit": "main-clearance"}
RING = {"standard": {"text": "58", "unit": "mm"}, "standard_u": {"text": "1", "unit": "µm"}}
BORES = {"kind": "fits_ready", **MAINS, "side": "outer", "gauge": "P1", "as_asked": True, "part_c": "20", **RING}
JOURNALS = {"kind": "fits_ready", **MAINS, "side": "inner", "gauge": "M1", "part_c": "20"}
COARSE = Gauge(id="M2", name="hundredths", kind="micrometer", resolution=0.01, expanded_uncertainty=0.003, least=50, most=75)
SPOTS = [(plane, axis) for plane in ("front", "rear") for axis in ("up", "across")]


class FitCase(unittest.TestCase):
    """A four whose mains are measured; bores alike, journals as a test has them."""

    code = "quern-4"

    def setUp(self):
        self.build = Build(self.code).to("main-fit")
        self.build.gauges = (*self.build.gauges, COARSE)

    @property
    def now(self):
        return self.build.folded.states["fits"]

    def judged(self):
        return [paper.judged for paper in HOUSE.papers(self.build.folded) if paper.judged is not None]

    def paper(self):
        return next(one for one in HOUSE.papers(self.build.folded) if one.title == self.mains.fit.name)

    @property
    def mains(self):
        return self.now.book.fits["main-clearance"]

    def enter(self, body, **how):
        return self.build.enter(**body, **how)

    def read(self, place, side, text, plane="front", axis="up", **more):
        unit = more.pop("unit", "mm")
        how = {key: more.pop(key) for key in ("because", "by") if key in more}
        body = {"place": f"main {place}", "side": side, "plane": plane, "axis": axis, "reading": {"text": text, "unit": unit}}
        return self.enter({"kind": "fit_reading", **MAINS, **body, **more}, **how)

    def read_bores(self, size="58.016"):
        self.enter(BORES)
        for place in range(1, 6):
            for plane, axis in SPOTS:
                self.read(place, "outer", size, plane, axis)

    def read_journals(self, *sizes, ready=JOURNALS):
        self.enter(ready)
        for place, size in enumerate(sizes, 1):
            for plane, axis in SPOTS:
                self.read(place, "inner", size, plane, axis)

    def sheet(self, **known):
        return fit_sheet(self.now, self.mains, "main-fit", **known)

    def refused(self, words, body, error=CoreError, **how):
        with self.assertRaises(error) as refused:
            self.enter(body, **how)
        self.assertIn(words.lower(), str(refused.exception).lower())
        return refused.exception.field


class ReadingTests(FitCase):
    def test_all_bores_come_before_the_journals_plane_by_plane(self):
        self.enter(BORES)
        asked = [question.spot for question in self.step_questions() if question.kind == "fit_reading"]
        self.assertEqual(asked, ["Main 1 bore, front ↕", "Main 1 bore, front ↔", "Main 1 bore, rear ↕"])
        for place in range(1, 6):
            for plane, axis in SPOTS:
                self.read(place, "outer", "58.016", plane, axis)
        self.assertEqual(next_question(self.build.state).kind, "fits_ready")

    def step_questions(self):
        return next(step for step in self.build.state.steps if step.key == "main-fit").questions

    def test_a_step_is_done_once_every_place_is_in(self):
        self.read_bores()
        self.read_journals("57.97", "57.971", "57.97", "57.969")
        self.assertNotIn("main-fit", self.build.folded.states["run"].done)
        for plane, axis in SPOTS:
            self.read(5, "inner", "57.970", plane, axis)
        self.assertIn("main-fit", self.build.folded.states["run"].done)
        self.assertEqual({stands.judged.verdict for stands in self.now.places["main-clearance"].values()}, {"in"})
        self.assertEqual(len(figures_kept(self.now)), 5)

    def test_what_repeats_scattered_by_is_pooled_over_spots(self):
        """By hand: 58.016 and 58.018 lie 0.001 from their mean, 58.010 and 58.014 lie 0.002: two squares each, one freedom each."""
        self.enter(BORES)
        for axis, sizes in (("up", ("58.016", "58.018")), ("across", ("58.010", "58.014"))):
            for size in sizes:
                self.read(1, "outer", size, "front", axis)
        (scatter,) = scatter_kept(self.now).values()
        self.assertEqual((round(scatter.squares, 9), scatter.freedom), (1e-5, 2))

    def test_the_first_page_has_a_line_for_the_fit(self):
        self.read_bores()
        self.assertEqual(self.judged(), [])
        self.read_journals(*["57.970"] * 5)
        (line,) = self.judged()
        self.assertEqual((line.what, line.got, line.word), (f"{self.mains.fit.name}, 5", "0.046 mm", "in"))
        self.assertRegex(line.wanted, r"0\.03.* to .*0\.06")

    def test_sizes_are_chosen_only_where_there_are_several(self):
        body = {"kind": "fit_chosen", "step": "bore-fit", "fit": "piston-clearance", "sizes": {"1": "red"}}
        for change in ({}, {"fit": "none"}, {"step": "main-fit"}):
            self.assertEqual(self.refused("nothing is chosen from stock", {**body, **change}), "fit")

    def test_the_figure_is_the_smallest_bore_less_the_largest_journal(self):
        """By hand: 58.014 - 57.972 = 0.042; out of round 0.003."""
        self.read_bores()
        self.read(1, "outer", "58.014", "rear", "across", gauge="P2", because="the other one is away")
        self.read_journals("57.969")
        self.read(1, "inner", "57.972", "rear", "up")
        view = next(one for one in self.sheet().fit.places if one.id == "main 1")
        self.assertAlmostEqual(view.least_mm, 58.014 - (57.969 + 57.972) / 2, delta=1e-6)
        self.assertIn("journal taper", view.notes)

    def test_a_reading_from_nominal_counts_from_what_the_gauge_was_set_to(self):
        self.enter(BORES)
        self.read(1, "outer", "+16", unit="µm", from_nominal=True)
        self.assertAlmostEqual(self.now.of_fit("main-clearance")["main 1|outer|front|up"][0].size_mm, 58.016, delta=1e-9)
        self.assertEqual(self.build.folded.entries[-1].body.called, "Main 1 bore, front ↕")

    def test_inches_are_taken_as_inches(self):
        """By hand: 2.28405 in = 58.01487 mm."""
        self.enter(BORES)
        self.read(1, "outer", "2.28405", unit="in")
        self.assertAlmostEqual(self.now.of_fit("main-clearance")["main 1|outer|front|up"][0].size_mm, 58.01487, delta=1e-9)

    def test_a_struck_reading_is_asked_for_again(self):
        self.read_bores()
        struck = self.build.folded.entries[-1]
        self.build.enter("strike", strikes=str(struck.id), reason="dirt in the bore")
        self.assertEqual(next_question(self.build.state).spot, "Main 5 bore, rear ↔")


class VerdictTests(FitCase):
    def cannot_be_told(self):
        self.read_bores("58.025")
        self.read_journals(*["57.97"] * 5, ready={**JOURNALS, "gauge": "M2"})

    def test_what_cannot_be_told_holds_back_the_start_and_names_what_settles_it(self):
        self.cannot_be_told()
        self.assertIn("Main 3 cannot be told", self.build.ends())
        ways = [way.words for way in self.sheet(gauges=(*LENGTHS, COARSE)).ways if way.place == "main 3"]
        self.assertTrue(ways[0].startswith("Read the journal again with M1"), ways)
        self.assertNotIn("main-fit", self.build.folded.states["run"].done)

    def test_read_again_with_the_finer_gauge_it_is_told(self):
        """The finer readings take the place of the coarse ones; nothing else of the fit changes."""
        self.cannot_be_told()
        for place in range(1, 6):
            for plane, axis in SPOTS:
                self.read(place, "inner", "57.972", plane, axis, gauge="M1")
        self.assertEqual({stands.judged.verdict for stands in self.now.places["main-clearance"].values()}, {"in"})
        self.assertIn("main-fit", self.build.folded.states["run"].done)
        self.assertEqual(self.build.end_count("cannot be told"), 0)

    def test_only_the_lead_accepts_it_and_it_stays_said(self):
        self.cannot_be_told()
        body = {"kind": "fit_decided", **MAINS, "place": "main 3", "decision": "accepted", "reason": "one in five, for a pump"}
        self.assertEqual(self.refused("only the lead accepts", body, AskFirst), "decision")
        for place in range(1, 6):
            self.enter({**body, "place": f"main {place}"}, by=LEAD, because="seen")
        self.assertIn("main-fit", self.build.folded.states["run"].done)
        self.assertIn("accepted by the lead: one in five, for a pump", self.paper().tables[0].rows[2].note)

    def test_a_done_step_opens_with_the_place_that_is_read_again(self):
        self.read_bores()
        self.read_journals(*["57.970"] * 5)
        done = set(self.build.play("crank-in").folded.states["run"].done)
        self.enter({"kind": "fit_decided", **MAINS, "place": "main 2", "decision": "replaced", "reason": "shell scratched"})
        self.assertEqual(done - set(self.build.folded.states["run"].done), {"main-fit"})
        self.assertEqual(next_question(self.build.state).spot, "Main 2 bore, front ↕")
        self.assertIn("shell scratched", self.build.folded.states["run"].opened["main-fit"].because)

    def test_a_step_opened_again_asks_for_everything_anew(self):
        self.read_bores()
        self.read_journals(*["57.970"] * 5)
        self.build.enter("step_opened", step="main-fit", reason="caps were not torqued")
        self.assertEqual(dict(self.now.of_fit("main-clearance")), {})

    def test_a_guess_is_judged_against_nothing(self):
        data = family_copy_with_run("quern-4")
        data["origins"] = {"/fits/0": {"is": "guess", "note": "a like engine"}}
        self.build = Build(read_document(data)).to("main-fit")
        self.read_bores("58.2")
        self.read_journals(*["57.970"] * 5)
        self.assertEqual({stands.judged.verdict for stands in self.now.places["main-clearance"].values()}, {"no limit known"})
        self.assertIn("main-fit", self.build.folded.states["run"].done)


class RefusalTests(FitCase):
    def test_the_part_must_be_as_the_book_has_it(self):
        self.assertEqual(self.refused("shells in, caps torqued", {**BORES, "as_asked": False}), "as_asked")

    def test_gauges_that_cannot_do_it(self):
        for gauge, words in (("M3", "75 to 100 mm"), ("T2", "no gauge for lengths"), ("gone", "no gauge for lengths")):
            with self.subTest(gauge):
                self.assertEqual(self.refused(words, {**JOURNALS, "gauge": gauge}), "gauge")
        self.refused("the book reads it by micrometer or bore", {**JOURNALS, "gauge": "F1"}, AskFirst)
        self.refused("say the size it was set to", {key: value for key, value in BORES.items() if key != "standard"}, AskFirst)

    def test_a_gauge_out_of_date_or_not_named_asks_why(self):
        late = COARSE.model_copy(update={"id": "M7", "due": date(2026, 1, 1)})
        self.build.gauges = (*self.build.gauges, late)
        self.refused("ran out on 01 Jan 2026", {**JOURNALS, "gauge": "M7"}, AskFirst)
        self.refused("no gauge is named", {**JOURNALS, "gauge": None}, AskFirst)

    def test_a_gauge_that_is_not_good_enough_is_said_before_the_first_reading(self):
        """By hand: steps of 0.05 mm are U = 0.029 at best, more than half of 0.030."""
        self.build.gauges = (*self.build.gauges, COARSE.model_copy(update={"id": "M8", "resolution": 0.05}))
        field = self.refused("not good enough for this fit", {**JOURNALS, "gauge": "M8"}, AskFirst)
        self.assertEqual(field, "gauge")

    def test_temperatures(self):
        self.assertEqual(self.refused("did you mean 21.5?", {**BORES, "part_c": "215"}), "part_c")
        self.assertEqual(self.refused("number", {**BORES, "part_c": "warm"}), "part_c")
        self.assertEqual(self.refused("say how warm the part is too", {**JOURNALS, "part_c": None, "gauge_c": "22"}), "part_c")

    def test_readings_that_cannot_be(self):
        self.assertRaisesRegex(CoreError, "First say with what the bore is read", self.read, 1, "outer", "58.016")
        self.enter(BORES)
        for text, words in (("5.8016", "did you mean 58.016?"), ("580.16", "did you mean 58.016?"), ("2.284", "(inches)")):
            with self.subTest(text):
                self.assertRaisesRegex(
                    CoreError, words.replace("?", r"\?").replace("(", r"\(").replace(")", r"\)"), self.read, 1, "outer", text
                )
        self.assertRaisesRegex(CoreError, "no such place", self.read, 9, "outer", "58.016")
        self.assertRaisesRegex(CoreError, "in mm, inches or thou", self.read, 1, "outer", "58.016", unit="deg")

    def test_a_bore_smaller_than_its_journal_is_asked_about(self):
        self.read_bores()
        self.enter(JOURNALS)
        with self.assertRaises(AskFirst) as asked:
            self.read(1, "inner", "58.030")
        self.assertIn("a press fit, or a slip?", str(asked.exception))
        self.read(1, "inner", "58.030", because="it is a press fit")

    def test_nothing_is_read_before_the_step_may_be_done(self):
        build = Build("quern-4")
        with self.assertRaises(CoreError) as refused:
            build.enter(**BORES)
        self.assertIn("not yet", str(refused.exception).lower())

    def test_documents_that_cannot_be(self):
        fit = {"id": "x", "name": "X", "outer": {"name": "bore"}, "inner": {"name": "pin"}}
        for change, words in (
            ({"inner": None}, "needs both of them"),
            ({"gap": {"name": "gap"}}, "not both"),
            ({"at": "mains"}, "say how many"),
            ({"outer": None, "inner": None, "places": ["a"]}, "need sides or a gap"),
            ({"select": {"part": "p", "on": "gap", "classes": [{"id": "a", "size_mm": 1}]}}, "does not have"),
            ({"select": {"part": "p", "measured_in": "z", "classes": [{"id": "a", "size_mm": 1}]}}, "none of its sizes"),
            ({"places": ["a", "a"]}, "named 2 times"),
            ({"least_per_mm": 0.001}, "need a nominal diameter"),
        ):
            with self.subTest(words):
                data = family_copy_with_run("wick-1")
                data["fits"] = [*data["fits"], {**fit, **change}]
                with self.assertRaises(DocumentError) as refused:
                    read_document(data)
                self.assertIn(words, " ".join(fault.sentence for fault in refused.exception.faults).lower())

    def test_a_fit_in_two_steps_or_beside_one_without_places_is_a_fault(self):
        data = family_copy_with_run("quern-4")
        steps = next(stage for stage in data["stages"] if stage["id"] == "block")["steps"]
        next(step for step in steps if step["id"] == "rod-fit")["fits"] = ["main-clearance"]
        with self.assertRaises(DocumentError) as refused:
            read_document(data)
        self.assertIn("measured in step main-fit already", refused.exception.faults[0].sentence)


class ChoiceTests(FitCase):
    code = "corrie-v6"
    STOCK = {"Corrie main shells": {"A": 8, "B": 8, "C": 4, "D": 8, "E": 2}}

    def measured(self):
        self.build.play("main-fit:main-clearance:sizes")

    def choose(self, sizes, **how):
        known = {STOCK: self.STOCK}
        read = HOUSE.read({"kind": "fit_chosen", **MAINS, "sizes": sizes}, 2)
        HOUSE.check(self.build.folded, read, {**self.build.known(), **known}, **how)
        return self.enter({"kind": "fit_chosen", **MAINS, "sizes": sizes}, because=how.get("because", ""))

    def test_shells_from_stock_bring_every_place_in(self):
        self.measured()
        sheet = self.sheet(stock=self.STOCK)
        self.assertEqual([size.free for size in sheet.choice.sizes], [4, 4, 2, 4, 1])
        sizes = {row.place: row.size for row in sheet.choice.rows}
        self.assertEqual(sorted(sizes.values()).count("C"), 2, "no more than there are")
        self.choose(sizes)
        self.assertEqual({stands.judged.verdict for stands in self.now.places["main-clearance"].values()}, {"in"})
        for row in sheet.choice.rows:
            stands = self.now.places["main-clearance"][row.place]
            middle = (stands.clearance.least.value + stands.clearance.most.value) / 2
            self.assertAlmostEqual(middle, row.gives_mm, delta=1e-6)
        self.assertEqual(sum(pieces_taken(self.now).values()), 8)

    def test_the_shells_own_tolerance_is_part_of_the_uncertainty(self):
        """By hand: two shells of 0.001 mm either way: 2 * 0.001 / sqrt(3 * 2) beside what the gauges give."""
        self.measured()
        bare = self.sheet().lines[0]
        self.choose(dict.fromkeys([f"main {n}" for n in range(1, 5)], "B"), because="typed by hand")
        stands = self.now.places["main-clearance"]["main 1"]
        reads = self.now.of_fit("main-clearance")
        gauges = [reads[f"main 1|{side}||up"][0].read_with.u_mm(size) for side, size in (("outer", 67), ("inner", 63))]
        expected = (gauges[0] ** 2 + gauges[1] ** 2 + (2 * 0.001 / 6**0.5) ** 2) ** 0.5
        self.assertAlmostEqual(stands.clearance.least.u, expected, delta=1e-6)
        self.assertEqual(len(bare.cells), 4)

    def test_sizes_that_are_not_made_or_not_there(self):
        self.measured()
        with self.assertRaises(CoreError) as refused:
            self.choose({"main 1": "Q"})
        self.assertIn("not made in Q", str(refused.exception))
        with self.assertRaises(AskFirst) as asked:
            self.choose(dict.fromkeys([f"main {n}" for n in range(1, 5)], "E"))
        self.assertIn("8 are needed and 2 are free", str(asked.exception))

    def test_nothing_is_chosen_before_it_is_measured(self):
        self.build.play("main-fit:main-clearance:main 2|inner||up")
        with self.assertRaises(CoreError) as refused:
            self.choose({"main 3": "B"})
        self.assertIn("Main 3 journal, ↕ is not read yet", str(refused.exception))

    def test_too_few_shells_are_said(self):
        self.measured()
        sheet = self.sheet(stock={"Corrie main shells": {"A": 2}})
        self.assertEqual((sheet.choice.rows, sheet.choice.words[:3]), ([], "Too"))


class OtherShellsTests(FitCase):
    def test_other_shells_are_measured_once_more(self):
        """Where the shells were in while it was measured, changing them puts aside what was read of the bore."""
        self.read_bores()
        self.read_journals(*["57.970"] * 5)
        self.build.enter("step_opened", step="main-fit", reason="looser for a pump that runs all day")
        self.read_bores()
        self.read_journals("57.970", "57.970", "57.970", "57.970", "57.960")
        sizes = {f"main {n}": "green" for n in range(1, 5)} | {"main 5": "blue"}
        self.enter({"kind": "fit_chosen", **MAINS, "sizes": sizes})
        self.assertEqual(next_question(self.build.state).spot, "Main 5 bore, front ↕")
        self.assertEqual(pieces_taken(self.now), {("Quern main shells", "blue"): 2})


class SheetTests(FitCase):
    def test_a_pasted_sheet_is_asked_cell_by_cell_as_readings_are(self):
        self.enter(BORES)
        text = "place\tbore front up\tbore front across\nmain 1\t58.016\t5.8016\nmain 2\tx\t58.7"
        read = intake_of(self.now, self.mains, "main-fit", text)
        self.assertEqual([one.called for one in read.taken], ["Main 1 bore, front ↕", "Main 2 bore, front ↔"])
        self.assertEqual([bool(one.ask) for one in read.taken], [False, True])
        self.assertEqual([one.line for one in read.not_taken], [2, 3])
        self.enter(read.taken[0].entry.model_dump())
        self.assertEqual(next_question(self.build.state).spot, "Main 1 bore, front ↔")

    def test_paper_and_table_hold_every_reading_that_stands(self):
        self.read_bores()
        self.read(1, "outer", "58.018")
        self.assertEqual(len(list(fit_lines(self.now))), 21)
        paper = self.paper()
        table = paper.tables[0]
        self.assertIn("gauge P1", paper.about[1])
        self.assertEqual((len(table.heads), table.rows[0].cells[1]), (12, "58.017 ×2"))

    def test_others_of_the_family_are_compared_with(self):
        self.read_bores()
        self.read_journals("57.970")
        sheet = self.sheet(others={"main 1": Others(values_mm=[0.040, 0.044])})
        self.assertEqual((sheet.trend[0].count, round(sheet.trend[0].mean_mm, 4), round(sheet.trend[0].spread_mm, 4)), (2, 0.042, 0.0028))


class ChamberTests(unittest.TestCase):
    def test_the_gasket_follows_the_highest_piston_and_what_if_is_only_a_look(self):
        build = Build("garth-d6").to("heights")
        build.enter("fits_ready", step="heights", fit="protrusion", side="gap", gauge="D2", as_asked=True, part_c="20")
        for cylinder in range(1, 7):
            for plane in ("front", "rear"):
                spot = {"place": f"cylinder {cylinder}", "side": "gap", "plane": plane}
                text = "0.46" if cylinder == 4 else "0.40"
                build.enter("fit_reading", step="heights", fit="protrusion", **spot, reading={"text": text, "unit": "mm"})
        now = build.folded.states["fits"]
        sheet = fit_sheet(now, now.book.fits["protrusion"], "heights")
        self.assertEqual(sheet.gasket, "Gasket 2: Cylinder 4 stands 0.46 mm proud, the thinner ones are for less.")
        view = chamber_view(now, ChamberAsked())
        self.assertEqual((view.gasket, len(view.rows), view.rows[3].is_measured), ("2", 6, True))
        thin = chamber_view(now, ChamberAsked(gasket="1", skimmed_mm=0.2))
        self.assertIn("higher than this gasket is for (0.4 mm)", thin.rows[3].notes[0])
        self.assertGreater(thin.rows[0].ratio, view.rows[0].ratio)
        with self.assertRaises(CoreError) as refused:
            chamber_view(now, ChamberAsked(gasket="9"))
        self.assertEqual(refused.exception.field, "gasket")


class StrokeTests(unittest.TestCase):
    def test_a_pin_that_stands_beside_the_crank_makes_the_swept_volume_larger(self):
        """By hand: throw 43, rod 143, pin 30 beside: the piston travels 183.565 - 95.394 = 88.171 mm instead of 86."""
        ratios = []
        for offset_mm in (0.0, 30.0):
            data = family_copy_with_run("garth-d6")
            train = {"bore_mm": 86, "stroke_mm": 86, "rod_mm": 143, "pin_offset_mm": offset_mm}
            data["banks"][0]["cranktrain"] |= train | {"compression_height_mm": None, "deck_height_mm": None, "gasket_mm": None}
            build = Build(read_document(data)).to("heights")
            build.enter("fits_ready", step="heights", fit="protrusion", side="gap", gauge="D2", as_asked=True, part_c="20")
            for plane in ("front", "rear"):
                spot = {"place": "cylinder 1", "side": "gap", "plane": plane}
                build.enter("fit_reading", step="heights", fit="protrusion", **spot, reading={"text": "0.40", "unit": "mm"})
            ratios.append(chamber_view(build.folded.states["fits"], ChamberAsked()).rows[0].ratio)
        self.assertAlmostEqual((ratios[1] - 1) / (ratios[0] - 1), 88.171 / 86, delta=0.0015)


class GapTests(unittest.TestCase):
    def test_a_backlash_read_further_out_is_brought_to_its_radius(self):
        """By hand: 0.24 mm at a radius of 120 is 0.12 at 60, and the dial's step is halved with it."""
        build = Build("garth-d6").to("backlash")
        ready = {"step": "backlash", "fit": "backlash", "side": "gap", "gauge": "D2", "as_asked": True, "part_c": "20"}
        with self.assertRaises(AskFirst) as asked:
            build.enter("fits_ready", **ready)
        self.assertIn("the limits hold at 60 mm", str(asked.exception))
        build.enter("fits_ready", **ready, read_at={"text": "120", "unit": "mm"})
        self.assertIn("at a radius of 120 mm", HOUSE.tape_line(build.folded.entries[-1], None).detail)
        spot = {"place": "it", "side": "gap", "reading": {"text": "0.24", "unit": "mm"}}
        build.enter("fit_reading", step="backlash", fit="backlash", **spot)
        stands = build.folded.states["fits"].places["backlash"]["it"]
        self.assertAlmostEqual(stands.judged.figure.value, 0.12, delta=1e-9)
        self.assertAlmostEqual(stands.clearance.least.u, ((0.005 / 12**0.5) ** 2 + (0.004 / 2) ** 2) ** 0.5, delta=1e-5)
        self.assertIn("backlash", build.folded.states["run"].done)
        self.assertEqual(
            reading_si(build.folded.entries[-1].body, build.folded.states["fits"].ready["backlash", "gap"], None)["size_mm"], 0.12
        )

    def test_a_tight_ring_is_filed_and_read_again(self):
        build = Build("quern-4").to("gaps")
        build.enter("fits_ready", step="gaps", fit="ring-gaps", side="gap", gauge="F1", as_asked=True, part_c="20")
        now = build.folded.states["fits"]
        for place in now.book.fits["ring-gaps"].places:
            text = "0.20" if place.id == "cylinder 2, top ring" else "0.35"
            spot = {"place": place.id, "side": "gap", "reading": {"text": text, "unit": "mm"}}
            build.enter("fit_reading", step="gaps", fit="ring-gaps", **spot)
        now = build.folded.states["fits"]
        ways = [way.words for way in fit_sheet(now, now.book.fits["ring-gaps"], "gaps").ways]
        self.assertEqual(ways, ["It is {fine:0.0500} too tight.", "File the ring by {fine:0.1500} and read it again."])
        where = {"step": "gaps", "fit": "ring-gaps", "place": "cylinder 2, top ring"}
        build.enter("fit_decided", **where, decision="read_again", reason="filed")
        build.enter(
            "fit_reading", step="gaps", fit="ring-gaps", place="cylinder 2, top ring", side="gap", reading={"text": "0.34", "unit": "mm"}
        )
        self.assertIn("gaps", build.folded.states["run"].done)


class DocumentTests(unittest.TestCase):
    def test_places_come_from_the_engine(self):
        data = family_copy_with_run("corrie-v6")
        side = {"gap": {"name": "gap"}}
        data["fits"] = [
            *data["fits"],
            {"id": "rods", "name": "Rods", "at": "rods", **side},
            {"id": "cams", "name": "Cams", "at": "cam_journals", "count": 4, **side},
            {"id": "rings", "name": "Rings", "at": "rings", "count": 3, **side},
            {
                "id": "named",
                "name": "Named",
                "places": ["idler", "pump"],
                "least_per_mm": 0.0008,
                "gap": {"name": "bush", "nominal_mm": 20},
            },
        ]
        document: EngineDocument = read_document(data)
        book = Build(document).folded.states["fits"].book
        counts = {name: len(book.fits[name].places) for name in ("rods", "cams", "rings", "named")}
        self.assertEqual(counts, {"rods": 6, "cams": 16, "rings": 18, "named": 2})
        self.assertAlmostEqual(book.fits["named"].limits_mm[0], 0.016, delta=1e-12)


class TapeTests(FitCase):
    """Every kind of entry reads as a line, today and whatever a fit is called later."""

    def lines(self):
        return [HOUSE.tape_line(entry, None) for entry in self.build.folded.entries if entry.body.kind.startswith("fit")]

    def test_every_kind_of_entry_reads_as_a_line(self):
        self.read_bores("58.025")
        self.read(1, "outer", "+25", unit="µm", from_nominal=True)
        self.read_journals(*["57.97"] * 5, ready={**JOURNALS, "gauge": "M2", "part_c": None})
        sizes = {f"main {n}": "green" for n in range(1, 6)}
        self.enter({"kind": "fit_chosen", **MAINS, "sizes": sizes, "lot": "QM-26"})
        self.enter({"kind": "fit_decided", **MAINS, "place": "main 3", "decision": "read_again", "reason": "a finer gauge"})
        said = {(line.title, line.value, line.detail) for line in self.lines()}
        for words in (
            ("Main bearing clearance, bore, before the first reading", "", "gauge P1, set by 58 mm, part 20 °C"),
            ("Main 1 bore, front ↕", "+25 µm", "from what it was set to"),
            ("Main bearing clearance, journal, before the first reading", "", "gauge M2, temperature not looked at"),
            ("Main 5 journal, rear ↔", "57.97 mm", ""),
            ("Main bearing clearance, main 3", "is read again", "a finer gauge"),
        ):
            self.assertIn(words, said)
        chosen = next(line for line in self.lines() if line.title.endswith("sizes chosen"))
        self.assertEqual((chosen.value, chosen.detail.endswith("lot QM-26")), ("5 × green", True))

    def test_a_line_stays_when_a_fit_is_called_otherwise(self):
        self.read_bores()
        before = [line.title for line in self.lines()]
        data = family_copy_with_run("quern-4")
        data["fits"][0]["name"] = "Crank bearings"
        data["fits"][0]["outer"]["name"] = "tunnel"
        moved = HOUSE.fold(read_document(data), self.build.folded.entries)
        self.assertEqual([HOUSE.tape_line(entry, None).title for entry in moved.entries if entry.body.kind.startswith("fit")], before)
        self.assertEqual(len(list(fit_lines(moved.states["fits"]))), 20)

    def test_entries_of_a_fit_the_document_no_longer_has_are_left_out_and_kept(self):
        self.read_bores()
        data = family_copy_with_run("quern-4")
        data["fits"][0]["count"] = 3
        moved = HOUSE.fold(read_document(data), self.build.folded.entries)
        self.assertEqual(len(list(fit_lines(moved.states["fits"]))), 12)
        self.assertEqual(len(moved.entries), len(self.build.folded.entries))

    def test_what_is_signed_says_how_every_fit_came_out(self):
        self.read_bores()
        self.read_journals(*["57.970"] * 5)
        says = [words for room in HOUSE.rooms if room.name == "fits" for words in room.says(self.now)]
        self.assertEqual(says, ["Main bearing clearance: 5 in of 5, {fine:0.0460} to {fine:0.0460}"])
