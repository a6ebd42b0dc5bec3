"""Verdicts by the guard-band rule, uncertainties against a GUM library, events, corrections."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st
from uncertainties import ufloat

from gurvo_core.engine import HoleCircles, OffsetBushes, SlottedSprocket, SprocketTeeth
from gurvo_core.timing import Estimate, corrections, in_words, judge, standard_uncertainty
from gurvo_core.timing.events import advance_deg, event_deg, overlap_deg, separation_cam_deg
from gurvo_core.timing.uncertainty import mean_estimate
from tests.engines import quern_4


class JudgeTests(unittest.TestCase):
    def verdict(self, value, u=0.2):
        return judge(Estimate(value=value, u=u), 106, 110, "°").verdict

    def test_in_and_out_only_by_the_expanded_uncertainty(self):
        """From memory: ISO 14253-1: acceptance zone = limits less U, rejection zone = beyond limits by U; U = 0.4 here."""
        cases = {108: "in", 106.4: "in", 106.39: "can't tell", 105.61: "can't tell", 105.6: "out", 110.4: "out", 109.7: "can't tell"}
        for value, verdict in cases.items():
            with self.subTest(value=value):
                self.assertEqual(self.verdict(value), verdict)

    def test_exactly_on_a_limit_cannot_be_told_even_without_uncertainty(self):
        self.assertEqual(self.verdict(106, u=0), "can't tell")

    def test_a_gauge_too_coarse_says_so(self):
        judged = judge(Estimate(value=108, u=1.2), 106, 110, "°")
        self.assertEqual(judged.verdict, "can't tell")
        self.assertIn("more than half the tolerance", judged.settles)

    @given(st.floats(100, 116), st.floats(0, 3))
    def test_never_in_and_out_at_once(self, value, u):
        """Property: a figure outside its limits is never in; one inside never out."""
        verdict = self.verdict(value, u)
        self.assertFalse(verdict == "in" and not 106 <= value <= 110)
        self.assertFalse(verdict == "out" and 106 <= value <= 110)


class UncertaintyTests(unittest.TestCase):
    def test_centreline_uncertainty_is_that_of_a_gum_library(self):
        """Library: uncertainties carries the common wheel zero through both flanks; it must not halve."""
        from gurvo_core.timing.events import lift_slope_mm_per_deg
        from gurvo_core.work import replay
        from tests.engines import found_tdc, lift

        ledger, engine = found_tdc(), quern_4()
        ledger.add(lift("intake", "opening", "17.5", "before TDC"))
        ledger.add(lift("intake", "closing", "50.5", "after BDC"))
        valve = replay(engine, ledger.entries).cams[0].valves[0]
        u_wheel, u_dial = standard_uncertainty(0.5, 0.2), standard_uncertainty(0.01, 0.008)
        zero = (ufloat(-41.5, u_wheel) + ufloat(41.0, u_wheel)) / 2
        lobe, profile = engine.lobe("cam", 1, "intake"), engine.profile("intake-lobe")
        shaft = engine.camshaft("cam")
        events = []
        for figure, flank in ((360 - 17.5, "opening"), (540 + 50.5, "closing")):
            slope = lift_slope_mm_per_deg(profile, shaft, lobe, 1.0, flank)
            events.append(ufloat(figure, u_wheel) + ufloat(0, u_dial / slope) - zero)
        centre = (events[0] + events[1]) / 2 - 360
        self.assertAlmostEqual(valve.centreline_deg, centre.nominal_value, delta=0.03)  # the pin offset moves TDC by hundredths
        self.assertAlmostEqual(valve.centreline_expanded_deg, 2 * centre.std_dev, places=9)

    def test_repeated_readings_by_hand(self):
        """By hand: 1 and 3: mean 2, s = sqrt 2, s/sqrt n = 1; three alike are as good as the gauge allows, no better."""
        self.assertEqual(mean_estimate([1, 3], 0.1), Estimate(value=2, u=1))
        self.assertAlmostEqual(mean_estimate([2, 2, 2], 0.3).u, 0.3 / math.sqrt(3))


class EventTests(unittest.TestCase):
    def test_trade_figures_by_hand(self):
        """By hand: 108 after and 110 before TDC are 109 cam degrees apart; opening 344, exhaust closing 374 overlap 30."""
        self.assertEqual(separation_cam_deg(108, 110), 109)
        self.assertEqual(overlap_deg(344, 374), 30)
        self.assertEqual((advance_deg("intake", 108, 106.5), advance_deg("exhaust", 110, 111.5)), (1.5, 1.5))

    @given(st.floats(-10, 10), st.floats(-10, 10))
    def test_a_wheel_zero_error_moves_both_cams_alike_and_leaves_the_separation(self, zero, error):
        """Property: intake later and exhaust later by the same; separation unchanged."""
        intake, exhaust = event_deg(468 % 360, zero, 468) - 360, 360 - event_deg(250, zero, 250)
        moved_intake, moved_exhaust = event_deg(468 % 360, zero + error, 468) - 360, 360 - event_deg(250, zero + error, 250)
        self.assertAlmostEqual(separation_cam_deg(intake, exhaust), separation_cam_deg(moved_intake, moved_exhaust), places=9)
        self.assertAlmostEqual(moved_intake - intake, -error, places=9)

    def test_words(self):
        said = {
            0: "at TDC",
            359.97: "at TDC",
            180: "at BDC",
            270.0: "90.0° before TDC",
            590.5: "50.5° after BDC",
            126: "54.0° before BDC",
        }
        for crank_deg, words in said.items():
            with self.subTest(crank_deg=crank_deg):
                self.assertEqual(in_words(crank_deg), words)


class CorrectionTests(unittest.TestCase):
    def test_steps_by_hand(self):
        """By hand: tooth at a 21-tooth crank sprocket 360/21, at its 42-tooth cam sprocket 720/42: the same; bush of 1 cam degree: 2;
        hole circles of 6 and 7: 720/42."""
        crank = SprocketTeeth(kind="sprocket_teeth", name="crank", at="crank", teeth=21)
        cam = SprocketTeeth(kind="sprocket_teeth", name="cam", at="cam", teeth=42)
        for sprocket in (crank, cam):
            self.assertAlmostEqual(corrections([sprocket], 20)[0].leaves_deg, 20 - 360 / 21)
        bushes = OffsetBushes(kind="offset_bushes", name="bush", bushes=({"name": "1", "cam_deg": -1.0},))
        self.assertAlmostEqual(corrections([bushes], 2.5)[0].leaves_deg, 0.5)
        holes = HoleCircles(kind="hole_circles", name="holes", cam_holes=6, sprocket_holes=7, range_deg=40)
        self.assertAlmostEqual(corrections([holes], -18)[0].leaves_deg, -18 + 720 / 42)
        slots = SlottedSprocket(kind="slotted_sprocket", name="slots", range_deg=5)
        self.assertAlmostEqual(corrections([slots], 6.5)[0].leaves_deg, 1.5)

    def test_a_late_cam_has_its_cam_sprocket_turned_on_and_its_crank_sprocket_turned_back(self):
        """Practice: cam sprocket on, or crank sprocket back in the chain, brings the events forward."""
        cam = SprocketTeeth(kind="sprocket_teeth", name="cam", at="cam", teeth=40)
        crank = SprocketTeeth(kind="sprocket_teeth", name="crank", at="crank", teeth=20)
        self.assertEqual(corrections([cam], -18)[0].moves[0].place, "1 tooth on")
        self.assertEqual(corrections([crank], -18)[0].moves[0].place, "1 tooth back")

    def test_the_slot_a_cam_stands_on_now_is_where_it_is_corrected_from(self):
        """By hand: on R4 already and still 1.8 advanced: R6 is two degrees further."""
        key = quern_4().adjustments[0]
        first = corrections([key], 1.8, {key.name: "R4"})[0]
        self.assertEqual(first.moves[0].place, "R6")
        self.assertAlmostEqual(first.leaves_deg, -0.2)

    @given(st.floats(-40, 40))
    def test_no_offer_is_worse_than_doing_nothing_and_the_first_is_best(self, advance):
        """Property, on the demo engine's adjustments."""
        offers = [abs(offer.leaves_deg) for offer in corrections(quern_4().adjustments, advance)]
        self.assertTrue(all(left < abs(advance) for left in offers))
        self.assertEqual(offers[:1], sorted(offers)[:1])

    def test_nothing_is_offered_for_a_cam_that_is_straight_up(self):
        self.assertEqual(corrections(quern_4().adjustments, 0.004), [])
