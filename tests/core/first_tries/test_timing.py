"""What a reader would try first of the functions of ``timing``, each held to its answer."""

import unittest

from gurvo_core.engine.camshaft import Camshaft, Lobe
from gurvo_core.engine.card import CardLine
from gurvo_core.engine.profiles import LiftProfile
from gurvo_core.ledger.entry import Gauge, Typed
from gurvo_core.motion.crank import SliderCrank
from gurvo_core.timing.card import card_doubts
from gurvo_core.timing.causes import rank_causes
from gurvo_core.timing.events import (
    advance_deg,
    card_event_deg,
    event_deg,
    in_words,
    lift_slope_mm_per_deg,
    nose_deg,
    nose_half_width_deg,
    overlap_deg,
    profile_event_deg,
    separation_cam_deg,
)
from gurvo_core.timing.evidence import MeasuredCam
from gurvo_core.timing.hypotheses import hypotheses_of
from gurvo_core.timing.job.cams import advance_words, cam_basis, cam_places, cams_of, check_order
from gurvo_core.timing.job.causes import CausesAsked, causes_view
from gurvo_core.timing.job.entries import Turn, TypedWheel, WheelCheck
from gurvo_core.timing.job.measured import with_measured_card
from gurvo_core.timing.job.readings import gauge_u, length_mm, opposite_readings, si_values, turned_to_deg, wheel_reading_deg
from gurvo_core.timing.job.state import EventReadings, begin
from gurvo_core.timing.job.true_tdc import adopted_zero, outlier_seq, pairs_of, tdc_basis
from gurvo_core.timing.job.valve import NO_READINGS, MeasuredBy, valve_measured, wheel_degrees
from gurvo_core.timing.lines import cam_lines, lines_at
from gurvo_core.timing.tdc import TdcPair, tdc_at_top, tdc_by_highest
from gurvo_core.timing.wheel import DegreeWheel, sides_of, wheel_deg, wheel_figure
from gurvo_core.uncertainty import GaugeUncertainty
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_card_doubts(self):
        self.assertEqual(card_doubts(quern_4()), [])

    def test_rank_causes(self):
        late = [MeasuredCam(camshaft="cam", advance_deg=-17.2, u_deg=0.3)]
        self.assertEqual(
            rank_causes(hypotheses_of(quern_4()), late, 0.2).causes[0].parts[0].name, "Timing chain: slack was on the tight side"
        )

    def test_card_event_deg(self):
        self.assertEqual(
            card_event_deg(CardLine(camshaft="c", valve="intake", lift_mm=1, opens_deg=16, closes_deg=52, tolerance_deg=2), "closing"),
            592.0,
        )

    def test_nose_deg(self):
        self.assertEqual(nose_deg(Lobe(cylinder=1, valve="exhaust", profile="p", nose_deg=110, lash_mm=0)), 250.0)

    def test_profile_event_deg(self):
        table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
        lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
        shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
        self.assertEqual(round(profile_event_deg(table, shaft, lobe, 3.0, "closing"), 6), 528.0)

    def test_lift_slope_mm_per_deg(self):
        table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
        lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
        shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
        self.assertEqual(round(lift_slope_mm_per_deg(table, shaft, lobe, 3.0, "closing"), 3), 0.05)

    def test_nose_half_width_deg(self):
        table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
        lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
        shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
        self.assertTrue(nose_half_width_deg(table, shaft, lobe, 0.01) > 1)

    def test_event_deg(self):
        self.assertEqual(event_deg(230.75, 0.25, 592.0), 590.5)

    def test_separation_cam_deg(self):
        self.assertEqual(separation_cam_deg(108.0, 110.0), 109.0)

    def test_overlap_deg(self):
        self.assertEqual(overlap_deg(344.0, 374.0), 30.0)

    def test_advance_deg(self):
        self.assertEqual((advance_deg("intake", 108.0, 106.5), advance_deg("exhaust", 110.0, 111.5)), (1.5, 1.5))

    def test_in_words(self):
        self.assertEqual((in_words(590.5), in_words(-17.5), in_words(0)), ("50.5° after BDC", "17.5° before TDC", "at TDC"))

    def test_check_order(self):
        self.assertEqual((check_order(344.0, 592.0), check_order(592.0, 344.0)), (True, False))

    def test_cams_of(self):
        self.assertEqual([cam.camshaft for cam in cams_of(begin(quern_4()))], ["cam"])

    def test_cam_basis(self):
        self.assertEqual(repr(cam_basis(begin(quern_4()), "cam")), "Basis(last=0, count=0)")

    def test_cam_places(self):
        self.assertEqual(cam_places([]), {})

    def test_advance_words(self):
        self.assertEqual((advance_words(1.52), advance_words(-0.04)), ("1.5° advanced", "straight up"))

    def test_causes_view(self):
        self.assertEqual(causes_view(begin(quern_4()), CausesAsked()).causes, [])

    def test_with_measured_card(self):
        self.assertTrue(with_measured_card(begin(quern_4()), "Q4-0171") is None)

    def test_wheel_reading_deg(self):
        self.assertEqual(wheel_reading_deg(TypedWheel(text="41,5", side="before TDC"), DegreeWheel(numbering="0-180-0")), 318.5)

    def test_opposite_readings(self):
        here, there = TypedWheel(text="30", side="before TDC"), TypedWheel(text="149.5", side="after TDC")
        self.assertEqual(
            opposite_readings(WheelCheck(kind="wheel_check", wheel=here, opposite=there), DegreeWheel(numbering="0-180-0")), (330.0, 149.5)
        )

    def test_length_mm(self):
        self.assertEqual(round(length_mm(Typed(text="50", unit="thou"), "lift"), 9), 1.27)

    def test_turned_to_deg(self):
        self.assertEqual(turned_to_deg(Turn(kind="turn", to="330,5")), 330.5)

    def test_si_values(self):
        self.assertEqual(si_values(begin(quern_4()), Turn(kind="turn", to="330,5")), {"crank_deg": 330.5})

    def test_gauge_u(self):
        self.assertEqual(round(gauge_u(Gauge(id="w", name="w", kind="wheel", resolution=0.5, expanded_uncertainty=0.2)).u, 3), 0.176)

    def test_begin(self):
        self.assertTrue(begin(quern_4()).setup is None)

    def test_pairs_of(self):
        self.assertEqual(pairs_of(begin(quern_4())), [])

    def test_outlier_seq(self):
        self.assertTrue(outlier_seq(begin(quern_4()), None) is None)

    def test_tdc_basis(self):
        self.assertEqual(repr(tdc_basis(begin(quern_4()))), "Basis(last=0, count=0)")

    def test_adopted_zero(self):
        self.assertTrue(adopted_zero(begin(quern_4())) is None)

    def test_wheel_degrees(self):
        self.assertEqual(repr(wheel_degrees(EventReadings(), 1.0)), "Counter()")

    def test_valve_measured(self):
        at = begin(quern_4()).at[0]
        none = MeasuredBy((NO_READINGS,) * 3, GaugeUncertainty(0.1), GaugeUncertainty(0.01), 0.01)
        self.assertTrue(valve_measured(at, None, none).figures.verdict is None)

    def test_lines_at(self):
        self.assertEqual([at.on_deg for at in lines_at(quern_4(), cam_lines(quern_4()))], [0.0, 0.0])

    def test_cam_lines(self):
        self.assertEqual([(line.valve, line.card_deg) for line in cam_lines(quern_4())], [("intake", 108.0), ("exhaust", 110.0)])

    def test_tdc_at_top(self):
        pair = TdcPair(before_deg=359.0, after_deg=1.2)
        estimate = tdc_at_top([pair], SliderCrank(throw_mm=43, rod_mm=143), GaugeUncertainty(0.18), 0.01)
        self.assertEqual((round(estimate.zero_deg, 6), round(estimate.u_deg, 2)), (0.1, 0.17))

    def test_tdc_by_highest(self):
        self.assertEqual(round(tdc_by_highest([1.0], SliderCrank(throw_mm=43, rod_mm=143), GaugeUncertainty(0.18), 0.01).u_deg, 2), 0.65)

    def test_sides_of(self):
        self.assertEqual(sides_of("0-180-0"), ("before TDC", "after TDC"))

    def test_wheel_deg(self):
        self.assertEqual(wheel_deg(50.5, "after BDC", DegreeWheel(numbering="0-90-0-90-0")), 230.5)

    def test_wheel_figure(self):
        self.assertEqual(wheel_figure(230.5, DegreeWheel(numbering="0-90-0-90-0")), (50.5, "after BDC"))
