"""The twin: clock positions of marks and lobes, strokes, phasers, frames."""

import unittest

import numpy as np

from gurvo_core.drive import draw_drive
from gurvo_core.errors import ReadingError
from gurvo_core.motion import CamPlace, SliderCrank, drop_mm, lobe_clock_deg, mark_clock_deg, snapshot_at, twin_frames, twin_words
from gurvo_core.motion.clock import advance_of
from gurvo_core.motion.strokes import headline, stroke_at
from tests.engines import CODES, family

HOUR_DEG = 30.0
NOSE_WITHIN_DEG = 1.0  # frames are a degree of the crank apart, and a flat nose is the same to a micrometre over some of them
# Practice: inline four, two cams above the valves, clockwise seen from the front; hours at which the lobes of cylinder 1 stand,
# from the overlap TDC on. Each within an hour.
LOBE_HOURS = {0: ((5,), (7,)), 180: ((7.5, 8), (10, 11)), 360: ((11,), (1,)), 540: ((2,), (4, 5)), 720: ((5,), (7,))}


def hours_off(clock_deg, hours):
    return min(abs((clock_deg / HOUR_DEG - hour + 6) % 12 - 6) for hour in hours)


class LobeTests(unittest.TestCase):
    def test_lobes_of_a_twin_cam_stand_where_the_bench_knows_them(self):
        """Practice: see LOBE_HOURS."""
        engine = family("teasel-4")
        for after_deg, (intake, exhaust) in LOBE_HOURS.items():
            for name, hours in (("intake", intake), ("exhaust", exhaust)):
                cam = engine.camshaft(name)
                clock = float(lobe_clock_deg(engine, cam, cam.lobes[0], 360 + after_deg, None))
                with self.subTest(after=after_deg, lobe=name):
                    self.assertLessEqual(hours_off(clock, hours), 1.0)

    def test_a_nose_points_at_its_follower_when_its_valve_is_most_open(self):
        """Property: in every family, for every lobe, whichever way its cam turns."""
        for code in CODES:
            engine = family(code)
            for frames in twin_frames(engine).cylinders:
                for valve in frames.valves:
                    cam = engine.camshaft(valve.camshaft)
                    first = int(np.argmax(valve.lift_um))
                    lift = np.roll(valve.lift_um, 360 - first)  # a nose may lie over the cycle's end
                    at_deg = first - 360 + float(np.median(np.flatnonzero(lift == max(lift))))
                    turned = valve.nose_clock.begin_deg + (valve.nose_clock.end_deg - valve.nose_clock.begin_deg) * at_deg / 720
                    off = (turned - cam.follower(valve.valve).clock_deg + 180) % 360 - 180
                    with self.subTest(family=code, cam=cam.id, cylinder=frames.cylinder):
                        self.assertLess(abs(off), NOSE_WITHIN_DEG)

    def test_over_a_cycle_the_crank_turns_twice_and_each_camshaft_once(self):
        """Definition of a four-stroke: two turns of the crank, one of the camshaft, whichever way it is driven."""
        for code in CODES:
            engine = family(code)
            for frames in twin_frames(engine).shafts:
                turned = abs(frames.turned.end_deg - frames.turned.begin_deg)
                with self.subTest(family=code, shaft=frames.shaft):
                    if engine.camshaft(frames.shaft):
                        self.assertAlmostEqual(turned, 360.0)
                    elif frames.shaft == "crank":
                        self.assertAlmostEqual(turned, 720.0)


