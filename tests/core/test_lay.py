"""A belt or chain as it is laid: what is said before anything is turned, what a turn that is only tried shows, how to lay it right."""

import math
import unittest
from dataclasses import replace

from shapely import Point, union_all

from gurvo_core.drive.lay import Around, LayAsked, lay_view
from gurvo_core.drive.rig import excess_mm, laid_rig, mm_a_crank_deg, ties_with
from gurvo_core.engine.circles import pitch_radius_mm
from gurvo_core.errors import CoreError
from gurvo_core.motion.slack import slack_after, turn_one
from gurvo_core.reading import read_document
from gurvo_core.run.job.lay import held_by
from tests.builds import Build
from tests.engines import family_copy_with_run, family_with_run


def look(code, name, *, held=None, crank_deg=None, **asked):
    engine = family_with_run(code)
    loop = next(stage for stage in engine.drive.stages if stage.id == name)
    return lay_view(engine, loop, LayAsked(**asked), Around(held=held or {}, crank_deg=crank_deg))


def after(view):
    return {one.shaft: (one.now_words, one.after_words) for one in view.shafts}


class ExcessTests(unittest.TestCase):
    """How much slack there is in all."""

    def test_without_its_roller_a_belt_is_longer_than_the_hull_of_its_pulleys_by_so_much(self):
        """Library: shapely's convex hull; two pulleys and nothing else that is touched."""
        engine = family_with_run("sorrel-f4")
        for belt in engine.drive.stages:
            wheels = [engine.drive.wheel(step.wheel) for step in belt.path if step.side == "inside"]
            discs = [Point(engine.drive.shaft(w.shaft).place).buffer(pitch_radius_mm(belt, w), quad_segs=360) for w in wheels]
            self.assertAlmostEqual(excess_mm(engine, belt), belt.count * belt.pitch_mm - union_all(discs).convex_hull.length, delta=0.01)

    def test_the_travel_of_a_crank_degree_is_its_pitch_circle(self):
        """By hand: a belt's pitch line on the crank is N p round, one 360th of it a degree."""
        engine = family_with_run("tarn-f4")
        self.assertAlmostEqual(mm_a_crank_deg(engine, engine.drive.stages[0]), 24 * 8 / 360)

    def test_where_a_length_is_not_known_it_is_said_and_counts_still_tell(self):
        view = look("mallow-2", "chain", counted={"between": "10"})
        self.assertIn("how much slack it has in all cannot be told", view.not_known[0])
        self.assertEqual(view.figure, "18.9°")


class WrongWaysTests(unittest.TestCase):
    """Each way to lay the flat four's and the twin cam's belt wrongly shows its error before the crank is turned."""

    def test_marks_right_and_the_slack_on_the_pulled_run(self):
        """Common practice: it leaves the crank a tooth ahead once it takes up."""
        view = look("tarn-f4", "belt", counted={"line-crank": "62.5", "line-left": "66.5"}, slack_left=True)
        self.assertEqual((view.figure, view.is_right), ("15°", False))
        self.assertEqual(after(view), dict.fromkeys(("cam-left", "cam-right"), ("on its mark", "one tooth late")))
        self.assertIn("The crankshaft turns 15° before the cam follows", view.says)
        slack = {run.after: run.words for run in view.runs if run.words}
        self.assertEqual(slack["right-pulley"], "slack, 8 mm")

    def test_one_too_many_on_the_pulled_run_of_the_twin_cam(self):
        view = look("teasel-4", "belt", counted={"line-crank": "75", "line-exhaust": "17"}, slack_left=True)
        self.assertEqual(view.off_words, "exhaust cam and intake cam late by one tooth")
        self.assertAlmostEqual(view.off_deg, -360 / 22, places=2)

    def test_a_tooth_between_two_cams(self):
        view = look("teasel-4", "belt", counted={"line-crank": "76", "line-exhaust": "16"})
        self.assertEqual(after(view), {"exhaust": ("on its mark",) * 2, "intake": ("one tooth late",) * 2})
        self.assertIn("intake cam cannot stand on the mark now", view.says)

    def test_right_counts_with_slack_left_are_not_right_yet(self):
        view = look("tarn-f4", "belt", counted={"line-crank": "63.5", "line-left": "66.5"}, slack_left=True)
        self.assertEqual((view.figure, view.is_right), ("15°", False))  # a tooth of slack, as far as anybody knows
        self.assertIn("bring it over first", view.says)
        self.assertIn("ends behind", view.off_words)

    def test_right_is_right(self):
        view = look("tarn-f4", "belt", counted={"line-crank": "63.5", "line-left": "66.5", "line-right": "60"})
        self.assertEqual((view.figure, view.is_right, view.off_words), ("0°", True, "everything on its marks"))
        self.assertEqual([row.is_typed for row in view.table], [False, True, False])

    def test_a_belt_too_short_for_what_was_counted_says_so(self):
        view = look("sorrel-f4", "inner", counted={"inner-crank": "57"}, slack_left=True)
        self.assertIn("one of the marks must be off already", view.not_known[0])

    def test_what_cannot_be_names_its_field(self):
        for counted, field, words in (
            ({"line-crank": "ten"}, "counted.line-crank", "not a number"),
            ({"line-crank": "200"}, "counted.line-crank", "190 teeth"),
            ({"nothing": "1"}, "counted.nothing", "nothing called nothing"),
        ):
            with self.assertRaises(CoreError) as refused:
                look("tarn-f4", "belt", counted=counted)
            self.assertEqual(refused.exception.field, field)
            self.assertIn(words, refused.exception.rule)


