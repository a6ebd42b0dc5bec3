"""Units and angles at the door."""

import unittest

import pint
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import circmean

from gurvo_core.angles import circular_mean_deg, midpoint_deg, nearest_turn_deg, signed_deg, wrap_deg
from gurvo_core.errors import FigureError
from gurvo_core.units import _QUANTITY, per_unit, read_figure, to_inside

NIST_ROUNDED = 5e-11  # NIST SP 811 prints these factors to eleven figures
EXACT = 1e-9


class UnitFactorTests(unittest.TestCase):
    def test_factors_are_those_of_nist(self):
        """Source: NIST SP 811 (2008), appendix B.8: lbf·ft 1.355 818 N·m, lbf·in 0.112 984 8 N·m, inch 25.4 mm; more digits from the
        exact definitions lbf = 4.448 221 615 260 5 N and ft = 0.3048 m."""
        self.assertEqual(per_unit("in"), 25.4)
        self.assertEqual(per_unit("thou"), 0.0254)
        self.assertAlmostEqual(per_unit("lbf·ft"), 1.3558179483, delta=NIST_ROUNDED)
        self.assertAlmostEqual(per_unit("lbf·in"), 0.1129848290, delta=NIST_ROUNDED)

    def test_every_unit_is_worth_what_a_library_of_units_makes_of_it(self):
        """Library: pint."""
        registry = pint.UnitRegistry()
        inside = {"angle": "degree", "length": "millimetre", "torque": "newton * metre"}
        names = {
            "deg": "degree",
            "µm": "micrometre",
            "N·m": "newton * metre",
            "lbf·ft": "force_pound * foot",
            "lbf·in": "force_pound * inch",
        }
        for unit, quantity in _QUANTITY.items():
            with self.subTest(unit=unit):
                known = registry.Quantity(1, names.get(unit, unit)).to(inside[quantity]).magnitude
                self.assertAlmostEqual(per_unit(unit), float(known), delta=1e-12)

    def test_18_newton_metres_are_159_inch_pounds(self):
        """Practice: 18 N·m is quoted as 159 lbf·in."""
        self.assertEqual(round(18 / per_unit("lbf·in")), 159)

    def test_a_figure_quoted_in_three_units_can_disagree_with_itself(self):
        """Practice: 20 N·m / 14 lbf·ft / 168 lbf·in disagree by about 5 %; 12 / 9 / 108 agree within 2 %."""
        off = [max(a, b, c) / min(a, b, c) - 1 for a, b, c in (self._in_nm(20, 14, 168), self._in_nm(12, 9, 108))]
        self.assertAlmostEqual(off[0], 0.05, delta=0.01)
        self.assertLess(off[1], 0.02)

    def _in_nm(self, nm, lbf_ft, lbf_in):
        return nm, lbf_ft * per_unit("lbf·ft"), lbf_in * per_unit("lbf·in")


class TypedFigureTests(unittest.TestCase):
    def test_a_comma_is_as_good_as_a_point(self):
        self.assertEqual(read_figure(" 50,5 "), read_figure("50.5"))

    def test_what_is_no_number_is_refused_with_a_sentence(self):
        for text in ("", "abc", "1.2.3", "1e3", "nan", "inf", "٣", "12 5", "--4", "1" * 13):
            with self.subTest(text=text), self.assertRaises(FigureError) as refused:
                read_figure(text, "wheel.text")
            self.assertEqual(refused.exception.field, "wheel.text")
            self.assertIn("type", str(refused.exception))

    def test_an_angle_is_not_taken_for_a_length(self):
        with self.assertRaises(FigureError) as refused:
            to_inside("1", "deg", "length")
        self.assertIn("use mm, µm, in, thou", str(refused.exception))


class AngleTests(unittest.TestCase):
    def test_a_tiny_negative_angle_is_zero_and_not_a_full_circle(self):
        """By hand: in floats -1e-17 % 360 is 360.0."""
        self.assertEqual(wrap_deg(-1e-17), 0.0)

    def test_the_middle_across_the_zero(self):
        """By hand: from 350 forward to 20 is 30 degrees; its middle is 5, not 185."""
        self.assertEqual(midpoint_deg(350, 20), 5)

    @given(st.floats(-1e6, 1e6), st.sampled_from([360.0, 720.0]))
    def test_wrapping_keeps_the_place(self, angle, circle):
        """Property: the wrapped angle lies on the circle and names the same place."""
        wrapped = wrap_deg(angle, circle)
        self.assertTrue(0 <= wrapped < circle)
        self.assertAlmostEqual(signed_deg(wrapped - angle, circle), 0, delta=EXACT * max(1, abs(angle)))

    @given(st.floats(0, 360, exclude_max=True), st.floats(0, 720))
    def test_the_nearest_turn_is_near(self, angle, near):
        """Property: within half a circle of where it is expected."""
        self.assertLessEqual(abs(nearest_turn_deg(angle, near) - near), 180)

    @given(st.floats(-720, 720), st.lists(st.floats(-80, 80), min_size=1, max_size=12))
    def test_the_circular_mean_is_scipys(self, middle, away):
        """Library: scipy.stats.circmean, for places within a quarter turn of each other."""
        places = [middle + one for one in away]
        ours = circular_mean_deg(places)
        self.assertAlmostEqual(signed_deg(ours - float(circmean(places, high=360, low=0))), 0, places=6)
