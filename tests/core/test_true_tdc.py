"""True TDC by every method: by hand, against a GUM library, and on a thousand synthetic engines."""

import unittest

import numpy as np
from uncertainties import ufloat

from gurvo_core.angles import signed_deg
from gurvo_core.errors import ReadingError
from gurvo_core.motion import Slider, drop_at_deg, drop_mm
from gurvo_core.timing import (
    DropReading,
    fit_tdc,
    standard_uncertainty,
    tdc_at_top,
    tdc_by_equal_drops,
    tdc_by_stop,
    top_half_width_deg,
)

SLIDER = Slider(throw_mm=43, rod_mm=143, pin_offset_mm=0.8)
STRAIGHT = Slider(throw_mm=43, rod_mm=143)
RESOLUTION_DEG, CALIBRATION_DEG = 0.5, 0.2
RESOLUTION_MM, CALIBRATION_MM = 0.01, 0.008
U_WHEEL = standard_uncertainty(RESOLUTION_DEG, CALIBRATION_DEG)
U_DIAL = standard_uncertainty(RESOLUTION_MM, CALIBRATION_MM)
CASES = 1000


class ByHandTests(unittest.TestCase):
    def test_the_stop_is_midway_however_much_it_blocks(self):
        """By hand: 318.5 and 41 straddle the zero: -0.25; a stop that blocks 220 degrees: met at 250 and 110, zero 0."""
        self.assertAlmostEqual(tdc_by_stop([(318.5, 41)], STRAIGHT, U_WHEEL).zero_deg, -0.25)
        self.assertAlmostEqual(tdc_by_stop([(250, 110)], STRAIGHT, U_WHEEL).zero_deg, 0)

    def test_a_pin_offset_moves_the_middle_of_equal_drops(self):
        """Second method: readings made from the offset crank itself give back its zero; uncorrected they would not."""
        before, after = drop_at_deg(8, "before", SLIDER), drop_at_deg(8, "after", SLIDER)
        self.assertAlmostEqual(tdc_by_equal_drops([(8, 3 + before, 3 + after)], SLIDER, U_WHEEL, U_DIAL).zero_deg, 3, places=9)
        self.assertAlmostEqual(tdc_by_stop([(3 + before, 3 + after)], SLIDER, U_WHEEL).zero_deg, 3, places=9)
        self.assertGreater(abs(tdc_by_stop([(3 + before, 3 + after)], STRAIGHT, U_WHEEL).zero_deg - 3), 0.01)

    def test_the_dwell_at_the_top(self):
        """Practice: r = 43, L = 143, a dial of 0.01 mm: about 1.1 degrees either way; the exact drop there is one step."""
        half_width = top_half_width_deg(STRAIGHT, 0.01)
        self.assertAlmostEqual(half_width, 1.1, delta=0.05)
        self.assertAlmostEqual(float(drop_mm(half_width, STRAIGHT)), 0.01, delta=1e-5)

    def test_uncertainty_of_a_stop_is_that_of_a_gum_library(self):
        """Library: uncertainties carries both readings through the midpoint."""
        middle = (ufloat(-41.5, U_WHEEL) + ufloat(41.0, U_WHEEL)) / 2
        estimate = tdc_by_stop([(318.5, 41.0)], STRAIGHT, U_WHEEL)
        self.assertAlmostEqual(estimate.u_deg, middle.std_dev, places=12)

    def test_no_reading_no_answer(self):
        for call in (lambda: tdc_by_stop([], SLIDER, 0.1), lambda: tdc_by_equal_drops([], SLIDER, 0.1, 0.1)):
            self.assertRaises(ReadingError, call)
        self.assertRaises(ReadingError, tdc_at_top, [], SLIDER, 0.1, 0.01)


