"""What a torque and an angle do to a bolt, how stiff it is, what stands apart: against textbooks, integrals and other packages."""

import math
import unittest
from statistics import mean

import numpy as np
import sympy
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats
from scipy.integrate import quad

from gurvo_core.joints.judge import APART, APART_FROM_REST, NORMAL, USUAL_BEFORE, family_of, read_to, stands_apart
from gurvo_core.joints.meaning import BoltFacts, generic_nm, lubrication_warning, meaning_of
from gurvo_core.joints.preload import Band, Seat, preload_n, seat_of, torque_nm
from gurvo_core.joints.stiffness import MODULUS_N_MM2, BoltShape, Layer, bolt_n_mm, joint_n_mm, preload_by_angle_n
from gurvo_core.joints.thread import read_thread
from gurvo_core.joints.wrench import Quoted, Wrench, disagreement, setting_nm, unit_meant, wrench_doubts
from gurvo_core.units import per_unit

LINEAR_WITHIN = 0.012  # the linear form drops the product of lead and friction
N_PER_LBF = 4.4482216152605
IN_MM = 25.4


def wedge_nm(load_n, thread, seat, friction):
    """Second method: the screw as a wedge, nothing left out."""
    lead = math.atan(thread.pitch_mm / (math.pi * thread.pitch_diameter_mm))
    angle = math.atan(friction / math.cos(math.radians(30)))
    return load_n * (thread.pitch_diameter_mm / 2 * math.tan(lead + angle) + friction * seat.mean_mm / 2) / 1000


class TorqueTests(unittest.TestCase):
    @given(st.sampled_from(["M6", "M8", "M10x1.25", "M12", "M16x1.5", "3/4-16"]), st.floats(0.06, 0.24))
    def test_torque_is_that_of_the_wedge(self, name, friction):
        """Second method: the exact wedge, over every friction there is."""
        thread = read_thread(name)
        seat = seat_of(thread)
        ours = torque_nm(20_000, thread, seat, thread_friction=friction, head_friction=friction)
        self.assertLess(abs(ours / wedge_nm(20_000, thread, seat, friction) - 1), 3 * LINEAR_WITHIN)

    def test_a_published_case(self):
        """From memory: Shigley, bolted joints: 3/4-16, 25 kip, friction 0.15, collar 1.25 diameters: 3551 lbf·in."""
        thread = read_thread("3/4-16")
        seat = Seat(1.5 * thread.diameter_mm, 1.0 * thread.diameter_mm)
        torque = torque_nm(25_000 * N_PER_LBF, thread, seat, thread_friction=0.15, head_friction=0.15)
        self.assertLess(abs(torque / per_unit("lbf·in") / 3551 - 1), LINEAR_WITHIN)

    @given(st.floats(5, 400), st.floats(0.05, 0.12), st.floats(0, 0.12))
    def test_preload_is_a_band_and_torque_comes_back(self, torque, least, wider):
        """Property: round trip at either end of the friction band."""
        thread, band = read_thread("M12x1.5"), Band(least, least + wider)
        seat = seat_of(thread)
        load = preload_n(torque, thread, seat, thread_friction=band, head_friction=band)
        self.assertLessEqual(load.least, load.most)
        for end, friction in ((load.least, band.most), (load.most, band.least)):
            back = torque_nm(end, thread, seat, thread_friction=friction, head_friction=friction)
            self.assertAlmostEqual(back, torque, delta=1e-9 * torque)

    def test_share_of_yield_says_more_with_torsion(self):
        bolt = BoltFacts(
            thread=read_thread("M10"), seat=seat_of(read_thread("M10")), property_class="8.8", thread_state="oiled", head_state="oiled"
        )
        meant = meaning_of(40, bolt)
        self.assertGreater(meant.combined_share.most, meant.tension_share.most)
        self.assertIn("less", lubrication_warning(40, bolt, "dry"))
        self.assertEqual(lubrication_warning(40, bolt, "oiled"), "")

    def test_a_generic_figure_needs_a_class(self):
        thread = read_thread("M8")
        bolt = BoltFacts(thread=thread, seat=seat_of(thread), property_class=None, thread_state="dry", head_state="dry")
        self.assertIsNone(generic_nm(bolt))


