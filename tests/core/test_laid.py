"""A link or a tooth too many between two marks: what it does to the timing once the slack is taken up."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from demo.player import answer, next_question
from gurvo_core.errors import CoreError
from gurvo_core.motion.laid import LaidError, crank_deg_a_pitch, laid_error, laid_words
from gurvo_core.reading import read_document
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
    """Which shaft stands off, which way."""

    def setUp(self):
        self.engine = family_with_run("tarn-f4")
        self.belt = loop(self.engine, "belt")

    def error(self, here, there, more):
        return laid_error(self.engine, self.belt, here, there, more)

    def test_a_tooth_too_many_on_the_pulled_run_leaves_the_cam_behind(self):
        """Common practice: marks right, the slack on the pulled run, and the crank ends a tooth ahead of its cams."""
        self.assertEqual(self.error("right-line", "crank-notch", 1), LaidError(shaft="cam-right", against="crank", crank_deg=-15.0))

    def test_a_tooth_too_many_where_the_slack_lies_is_one_too_few_where_it_is_pulled(self):
        self.assertEqual(self.error("crank-notch", "right-line", 1), LaidError(shaft="cam-right", against="crank", crank_deg=15.0))

    def test_cam_against_cam(self):
        error = self.error("left-line", "right-line", -0.5)
        self.assertEqual(error, LaidError(shaft="cam-right", against="cam-left", crank_deg=-7.5))
        self.assertIn("right camshaft would stand 7.5° of the crank late against left camshaft", laid_words(self.engine, error))

    def test_nothing_off_and_one_wheel_alone_say_nothing(self):
        self.assertIsNone(self.error("crank-notch", "left-line", 0))
        self.assertIsNone(self.error("left-line", "left-line", 2))

    @given(st.integers(-20, 20).map(lambda halves: halves / 2))
    def test_the_other_way_round_is_the_same_error(self, more):
        """Property: so many more from one mark to the other is as many fewer from the other back to the first."""
        one, two = self.error("crank-notch", "left-line", more), self.error("left-line", "crank-notch", -more)
        self.assertEqual(one, two)
        if one is not None:
            self.assertEqual(one.crank_deg, 15.0 * more)

    def test_where_no_teeth_are_known_nothing_is_said(self):
        data = family_copy_with_run("mallow-2")
        for wheel in data["drive"]["wheels"]:
            wheel["teeth"] = None
        engine = read_document(data)
        self.assertIsNone(laid_error(engine, loop(engine, "chain"), "cam-groove", "crank-dot", 1))


class BenchTests(unittest.TestCase):
    """Said at the bench before anything is turned."""

    def test_a_miscount_says_what_it_would_do(self):
        build = Build("tarn-f4")
        while (question := next_question(build.state)).kind != "step_done" or question.does != "lay":
            build.answer(question)
        field = question.fields[0]
        self.assertEqual(field.hint, "book: 63.5; one off is 15° of the crank")
        body = answer(build.state, question, build.engine)
        for counted, words in (("64.5", "left camshaft would stand 15° of the crank early"), ("63", "7.5° of the crank late")):
            with self.assertRaises(CoreError) as refused:
                build.enter(**{**body, "answers": {**body["answers"], field.key: counted}})
            self.assertIn(words, str(refused.exception))
            self.assertEqual(refused.exception.field, f"answers.{field.key}")
        build.enter(**body)
