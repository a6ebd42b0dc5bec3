"""Wear and machining: the retard of each cam by hand, and the path's own length as a second method."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from demo.documents import family_data
from gurvo_core.drive.changed import changed_loops, pulled_change_mm, tensioner_travel_mm
from gurvo_core.drive.path import Circle, loop_path, tangent_loop
from gurvo_core.drive.rig import mm_a_crank_deg
from gurvo_core.drive.what_if import ChangedAsked, changed_view
from gurvo_core.engine import EngineDocument
from gurvo_core.errors import GeometryError
from tests.engines import family_with_run

PITCH_MM = 8.0


def pair(up_mm, small=30.0, large=30.0):
    """A driving wheel and one above it."""
    circles = [Circle(name=n, x_mm=0, y_mm=y, radius_mm=r, clockwise=True) for n, y, r in (("crank", 0, small), ("cam", up_mm, large))]
    return tangent_loop(circles, PITCH_MM)


def length_mm(path):
    return sum(run.length_mm for run in path.runs) + sum(math.radians(wrap.wrap_deg) * wrap.circle.radius_mm for wrap in path.wraps)


class WayTests(unittest.TestCase):
    def test_by_hand_two_equal_wheels_a_millimetre_nearer_lose_a_millimetre_of_the_pulled_run(self):
        self.assertAlmostEqual(pulled_change_mm(pair(200), pair(199), "cam"), -1.0)

    @given(st.floats(20, 60), st.floats(20, 60), st.floats(150, 400), st.floats(-3, 3))
    def test_both_sides_together_are_the_change_of_the_whole_loop(self, small, large, up_mm, lower_mm):
        """Second method: by symmetry each side of two wheels takes half of what the whole taut length changes by."""
        before, after = pair(up_mm, small, large), pair(up_mm - lower_mm, small, large)
        self.assertAlmostEqual(2 * pulled_change_mm(before, after, "cam"), length_mm(after) - length_mm(before), places=6)

    def test_by_hand_a_push_in_the_middle_of_a_run(self):
        """3-4-5: a chord of 80 mm pushed by 30 mm is 100 mm long."""
        path = pair(80)
        self.assertAlmostEqual(tensioner_travel_mm(path, "crank", 20.0), 30.0)


class EngineTests(unittest.TestCase):
    def test_elongation_retards_by_the_free_length_alone(self):
        """By hand: one percent of the free run from cam to crank, over the travel of a crank degree."""
        engine = family_with_run("brae-v8")
        chain = engine.drive.stages[0]
        free_mm = loop_path(engine, chain).runs[-1].length_mm
        late = {cam.camshaft: cam.advance_deg for cam in changed_loops(engine, {}, {"chain-a": 1.0})[0].cams}
        self.assertAlmostEqual(late["in-a"], -0.01 * free_mm / mm_a_crank_deg(engine, chain))

    def test_a_shaft_between_passes_it_on_through_gears_whatever_is_listed_first(self):
        """By hand: the chain turns a shaft that turns the cam by equal gears: late by as much; into a lowered head nobody knows."""
        engine, data = family_with_run("quern-4"), family_data("quern-4")
        drive = data["drive"]
        drive["shafts"].append({"id": "middle", "name": "Middle shaft", "kind": "auxiliary", "x_mm": -18, "y_mm": 119.7})
        drive["wheels"][1]["shaft"] = "middle"
        drive["wheels"] += [{"id": f"gear-{name}", "shaft": name, "teeth": 30} for name in ("middle", "cam")]
        gears = {
            "kind": "gears",
            "id": "gears",
            "name": "Gears",
            "module_mm": 2,
            "meshes": [{"driver": "gear-middle", "driven": "gear-cam"}],
        }
        drive["stages"].insert(0, gears)
        drive["shafts"][1] |= {"x_mm": -78}
        for mark in drive["marks"]:
            mark["decides"] = False
        geared = EngineDocument.model_validate(data)
        longer = {"chain": 1.0}
        alone = changed_loops(engine, {}, longer)[0].cams
        self.assertEqual([cam for one in changed_loops(geared, {}, longer) for cam in one.cams], list(alone))
        free_mm = loop_path(engine, engine.drive.stages[0]).runs[-1].length_mm
        self.assertAlmostEqual(alone[0].advance_deg, -0.01 * free_mm / mm_a_crank_deg(engine, engine.drive.stages[0]))
        lowered = changed_view(family_with_run("holm-d4"), ChangedAsked(skimmed_mm=0.5))
        self.assertEqual((lowered.cams, "nothing can be said of it" in lowered.not_known[0]), ([], True))

    def test_elongation_counts_over_smooth_wheels(self):
        """By hand: from the right cam over its roller to the crank: two free runs and the arc on the roller, which holds no link."""
        engine = family_with_run("tarn-f4")
        loop = engine.drive.stages[0]
        path = loop_path(engine, loop)
        free_mm = path.runs[-2].length_mm + path.runs[-1].length_mm + 28 * math.radians(path.wraps[-1].wrap_deg)
        late = {cam.camshaft: cam.advance_deg for cam in changed_loops(engine, {}, {"belt": 1.0})[0].cams}
        self.assertAlmostEqual(late["cam-right"], -0.01 * free_mm / mm_a_crank_deg(engine, loop))

    def test_a_lowered_head_retards_a_thicker_gasket_advances_and_a_cam_in_the_block_stays(self):
        late = [cam.advance_deg for cam in changed_view(family_with_run("sorrel-f4"), ChangedAsked(skimmed_mm=1)).cams]
        early = [cam.advance_deg for cam in changed_view(family_with_run("sorrel-f4"), ChangedAsked(gasket_mm=1)).cams]
        self.assertTrue(all(deg < -1 for deg in late) and all(deg > 1 for deg in early))
        self.assertEqual([cam.words for cam in changed_view(family_with_run("quern-4"), ChangedAsked(skimmed_mm=1)).cams], ["stays"])

    def test_the_banks_of_a_v_differ_and_a_secondary_chain_adds_its_own(self):
        one = {cam.name: cam.advance_deg for cam in changed_view(family_with_run("corrie-v6"), ChangedAsked(skimmed_mm=0.5)).cams}
        self.assertNotEqual(one["Intake cam A"], one["Intake cam B"])
        worn = {cam.name: cam.advance_deg for cam in changed_view(family_with_run("corrie-v6"), ChangedAsked(longer_percent=0.5)).cams}
        self.assertLess(worn["Exhaust cam A"], worn["Intake cam A"])

    def test_a_worn_chain_lets_its_tensioner_further_out(self):
        view = changed_view(family_with_run("brae-v8"), ChangedAsked(longer_percent=1))
        self.assertIn("when all is new", view.tensioners[0].words)
        out, new = (float(word.split(" mm")[0]) for word in view.tensioners[0].words.split(", "))
        self.assertGreater(out, new)

    def test_a_chain_does_not_grow_shorter_and_what_is_not_known_is_said(self):
        with self.assertRaisesRegex(GeometryError, "does not grow shorter"):
            changed_loops(family_with_run("quern-4"), {}, {"chain": -0.1})
        self.assertIn("nothing can be said", changed_view(family_with_run("mallow-2"), ChangedAsked()).not_known[0])
