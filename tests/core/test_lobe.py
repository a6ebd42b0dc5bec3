"""Lobes and events on a lobe with a closed-form solution."""

import unittest

import numpy as np

from gurvo_core.engine import Camshaft, LiftProfile, Lobe
from gurvo_core.errors import ReadingError
from gurvo_core.motion import crossing_cam_deg, cycle_frames, drop_mm, lobe_lift_mm, valve_lift_mm
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing import centreline_deg, profile_event_deg
from gurvo_core.timing.events import lift_slope_mm_per_deg
from tests.engines import quern_4

HALF_DEG, TOP_MM = 70.0, 6.5
TABLE_STEP_DEG = 1.0
INTERPOLATION_DEG = 2e-3  # a shape-keeping cubic through a 1 deg table
CAM_DEG = np.arange(-HALF_DEG, HALF_DEG + 1, TABLE_STEP_DEG)
# harmonic lobe: lift = top/2 (1 + cos(180 x / half)); passes lift l at x = half/180 acos(2 l/top - 1)
PROFILE = LiftProfile(
    id="harmonic", cam_deg=tuple(CAM_DEG), lobe_lift_mm=tuple(TOP_MM / 2 * (1 + np.cos(np.radians(180 * CAM_DEG / HALF_DEG))))
)
LOBE = Lobe(cylinder=1, valve="intake", profile="harmonic", nose_deg=108, lash_mm=0.2)
SHAFT = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "rocker", "clock_deg": 0, "ratio": 1.5},), lobes=(LOBE,))


def passes_at(lobe_lift):
    return HALF_DEG / 180 * np.degrees(np.arccos(2 * lobe_lift / TOP_MM - 1))


class HarmonicLobeTests(unittest.TestCase):
    def test_crossings_are_those_of_the_closed_form(self):
        """By hand: acos of the lift, both flanks."""
        for lift in (0.4, 1.0, 3.0, 6.0):
            with self.subTest(lift=lift):
                self.assertAlmostEqual(crossing_cam_deg(PROFILE, lift, "closing"), passes_at(lift), delta=INTERPOLATION_DEG)
                self.assertAlmostEqual(crossing_cam_deg(PROFILE, lift, "opening"), -passes_at(lift), delta=INTERPOLATION_DEG)

    def test_events_carry_lash_ratio_and_two_crank_degrees_a_cam_degree(self):
        """By hand: valve lift 1.00 with lash 0.2 and ratio 1.5 is lobe lift 0.8; nose at 468."""
        closing = profile_event_deg(PROFILE, SHAFT, LOBE, 1.0, "closing")
        opening = profile_event_deg(PROFILE, SHAFT, LOBE, 1.0, "opening")
        self.assertAlmostEqual(closing, 468 + 2 * passes_at(0.8), delta=2 * INTERPOLATION_DEG)
        self.assertAlmostEqual(centreline_deg("intake", opening, closing), 108, delta=2 * INTERPOLATION_DEG)

    def test_the_slope_is_the_derivative_of_the_closed_form(self):
        """By hand: d lift / d crank = ratio top/2 sin(180 x/half) pi/half / 2."""
        at = passes_at(0.8)
        by_hand = 1.5 * TOP_MM / 2 * np.sin(np.radians(180 * at / HALF_DEG)) * np.pi / HALF_DEG / 2
        self.assertAlmostEqual(lift_slope_mm_per_deg(PROFILE, SHAFT, LOBE, 1.0, "closing"), by_hand, delta=0.01 * by_hand)

    def test_valve_lift_is_never_below_zero_and_zero_off_the_lobe(self):
        lifts = valve_lift_mm(np.arange(-180, 180, 0.5), PROFILE, SHAFT, LOBE)
        self.assertEqual(lifts.min(), 0)
        self.assertAlmostEqual(lifts.max(), 1.5 * TOP_MM - 0.2, places=9)
        self.assertEqual(lobe_lift_mm(180, PROFILE), 0)

    def test_an_event_at_zero_lift_or_above_the_lobe_is_refused(self):
        for lift in (0.0, TOP_MM, 9.0, -1.0):
            with self.subTest(lift=lift), self.assertRaises(ReadingError):
                crossing_cam_deg(PROFILE, lift, "opening")

    def test_an_asymmetric_lobe_moves_its_middle_with_the_lift(self):
        """By hand: opening flank 60 deg, closing flank 80 deg wide; the middle is 10 deg late at the base and 0 at the nose."""
        cam = np.concatenate([np.arange(-60, 0, 1.0), np.arange(0, 81, 1.0)])
        lift = np.where(cam < 0, 1 + np.cos(np.pi * cam / 60), 1 + np.cos(np.pi * cam / 80)) * 3
        profile = LiftProfile(id="a", cam_deg=tuple(cam), lobe_lift_mm=tuple(lift))
        middles = [(crossing_cam_deg(profile, x, "opening") + crossing_cam_deg(profile, x, "closing")) / 2 for x in (0.5, 3.0, 5.5)]
        share = [np.degrees(np.arccos(x / 3 - 1)) / 180 for x in (0.5, 3.0, 5.5)]
        np.testing.assert_allclose(middles, [10 * part for part in share], atol=INTERPOLATION_DEG)


class CycleTests(unittest.TestCase):
    def test_frames_of_the_demo_engine_follow_its_firing_order(self):
        """Property: each cylinder's piston is at TDC when it fires, and its valves are shut there and open at mid-stroke."""
        engine = quern_4()
        frames = cycle_frames(engine)
        np.testing.assert_allclose(frames.drop_mm[0], drop_mm(np.arange(720), slider_of(engine)))
        for row, cylinder in enumerate(frames.cylinders):
            fires = int(engine.firing_deg[cylinder])
            self.assertAlmostEqual(frames.drop_mm[row, fires], 0, places=9)
            intake, exhaust = frames.valves.index(("cam", 2 * row)), frames.valves.index(("cam", 2 * row + 1))
            self.assertEqual(frames.lift_mm[[intake, exhaust], fires].tolist(), [0, 0])
            self.assertGreater(frames.lift_mm[intake, (fires + 468) % 720], 9)
            self.assertGreater(frames.lift_mm[exhaust, (fires + 250) % 720], 9)
