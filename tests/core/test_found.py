"""Facts found at the bench fill what a book left open: once, checked as a document is, used from then on, taken back when struck."""

import unittest

from gurvo_core.drive.lay import crank_deg_a_pitch
from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.found.job import as_next_revision
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from tests.builds import LEAD, Build

CRANK, CAM, BOLTS = "/drive/wheels/crank-wheel/teeth", "/drive/wheels/cam-wheel/teeth", "/joints/head/fasteners"


class FoundCase(unittest.TestCase):
    def setUp(self):
        self.build = Build("heath-4").to(f"belt-on:{CRANK}")

    def found(self, pointer, value, how="counted", **more):
        return self.build.enter("found", pointer=pointer, value=value, how=how, **more)

    def refused(self, words, do):
        with self.assertRaises(EntryRefused) as caught:
            do()
        self.assertIn(words.lower(), str(caught.exception).lower())


class FoundTests(FoundCase):
    def test_teeth_are_asked_where_they_are_needed_and_then_used(self):
        self.assertIsNone(self.tooth_deg())
        self.found(CRANK, "24")
        self.found(CAM, "48")
        self.assertEqual(self.tooth_deg(), 15)  # 360 / 24, by hand

    def tooth_deg(self):
        """What a tooth is worth, by the document as the bench has it now."""
        document = self.build.folded.document
        return crank_deg_a_pitch(document, document.drive.stages[0])

    def test_what_the_document_itself_would_refuse_is_refused_here(self):
        self.found(CRANK, "22")
        self.refused("it must be 1/2", lambda: self.found(CAM, "43"))
        self.found(CAM, "44")

    def test_a_figure_that_stands_is_never_replaced(self):
        self.found(CRANK, "24")
        self.refused("24 was found there by Della: strike that first", lambda: self.found(CRANK, "22"))
        self.refused("nothing of this engine is left open there", lambda: self.found("/identity/name", "7"))

    def test_an_engine_that_differs_from_its_book_is_a_deviation_for_the_lead(self):
        build = Build("quern-4")
        wheel = build.engine.drive.wheels[0]
        found = {"pointer": f"/drive/wheels/{wheel.id}/teeth", "how": "counted"}
        with self.assertRaisesRegex(AskFirst, f"{wheel.teeth} is known of it, and you found {wheel.teeth + 1}"):
            build.enter("found", **found, value=str(wheel.teeth + 1))
        self.refused("type it as the book does", lambda: build.enter("found", **found, value="many", because="so", by=LEAD))
        build.enter("found", **found, value=str(wheel.teeth + 1), because="another maker's wheel", by=LEAD)
        self.assertEqual(build.folded.document.drive.wheels[0].teeth, wheel.teeth)  # the book is never replaced by it

    def test_what_is_no_figure_is_refused_in_a_sentence(self):
        for value in ("many", "0", "-3", "2.5", "1e9"):
            with self.subTest(value), self.assertRaises(EntryRefused):
                self.found(CRANK, value)

    def test_struck_it_is_open_again(self):
        self.found(CRANK, "24")
        entry = self.build.folded.entries[-1]
        self.build.enter("strike", strikes=str(entry.id), reason="counted twice")
        self.assertIsNone(self.build.folded.document.drive.wheel("crank-wheel").teeth)
        self.assertEqual(next_question(self.build.state).key, f"belt-on:{CRANK}")

    def test_none_of_them_is_known_is_one_answer(self):
        self.found(CRANK, "24")
        question = next_question(self.build.state)
        self.refused("it is known already", lambda: self.build.enter("not_known", pointer=question.pointer, more=[CRANK]))
        self.build.enter("not_known", pointer=question.pointer, more=question.to_come)
        self.assertEqual(next_question(self.build.state).key, "belt-on")
        self.assertIn("Timing belt", self.build.folded.entries[-1].body.called_more[-1])

    def test_not_known_goes_on_and_is_not_asked_again(self):
        self.build.enter("not_known", pointer=CRANK)
        self.assertNotEqual(next_question(self.build.state).key, f"belt-on:{CRANK}")
        self.found(CRANK, "24")  # whoever counts them later says so
        self.assertEqual(self.build.folded.document.drive.wheel("crank-wheel").teeth, 24)

    def test_the_next_revision_holds_everything_found(self):
        self.found(CRANK, "24")
        self.found(CAM, "48")
        folded = self.build.folded
        plain = as_next_revision(folded.base, folded.states["found"], "counted at the bench")
        again = read_document(plain)
        self.assertEqual([again.drive.wheel(name).teeth for name in ("crank-wheel", "cam-wheel")], [24, 48])
        self.assertIsNone(folded.base.drive.wheel("crank-wheel").teeth)

    def test_nothing_found_is_no_revision(self):
        build = Build("quern-4").play("turn")
        self.assertIsNone(as_next_revision(build.folded.base, build.folded.states["found"], "none"))


class CountedBoltsTests(FoundCase):
    def test_bolts_that_were_counted_are_pulled_one_by_one(self):
        build = Build("holm-d4").to(f"head-on:{BOLTS}")
        build.enter("found", pointer=BOLTS, value="10", how="counted")
        book = build.folded.states["joints"].book
        step = next(name for name, one in book.steps.items() if one.joint == "head")
        self.assertEqual(len(book.joint_of(step).spots), 10)

    def test_an_engine_with_every_fact_found_is_built_and_signed(self):
        build = Build("heath-4")
        values = {"count": "120", "crank-wheel/teeth": "24", "cam-wheel/teeth": "48", "pump-wheel/teeth": "20", "fasteners": "6"}
        while (question := next_question(build.state)) is not None:
            value = next((value for end, value in values.items() if question.kind == "found" and question.pointer.endswith(end)), None)
            if value is None:
                build.answer(question)
            else:
                build.enter("found", pointer=question.pointer, value=value, how="counted", by=LEAD)
        self.assertTrue(build.state.signed)
        self.assertGreaterEqual(len(build.folded.states["found"].found), 5)
