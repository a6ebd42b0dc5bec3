"""True TDC by every method: by hand, against a GUM library."""

import math
import unittest

from gurvo_core.angles import signed_deg
from gurvo_core.errors import ReadingError
from gurvo_core.motion import SliderCrank, drop_at_deg, drop_mm
from gurvo_core.timing import (
    DropReading,
    GaugeUncertainty,
    TdcPair,
    fit_tdc,
    standard_uncertainty,
    tdc_at_top,
    tdc_by_equal_drops,
    tdc_by_highest,
    tdc_by_stop,
    tdc_dwell_half_width_deg,
)
from gurvo_core.timing.tdc import carried_by
from tests.core.off_centre import OffCentre

SLIDER = SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=0.8)
STRAIGHT = SliderCrank(throw_mm=43, rod_mm=143)
RESOLUTION_DEG, CALIBRATION_DEG = 0.5, 0.2
RESOLUTION_MM, CALIBRATION_MM = 0.01, 0.008
U_WHEEL = standard_uncertainty(RESOLUTION_DEG, CALIBRATION_DEG)
U_DIAL = standard_uncertainty(RESOLUTION_MM, CALIBRATION_MM)


def pair(before, after, drop=None):
    return TdcPair(before_deg=before, after_deg=after, drop_mm=drop)


class ByHandTests(unittest.TestCase):
    def test_the_stop_is_midway_however_much_it_blocks(self):
        """By hand: 318.5 and 41 straddle the zero: -0.25; a stop that blocks 220 degrees: met at 250 and 110, zero 0."""
        self.assertAlmostEqual(tdc_by_stop([pair(318.5, 41)], STRAIGHT, U_WHEEL).zero_deg, -0.25)
        self.assertAlmostEqual(tdc_by_stop([pair(250, 110)], STRAIGHT, U_WHEEL).zero_deg, 0)

    def test_a_pin_offset_moves_the_middle_of_equal_drops(self):
        """Second method: readings made from the offset crank itself give back its zero; uncorrected they would not."""
        before, after = drop_at_deg(8, "before", SLIDER), drop_at_deg(8, "after", SLIDER)
        self.assertAlmostEqual(tdc_by_equal_drops([pair(3 + before, 3 + after, 8)], SLIDER, U_WHEEL, U_DIAL).zero_deg, 3, places=9)
        self.assertAlmostEqual(tdc_by_stop([pair(3 + before, 3 + after)], SLIDER, U_WHEEL).zero_deg, 3, places=9)
        self.assertGreater(abs(tdc_by_stop([pair(3 + before, 3 + after)], STRAIGHT, U_WHEEL).zero_deg - 3), 0.01)

    def test_the_dwell_at_the_top(self):
        """Practice: r = 43, L = 143, a dial of 0.01 mm: about 1.1 degrees either way; the exact drop there is one step."""
        half_width = tdc_dwell_half_width_deg(STRAIGHT, 0.01)
        self.assertAlmostEqual(half_width, 1.1, delta=0.05)
        self.assertAlmostEqual(float(drop_mm(half_width, STRAIGHT)), 0.01, delta=1e-5)

    def test_uncertainty_of_a_stop_is_that_of_a_gum_library(self):
        """Library: uncertainties carries both readings of a wheel off centre, which way unknown, through the midpoint."""
        read = OffCentre(U_WHEEL)
        middle = (read.at(-41.5) + read.at(41.0)) / 2
        estimate = tdc_by_stop([pair(318.5, 41.0)], STRAIGHT, U_WHEEL)
        self.assertAlmostEqual(estimate.u_deg, middle.std_dev, places=12)

    def test_a_crank_angle_read_on_the_same_wheel_is_that_of_a_gum_library(self):
        """Library: what zero and place carry of one curve goes out of their difference, near each other nearly all of it."""
        for crank_deg in (-16.0, 52.0, 180.0):
            with self.subTest(crank_deg):
                read = OffCentre(U_WHEEL)
                theirs = read.at(crank_deg) - (read.at(-41.5) + read.at(41.0)) / 2
                zero = tdc_by_stop([pair(318.5, 41.0)], STRAIGHT, U_WHEEL)
                ours = zero.u_of(U_WHEEL.resolution, carried_by({crank_deg: 1.0}))
                self.assertAlmostEqual(ours, theirs.std_dev, places=12)

    def test_no_reading_no_answer(self):
        for call in (lambda: tdc_by_stop([], SLIDER, U_WHEEL), lambda: tdc_by_equal_drops([], SLIDER, U_WHEEL, U_DIAL)):
            self.assertRaises(ReadingError, call)
        for method in (tdc_at_top, tdc_by_highest):
            self.assertRaises(ReadingError, method, [], SLIDER, U_WHEEL, 0.01)

    def test_repeats_at_one_place_do_not_make_the_scale_finer(self):
        """By hand: six times the same figure carry the error of one; other places are rounded anew, on the same curve of the wheel."""
        once, six = (tdc_by_stop([pair(318.5, 41)] * n, STRAIGHT, U_WHEEL).u_deg for n in (1, 6))
        self.assertAlmostEqual(six, once)
        for gauge, two_deg in ((GaugeUncertainty(0.1), 0.05), (GaugeUncertainty(0.0, 0.1), 0.1 * (math.cos(math.radians(40)) + 0.5) / 2)):
            with self.subTest(gauge):
                # cos 40 of the curve from one pair, cos 60 of it from the other: their mean, nothing of it averages
                self.assertAlmostEqual(tdc_by_stop([pair(320, 40), pair(300, 60)], STRAIGHT, gauge).u_deg, two_deg)

    def test_a_repeat_that_scatters_widens(self):
        """By hand: figures 1 apart at one place, so middles 0.5 apart: s = 0.5/sqrt 2, over sqrt 2."""
        estimate = tdc_by_stop([pair(318, 41), pair(319, 41)], STRAIGHT, GaugeUncertainty(0))
        self.assertAlmostEqual(estimate.u_deg, 0.25)

    def test_each_side_of_equal_drops_has_a_slope_of_its_own(self):
        """Second method: the derivative of drop_at_deg either side, by central difference, at a large offset."""
        crank = SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=12)
        per_mm = [(drop_at_deg(8.001, side, crank) - drop_at_deg(7.999, side, crank)) / 0.002 for side in ("before", "after")]
        wheel = GaugeUncertainty(U_WHEEL.resolution)
        own = [(wheel.u**2 + (U_DIAL.resolution * one) ** 2) ** 0.5 for one in per_mm]
        common = U_DIAL.calibration * (per_mm[0] + per_mm[1])
        before, after = (drop_at_deg(8, side, crank) for side in ("before", "after"))
        estimate = tdc_by_equal_drops([pair(before, after, 8)], crank, wheel, U_DIAL)
        self.assertAlmostEqual(estimate.u_deg, (own[0] ** 2 + own[1] ** 2 + common**2) ** 0.5 / 2, places=6)

    def test_of_a_crank_nobody_knows_a_drop_grows_as_the_square_of_the_angle(self):
        """Second method: near the top that is what the known crank does, so that both are as sure, within a hundredth."""
        for drop in (0.3, 1.0):
            read = [pair(360 + drop_at_deg(drop, "before", STRAIGHT), drop_at_deg(drop, "after", STRAIGHT), drop)]
            unknown, known = (tdc_by_equal_drops(read, slider, U_WHEEL, U_DIAL) for slider in (None, STRAIGHT))
            self.assertAlmostEqual(signed_deg(unknown.zero_deg), 0, delta=1e-6)
            self.assertAlmostEqual(unknown.u_deg / known.u_deg, 1, delta=0.01)

    def test_the_middle_of_the_dwell(self):
        """By hand: 1.0 before and 1.2 after is 0.1 after."""
        self.assertAlmostEqual(tdc_at_top([pair(359.0, 1.2)], STRAIGHT, U_WHEEL, 0.01).zero_deg, 0.1)