class FitTests(unittest.TestCase):
    points = (-55, -40, -25, 20, 35, 50)

    def readings(self, zero, dial_zero=0.0):
        return [DropReading(wheel_deg=(w + zero) % 360, drop_mm=float(drop_mm(w, SLIDER)) + dial_zero) for w in self.points]

    def test_perfect_readings_give_wheel_zero_and_dial_zero(self):
        """Second method: made from the model."""
        estimate = fit_tdc(self.readings(-7.3, 0.02), SLIDER, U_WHEEL, U_DIAL)
        self.assertAlmostEqual(estimate.zero_deg, -7.3, places=6)
        self.assertAlmostEqual(estimate.dial_zero_mm, 0.02, places=6)
        self.assertIsNone(estimate.stray)

    def test_the_reading_that_does_not_belong_is_named(self):
        for wrong in range(len(self.points)):
            readings = self.readings(1.0)
            readings[wrong] = DropReading(wheel_deg=readings[wrong].wheel_deg + 5, drop_mm=readings[wrong].drop_mm)
            with self.subTest(wrong=wrong):
                self.assertEqual(fit_tdc(readings, SLIDER, U_WHEEL, U_DIAL).stray, wrong)

    def test_one_side_only_or_too_few_are_refused(self):
        one_side = [DropReading(wheel_deg=w, drop_mm=float(drop_mm(w, SLIDER))) for w in (10, 20, 30, 40)]
        for readings in (one_side, self.readings(0)[:3]):
            with self.assertRaises(ReadingError) as refused:
                fit_tdc(readings, SLIDER, U_WHEEL, U_DIAL)
            self.assertEqual(refused.exception.field, "readings")


class CoverageTests(unittest.TestCase):
    """Property: by any method a synthetic engine's zero is found within the stated U in at least 95 % of 1,000 seeded cases."""

    def setUp(self):
        self.random = np.random.default_rng(20261123)

    def wheel(self, true_deg):
        """A wheel figure as a builder reads it: calibration error, then rounded to the step."""
        off = self.random.normal(0, CALIBRATION_DEG / 2)
        return round((true_deg + off) / RESOLUTION_DEG) * RESOLUTION_DEG % 360

    def dial(self, true_mm):
        off = self.random.normal(0, CALIBRATION_MM / 2)
        return round((true_mm + off) / RESOLUTION_MM) * RESOLUTION_MM

    def share_within(self, once):
        zeros = self.random.uniform(-20, 20, CASES)
        within = 0
        for zero in zeros:
            estimate = once(zero)
            within += abs(signed_deg(estimate.zero_deg - zero)) <= 2 * estimate.u_deg
        return within / CASES

    def test_positive_stop(self):
        def once(zero):
            half = self.random.uniform(20, 60)
            drop = float(drop_mm(half, SLIDER))
            pair = [self.wheel(zero + drop_at_deg(drop, side, SLIDER)) for side in ("before", "after")]
            return tdc_by_stop([tuple(pair)], SLIDER, U_WHEEL)

        self.assertGreaterEqual(self.share_within(once), 0.95)

    def test_equal_drops(self):
        def once(zero):
            pairs = []
            for drop in self.random.uniform(2, 15, 3):
                # the dial is brought to the drop; its error turns the crank a little further or less
                places = [drop_at_deg(drop + self.random.normal(0, U_DIAL), side, SLIDER) for side in ("before", "after")]
                pairs.append((drop, *(self.wheel(zero + place) for place in places)))
            return tdc_by_equal_drops(pairs, SLIDER, U_WHEEL, U_DIAL)

        self.assertGreaterEqual(self.share_within(once), 0.95)

    def test_fit(self):
        def once(zero):
            places = np.concatenate([self.random.uniform(-60, -15, 4), self.random.uniform(15, 60, 4)])
            dial_zero = self.random.normal(0, 0.02)
            made = [(self.wheel(zero + w), self.dial(float(drop_mm(w, SLIDER)) + dial_zero)) for w in places]
            return fit_tdc([DropReading(wheel_deg=w, drop_mm=d) for w, d in made], SLIDER, U_WHEEL, U_DIAL)

        self.assertGreaterEqual(self.share_within(once), 0.95)

    def test_at_the_top(self):
        hidden = top_half_width_deg(SLIDER, RESOLUTION_MM)

        def once(zero):
            return tdc_at_top([self.wheel(zero + self.random.uniform(-hidden, hidden))], SLIDER, U_WHEEL, RESOLUTION_MM)

        self.assertGreaterEqual(self.share_within(once), 0.95)
