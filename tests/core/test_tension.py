"""Tensioners by kind: the pointer, the plunger, and what the run refuses. Common practice throughout; no source."""

import unittest

from gurvo_core.engine import WorkStep
from gurvo_core.errors import CoreError
from gurvo_core.reading import read_document
from gurvo_core.run.job.tension import check_tension, tension_fields
from tests.builds import LEAD, Build
from tests.engines import family_copy_with_run, family_with_run


def step(how_far, loop="belt"):
    return WorkStep(id="x", does="tension", says="See to it", loop=loop, how_far=how_far)


def rules(engine, how_far, **answers):
    return [(one.field, one.way_out) for one in check_tension(engine, step(how_far), answers)]


class KindTests(unittest.TestCase):
    def test_an_eccentric_stands_in_its_notch_or_is_set_again(self):
        engine = family_with_run("teasel-4")
        self.assertEqual(rules(engine, "proven", pointer="notch"), [])
        self.assertEqual(rules(engine, "proven", pointer="past"), [("answers.pointer", "none")])
        self.assertEqual(rules(engine, "fitted", lock="tight"), [("answers.lock", "lead and reason")])

    def test_a_plunger_that_went_past_its_stroke_does_not_come_back(self):
        engine = family_with_run("tarn-f4")
        self.assertEqual(tension_fields(engine, step("armed"))[-1].most, 16)
        for out, expected in (("6", []), ("17", ["none"]), ("-1", ["none"]), ("out", ["none"]), ("15", ["lead and reason"])):
            self.assertEqual([way for _, way in rules(engine, "armed", out_mm=out)], expected, out)

    def test_one_set_by_hand_says_by_what_it_was_judged(self):
        data = family_copy_with_run("tarn-f4")
        data["drive"]["stages"][0]["tensioner"]["kind"] = "manual"
        engine = read_document(data)
        self.assertEqual([field.key for field in tension_fields(engine, step("proven"))], ["tension_by", "tension"])

    def test_it_is_not_let_go_before_its_belt_is_on(self):
        """A book that forgets to say so: its arming step needs nothing."""
        data = family_copy_with_run("tarn-f4")
        for stage in data["stages"]:
            for one in stage["steps"]:
                if one["does"] == "tension" and one.get("how_far") == "armed":
                    one["needs"], arms = [], one["id"]
        build = Build(read_document(data))
        with self.assertRaisesRegex(CoreError, "“Lay the belt from the crank, arrow the running way” first"):
            build.enter("step_done", step=arms, answers={"out_mm": "5"})

    def test_with_one_bank_laid_the_other_stays_behind(self):
        """The book with two belts turns the crank between them: it may, with care."""
        shown = Build("sorrel-f4").to("outer-on").state
        self.assertIn("Outer belt, right bank is not on yet: what it drives stays behind", shown.permission.reasons)

    def test_at_the_bench_nearly_out_is_the_leads_and_past_it_is_nobodys(self):
        arms = next(
            one.step
            for one in Build("tarn-f4").folded.states["run"].plan.steps
            if one.step.does == "tension" and one.step.how_far == "armed"
        )
        build = Build("tarn-f4").to(arms.id)
        with self.assertRaisesRegex(CoreError, "past its stroke"):
            build.enter("step_done", step=arms.id, answers={"rod": "out", "out_mm": "20"})
        with self.assertRaisesRegex(CoreError, "nearly all of it"):
            build.enter("step_done", step=arms.id, answers={"rod": "out", "out_mm": "15"})
        build.enter("step_done", step=arms.id, answers={"rod": "out", "out_mm": "15"}, by=LEAD, because="chain measured, sound")
