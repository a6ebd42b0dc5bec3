"""What a reader would try first of the functions of ``figures_said``, each held to its answer."""

import unittest

from gurvo_core.angles import midpoint_deg, nearest_turn_deg, signed_deg, wrap_deg
from gurvo_core.bounds import figures_out_of_reach, key_given_twice, too_much
from gurvo_core.reading import check_document, doubts_of, read_text
from gurvo_core.sentence import Reader, as_words, at_place, clock, fine, length, say
from gurvo_core.units import read_figure, to_inside
from gurvo_core.verdict import largest_telling_u
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_wrap_deg(self):
        self.assertEqual((wrap_deg(-10.0), wrap_deg(-1e-17)), (350.0, 0.0))

    def test_signed_deg(self):
        self.assertEqual(signed_deg(350.0), -10.0)

    def test_midpoint_deg(self):
        self.assertEqual(midpoint_deg(350.0, 20.0), 5.0)

    def test_nearest_turn_deg(self):
        self.assertEqual(nearest_turn_deg(232.0, 590.0), 592.0)

    def test_too_much(self):
        self.assertEqual((too_much("{}"), too_much("[" * 30_000)[:28]), ("", "This is more than any engine"))

    def test_key_given_twice(self):
        self.assertEqual((key_given_twice("{a: 1, /* a: 2 */ b: {a: 3}}"), key_given_twice("{'a': 1, a: 2}")), (None, "a"))

    def test_figures_out_of_reach(self):
        self.assertEqual([fault.path for fault in figures_out_of_reach({"a": [1, 1e-320], "b": 1e308, "c": 0})], ["a.1", "b"])

    def test_read_text(self):
        self.assertEqual(read_text("{format: 'gurvo-engine', /* ours */}"), {"format": "gurvo-engine"})

    def test_check_document(self):
        self.assertEqual(check_document(quern_4()), [])

    def test_doubts_of(self):
        self.assertEqual(doubts_of(quern_4()), [])

    def test_as_words(self):
        self.assertEqual(as_words({"text": "see {mm:5} and {page 12}"}), {"text": "see { mm:5} and {page 12}"})

    def test_at_place(self):
        self.assertEqual((at_place("TDC of cylinder 1"), at_place("at the pin")), ("at TDC of cylinder 1", "at the pin"))

    def test_length(self):
        self.assertEqual(length(1.0), "{mm:1}")

    def test_fine(self):
        self.assertEqual(fine(0.058), "{fine:0.0580}")

    def test_clock(self):
        self.assertEqual(clock(300.04), "{clock:300.0}")

    def test_say(self):
        two, three = (lambda mm: f"{mm:.2f} mm"), (lambda mm: f"{mm:.3f} mm")
        paper = Reader(length=two, fine=three, clock=lambda deg: f"{deg / 30:.0f} o'clock", turn=lambda way: way)
        self.assertEqual(say("through {mm:1}, dot at {clock:300.0}", paper), "through 1.00 mm, dot at 10 o'clock")

    def test_read_figure(self):
        self.assertEqual(read_figure("50,5"), 50.5)

    def test_to_inside(self):
        self.assertEqual(round(to_inside("50", "thou", "length"), 9), 1.27)

    def test_largest_telling_u(self):
        self.assertEqual((largest_telling_u(0.1, 106, 110, "U"), largest_telling_u(0.1, 106, 110, "4:1")), (0.1, 0.5))
