"""A link or a tooth too many between two marks: what it does to the timing once the slack is taken up."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from demo.player import answer
from gurvo_core.errors import CoreError, GeometryError
from gurvo_core.motion.laid import check_counts, crank_deg_a_pitch, laid_shafts, laid_words, teeth_words
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from tests.builds import Build
from tests.engines import family_copy_with_run, family_with_run


def loop(engine, name):
    return next(stage for stage in engine.drive.stages if stage.id == name)


class PitchTests(unittest.TestCase):
    """How far the crank turns for one link or tooth."""

    def test_a_tooth_at_a_crank_sprocket_of_twenty_is_eighteen_degrees(self):
        """Common practice; no source."""
        data = family_copy_with_run("mallow-2")
        for wheel in data["drive"]["wheels"]:
            wheel["teeth"] = {"crank-sprocket": 20, "cam-sprocket": 40}.get(wheel["id"], wheel["teeth"])
        engine = read_document(data)
        self.assertAlmostEqual(crank_deg_a_pitch(engine, loop(engine, "chain")), 18.0)

    def test_from_cam_to_cam_a_link_is_worth_more_of_the_crank(self):
        """By hand: a wheel of 28 teeth on a shaft that turns half as fast: 360 / 28 × 2."""
        engine = family_with_run("corrie-v6")
        self.assertAlmostEqual(crank_deg_a_pitch(engine, loop(engine, "secondary-a")), 360 / 28 * 2)
        self.assertAlmostEqual(crank_deg_a_pitch(engine, loop(engine, "primary-a")), 360 / 24)

    def test_every_wheel_of_a_loop_says_the_same(self):
        """A loop travels as fast at each of its wheels, so each must give the same degrees of the crank a pitch."""
        for code in ("brae-v8", "corrie-v6", "sorrel-f4", "tarn-f4", "teasel-4", "wick-1", "quern-4"):
            engine = family_with_run(code)
            for stage in (one for one in engine.drive.stages if one.kind in ("chain", "belt")):
                for step in stage.path:
                    wheel = engine.drive.wheel(step.wheel)
                    if wheel.teeth:
                        own = 360 / wheel.teeth / abs(engine.turns_clockwise[wheel.shaft])
                        self.assertAlmostEqual(own, crank_deg_a_pitch(engine, stage), places=6, msg=f"{code} {wheel.id}")


class ErrorTests(unittest.TestCase):
    """Which shaft ends off, which way, in each of the ways a belt is laid wrongly."""

    def setUp(self):
        self.engine = family_with_run("tarn-f4")
        self.belt = loop(self.engine, "belt")

    def off(self, **counted):
        return laid_shafts(self.engine, self.belt, {key.replace("_", "-"): number for key, number in counted.items()})

    def test_a_tooth_too_many_on_the_pulled_run_leaves_the_cam_behind(self):
        """Common practice: marks right, the slack on the tight side, and the crank ends a tooth ahead of its cams."""
        self.assertEqual(self.off(line_crank=63.5, line_left=65.5), {"crank": 0.0, "cam-left": 0.0, "cam-right": -15.0})
        self.assertEqual(self.off(line_right=61)["cam-right"], -15.0)

    def test_a_tooth_too_many_where_the_slack_lies_is_one_too_few_where_it_is_pulled(self):
        self.assertEqual(self.off(line_crank=64.5), {"crank": 0.0, "cam-left": 15.0, "cam-right": 15.0})

    def test_half_a_tooth_between_the_cams(self):
        off = self.off(line_left=66)
        self.assertEqual(off, {"crank": 0.0, "cam-left": 0.0, "cam-right": -7.5})
        self.assertIn("right camshaft would stand 7.5° of the crank late", laid_words(self.engine, off))
        self.assertEqual(laid_words(self.engine, {"cam-left": 0.0}), "")

    def test_counts_that_contradict_each_other_are_refused(self):
        with self.assertRaisesRegex(GeometryError, "contradicts the other counts"):
            self.off(line_crank=64.5, line_left=66.5, line_right=60)

    def test_counts_that_cannot_be(self):
        chain = loop(family_with_run("corrie-v6"), "primary-a")
        self.assertEqual(list(check_counts(self.belt, {"line-crank": 63.5})), [])
        for of, counted, words in (
            (self.belt, {"line-crank": 190}, "the whole belt has 190 teeth"),
            (self.belt, {"line-crank": 63.2}, "whole or half teeth"),
            (self.belt, {"line-crank": -1}, "at least one tooth lies"),
            (chain, {"a-one": 56.5}, "whole links"),
        ):
            self.assertIn(words, dict(check_counts(of, counted))[next(iter(counted))])

    def test_teeth_are_said_as_a_builder_says_them(self):
        said = [teeth_words(self.belt, degrees, 15.0) for degrees in (-15, 7.5, 22.5, 30, 8.25)]
        self.assertEqual(said, ["one tooth", "half a tooth", "1½ teeth", "2 teeth", "0.55 teeth"])

    @given(st.integers(-20, 20).map(lambda halves: halves / 2), st.integers(-20, 20).map(lambda halves: halves / 2))
    def test_all_counts_together_close_the_loop(self, first, second):
        """Property: what is left of the belt, counted as well, says the same as the two others did."""
        two = self.off(line_crank=63.5 + first, line_left=66.5 + second)
        self.assertEqual(self.off(line_crank=63.5 + first, line_left=66.5 + second, line_right=60 - first - second), two)
        self.assertEqual(two["cam-left"], 15.0 * first)
        self.assertEqual(two["cam-right"], 15.0 * (first + second))

    def test_where_no_teeth_are_known_nothing_is_said(self):
        data = family_copy_with_run("mallow-2")
        for wheel in data["drive"]["wheels"]:
            wheel["teeth"] = None
        engine = read_document(data)
        self.assertEqual(laid_shafts(engine, loop(engine, "chain"), {}), {})


class BenchTests(unittest.TestCase):
    """Said at the bench before anything is turned."""

    def test_a_miscount_says_what_it_would_do(self):
        build = Build("tarn-f4")
        while (question := next_question(build.state)).kind != "step_done" or question.does != "lay":
            build.answer(question)
        field = question.fields[0]
        self.assertEqual(field.hint, "book: 63.5; one off is 15° of the crank")
        body = answer(build.state, question, build.engine)
        both = "left camshaft and right camshaft would stand 15° of the crank early"
        for counted, words in (("64.5", both), ("63", "7.5° of the crank late"), ("63.2", "whole or half teeth"), ("many", "not a number")):
            with self.assertRaises(CoreError) as refused:
                build.enter(**{**body, "answers": {**body["answers"], field.key: counted}})
            self.assertIn(words, str(refused.exception))
            self.assertEqual(refused.exception.field, f"answers.{field.key}")
        with self.assertRaisesRegex(CoreError, "Slack is left on the run that the crankshaft pulls") as refused:
            build.enter(**{**body, "answers": {**body["answers"], "slack": "left"}})
        self.assertEqual(refused.exception.field, "answers.slack")
        build.enter(**body)
