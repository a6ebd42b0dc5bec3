"""The slider-crank against an independent symbolic solution and by hand."""

import unittest

import numpy as np
import sympy
from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.errors import GeometryError, ReadingError
from gurvo_core.motion import SliderCrank, drop_at_deg, drop_mm, half_arc_middle_deg, pair_middle_deg

EXACT_MM = 1e-9  # closed form: only rounding error is allowed
EXACT_DEG = 1e-6  # near TDC an angle is the square root of a drop: rounding of 1e-13 mm becomes 1e-6 deg


@st.composite
def sliders(draw):
    throw = draw(st.floats(10, 200))
    return SliderCrank(throw_mm=throw, rod_mm=throw * draw(st.floats(2.2, 6)), pin_offset_mm=throw * draw(st.floats(-0.2, 0.2)))


class SliderTests(unittest.TestCase):
    def test_drop_agrees_with_a_symbolic_mechanism(self):
        """Library: sympy solves the circle of the rod against the line of the piston, every 30 degrees, offset pin."""
        slider = SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=2)
        height = sympy.symbols("height", real=True)
        offset, throw, rod = sympy.Integer(2), sympy.Integer(43), sympy.Integer(143)
        top = sympy.sqrt((throw + rod) ** 2 - offset**2)
        at_tdc = -sympy.asin(offset / (throw + rod))
        for degrees in range(0, 360, 30):
            turned = sympy.rad(degrees) + at_tdc
            pin = (throw * sympy.sin(turned), throw * sympy.cos(turned))
            # the piston's pin runs on the line x = -offset
            circle = (pin[0] + offset) ** 2 + (height - pin[1]) ** 2 - rod**2
            theirs = float(top - max(root.evalf(30) for root in sympy.solve(circle, height, simplify=False)))
            with self.subTest(degrees=degrees):
                self.assertAlmostEqual(float(drop_mm(degrees, slider)), theirs, delta=EXACT_MM)

    def test_square_to_the_bore(self):
        """By hand: throw 40, rod 140, crank at 90 deg: 180 - 60 sqrt(5) mm."""
        self.assertAlmostEqual(float(drop_mm(90, SliderCrank(throw_mm=40, rod_mm=140))), 180 - 60 * 5**0.5, delta=EXACT_MM)

    @given(sliders())
    def test_tdc_is_where_throw_and_rod_line_up(self, slider):
        """Property: the drop is 0 at 0 deg and least there; the travel is a little more than two throws."""
        np.testing.assert_allclose(drop_mm(0, slider), 0, atol=EXACT_MM)
        self.assertTrue(np.all(drop_mm(np.arange(1, 360), slider) > 0))
        self.assertGreaterEqual(slider.travel_mm, 2 * slider.throw_mm - EXACT_MM)
        np.testing.assert_allclose(drop_mm(np.arange(0, 360, 0.02), slider).max(), slider.travel_mm, rtol=1e-6)

    @given(sliders(), st.floats(0.001, 0.999), st.sampled_from(["before", "after"]))
    def test_the_inverse_brings_the_drop_back_on_its_side(self, slider, share, side):
        """Property: round trip through the closed form, either side of TDC."""
        drop = share * slider.travel_mm
        angle = drop_at_deg(drop, side, slider)
        np.testing.assert_allclose(drop_mm(angle, slider), drop, atol=1e-7)
        self.assertEqual(angle > 0, side == "after")

    @given(sliders(), st.floats(0.02, 0.9))
    def test_the_arc_alone_tells_where_its_middle_is(self, slider, share):
        """Second method: the middle from the drop and the middle from the arc are one."""
        drop = share * slider.travel_mm
        arc = drop_at_deg(drop, "after", slider) - drop_at_deg(drop, "before", slider)
        self.assertAlmostEqual(half_arc_middle_deg(arc, slider), pair_middle_deg(drop, slider), delta=EXACT_DEG)

    @given(sliders())
    def test_the_down_stroke_is_shorter_with_a_positive_offset(self, slider):
        """By hand: BDC stands at 180 deg - asin(e/(L-r)) from the axis, TDC at -asin(e/(L+r))."""
        e, rod, r = slider.pin_offset_mm, slider.rod_mm, slider.throw_mm
        bdc = 180 - np.degrees(np.arcsin(e / (rod - r))) + np.degrees(np.arcsin(e / (rod + r)))
        np.testing.assert_allclose(drop_mm(bdc, slider), slider.travel_mm, atol=EXACT_MM)

    def test_a_rod_that_cannot_turn_over_is_refused_by_name(self):
        with self.assertRaises(GeometryError) as refused:
            SliderCrank(throw_mm=40, rod_mm=39)
        self.assertEqual(refused.exception.field, "rod_mm")
        with self.assertRaises(GeometryError):
            SliderCrank(throw_mm=float("nan"), rod_mm=100)

    def test_a_drop_the_piston_never_has_is_refused(self):
        with self.assertRaises(ReadingError):
            drop_at_deg(200, "after", SliderCrank(throw_mm=40, rod_mm=140))
