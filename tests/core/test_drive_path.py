"""The path of chains and belts against shapely and by hand; ratios through every kind of stage."""

import json
import math
import unittest
from dataclasses import replace
from fractions import Fraction

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import GeometryCollection, Point, Polygon, union_all

from gurvo_core.drive import draw_drive, loop_path
from gurvo_core.drive.path import Circle, circles_of, tangent_loop
from gurvo_core.engine import LoopStage
from gurvo_core.engine.circles import pitch_radius_mm, shaft_speeds
from gurvo_core.errors import GeometryError
from tests.engines import CODES, family

SIDES_A_QUARTER = 180  # of shapely's polygon for a circle
POLYGON_SHARE = 5e-6  # its perimeter falls short of the circle's by (pi / 720)^2 / 6 = 3.2e-6


def circle(name, x, y, r, clockwise=True):
    return Circle(name=name, x_mm=x, y_mm=y, radius_mm=r, clockwise=clockwise)


class TangentTests(unittest.TestCase):
    @settings(max_examples=50)
    @given(st.lists(st.tuples(st.floats(15, 60), st.floats(0.8, 1.2)), min_size=3, max_size=7))
    def test_a_loop_with_all_wheels_inside_is_the_convex_hull(self, wheels):
        """Library: shapely's convex hull of the circles; wheels on a ring, so that each is touched."""
        ring = 400.0
        circles = []
        for n, (radius, _) in enumerate(wheels):
            towards = math.radians(90 - 360 * n / len(wheels))
            circles.append(circle(str(n), ring * math.cos(towards), ring * math.sin(towards), radius))
        path = tangent_loop(circles, 8)
        ours = sum(run.length_mm for run in path.runs) + sum(math.radians(w.wrap_deg) * w.circle.radius_mm for w in path.wraps)
        discs = [Point(c.x_mm, c.y_mm).buffer(c.radius_mm, quad_segs=SIDES_A_QUARTER) for c in circles]
        hull = GeometryCollection(discs).convex_hull
        self.assertAlmostEqual(ours, hull.length, delta=POLYGON_SHARE * hull.length)
        self.assertAlmostEqual(sum(wrap.wrap_deg for wrap in path.wraps), 360, places=6)

    def test_a_back_side_wheel_is_met_by_the_crossed_tangent(self):
        """By hand: equal wheels r = 30 at distance 100, one inside and one on the back: run = sqrt(100^2 - 60^2) = 80."""
        inside = [circle("c", 200, 0, 30), circle("d", 100, -200, 20)]
        loop = tangent_loop([circle("a", 0, 0, 30), circle("b", 100, 0, 30, clockwise=False), *inside], 8)
        self.assertAlmostEqual(loop.runs[0].length_mm, 80, places=9)

    def test_wheels_within_each_other_and_a_wrong_side_are_refused_by_name(self):
        with self.assertRaisesRegex(GeometryError, "no way from a to b"):
            tangent_loop([circle("a", 0, 0, 30), circle("b", 5, 0, 10)], 8)
        with self.assertRaisesRegex(GeometryError, "cannot go round c"):
            tangent_loop([circle("a", 0, 0, 30), circle("b", 200, 0, 30), circle("c", 100, 5, 20)], 8)

    def test_every_tangent_of_a_shipped_drive_touches_at_a_right_angle(self):
        """Property: a run is square to both radii, whichever side the wheel is on."""
        for code in CODES:
            for stage in family(code).drive.stages:
                if not isinstance(stage, LoopStage):
                    continue
                path = loop_path(family(code), stage)
                for n, run in enumerate(path.runs):
                    for wheel, touch in ((path.wraps[n].circle, run.start), (path.wraps[(n + 1) % len(path.wraps)].circle, run.end)):
                        along = (run.end[0] - run.start[0], run.end[1] - run.start[1])
                        out = (touch[0] - wheel.x_mm, touch[1] - wheel.y_mm)
                        with self.subTest(family=code, wheel=wheel.name):
                            self.assertAlmostEqual((along[0] * out[0] + along[1] * out[1]) / run.length_mm, 0, places=6)
                            self.assertAlmostEqual(math.hypot(*out), wheel.radius_mm, places=6)


class TurningTests(unittest.TestCase):
    def test_a_tensioner_moved_clear_of_its_belt_is_refused(self):
        """Property: every back-side wheel of the shipped drives, moved out along the line from the middle of the loop."""
        tried = 0
        for code in CODES:
            for stage in family(code).drive.stages:
                circles = circles_of(family(code), stage) if isinstance(stage, LoopStage) else []
                inside = family(code).rotation_sign > 0
                for n, wheel in enumerate(circles):
                    if wheel.clockwise == inside:
                        continue
                    for far in (150.0, 300.0, 600.0):
                        x, y = away(circles, wheel, far)
                        without = [*circles[:n], *circles[n + 1 :]]
                        if not clear_of(without, x, y, wheel.radius_mm):
                            continue
                        moved = [*circles[:n], replace(wheel, x_mm=x, y_mm=y), *circles[n + 1 :]]
                        tried += 1
                        with self.subTest(family=code, wheel=wheel.name, far=far), self.assertRaises(GeometryError):
                            tangent_loop(moved, 8)
        self.assertGreater(tried, 2)

    @settings(max_examples=200)
    @given(st.lists(st.tuples(st.integers(-300, 300), st.integers(-300, 300), st.booleans()), min_size=3, max_size=6))
    def test_a_loop_that_passes_turns_once(self, places):
        """Property: [total-turning]; the turning is worked out anew from the runs' headings."""
        circles = [circle(str(n), x, y, 25, clockwise) for n, (x, y, clockwise) in enumerate(places)]
        try:
            path = tangent_loop(circles, 8)
        except GeometryError:
            return
        headings = [math.degrees(math.atan2(run.end[1] - run.start[1], run.end[0] - run.start[0])) for run in path.runs]
        turns = 0.0
        for n, wrap in enumerate(path.wraps):
            turned = (headings[n - 1] - headings[n]) % 360
            turns += turned if wrap.circle.clockwise else turned - 360 if turned else 0
        self.assertAlmostEqual(abs(turns), 360, places=5)