class TriedTurnTests(unittest.TestCase):
    """A turn that is only tried: the slack moves, the marks drift."""

    def test_the_crank_goes_first_and_the_slack_goes_over(self):
        asked = {"counted": {"line-crank": "62.5"}, "slack_left": True}
        said = {}
        for deg in (0, 6, 15, 90):
            view = look("tarn-f4", "belt", turned_deg=deg, **asked)
            said[deg] = ({run.after: run.words for run in view.runs if run.words}, view.turned_words)
        self.assertEqual(said[6][1], "Crankshaft 6° on: left camshaft and right camshaft 6° late")
        self.assertEqual(said[6][0], {"crank-pulley": "slack, 43 mm", "right-pulley": "slack, 5 mm"})
        self.assertEqual(said[15][0], {"crank-pulley": "slack, 48 mm"})
        self.assertEqual(said[90][1], "Crankshaft 90° on: left camshaft and right camshaft 15° late")

    def test_a_belt_that_lies_right_turns_as_one(self):
        view = look("teasel-4", "belt", turned_deg=90)
        self.assertEqual(view.turned_words, "Crankshaft 90° on: exhaust cam and intake cam as it should")
        self.assertEqual({one.clock_deg for one in view.turned}, {0.0})

    def test_what_is_on_already_turns_along_and_what_is_not_stays(self):
        """By hand: with its secondary chain on, the exhaust cam goes with its intake cam; the other bank has no chain yet."""
        engine = family_with_run("corrie-v6")
        loop = next(stage for stage in engine.drive.stages if stage.id == "primary-a")
        turned = {one.shaft: one.clock_deg for one in lay_view(engine, loop, LayAsked(turned_deg=90), Around(laid={"secondary-a"})).turned}
        self.assertEqual((turned["intake-a"], turned["exhaust-a"], turned["crank"]), (0.0, 0.0, 0.0))
        self.assertEqual((turned["intake-b"], turned["exhaust-b"]), (-45.0, -45.0))

    def test_a_phaser_that_nothing_pins_lets_its_cam_stay_until_its_stop(self):
        """By hand: 50 degrees of lost motion, the cam on its retarded stop: turned back, the body goes alone as far as that."""
        data = family_copy_with_run("corrie-v6")
        for cam in data["camshafts"]:
            if cam.get("phaser"):
                cam["phaser"].update(pinned=False, rests="retarded")
        engine = read_document(data)
        loop = next(stage for stage in engine.drive.stages if stage.id == "primary-a")
        ties = ties_with(engine, laid_rig(engine, loop, {}, slack_left=False), loop, ())
        tight = [replace(tie, slack_deg=0.0) if "crank" in (tie.begins, tie.ends) else tie for tie in ties]
        on, back = (turn_one(tight, "crank", deg).moved_deg for deg in (60.0, -60.0))
        self.assertEqual((on["intake-a/body"], on["intake-a"]), (60.0, 60.0))
        self.assertEqual((back["intake-a/body"], back["intake-a"]), (-60.0, -10.0))

    def test_what_may_stand_anywhere_says_so(self):
        self.assertIn("may stand anywhere", " ".join(look("teasel-4", "belt").not_known))


class SchoolTests(unittest.TestCase):
    """Ways to lay it right."""

    def test_each_that_is_open_was_tried_and_leaves_no_slack_on_the_pulled_run(self):
        for code, name in (("tarn-f4", "belt"), ("teasel-4", "belt"), ("corrie-v6", "primary-a"), ("sorrel-f4", "outer")):
            for school in look(code, name).schools:
                if school.key in ("crank_back", "cam_on"):
                    self.assertTrue(school.is_open)
                    self.assertIn("no slack is left on the tight side", school.why, f"{code} {school.key}")

    def test_by_hand_a_cam_set_on_and_turned_back_hands_the_slack_to_the_tensioner(self):
        engine = family_with_run("sorrel-f4")
        belt = engine.drive.stages[0]
        rig = laid_rig(engine, belt, {"inner-crank": 57.0}, slack_left=True)
        turned = turn_one(rig.ties, "cam-left", -360 / 22, [rig.driving])
        left = [slack_after(tie, turned.moved_deg) for tie in rig.ties]
        self.assertTrue(math.isclose(left[-1], 0.0, abs_tol=1e-9))
        self.assertGreater(left[rig.slack_tie], rig.ties[rig.slack_tie].slack_deg)

    def test_what_is_held_shuts_a_way_and_says_by_what(self):
        schools = {school.key: school for school in look("sorrel-f4", "inner", held={"crank": "Flywheel pin"}).schools}
        self.assertFalse(schools["crank_back"].is_open or schools["crank_on"].is_open)
        self.assertIn("Flywheel pin holds the crankshaft", schools["crank_back"].why)
        self.assertTrue(schools["cam_on"].is_default)

    def test_a_loaded_cam_is_held(self):
        engine = family_with_run("tarn-f4")
        schools = look("tarn-f4", "belt", crank_deg=engine.position_deg("mid")).schools
        held = next(school for school in schools if school.key == "loaded_held")
        self.assertIn("right camshaft back, left camshaft on", held.why)

    def test_with_everything_locked_it_is_laid_straight_from_wheel_to_wheel(self):
        """The twin cam's book locks crank and both cams before the belt goes on; what holds them is what was put on."""
        held = held_by(Build("teasel-4").to("belt-on").folded.states["run"])
        self.assertEqual(held, {"crank": "Crank pin", "intake": "Plate between the cams", "exhaust": "Plate between the cams"})
        first, *others = look("teasel-4", "belt", held=held).schools
        self.assertEqual((first.key, first.is_default), ("all_held", True))
        self.assertIn("Crank pin and Plate between the cams hold it", first.why)
        self.assertFalse(any(school.is_open for school in others))