class StiffnessTests(unittest.TestCase):
    def test_a_layer_is_the_integral_of_its_cone(self):
        """Library: scipy's quad over the cone's cross-section, two materials, tapped hole."""
        seat, layers = Seat(17, 11), [("aluminium", 30.0), ("cast iron", 22.0)]
        squeeze, at = 0.0, 0.0
        for material, thickness in layers:

            def share(depth, material=material):
                outer = seat.outer_mm + 2 * depth * math.tan(math.radians(30))
                return 1 / (MODULUS_N_MM2[material] * math.pi / 4 * (outer**2 - seat.inner_mm**2))

            squeeze += quad(share, at, at + thickness)[0]
            at += thickness
        ours = joint_n_mm([Layer(thickness_mm=t, modulus_n_mm2=MODULUS_N_MM2[m]) for m, t in layers], seat)
        self.assertAlmostEqual(ours * squeeze, 1, delta=1e-9)

    def test_two_cones_meet_in_the_middle(self):
        """Library: sympy integrates half a through-bolted joint of one material; both halves are alike."""
        depth, outer, inner, wider = sympy.symbols("depth outer inner wider", positive=True)
        antiderivative = sympy.integrate(1 / ((outer + wider * depth) ** 2 - inner**2), depth)
        numbers = {outer: 17, inner: 11, wider: 2 / math.sqrt(3)}
        ends = [complex(antiderivative.subs({**numbers, depth: end})).real for end in (0, 20)]
        half = 4 / (math.pi * MODULUS_N_MM2["steel"]) * (ends[1] - ends[0])
        ours = joint_n_mm([Layer(thickness_mm=40, modulus_n_mm2=MODULUS_N_MM2["steel"])], Seat(17, 11), tapped=False)
        self.assertAlmostEqual(ours * 2 * half, 1, delta=1e-9)

    def test_a_waist_makes_a_bolt_softer_and_an_angle_counts_less(self):
        thread = read_thread("M11x1.5")
        plain, waisted = (bolt_n_mm(BoltShape(thread=thread, grip_mm=92, free_thread_mm=30, waist_mm=waist)) for waist in (None, 9.2))
        self.assertLess(waisted, plain)
        self.assertLess(preload_by_angle_n(90, thread, bolt=waisted, joint=8e5), preload_by_angle_n(90, thread, bolt=plain, joint=8e5))

    def test_preload_by_angle_is_stretch_and_squeeze(self):
        """By hand: a quarter turn of 1.5 mm takes up 0.375 mm; stretch F/kb and squeeze F/kj add up to it."""
        load = preload_by_angle_n(90, read_thread("M10"), bolt=250_000, joint=750_000)
        self.assertAlmostEqual(load / 250_000 + load / 750_000, 0.375, delta=1e-12)