class MarkTests(unittest.TestCase):
    def test_a_turn_later_a_cam_mark_stands_opposite_and_two_bring_all_back(self):
        """Practice: 12 o'clock becomes 6 o'clock after one crank turn; two turns bring every sprocket mark back."""
        for code in CODES:
            engine = family(code)
            shafts = {wheel.id: wheel.shaft for wheel in engine.drive.wheels}
            for mark in engine.drive.marks:
                now, later, back = mark_clock_deg(engine, mark, np.array([50.0, 410.0, 770.0]), {})
                with self.subTest(family=code, mark=mark.id):
                    if engine.camshaft(shafts[mark.wheel]):
                        self.assertAlmostEqual((later - now) % 360, 180, places=9)
                        self.assertAlmostEqual(back, now, places=9)
                    elif shafts[mark.wheel] == "crank":
                        self.assertAlmostEqual(later, now, places=9)

    def test_marks_stand_as_written_at_their_own_timing_position(self):
        """Property: each bank's marks at that bank's position, and they say that they are in place there."""
        engine = family("corrie-v6")
        for position, bank in (("bank-a", "a"), ("bank-b", "b")):
            stand = snapshot_at(engine, engine.position_deg(position))
            wanted = {mark.id: mark.clock_deg for mark in engine.drive.marks if mark.position == position}
            for mark in stand.marks:
                if mark.id in wanted:
                    with self.subTest(bank=bank, mark=mark.id):
                        self.assertAlmostEqual(mark.now_deg, wanted[mark.id], places=9)
                        self.assertTrue(mark.met)
        self.assertFalse(next(mark for mark in stand.marks if mark.id == "phaser-a-mark").met)

    def test_a_counter_clockwise_engine_turns_its_marks_the_other_way(self):
        engine = family("wick-1")
        rotor = engine.drive.marks[0]
        self.assertEqual(float(mark_clock_deg(engine, rotor, 90.0, {})), 270.0)

    def test_an_advanced_cam_stands_further_on_by_half_its_crank_degrees(self):
        """By hand: 8 crank degrees are 4 of the cam, clockwise; the valve peaks 8 crank degrees earlier."""
        engine = family("teasel-4")
        mark = next(mark for mark in engine.drive.marks if mark.id == "intake-line")
        places = {"intake": CamPlace(advance_deg=8.0)}
        self.assertEqual(float(mark_clock_deg(engine, mark, 0.0, places)), 4.0)
        peaks = [int(np.argmax(twin_frames(engine, known).cylinders[0].valves[0].lift_um)) for known in ({}, places)]
        self.assertAlmostEqual(peaks[0] - peaks[1], 8, delta=1)


class PhaserTests(unittest.TestCase):
    def test_a_phaser_off_its_stop_moves_its_cam_and_no_further_than_it_can(self):
        early = family("corrie-v6").camshaft("intake-a")
        cam = early.model_copy(update={"phaser": early.phaser.model_copy(update={"rests": "retarded"})})
        self.assertEqual(advance_of(cam, CamPlace(phaser_off_deg=50.0)), 50.0)
        self.assertEqual(advance_of(early, CamPlace(advance_deg=1.0, phaser_off_deg=20.0)), -19.0)
        for place in (CamPlace(phaser_off_deg=50.5), CamPlace(phaser_off_deg=-1)):
            with self.assertRaises(ReadingError) as refused:
                advance_of(cam, place)
            self.assertEqual(refused.exception.field, "phaser_off_deg")


class StrokeTests(unittest.TestCase):
    def test_two_stop_valve_setting_follows_from_the_strokes(self):
        """Practice: 1-3-4-2 at firing TDC of 1: 4 at overlap, 2 near its exhaust's end of power, 3 on compression."""
        engine = family("quern-4")
        self.assertEqual(headline(engine, 0.0), "cylinder 1 at firing TDC, cylinder 4 at overlap TDC")
        self.assertEqual([stroke_at(engine, n, 1.0) for n in (1, 2, 3, 4)], ["power", "exhaust", "compression", "intake"])

    def test_the_strips_strokes_fill_the_cycle_without_gap_or_overlap(self):
        for code in CODES:
            for one in twin_frames(family(code)).cylinders:
                ends = [0.0, *(span.to_deg for span in one.strokes)]
                with self.subTest(family=code, cylinder=one.cylinder):
                    for span, end in zip(one.strokes, ends, strict=False):
                        self.assertAlmostEqual(span.from_deg, end, places=9)
                    self.assertAlmostEqual(ends[-1], 720, places=9)

    def test_with_a_pin_offset_the_down_stroke_is_not_half_a_turn(self):
        """By hand: e = 12, L = 143, r = 43: TDC leans asin(12/186) = 3.70, BDC asin(12/100) = 6.89; 180 - 6.89 + 3.70 = 176.81."""
        crank = SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=12)
        self.assertAlmostEqual(crank.bdc_deg, 176.807, places=3)
        self.assertAlmostEqual(float(drop_mm(crank.bdc_deg, crank)), crank.travel_mm, places=9)

    def test_every_frame_says_where_it_stands(self):
        """Property: frames and the single stand agree, also between pistons and the sentence."""
        engine = family("tarn-f4")
        frames, words = twin_frames(engine), twin_words(engine)
        for deg in (0, 17, 359, 630, 719):
            stand = snapshot_at(engine, deg)
            with self.subTest(deg=deg):
                self.assertEqual(words[deg], stand.words)
                for one, row in zip(stand.cylinders, frames.cylinders, strict=True):
                    self.assertAlmostEqual(one.drop_mm, row.drop_um[deg] / 1000, delta=0.0006)
        self.assertEqual(frames.home_deg, 630)
        self.assertEqual(snapshot_at(engine, 630 - 720).words, words[630])