def clear_of(circles, x, y, radius):
    """Library: shapely says whether a disc lies clear of a loop round some circles."""
    runs = tangent_loop(circles, 8).runs
    touches = [place for run in runs for place in (run.start, run.end)]
    discs = [Point(one.x_mm, one.y_mm).buffer(one.radius_mm) for one in circles]
    return union_all([Polygon(touches).buffer(0), *discs]).disjoint(Point(x, y).buffer(radius))


def away(circles, wheel, far):
    """A place further out from the middle of the other wheels."""
    others = [one for one in circles if one is not wheel]
    middle = (sum(one.x_mm for one in others) / len(others), sum(one.y_mm for one in others) / len(others))
    dx, dy = wheel.x_mm - middle[0], wheel.y_mm - middle[1]
    length = math.hypot(dx, dy) or 1.0
    return wheel.x_mm + far * dx / length, wheel.y_mm + far * dy / length


class CircleTests(unittest.TestCase):
    def test_pitch_circles(self):
        """From memory: ISO 606, 19 teeth of 12.7 mm pitch have a pitch diameter of 77.16 mm; a belt's is N p / pi."""
        chain = LoopStage(kind="chain", id="c", name="c", pitch_mm=12.7, count=40, path=({"wheel": "a"}, {"wheel": "b"}))
        wheel = family("wick-1").drive.wheels[0].model_copy(update={"teeth": 19})
        self.assertAlmostEqual(2 * pitch_radius_mm(chain, wheel), 77.16, delta=0.005)
        belt = chain.model_copy(update={"kind": "belt", "pitch_mm": 8.0})
        self.assertAlmostEqual(2 * pitch_radius_mm(belt, wheel), 19 * 8 / math.pi, places=9)

    def test_ratios_through_every_stage(self):
        """By hand: every camshaft half a turn; auxiliary 22/34; idler gear 36/54 and back; a back-side roller the other way."""
        expected = {
            "corrie-v6": {"intake-a": Fraction(1, 2), "exhaust-b": Fraction(1, 2)},
            "garth-d6": {"idler": Fraction(-2, 3), "cam": Fraction(1, 2), "injection": Fraction(1, 2)},
            "teasel-4": {"intake": Fraction(1, 2), "aux": Fraction(22, 34)},
        }
        for code, shafts in expected.items():
            turns = shaft_speeds(family(code).drive).turns
            for shaft, share in shafts.items():
                with self.subTest(family=code, shaft=shaft):
                    self.assertEqual(turns[shaft], share)
        self.assertLess(shaft_speeds(family("teasel-4").drive).turns["tension-pulley"], 0)

    def test_the_drawing_holds_every_wheel_and_is_plain_json(self):
        for code in CODES:
            drawing = draw_drive(family(code))
            with self.subTest(family=code):
                self.assertEqual({wheel.id for wheel in drawing.wheels}, {wheel.id for wheel in family(code).drive.wheels})
                self.assertTrue(all(drawing.box.left_mm < wheel.x_mm < drawing.box.right_mm for wheel in drawing.wheels))
                self.assertIn("box", json.loads(drawing.model_dump_json()))


class CountTests(unittest.TestCase):
    def test_pitches_between_marks_on_two_equal_wheels(self):
        """By hand: 20 teeth each, pitch 8, axes 160 apart: half a wheel each side and a run of 160 / 8 = 20 between: 60 in all."""
        radius = 8 / (2 * math.sin(math.pi / 20))
        wheels = [Circle(name=n, x_mm=0, y_mm=y, radius_mm=radius, clockwise=True, teeth=20) for n, y in (("low", 0), ("high", 160))]
        path = tangent_loop(wheels, 8)
        self.assertAlmostEqual(path.pitches, 60, places=9)
        self.assertEqual([round(wrap.pitches, 9) for wrap in path.wraps], [10, 10])
        self.assertEqual([round(wrap.from_clock_deg) for wrap in path.wraps], [90, 270])

    def test_a_loop_travelled_the_other_way_is_as_long(self):
        """Property: mirrored wheels turning the other way."""
        document = family("tarn-f4")
        circles = circles_of(document, document.drive.stages[0])
        turned = [replace(one, x_mm=-one.x_mm, clockwise=not one.clockwise) for one in circles]
        there, back = tangent_loop(circles, 8), tangent_loop(turned, 8)
        self.assertAlmostEqual(there.pitches, back.pitches, places=9)
        for one, other in zip(there.wraps, back.wraps, strict=True):
            self.assertAlmostEqual(one.wrap_deg, other.wrap_deg, places=9)

    def test_every_shipped_chain_and_belt_has_teeth_enough_in_mesh(self):
        """Practice: a driving wheel wants about a third of its circle in mesh; none of ours has less."""
        for code in CODES:
            for stage in family(code).drive.stages:
                if isinstance(stage, LoopStage):
                    driver = loop_path(family(code), stage).wraps[0]
                    with self.subTest(family=code, stage=stage.id):
                        self.assertGreater(driver.wrap_deg, 115)
