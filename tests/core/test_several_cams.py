"""An engine with several cams: each is degreed on its own cylinder, with the wheel set to the reference cylinder's TDC."""

import unittest

from gurvo_core.errors import CoreError
from gurvo_core.timing import profile_event_deg
from gurvo_core.work import replay
from tests.engines import SETUP, STOP_IN, STOP_OUT, Ledger, check, family, stop, timing

ENGINE = family("corrie-v6")
HALF_A_READING_DEG = 0.26  # the wheel is read to half a degree, two readings a centreline
WHEEL = {**SETUP, "numbering": "0-360"}


def event(camshaft, flank, advance=0.0):
    """A reading of one event, worked out from the profile as a perfect engine would show it, on a wheel of 0-360."""
    cam = ENGINE.camshaft(camshaft)
    lobe = cam.lobes[0]
    on_own = profile_event_deg(ENGINE.shape(cam, lobe), cam, lobe, 1.0, flank)
    on_wheel = (on_own - advance + ENGINE.from_reference_deg(lobe.cylinder)) % 360
    body = {"kind": "lift_reading", "camshaft": camshaft, "cylinder": lobe.cylinder, "valve": lobe.valve, "flank": flank}
    return {**body, "lift": {"text": "1", "unit": "mm"}, "wheel": {"text": f"{round(2 * on_wheel) / 2:g}"}}


def found_tdc():
    ledger = Ledger()
    ledger.add(WHEEL)
    ledger.add(STOP_IN)
    for place, text in (("before", "320"), ("after", "40")):
        ledger.add({**stop(place, text), "wheel": {"text": text}})
    zero = timing(ledger, ENGINE).tdc.zero_deg
    ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": zero})
    ledger.add(STOP_OUT)
    return ledger


def degreed(advance=0.0):
    ledger = found_tdc()
    for camshaft in ("intake-a", "exhaust-a", "intake-b", "exhaust-b"):
        for flank in ("opening", "closing"):
            ledger.add(event(camshaft, flank, advance))
    return ledger


class SeveralCamsTests(unittest.TestCase):
    def test_a_perfect_engine_is_in_on_both_banks(self):
        """Second method: events from the profile, put on the wheel by the firing angle of their own cylinder."""
        cams = timing(degreed(), ENGINE).cams
        self.assertEqual([cam.verdict for cam in cams], ["in"] * 4)
        for cam in cams:
            with self.subTest(cam=cam.camshaft):
                self.assertAlmostEqual(cam.advance_deg, 0, delta=HALF_A_READING_DEG)

    def test_every_cam_six_degrees_on_is_found_so_whatever_its_cylinder(self):
        for cam in timing(degreed(6.0), ENGINE).cams:
            with self.subTest(cam=cam.camshaft):
                self.assertAlmostEqual(cam.advance_deg, 6, delta=HALF_A_READING_DEG)
                self.assertEqual(cam.verdict, "out")

    def test_only_the_adjustments_that_move_a_cam_are_offered_for_it(self):
        cams = {cam.camshaft: cam for cam in timing(degreed(6.0), ENGINE).cams}
        for camshaft, name in (("intake-a", "Intake A sprocket slots"), ("exhaust-b", "Exhaust B sprocket slots")):
            moved = {move.adjustment for offer in cams[camshaft].offers for move in offer.moves}
            with self.subTest(camshaft=camshaft):
                self.assertEqual(moved, {name})

    def test_questions_name_the_cam_the_cylinder_and_where_the_wheel_stands(self):
        state = replay(ENGINE, found_tdc().entries)
        questions = {q.key: q for step in state.steps for q in step.questions}
        own, other = questions["lift:intake-a:intake:1:opening"], questions["lift:intake-b:intake:1:opening"]
        self.assertEqual((own.title, own.expected_words), ("Intake cam A, opening side", "1.0° after TDC"))
        self.assertEqual(other.title, "Intake cam B, opening side")
        self.assertIn("dial on cylinder 2 intake", other.wheel_detail)
        self.assertEqual(other.expected_words, "59.0° before BDC of cylinder 1")
        self.assertEqual((other.expected_deg - own.expected_deg) % 720, 120)

    def test_a_cam_measured_on_another_cylinder_than_its_cards_is_refused(self):
        ledger = found_tdc()
        with self.assertRaises(CoreError) as refused:
            check(ledger, {**event("intake-b", "opening"), "cylinder": 4}, engine=ENGINE)
        self.assertEqual(refused.exception.field, "cylinder")
        self.assertIn("measured on cylinder 2", str(refused.exception))

    def test_the_crank_stands_where_the_last_event_was_on_its_own_turn(self):
        """By hand: intake B opens 1 deg after the overlap TDC of cylinder 2, which fires at 120: 120 + 360 + 1."""
        ledger = found_tdc()
        ledger.add(event("intake-b", "opening"))
        crank = timing(ledger, ENGINE).crank
        self.assertAlmostEqual(crank.cycle_deg, 481, delta=0.5)
        # cylinder 5 fires at 480 while 2 is at overlap; of two equally near, the one that fires is named
        self.assertTrue(crank.sees.startswith("cylinder 5 1° after firing TDC"), crank.sees)

    def test_a_turn_is_where_the_crank_stands_until_a_later_reading(self):
        ledger = found_tdc()
        ledger.add({"kind": "turn", "to": "720"})
        crank = timing(ledger, ENGINE).crank
        self.assertEqual((crank.cycle_deg, crank.words), (0, "at TDC"))
        self.assertTrue(crank.sees.startswith("cylinder 1 at firing TDC, cylinder 4 at overlap TDC; phaser mark A at {clock:340.0}"))
        struck = ledger.entries[-1].id
        ledger.add({"kind": "strike", "strikes": str(struck), "reason": "slip"})
        self.assertIsNone(timing(ledger, ENGINE).crank.cycle_deg)

    def test_measured_cams_turn_their_marks_in_what_is_seen(self):
        ledger = degreed(6.0)
        ledger.add({"kind": "turn", "to": "0"})
        self.assertRegex(timing(ledger, ENGINE).crank.sees, r"phaser mark A at \{clock:34[23]\.\d\}")