class FitTests(unittest.TestCase):
    points = (-55, -40, -25, 20, 35, 50)

    def readings(self, zero, dial_zero=0.0):
        return [DropReading(wheel_deg=(w + zero) % 360, drop_mm=float(drop_mm(w, SLIDER)) + dial_zero) for w in self.points]

    def test_perfect_readings_give_wheel_zero_and_dial_zero(self):
        """Second method: made from the model."""
        estimate = fit_tdc(self.readings(-7.3, 0.02), SLIDER, U_WHEEL, U_DIAL)
        self.assertAlmostEqual(estimate.zero_deg, -7.3, places=6)
        self.assertAlmostEqual(estimate.dial_zero_mm, 0.02, places=6)
        self.assertIsNone(estimate.outlier)

    def test_the_reading_that_does_not_belong_is_named(self):
        for wrong in range(len(self.points)):
            readings = self.readings(1.0)
            readings[wrong] = DropReading(wheel_deg=readings[wrong].wheel_deg + 5, drop_mm=readings[wrong].drop_mm)
            with self.subTest(wrong=wrong):
                self.assertEqual(fit_tdc(readings, SLIDER, U_WHEEL, U_DIAL).outlier, wrong)

    def test_readings_astride_half_a_turn_fit_as_well(self):
        """Second method: the same readings on a wheel whose zero stands half a turn off."""
        estimate = fit_tdc(self.readings(178.4), SLIDER, U_WHEEL, U_DIAL)
        self.assertAlmostEqual(signed_deg(estimate.zero_deg - 178.4), 0, places=6)

    def test_a_dial_that_was_never_set_to_zero_is_refused(self):
        with self.assertRaises(ReadingError) as refused:
            fit_tdc(self.readings(0.0, 25.0), SLIDER, U_WHEEL, U_DIAL)
        self.assertIn("zero the dial at the top", str(refused.exception))

    def test_a_dial_set_to_zero_a_little_below_the_top_gives_small_negative_drops(self):
        readings = [*self.readings(2.0, -0.3), DropReading(wheel_deg=3.0, drop_mm=float(drop_mm(1.0, SLIDER)) - 0.3)]
        estimate = fit_tdc(readings, SLIDER, U_WHEEL, U_DIAL)
        self.assertAlmostEqual(estimate.zero_deg, 2.0, places=6)
        self.assertAlmostEqual(estimate.dial_zero_mm, -0.3, places=6)

    def test_one_side_only_or_too_few_are_refused(self):
        one_side = [DropReading(wheel_deg=w, drop_mm=float(drop_mm(w, SLIDER))) for w in (10, 20, 30, 40)]
        for readings in (one_side, self.readings(0)[:3]):
            with self.assertRaises(ReadingError) as refused:
                fit_tdc(readings, SLIDER, U_WHEEL, U_DIAL)
            self.assertEqual(refused.exception.field, "readings")
