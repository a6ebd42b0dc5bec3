"""Verdicts by the guard-band rule, uncertainties against a GUM library, events, corrections."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import norm

from gurvo_core.engine import HoleCircles, OffsetBushes, SlottedSprocket, SprocketTeeth
from gurvo_core.timing import Estimate, corrections, in_words, judge, standard_uncertainty
from gurvo_core.timing.events import advance_deg, event_deg, overlap_deg, separation_cam_deg
from gurvo_core.uncertainty import repeats_estimate, weighted_estimate
from gurvo_core.verdict import ONE_SIDED, largest_telling_u
from tests.core.off_centre import OffCentre
from tests.engines import quern_4, timing


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

    def test_other_guard_bands_by_their_standards(self):
        """From memory: ISO 14253-1:2017 guards by 1.65 u; ASME B89.7.3.1 at 4:1 by nothing. U = 0.4 and 0.6, limits 4 apart."""
        cases = [("0.83 U", 0.2, 106.34, "in"), ("0.83 U", 0.2, 106.32, "can't tell"), ("0.83 U", 0.2, 105.66, "out")]
        cases += [("4:1", 0.2, 106.01, "in"), ("4:1", 0.2, 105.99, "out"), ("4:1", 0.3, 106.5, "can't tell"), ("4:1", 0.3, 106.6, "in")]
        for rule, u, value, verdict in cases:
            with self.subTest(rule=rule, value=value):
                self.assertEqual(judge(Estimate(value=value, u=u), 106, 110, "°", rule).verdict, verdict)

    def test_a_band_of_1_65_u_is_passed_by_one_in_twenty(self):
        """Library: scipy's normal law: a figure on the band's edge lies beyond the limit with 5 %."""
        self.assertAlmostEqual(norm.sf(2 * ONE_SIDED), 0.05, delta=0.002)

    @given(st.sampled_from(["U", "0.83 U", "4:1"]), st.floats(0.01, 1.9))
    def test_the_largest_telling_u_tells_and_a_larger_does_not(self, rule, away):
        """Property: it is the inverse of the guard band."""
        largest = largest_telling_u(away, 106, 110, rule)
        told = [judge(Estimate(value=106 + away, u=share * largest / 2), 106, 110, "°", rule).verdict for share in (1, 1.01)]
        self.assertEqual(told, ["in", "can't tell"])


class UncertaintyTests(unittest.TestCase):
    def test_centreline_uncertainty_is_that_of_a_gum_library(self):
        """Library: uncertainties carries the common wheel zero and one curve of the wheel through both flanks."""
        from gurvo_core.timing.events import lift_slope_mm_per_deg
        from tests.engines import found_tdc, lift

        ledger, engine = found_tdc(), quern_4()
        ledger.add(lift("intake", "opening", "17.5", "before TDC"))
        ledger.add(lift("intake", "closing", "50.5", "after BDC"))
        valve = timing(ledger, engine).cams[0].valves[0]
        wheel, u_dial = OffCentre(standard_uncertainty(0.5, 0.2)), standard_uncertainty(0.01, 0.008).u
        zero = (wheel.at(-41.5) + wheel.at(41.0)) / 2
        lobe = engine.lobe("cam", 1, "intake")
        profile = engine.shape(engine.camshaft("cam"), lobe)
        shaft = engine.camshaft("cam")
        events = []
        for figure, flank in ((360 - 17.5, "opening"), (540 + 50.5, "closing")):
            slope = lift_slope_mm_per_deg(profile, shaft, lobe, 1.0, flank)
            events.append(wheel.at(figure, u_dial / slope) - zero)
        centre = (events[0] + events[1]) / 2 - 360
        self.assertAlmostEqual(valve.centreline_deg, centre.nominal_value, delta=0.03)  # the pin offset moves TDC by hundredths
        self.assertAlmostEqual(valve.centreline_expanded_deg, 2 * centre.std_dev, places=9)
        for said, event in zip((valve.opening, valve.closing), events, strict=True):
            self.assertAlmostEqual(said.expanded_deg, 2 * event.std_dev, places=9)

    def test_repeated_readings_by_hand(self):
        """By hand: 1 and 3: mean 2, s = sqrt 2, s/sqrt n = 1; three alike are as good as one."""
        self.assertEqual(repeats_estimate([1, 3], 0.0), Estimate(value=2, u=1))
        self.assertEqual(repeats_estimate([2, 2, 2], 0.3), Estimate(value=2, u=0.3))
        self.assertEqual(repeats_estimate([2, 2.5], 0.3, 0.5).u, 0.3)  # one step apart is what reading to a step makes

    def test_figures_of_several_lifts_count_by_how_sure_they_are(self):
        """By hand: 1 +- 1 and 4 +- 2 weigh 4 to 1: 1.6, u = sqrt(4/5)."""
        mean = weighted_estimate([Estimate(value=1, u=1), Estimate(value=4, u=2)])
        self.assertAlmostEqual(mean.value, 1.6)
        self.assertAlmostEqual(mean.u, math.sqrt(0.8))


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
            self.assertAlmostEqual(corrections([sprocket], 20)[0].residual_deg, 20 - 360 / 21)
        bushes = OffsetBushes(kind="offset_bushes", name="bush", bushes=({"name": "1", "cam_deg": -1.0},))
        self.assertAlmostEqual(corrections([bushes], 2.5)[0].residual_deg, 0.5)
        holes = HoleCircles(kind="hole_circles", name="holes", cam_holes=6, sprocket_holes=7, range_deg=40)
        self.assertAlmostEqual(corrections([holes], -18)[0].residual_deg, -18 + 720 / 42)
        slots = SlottedSprocket(kind="slotted_sprocket", name="slots", range_deg=5)
        self.assertAlmostEqual(corrections([slots], 6.5)[0].residual_deg, 1.5)

    def test_a_late_cam_has_its_cam_sprocket_turned_on_and_its_crank_sprocket_turned_back(self):
        """Practice: cam sprocket on, or crank sprocket back in the chain, brings the events forward."""
        cam = SprocketTeeth(kind="sprocket_teeth", name="cam", at="cam", teeth=40)
        crank = SprocketTeeth(kind="sprocket_teeth", name="crank", at="crank", teeth=20)
        self.assertEqual(corrections([cam], -18)[0].moves[0].place, "1 tooth on")
        self.assertEqual(corrections([crank], -18)[0].moves[0].place, "1 tooth back")

    def test_the_slot_a_cam_stands_on_now_is_where_it_is_corrected_from(self):
        """By hand: on R4 already and still 1.8 advanced: R6 is two degrees further."""
        key = quern_4().adjustments[0]
        first = corrections([key], 1.8, {key.name: ["R2", "R4"]})[0]
        self.assertEqual(first.moves[0].place, "R6")
        self.assertAlmostEqual(first.residual_deg, -0.2)

    @given(st.floats(-40, 40))
    def test_no_offer_is_worse_than_doing_nothing_and_the_first_is_best(self, advance):
        """Property, on the demo engine's adjustments."""
        offers = [abs(offer.residual_deg) for offer in corrections(quern_4().adjustments, advance)]
        self.assertTrue(all(left < abs(advance) for left in offers))
        self.assertEqual(offers[:1], sorted(offers)[:1])

    def test_slots_take_what_a_tooth_leaves(self):
        """By hand: 24 degrees late, a tooth of 40 is 18, slots of 5 leave 1; with 6.5 of range nothing is left."""
        teeth = SprocketTeeth(kind="sprocket_teeth", name="cam", at="cam", teeth=40)
        for range_deg, left in ((5, 1.0), (6.5, 0.0)):
            slots = SlottedSprocket(kind="slotted_sprocket", name="slots", range_deg=range_deg)
            best = corrections([slots, teeth], -24)[0]
            self.assertAlmostEqual(abs(best.residual_deg), left)
            self.assertEqual([move.adjustment for move in best.moves], ["cam", "slots"])

    @given(st.floats(-30, 30))
    def test_three_adjustments_together_leave_no_more_than_a_search_over_all(self, advance):
        """Second method: every tooth, every hole step and a fine grid of the slots."""
        teeth = SprocketTeeth(kind="sprocket_teeth", name="cam", at="cam", teeth=40)
        holes = HoleCircles(kind="hole_circles", name="holes", cam_holes=6, sprocket_holes=7, range_deg=60)
        slots = SlottedSprocket(kind="slotted_sprocket", name="slots", range_deg=2)
        grid = [abs(advance + t * 18 + h * 720 / 42 + s / 10) for t in range(-2, 3) for h in range(-3, 4) for s in range(-20, 21)]
        found = [abs(offer.residual_deg) for offer in corrections([teeth, holes, slots], advance)]
        self.assertLessEqual(min([abs(advance), *found]), min(grid) + 0.01)

    def test_what_was_moved_before_counts_against_the_range(self):
        """By hand: slots of 5 either way, moved 3 on and 1 back: 3 are left the way on, 7 the way back."""
        slots = SlottedSprocket(kind="slotted_sprocket", name="slots", range_deg=5)
        made = {"slots": ["3.0° on", "1.0° back"]}
        self.assertAlmostEqual(corrections([slots], -6, made)[0].residual_deg, -3)
        self.assertAlmostEqual(corrections([slots], 6.5, made)[0].residual_deg, 0)
        holes = HoleCircles(kind="hole_circles", name="holes", cam_holes=6, sprocket_holes=7, range_deg=40)
        self.assertAlmostEqual(corrections([holes], -36, {"holes": ["1 hole step on"]})[0].residual_deg, -36 + 720 / 42)

    def test_the_holes_that_meet_are_named(self):
        """By hand: 6 and 7 holes, one step on is 1/42 of a turn: cam hole 2 then stands at 8/42, which is 1 1/3 sprocket holes; hole 6
        stands at 36/42, the place of sprocket hole 7."""
        holes = HoleCircles(kind="hole_circles", name="holes", cam_holes=6, sprocket_holes=7, range_deg=40)
        order = corrections([holes], -18)[0].moves[0].order
        self.assertIn("until its hole 6 meets the sprocket's hole 7", order)

    def test_nothing_is_offered_for_a_cam_that_is_straight_up(self):
        self.assertEqual(corrections(quern_4().adjustments, 0.004), [])
