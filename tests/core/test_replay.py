"""Replay: the ledger is the only memory, a strike leaves no trace, the bench says what comes next."""

import unittest
import uuid
from unittest.mock import patch

from hypothesis import example, given, settings
from hypothesis import strategies as st

from gurvo_core.reading import read_document
from gurvo_core.work import HOUSE, replay
from tests.core.test_accept import degreed, left_alone
from tests.engines import SETUP, STOP_IN, STOP_OUT, Ledger, act, found_tdc, lift, quern_4, quern_4_copy, standing, stop, timing


def state(ledger):
    return replay(quern_4(), ledger.entries)


def asked(ledger):
    """The first open question."""
    step = next(step for step in state(ledger).steps if step.status == "now")
    return next(question for question in step.questions if question.status == "open").key


class OrderOfWorkTests(unittest.TestCase):
    def test_each_entry_brings_the_next_question(self):
        """Practice: wheel, stop in, true TDC, stop out, four events, decide, sign."""
        ledger, keys = Ledger(), []
        keys.append(asked(ledger))
        ledger.add(SETUP)
        keys.append(asked(ledger))
        ledger.add(act("tdc_method", method="positive_stop"))
        keys.append(asked(ledger))
        ledger.add(STOP_IN)
        keys.append(asked(ledger))
        ledger.add(stop("before", "41.5"))
        keys.append(asked(ledger))
        ledger.add(stop("after", "41"))
        keys.append(asked(ledger))
        ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": timing(ledger).tdc.zero_deg})
        keys.append(asked(ledger))
        self.assertEqual(keys, ["setup", "tdc:method", "tdc:stop_in", "tdc:before", "tdc:after", "tdc:zero", "tdc:stop_out"])
        done = degreed()
        self.assertEqual(asked(done), "cam:cam")
        done.add(left_alone(done))
        self.assertEqual(asked(done), "sign_off")
        done.add(act("sign_off"))
        self.assertEqual((state(done).current, state(done).signed), (None, True))

    def test_the_stop_is_a_loose_end_until_it_is_out(self):
        ledger = Ledger()
        self.assertFalse(state(ledger).permission.free)
        ledger.add(SETUP)
        self.assertEqual((state(ledger).permission.free, state(ledger).loose_ends), (True, []))
        ledger.add(STOP_IN)
        self.assertEqual([end.title for end in state(ledger).loose_ends], ["Piston stop fitted"])
        ledger.add(stop("before", "41.5"))
        ledger.add(stop("after", "41"))
        self.assertEqual([end.stops_turning for end in state(ledger).loose_ends], [False])
        permission = state(ledger).permission
        self.assertEqual((permission.way, permission.how_far), ("either way, gently", "up to the piston stop"))
        ledger.add({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": timing(ledger).tdc.zero_deg})
        self.assertEqual((state(ledger).permission.title, state(ledger).loose_ends[0].stops_turning), ("Do not turn", True))
        ledger.add(STOP_OUT)
        self.assertEqual((state(ledger).permission.free, state(ledger).loose_ends), (True, []))

    def test_the_question_says_where_the_card_has_it(self):
        """By hand: the card's intake closing is 52 after BDC, that is 592 after firing TDC."""
        step = state(found_tdc()).steps[2]
        closing = next(question for question in step.questions if question.flank == "closing" and question.valve == "intake")
        self.assertEqual((closing.expected_deg, closing.expected_words, closing.expected_side), (592, "52.0° after BDC", "after BDC"))
        self.assertEqual(closing.ask, "Where does the intake valve pass {mm:1}, closing?")

    def test_the_wheels_own_figures_stand_round_it(self):
        labels = {label.turned_deg: label.text for label in timing(found_tdc()).wheel.labels}
        self.assertEqual([labels[at] for at in (0, 60, 90, 150, 180, 330)], ["0", "60", "90", "30", "0", "30"])


class FigureTests(unittest.TestCase):
    def test_a_cam_that_is_in(self):
        cam = timing(degreed()).cams[0]
        self.assertEqual((cam.verdict, cam.settles), ("in", ""))
        self.assertAlmostEqual(cam.separation_cam_deg, 109, delta=0.3)
        self.assertAlmostEqual(cam.overlap_deg, 16 + 13.5, delta=0.01)

    def test_every_event_of_an_advanced_cam_is_early(self):
        """By hand: four degrees early everywhere is four degrees advanced; slot R4 takes them away."""
        cam = timing(degreed(("20", "before TDC"), ("48", "after BDC"), ("58", "before BDC"), ("10", "after TDC"))).cams[0]
        self.assertAlmostEqual(cam.advance_deg, 4, delta=0.3)
        self.assertEqual(cam.verdict, "out")
        self.assertEqual(cam.offers[0].moves[0].place, "R4")
        self.assertLess(abs(cam.offers[0].residual_deg), 0.3)

    def test_a_correction_that_would_bring_a_valve_onto_its_piston_is_not_offered(self):
        """By hand: slot R4 brings it back to its card, where this engine's valves have nothing left."""
        data = quern_4_copy()
        ledger = degreed(("20", "before TDC"), ("48", "after BDC"), ("58", "before BDC"), ("10", "after TDC"))
        for to_piston_mm, offered in ((6.5, True), (2.6, False)):
            data["valves"][0]["to_piston_mm"] = to_piston_mm
            cam = replay(read_document(data), ledger.entries).timing.cams[0]
            self.assertEqual(bool(cam.offers), offered)
            self.assertIn("intake" if not offered else "to piston", cam.gap)

    def test_after_a_move_the_cam_is_degreed_again_and_corrected_from_there(self):
        ledger = degreed(("20", "before TDC"), ("48", "after BDC"), ("58", "before BDC"), ("10", "after TDC"))
        choice = left_alone(ledger)
        choice["moves"] = [{"adjustment": "Crank sprocket key", "place": "R4"}]
        ledger.add(choice)
        cam = timing(ledger).cams[0]
        self.assertEqual((cam.rounds, cam.verdict, cam.advance_deg), (2, None, None))
        self.assertTrue(asked(ledger).startswith("lift:cam:intake"))
        for valve, flank, text, side in (
            ("intake", "opening", "12", "before TDC"),
            ("intake", "closing", "56", "after BDC"),
            ("exhaust", "opening", "50", "before BDC"),
            ("exhaust", "closing", "18", "after TDC"),
        ):
            ledger.add(lift(valve, flank, text, side))
        self.assertEqual(timing(ledger).cams[0].offers[0].moves[0].place, "S")

    def test_full_lift_is_a_cross_check_against_the_nose(self):
        """By hand: the nose stands at 107 after TDC, 73 before BDC."""
        ledger = found_tdc()
        ledger.add(lift("intake", "top", "73", "before BDC", lift=None))
        valve = timing(ledger).cams[0].valves[0]
        self.assertAlmostEqual(valve.top_centreline_deg, 107, delta=0.3)
        self.assertEqual(valve.card_top_centreline_deg, 107)
        self.assertGreater(valve.top_expanded_deg, 0.5)

    def test_repeated_readings_are_averaged(self):
        ledger = found_tdc()
        for text in ("16", "17"):
            ledger.add(lift("intake", "opening", text, "before TDC"))
        opening = timing(ledger).cams[0].valves[0].opening
        self.assertEqual(opening.readings, 2)
        self.assertAlmostEqual(opening.crank_deg, 360 - 16.5 - timing(ledger).tdc.zero_deg, places=6)


class WarningTests(unittest.TestCase):
    def test_a_reading_after_turning_back_is_flagged_unless_play_was_taken_up(self):
        for approach, warned in (("back", True), ("back, play taken up", False), ("running way", False)):
            ledger = found_tdc()
            ledger.add(lift("intake", "opening", "16", "before TDC", approach=approach))
            with self.subTest(approach=approach):
                self.assertEqual(any("turning back" in warning for warning in state(ledger).warnings), warned)
                self.assertEqual(HOUSE.tape_line(ledger.entries[-1], None).look_again, warned)

    def test_a_reading_far_from_its_card_is_pointed_at(self):
        ledger = found_tdc()
        ledger.add(lift("intake", "opening", "85", "after TDC"))
        self.assertTrue(any("from its card" in warning for warning in state(ledger).warnings))

    def test_an_outlier_of_a_fit_is_named_by_its_entry(self):
        """Second method: readings made from the crank, one of them five degrees off."""
        from gurvo_core.motion import drop_mm
        from gurvo_core.motion.frames import slider_of

        ledger = Ledger()
        ledger.add({**SETUP, "numbering": "0-360"})
        ledger.add(act("tdc_method", method="fit"))
        for place in (-50, -35, -20, 20, 35, 50):
            drop = f"{float(drop_mm(place, slider_of(quern_4()))):.2f}"
            wheel = {"text": str((place + (5 if place == 35 else 0)) % 360)}
            ledger.add({"kind": "tdc_reading", "method": "fit", "wheel": wheel, "drop": {"text": drop, "unit": "mm"}})
        self.assertEqual(timing(ledger).tdc.outlier, 7)
        self.assertIn("Reading 5", state(ledger).warnings[0])


class StrikeTests(unittest.TestCase):
    def ledger(self):
        """One of everything that can be struck."""
        ledger = degreed()
        ledger.add({"kind": "note", "text": "cold shop"})
        ledger.add(lift("intake", "top", "73", "before BDC", lift=None))
        ledger.add(left_alone(ledger))
        ledger.add(act("sign_off"))
        return ledger

    def test_striking_an_entry_is_as_never_having_made_it(self):
        """Property: for every entry of a whole job."""
        whole = self.ledger()
        for entry in whole.entries:
            struck, never = Ledger(), Ledger()
            struck.entries = list(whole.entries)
            struck.add({"kind": "strike", "strikes": str(entry.id), "reason": "misread"})
            never.entries = [other for other in whole.entries if other is not entry]
            with self.subTest(entry=entry.body.kind):
                self.assertEqual(state(struck), state(never))

    @settings(max_examples=40)
    @given(st.sets(st.integers(0, 12)), st.randoms(use_true_random=False))
    def test_strikes_in_any_order_come_to_the_same(self, places, shuffle):
        """Property: which entries are struck matters, the order does not."""
        whole = self.ledger()
        order = [whole.entries[place] for place in places if place < len(whole.entries)]
        first, second = Ledger(), Ledger()
        for ledger in (first, second):
            ledger.entries = list(whole.entries)
            for entry in order:
                ledger.add({"kind": "strike", "strikes": str(entry.id), "reason": "misread"}, uuid.uuid4())
            shuffle.shuffle(order)
        self.assertEqual(state(first), state(second))

    def test_the_tape_keeps_what_was_struck_and_says_why(self):
        ledger = found_tdc()
        wrong = ledger.add(lift("intake", "opening", "72,5", "before TDC"))
        ledger.add({"kind": "strike", "strikes": str(wrong), "reason": "misread the wheel"})
        line = HOUSE.tape_line(ledger.entries[-2], standing(ledger).struck[wrong])
        self.assertEqual((line.title, line.value, line.struck.reason), ("Intake opens, 1.00 mm", "72,5° before TDC", "misread the wheel"))

    def test_a_struck_reading_takes_the_zero_it_gave_with_it(self):
        ledger = degreed()
        ledger.add({"kind": "strike", "strikes": str(ledger.entries[2].id), "reason": "stop was loose"})
        now = state(ledger)
        self.assertEqual((now.current, now.timing.tdc, now.timing.cams[0].verdict), ("tdc", None, None))

    def test_readings_that_fit_no_wheel_any_more_count_no_more(self):
        """The set-up they were taken with is struck: on the wheel before it there is no 200 and no reading without a side."""
        ledger = found_tdc()
        second = ledger.add({**SETUP, "numbering": "0-360"})
        ledger.add({**stop("before", "318.5"), "wheel": {"text": "318.5"}})
        ledger.add({**lift("intake", "opening", "200", "before TDC"), "wheel": {"text": "200"}})
        ledger.add({"kind": "strike", "strikes": str(second), "reason": "wrong engine"})
        now = timing(ledger)
        self.assertEqual((now.wheel.numbering, now.tdc.readings, now.cams[0].valves[0].opening.readings), ("0-90-0-90-0", 2, 0))

    def test_a_new_set_up_begins_again(self):
        ledger = degreed()
        ledger.add({**SETUP, "numbering": "0-360"})
        now = state(ledger)
        self.assertEqual((now.current, now.timing.tdc, now.timing.cams[0].verdict, now.timing.crank), ("tdc", None, None, None))


class TapeTests(unittest.TestCase):
    def test_every_kind_of_entry_reads_as_a_line(self):
        ledger = StrikeTests().ledger()
        ledger.add({"kind": "strike", "strikes": str(ledger.entries[5].id), "reason": "wrong side"})
        titles = [HOUSE.tape_line(entry, None).title for entry in ledger.entries]
        for body in (
            act("tdc_method", method="fit"),
            act("turn", to="330"),
            act("wheel_check", wheel={"text": "10", "side": "after TDC"}, opposite={"text": "10", "side": "after BDC"}),
            act("revision", number=2, reason="newer"),
            act("engine_moved", builder="bo", stand=4),
            act("cam_word", camshaft="cam", reason="degreed before it came here"),
            act("gap_measured", camshaft="cam", cylinder=1, valve="intake", how="clay", gap={"text": "3.9", "unit": "mm"}),
            act("way_left", step="chain-on", reason="rockers are out"),
            act("picture", digest="a" * 64, width=10, height=10, shows="the notch"),
            act("picture_drawn_on", digest="a" * 64, shows="the notch, once more"),
            act("picture_left", step="cover-on", reason="no camera"),
            act("for_whom", customer="the growers"),
        ):
            ledger.add(body)
            titles.append(HOUSE.tape_line(ledger.entries[-1], None).title)
        kinds = {kind.name for room in HOUSE.rooms if room.name not in ("run", "found", "joints", "fits", "lash") for kind in room.kinds}
        self.assertEqual({entry.body.kind for entry in ledger.entries}, {*kinds, "strike"})
        wanted = ["Wheel set up", "Positive stop, before TDC", "Pointer error taken over", "Piston stop", "Intake opens, 1.00 mm", "Note"]
        more = [
            "Intake stands, full lift",
            "Cam",
            "Record signed",
            "Struck an entry",
            "True TDC by",
            "Crank turned to",
            "Moved to revision",
        ]
        self.assertLessEqual({*wanted, *more}, set(titles))


READ = tuple(
    body
    for figure in ("16", "16.5", "72.5")
    for body in (
        lift("intake", "opening", figure, "before TDC"),
        lift("intake", "opening", figure, "before TDC", lift={"text": "1.25", "unit": "mm"}),
        lift("exhaust", "closing", figure, "after TDC"),
        stop("before", figure),
    )
)
CHANGES = (SETUP, STOP_IN, STOP_OUT, act("tdc_method", method="fit"), act("note", text="cold shop"))


class ApplyTests(unittest.TestCase):
    @settings(max_examples=60)
    @given(
        st.lists(st.one_of(st.sampled_from(READ), st.sampled_from(READ), st.sampled_from(CHANGES), st.integers(0, 60)), max_size=30),
        st.sampled_from((64, 3, 1)),
    )
    @example([READ[0], SETUP, READ[0], READ[0], len(degreed().entries)], 64)  # the first has lapsed, and reads like those after it
    def test_whatever_is_struck_is_forgotten_as_the_whole_ledger_has_it(self, does, halt):
        """Second method: all folded at once, where nothing struck is ever taken. A number strikes the entry at that place."""
        whole, struck = degreed(), set()
        for one in does:
            if not isinstance(one, int):
                whole.add(one)
                continue
            entry = whole.entries[one % len(whole.entries)]
            if entry.body.kind != "strike" and entry.id not in struck:
                struck.add(entry.id)
                whole.add({"kind": "strike", "strikes": str(entry.id), "reason": "misread"})
        with patch("gurvo_core.ledger.fold.HALT", halt):
            now = HOUSE.fold(quern_4(), [])
            for entry in whole.entries:
                now = HOUSE.apply(now, entry)
            self.assertEqual(HOUSE.show(now), replay(quern_4(), whole.entries))

    def test_applying_entry_by_entry_is_folding_it_all(self):
        """Second method: after every entry of a whole job, strikes among them."""
        whole = StrikeTests().ledger()
        whole.add({"kind": "strike", "strikes": str(whole.entries[-1].id), "reason": "signed too soon"})
        whole.add({"kind": "strike", "strikes": str(whole.entries[6].id), "reason": "misread"})
        whole.add(lift("intake", "closing", "52", "after BDC"))
        for halt in (64, 3, 1):
            with patch("gurvo_core.ledger.fold.HALT", halt):
                now = HOUSE.fold(quern_4(), [])
                for count in range(1, len(whole.entries) + 1):
                    entries = whole.entries[:count]
                    before, now = now, HOUSE.apply(now, entries[-1])
                    with self.subTest(count=count, halt=halt):
                        self.assertEqual(len(now.halts), count // halt + 1)
                        self.assertEqual(HOUSE.show(now), replay(quern_4(), entries))
                        self.assertEqual(HOUSE.show(before), replay(quern_4(), entries[:-1]))