class DrawnTests(unittest.TestCase):
    def test_the_drawn_rod_keeps_its_length_whatever_the_offset_and_the_way_it_runs(self):
        """By hand: from crank pin to piston pin it is always one rod, at every frame of every cylinder of every family."""
        deg = np.arange(720)
        for code in CODES:
            for one in twin_frames(family(code)).cylinders:
                section = one.section
                turned = np.radians(section.crank_pin.begin_deg + (section.crank_pin.end_deg - section.crank_pin.begin_deg) * deg / 720)
                across = section.throw_mm * np.sin(turned) - section.pin_x_mm
                along = section.top_mm - np.array(one.drop_um) / 1000 - section.throw_mm * np.cos(turned)
                with self.subTest(family=code, cylinder=one.cylinder):
                    np.testing.assert_allclose(np.hypot(across, along), section.rod_mm, atol=0.0006)  # drops are whole micrometres

    def test_valves_of_a_cylinder_are_shut_around_its_firing_tdc(self):
        """Property: nothing is open where it fires; every valve opens once in a cycle, as far as its document says."""
        for code in CODES:
            engine = family(code)
            for one in twin_frames(engine).cylinders:
                fires = round(engine.firing_deg[one.cylinder])
                for valve in one.valves:
                    with self.subTest(family=code, cylinder=one.cylinder, valve=valve.valve):
                        self.assertEqual(valve.lift_um[fires % 720], 0)
                        self.assertAlmostEqual(max(valve.lift_um) / 1000, valve.most_mm, delta=0.002)

    def test_a_stand_lists_every_lobe_and_who_is_at_the_top(self):
        stand = snapshot_at(family("corrie-v6"), 120)
        self.assertEqual(len(stand.lobes), 24)
        self.assertEqual(stand.at_tdc, ["cylinder 2 firing", "cylinder 5 overlap"])
        twins = [lobe for lobe in stand.lobes if (lobe.camshaft, lobe.cylinder) == ("intake-b", 4)]
        self.assertEqual([(lobe.place, lobe.clock_deg) for lobe in twins], [(place, twins[0].clock_deg) for place in ("front", "rear")])

    def test_arcs_lie_on_their_wheels_and_pointers_outside_them(self):
        for code in CODES:
            drawing = draw_drive(family(code))
            for loop, stage in zip(drawing.loops, [s for s in family(code).drive.stages if s.kind != "gears"], strict=True):
                wheels = {wheel.id: wheel for wheel in drawing.wheels}
                for arc, step in zip(loop.arcs, stage.path, strict=True):
                    wheel = wheels[step.wheel]
                    for place in (arc.begin, arc.end):
                        away = np.hypot(place.x_mm - wheel.x_mm, place.y_mm - wheel.y_mm)
                        with self.subTest(family=code, wheel=wheel.id):
                            self.assertAlmostEqual(away, wheel.radius_mm, places=6)
            for pointer in drawing.pointers:
                mark = next(mark for mark in family(code).drive.marks if mark.meets == pointer.id)
                wheel = next(wheel for wheel in drawing.wheels if wheel.id == mark.wheel)
                away = np.hypot(pointer.x_mm - wheel.x_mm, pointer.y_mm - wheel.y_mm)
                with self.subTest(family=code, pointer=pointer.id):
                    self.assertGreater(away, wheel.radius_mm)
