"""A synthetic engine degreed from end to end: what goes in comes out, on any wheel, within the stated uncertainty."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from gurvo_core.angles import signed_deg
from gurvo_core.motion import drop_at_deg
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing import DegreeWheel, profile_event_deg, wheel_figure
from gurvo_core.timing.wheel import HIGHEST
from gurvo_core.work import HOUSE
from tests.engines import SETUP, STOP_IN, STOP_OUT, Ledger, act, check, quern_4, standing, timing

EXACT_READING_DEG = 1e-3  # figures are typed to four decimals
STOP_DROP_MM = 9.0


class SyntheticEngine:
    """The demo engine with a wheel that is out by ``zero`` and a cam that is ``advance`` degrees early."""

    def __init__(self, zero, advance, wheel):
        self.engine, self.zero, self.advance, self.wheel = quern_4(), zero, advance, wheel
        self.ledger = Ledger()

    def reads(self, crank_deg):
        """What a perfect builder types when the crank stands there."""
        figure, side = wheel_figure(crank_deg + self.zero, self.wheel)
        return {"text": f"{figure:.4f}", "side": side}

    def enter(self, body):
        """Make an entry that the ledger must take."""
        check(self.ledger, body)
        self.ledger.add(body)

    def state(self):
        return timing(self.ledger)

    def warnings(self):
        return HOUSE.show(standing(self.ledger)).warnings

    def find_tdc(self):
        self.enter({**SETUP, "numbering": self.wheel.numbering, "runs": self.wheel.runs})
        self.enter(STOP_IN)
        for place in ("before", "after"):
            at = drop_at_deg(STOP_DROP_MM, place, slider_of(self.engine))
            self.enter({"kind": "tdc_reading", "method": "positive_stop", "place": place, "wheel": self.reads(at)})
        self.enter({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": self.state().tdc.zero_deg})
        self.enter(STOP_OUT)

    def degree(self):
        for line in self.engine.cam_card:
            lobe = self.engine.lobe(line.camshaft, 1, line.valve)
            shaft = self.engine.camshaft(line.camshaft)
            profile = self.engine.shape(shaft, lobe)
            for flank in ("opening", "closing"):
                at = profile_event_deg(profile, shaft, lobe, line.lift_mm, flank) - self.advance
                body = {"kind": "lift_reading", "camshaft": line.camshaft, "cylinder": 1, "valve": line.valve, "flank": flank}
                self.enter({**body, "lift": {"text": "1.00", "unit": "mm"}, "wheel": self.reads(at)})


wheels = st.builds(DegreeWheel, numbering=st.sampled_from(sorted(HIGHEST)), runs=st.sampled_from(["grows", "falls"]))


class WholeJobTests(unittest.TestCase):
    @settings(max_examples=60)
    @given(st.floats(-15, 15), st.floats(-20, 20), wheels)
    def test_the_zero_and_the_advance_put_in_come_out(self, zero, advance, wheel):
        """Property: any wheel, any zero, any advance up to a tooth."""
        made = SyntheticEngine(zero, advance, wheel)
        made.find_tdc()
        self.assertAlmostEqual(signed_deg(made.state().tdc.zero_deg - zero), 0, delta=EXACT_READING_DEG)
        made.degree()
        cam = made.state().cams[0]
        self.assertAlmostEqual(cam.advance_deg, advance, delta=10 * EXACT_READING_DEG)  # the card is rounded to whole degrees
        if abs(advance) < 1.5:
            self.assertEqual(cam.verdict, "in")
        if abs(advance) > 2.5:
            self.assertEqual(cam.verdict, "out")

    @settings(max_examples=25)
    @given(st.floats(2.5, 20), st.sampled_from([1, -1]))
    def test_doing_what_is_offered_leaves_what_was_promised(self, advance, way):
        """Property: the cam is moved as the first offer says, degreed again, and stands where the offer said it would."""
        made = SyntheticEngine(2.0, way * advance, DegreeWheel(numbering="0-90-0-90-0"))
        made.find_tdc()
        made.degree()
        cam = made.state().cams[0]
        offer = cam.offers[0]
        moves = [move.model_dump() for move in offer.moves]
        made.enter(act("cam_decision", camshaft="cam", advance_deg=cam.advance_deg, moves=moves))
        made.advance += offer.residual_deg - cam.advance_deg
        made.degree()
        self.assertAlmostEqual(made.state().cams[0].advance_deg, offer.residual_deg, delta=2 * EXACT_READING_DEG)
        self.assertLess(abs(offer.residual_deg), advance)

    def test_what_only_guides_is_never_called_a_fault(self):
        """Practice: at the card's own events nothing is warned of and nothing is offered beyond a hair."""
        made = SyntheticEngine(0.0, 0.0, DegreeWheel(numbering="0-360"))
        made.find_tdc()
        made.degree()
        state = made.state()
        self.assertEqual((made.warnings(), state.cams[0].verdict, state.cams[0].offers), ([], "in", []))
