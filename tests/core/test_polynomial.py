"""Polynomial lobes against their textbook boundary conditions and a symbolic derivative."""

import unittest

import numpy as np
import sympy

from gurvo_core.engine import PolynomialProfile
from gurvo_core.motion.lobe import crossing_cam_deg, lobe_curve, lobe_lift_mm
from gurvo_core.motion.polynomial import law_rise

EXACT = 1e-12  # both are the same polynomial but for rounding
# law -> how many derivatives are zero at both ends, by the textbook: 3-4-5 velocity and acceleration; 4-5-6-7 jerk as well
TEXTBOOK = {"3-4-5": 2, "4-5-6-7": 3}
u = sympy.symbols("u")


def symbolic(law):
    """The polynomial of the law's powers that rises from 0 to 1 with so many derivatives zero at both ends, solved anew."""
    powers = [int(power) for power in law.split("-")]
    unknown = sympy.symbols(f"c0:{len(powers)}")
    rise = sum(c * u**power for c, power in zip(unknown, powers, strict=True))
    conditions = [rise.subs(u, 1) - 1] + [sympy.diff(rise, u, n).subs(u, 1) for n in range(1, TEXTBOOK[law] + 1)]
    return rise.subs(sympy.solve(conditions, unknown))


def lobe(law="4-5-6-7", **rest):
    side = {"law": law, "cam_deg": 60, "ramp_mm": 0.25, "ramp_cam_deg": 15}
    return PolynomialProfile(kind="polynomial", id="p", lobe_lift_mm=8, opening=side, closing={**side, "cam_deg": 66}, **rest)


class LawTests(unittest.TestCase):
    def test_each_law_is_the_polynomial_of_its_boundary_conditions(self):
        """Library: sympy solves the textbooks' conditions (from memory) for the coefficients."""
        shares = np.linspace(0, 1, 41)
        for law in TEXTBOOK:
            theirs = [float(symbolic(law).subs(u, sympy.Rational(n, 40))) for n in range(41)]
            with self.subTest(law=law):
                np.testing.assert_allclose(law_rise(shares, law), theirs, atol=EXACT)

    def test_derivatives_are_zero_where_the_textbook_says(self):
        for law, zero in TEXTBOOK.items():
            for order in range(1, zero + 1):
                slope = sympy.diff(symbolic(law), u, order)
                with self.subTest(law=law, order=order):
                    self.assertEqual((slope.subs(u, 0), slope.subs(u, 1)), (0, 0))

    def test_the_lobes_slope_is_the_symbolic_derivative(self):
        """Library: sympy's derivative of the flank against a central difference of ours."""
        slope = sympy.lambdify(u, sympy.diff(symbolic("4-5-6-7"), u))
        for cam_deg in (-50.0, -30.0, -10.0):
            step = 1e-4
            ours = np.diff(lobe_lift_mm([cam_deg - step, cam_deg + step], lobe()))[0] / (2 * step)
            with self.subTest(cam_deg=cam_deg):
                self.assertAlmostEqual(ours, (8 - 0.25) / 60 * slope(1 + cam_deg / 60), delta=1e-6)


class LobeTests(unittest.TestCase):
    def test_ramp_flank_and_nose_join_without_a_step(self):
        """Property: lift and slope go on over every joint, and base circle lies outside."""
        profile = lobe(nose_dwell_cam_deg=4)
        for joint in (-77, -62, -2, 2, 68, 83):
            near = lobe_lift_mm([joint - 1e-3, joint, joint + 1e-3], profile)
            with self.subTest(joint=joint):
                self.assertLess(abs(np.diff(near)).max(), 1e-4)
        self.assertEqual(lobe_lift_mm([-77, 83, 120], profile).tolist(), [0, 0, 0])
        self.assertEqual((profile.begins_deg, profile.ends_deg, profile.top_mm), (-77, 83, 8))

    def test_a_flank_is_passed_where_the_polynomial_has_that_lift(self):
        """By hand: half of the flank's own height lies at its middle for both laws."""
        half = 0.25 + (8 - 0.25) / 2
        for law in TEXTBOOK:
            with self.subTest(law=law):
                self.assertAlmostEqual(crossing_cam_deg(lobe(law), half, "opening"), -30, places=6)
                self.assertAlmostEqual(crossing_cam_deg(lobe(law), half, "closing"), 33, places=6)

    def test_the_drawn_curve_is_the_lobe(self):
        curve = lobe_curve(lobe())
        self.assertEqual((curve.cam_deg[0], curve.cam_deg[-1], max(curve.lobe_lift_mm)), (-75, 81, 8))