class FamilyTests(unittest.TestCase):
    @given(st.lists(st.floats(40, 90), min_size=10, max_size=40))
    def test_scatter_is_scipys_with_the_factor_for_few(self, values):
        """Library: scipy's median absolute deviation; above nine the factor is n / (n - 0.8)."""
        family, count = family_of(values), len(values)
        theirs = stats.median_abs_deviation(values, scale="normal") * count / (count - 0.8)
        self.assertAlmostEqual(family.measured, theirs, delta=1e-3)

    def test_the_small_sample_factors_make_it_right_on_the_average(self):
        """Second method: 20 000 draws of each size; the mean of the scatter comes out at the spread they were drawn with."""
        chance = np.random.default_rng(5)
        for count in (4, 5, 6, 8, 10):
            draws = chance.normal(1000, 30, (20_000, count))
            deviations = np.median(np.abs(draws - np.median(draws, axis=1)[:, None]), axis=1)
            factor = family_of(list(draws[0])).measured / (NORMAL * deviations[0]) if deviations[0] * NORMAL > 12 else None
            scale = mean(family_of(list(row)).measured for row in draws[:4000])
            with self.subTest(count=count):
                self.assertLess(abs(scale / 30 - 1), 0.04)
                self.assertTrue(factor is None or factor > 1)

    def test_the_one_bad_bolt_of_ten_is_caught_and_no_other(self):
        torques = [70, 69, 54, 72, 70, 71, 69, 73, 70, 71]
        family = family_of(torques)
        self.assertEqual([stands_apart(value, family) for value in torques], ["", "", "low", *[""] * 7])

    def told_of(self, draws, step, usual):
        """How often at least one of each row stands apart, and how often each does."""
        read = np.round(draws / step) * step
        apart = [
            [stands_apart(value, family) for value in row]
            for row in read.tolist()
            for family in [family_of(row, resolution=step, usual=usual)]
        ]
        return np.array([[bool(side) for side in row] for row in apart])

    def test_sound_joints_are_told_of_about_once_in_a_hundred(self):
        """Second method: three thousand simulated joints of each kind, read to whole degrees and newton metres."""
        chance = np.random.default_rng(8)
        for count in (4, 6, 10, 16):
            for middle, share, usual in ((70, 0.02, 0.03), (70, 0.04, 0.03), (30, 0.03, USUAL_BEFORE), (40, 0.12, USUAL_BEFORE)):
                draws = middle * (1 + share * chance.standard_normal((3000, count)))
                with self.subTest(count=count, middle=middle, share=share):
                    self.assertLess(self.told_of(draws, 1.0, usual).any(axis=1).mean(), 0.02)

    def test_three_bad_of_ten_and_one_of_four_are_found(self):
        """Second method: bad ones three tenths below the others, as a stretched thread ends."""
        chance = np.random.default_rng(9)
        for count, bad in ((10, 3), (4, 1), (10, 1)):
            draws = 70 * (1 + 0.03 * chance.standard_normal((2000, count)))
            draws[:, :bad] *= 0.7
            told = self.told_of(draws, 1.0, 0.03)
            with self.subTest(count=count, bad=bad):
                self.assertGreater(told[:, :bad].all(axis=1).mean(), 0.9)
                self.assertLess(told[:, bad:].any(axis=1).mean(), 0.02)

    def test_to_which_step_figures_were_read(self):
        self.assertEqual([read_to(values) for values in ([30, 35], [30, 34], [30.5], [1.1, 2.4], [0.37])], [5, 2, 0.5, 0.1, 0])

    def test_three_are_no_family_and_equal_ones_are_not_too_strict(self):
        self.assertIsNone(family_of([70, 70, 40]))
        self.assertEqual(stands_apart(71, family_of([70, 70, 70, 70, 71])), "")

    @given(st.lists(st.floats(10, 200), min_size=4, max_size=12), st.floats(0.2, 5))
    def test_units_do_not_matter(self, values, times):
        """Property: the same figures in another unit are judged alike."""
        ours, others = family_of(values), family_of([value * times for value in values])
        for value in values:
            edges = [abs(abs(value - ours.middle) - APART * ours.scatter)]
            nearer = ours.without_from(value)
            edges += [abs(abs(value - nearer.middle) - APART_FROM_REST * nearer.scatter)] if nearer else []
            if min(edges) > 1e-6:
                self.assertEqual(stands_apart(value, ours), stands_apart(value * times, others))


class WrenchTests(unittest.TestCase):
    def test_figures_quoted_twice(self):
        """Practice: 20 N·m / 14 lbf·ft / 168 lbf·in disagree by about 5 %, 12 / 9 / 108 agree within 2 %."""
        torn = disagreement([Quoted(20, "N·m"), Quoted(14, "lbf·ft"), Quoted(168, "lbf·in")])
        self.assertAlmostEqual(torn, 0.05, delta=0.006)
        self.assertLess(disagreement([Quoted(12, "N·m"), Quoted(9, "lbf·ft"), Quoted(108, "lbf·in")]), 0.02)

    def test_a_unit_that_was_meant(self):
        self.assertEqual(unit_meant(159, "lbf·ft", 18).unit, "lbf·in")
        self.assertEqual(unit_meant(65, "lbf·ft", 65).unit, "N·m")
        self.assertIsNone(unit_meant(66, "N·m", 65))
        self.assertIsNone(unit_meant(30, "N·m", 65))

    @given(st.floats(200, 1000), st.floats(10, 150), st.floats(-90, 90))
    def test_an_extension_is_the_reach_along_the_wrench(self, lever, extension, at):
        """Property: square to the wrench it changes nothing, straight out it lowers the setting, back along it raises it."""
        setting = setting_nm(100, lever_mm=lever, extension_mm=extension, at_deg=at)
        self.assertLessEqual(setting, 100 + 1e-9)
        self.assertAlmostEqual(setting_nm(100, lever_mm=lever, extension_mm=extension, at_deg=90), 100, delta=1e-9)
        self.assertGreater(setting_nm(100, lever_mm=lever, extension_mm=extension, at_deg=180), 100)

    def test_a_wrench_in_its_lowest_fifth_or_worn_or_too_coarse(self):
        wrench = Wrench(name="T2", least_nm=10, most_nm=100, resolution_nm=2, pulls=5001)
        said = [sentence for sentence, _ in wrench_doubts(wrench, 15, window_nm=6)]
        self.assertEqual(len(said), 3)
        self.assertTrue(all(word in " ".join(said) for word in ("lowest fifth", "5001 pulls", "too coarse")))
