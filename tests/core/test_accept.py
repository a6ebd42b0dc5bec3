"""What the ledger takes and what it refuses, each with its field and a sentence."""

import unittest
import uuid

from gurvo_core.errors import CoreError
from tests.engines import DIAL, SETUP, STOP_IN, WHEEL, Ledger, act, check, found_tdc, lift, stop, timing


def degreed(*figures):
    """A ledger with the four events read; by default the cam is about as its card has it."""
    ledger = found_tdc()
    figures = figures or (("16", "before TDC"), ("51.5", "after BDC"), ("54", "before BDC"), ("13.5", "after TDC"))
    events = (("intake", "opening"), ("intake", "closing"), ("exhaust", "opening"), ("exhaust", "closing"))
    for (valve, flank), (text, side) in zip(events, figures, strict=True):
        ledger.add(lift(valve, flank, text, side))
    return ledger


def left_alone(ledger):
    """The decision to leave the cam as it is."""
    advance = timing(ledger).cams[0].advance_deg
    return act("cam_decision", camshaft="cam", advance_deg=advance)


class AcceptTests(unittest.TestCase):
    def refused(self, ledger, body, field, words, gauges=(WHEEL, DIAL)):
        """Check that an entry is refused about this field, in these words."""
        with self.assertRaises(CoreError) as refused:
            self.accept(ledger, body, gauges)
        self.assertEqual(refused.exception.field, field)
        self.assertIn(words, str(refused.exception))

    def accept(self, ledger, body, gauges=(WHEEL, DIAL)):
        check(ledger, body, gauges=gauges)

    def set_up(self, **change):
        ledger = Ledger()
        ledger.add({**SETUP, **change})
        ledger.add(STOP_IN)
        return ledger

    # the wheel and the dial

    def test_no_reading_before_the_wheel_is_set_up(self):
        self.refused(Ledger(), stop("before", "41"), "kind", "plugs out and stand locked not yet confirmed")

    def test_plugs_stay_a_condition(self):
        setup = {**SETUP, "plugs_out": False}
        self.refused(Ledger(), setup, "plugs_out", "plugs out")

    def test_a_gauge_must_be_there_and_of_its_kind(self):
        setup = {**SETUP, "wheel_gauge": "D2"}
        self.refused(Ledger(), setup, "wheel_gauge", "no wheel called D2")
        self.refused(Ledger(), SETUP, "wheel_gauge", "no wheel", gauges=())

    # true TDC

    def test_figures_the_wheel_does_not_have(self):
        self.refused(self.set_up(), stop("before", "95"), "wheel.text", "from 0 to 90")
        whole = self.set_up(numbering="0-360")
        reading = {**stop("before", "400"), "wheel": {"text": "400"}}
        self.refused(whole, reading, "wheel.text", "from 0 to 360")

    def test_a_folded_wheel_wants_its_side(self):
        reading = {**stop("before", "41"), "wheel": {"text": "41"}}
        self.refused(self.set_up(), reading, "wheel.side", "say which side")

    def test_a_comma_is_taken_and_a_word_is_not(self):
        self.accept(self.set_up(), stop("before", "41,5"))
        self.refused(self.set_up(), stop("before", "abc"), "wheel.text", "not a number")

    def test_two_stop_readings_on_the_same_side(self):
        ledger = self.set_up()
        ledger.add(stop("before", "41"))
        self.refused(ledger, stop("before", "40"), "place", "read already")
        self.refused(ledger, stop("after", "40", side="before TDC"), "wheel.text", "too near each other")

    def test_a_stop_too_near_the_dwell(self):
        ledger = self.set_up()
        ledger.add(stop("before", "2"))
        self.refused(ledger, stop("after", "3"), "wheel.text", "dwells")
        self.accept(ledger, stop("after", "13"))  # an arc of 15 degrees says enough, wherever the wheel's own zero is

    def test_equal_drops_must_be_equal(self):
        ledger = self.set_up()
        ledger.add(act("tdc_method", method="equal_drop"))
        first = {**stop("before", "30"), "method": "equal_drop", "drop": {"text": "5.00", "unit": "mm"}}
        ledger.add(first)
        other = {**stop("after", "30"), "method": "equal_drop", "drop": {"text": "5.10", "unit": "mm"}}
        self.refused(ledger, other, "drop.text", "same as on the other side (5.00 mm)")
        self.accept(ledger, {**other, "drop": {"text": "5", "unit": "mm"}})

    def test_a_drop_the_piston_never_has(self):
        ledger = self.set_up()
        ledger.add(act("tdc_method", method="fit"))
        reading = {**stop("before", "30"), "method": "fit", "place": None}
        self.refused(ledger, {**reading, "drop": {"text": "90", "unit": "mm"}}, "drop.text", "moves from 0 to 86")
        self.refused(ledger, reading, "drop", "give the dial's drop".capitalize())

    def test_a_reading_by_another_method_than_the_chosen(self):
        reading = {**stop("before", "30"), "method": "top", "place": None}
        self.refused(self.set_up(), reading, "method", "choose the method first")

    def test_a_zero_is_taken_over_only_as_it_was_shown(self):
        ledger = self.set_up()
        zero = {"kind": "wheel_zero", "method": "positive_stop", "zero_deg": 0.3}
        self.refused(ledger, zero, "zero_deg", "not known yet")
        ledger.add(stop("before", "41"))
        ledger.add(stop("after", "41"))
        self.refused(ledger, zero, "zero_deg", "look again")

    # lift readings

    def test_no_lift_reading_with_the_stop_in_or_without_true_tdc(self):
        ledger = self.set_up()
        self.refused(ledger, lift("intake", "opening", "16", "before TDC"), "kind", "Take over true TDC first")
        ledger.add(stop("before", "41.5"))
        ledger.add(stop("after", "41"))
        tdc = timing(ledger).tdc
        ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": tdc.zero_deg})
        self.refused(ledger, lift("intake", "opening", "16", "before TDC"), "kind", "piston stop fitted: take it out first")

    def test_another_engines_cam_and_another_cylinder(self):
        ledger = found_tdc()
        reading = lift("intake", "opening", "16", "before TDC")
        self.refused(ledger, {**reading, "camshaft": "left-intake"}, "camshaft", "no camshaft left-intake; it has cam")
        self.refused(ledger, {**reading, "cylinder": 3}, "cylinder", "measured on cylinder 1")
        self.refused(ledger, {**reading, "cylinder": 9}, "cylinder", "no intake lobe")

    def test_lifts_the_lobe_never_has(self):
        ledger = found_tdc()
        for text in ("12", "9.35", "0", "-1"):
            reading = lift("intake", "opening", "16", "before TDC", lift={"text": text, "unit": "mm"})
            with self.subTest(text=text):
                self.refused(ledger, reading, "lift.text", "below 9.35 mm")

    def test_a_lift_in_inches_is_as_good(self):
        reading = lift("intake", "opening", "16", "before TDC", lift={"text": "0.0394", "unit": "in"})
        self.accept(found_tdc(), reading)
        newton = lift("intake", "opening", "16", "before TDC", lift={"text": "1", "unit": "N·m"})
        self.refused(found_tdc(), newton, "lift.unit", "does not measure length")

    def test_opening_after_closing(self):
        ledger = found_tdc()
        ledger.add(lift("exhaust", "opening", "60", "before TDC"))  # misread: it should be near 54 before BDC
        self.refused(ledger, lift("exhaust", "closing", "70", "after BDC"), "wheel.text", "open after it closes")

    # decisions

    def test_nothing_is_decided_before_all_is_read(self):
        ledger = found_tdc()
        choice = act("cam_decision", camshaft="cam", advance_deg=0)
        self.refused(ledger, choice, "camshaft", "both flanks of every valve")

    def test_a_decision_is_made_on_the_figure_shown(self):
        choice = act("cam_decision", camshaft="cam", advance_deg=9.0)
        self.refused(degreed(), choice, "advance_deg", "look again")

    def test_a_cam_that_is_out_is_left_only_with_a_reason(self):
        out = degreed(("22", "before TDC"), ("46", "after BDC"), ("60", "before BDC"), ("8", "after TDC"))
        choice = left_alone(out)
        self.refused(out, choice, "reason", "say why")
        choice["reason"] = "the maker allows it on pump engines"
        self.accept(out, choice)

    def test_only_what_is_offered_can_be_moved(self):
        ledger = degreed(("22", "before TDC"), ("46", "after BDC"), ("60", "before BDC"), ("8", "after TDC"))
        choice = left_alone(ledger)
        choice["moves"] = [{"adjustment": "Crank sprocket key", "place": "A2"}]
        self.refused(ledger, choice, "moves", "corrections offered")
        choice["moves"] = [{"adjustment": "Crank sprocket key", "place": "R6"}]
        self.accept(ledger, choice)

    def test_signing_comes_last_and_closes_the_ledger(self):
        ledger = degreed()
        self.refused(ledger, act("sign_off"), "kind", "decide first".capitalize())
        ledger.add(left_alone(ledger))
        self.accept(ledger, act("sign_off"))
        signature = ledger.add(act("sign_off"))
        self.refused(ledger, lift("intake", "opening", "16", "before TDC"), "kind", "record is signed")
        first = ledger.entries[0].id
        self.refused(ledger, {"kind": "strike", "strikes": str(first), "reason": "x"}, "strikes", "strike the signature first")
        self.accept(ledger, {"kind": "strike", "strikes": str(signature), "reason": "signed the wrong one"})
        self.refused(ledger, {"kind": "note", "text": "collected by the vineyard"}, "kind", "The record is signed: strike the signature")

    # strikes and notes

    def test_strikes_need_a_standing_entry_and_a_reason(self):
        ledger = found_tdc()
        first = ledger.entries[1].id
        self.refused(ledger, {"kind": "strike", "strikes": str(uuid.uuid4()), "reason": "x"}, "strikes", "no such entry")
        self.refused(ledger, {"kind": "strike", "strikes": str(first), "reason": " "}, "reason", "say why".capitalize())
        strike = ledger.add({"kind": "strike", "strikes": str(first), "reason": "misread"})
        self.refused(ledger, {"kind": "strike", "strikes": str(first), "reason": "x"}, "strikes", "struck already")
        self.refused(ledger, {"kind": "strike", "strikes": str(strike), "reason": "x"}, "strikes", "cannot be struck")

    def test_an_empty_note_is_no_note(self):
        self.refused(Ledger(), {"kind": "note", "text": "  "}, "text", "some words")
