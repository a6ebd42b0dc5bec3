"""What a button says is what its heading says; and what was signed under an older word is not called other."""

import unittest
from types import SimpleNamespace
from unittest.mock import patch

from gurvo_core.run.job.words import in_its_own_words
from gurvo_core.work import HOUSE, House
from gurvo_core.work.hand_over import SIGNED, SignOff


class ButtonTests(unittest.TestCase):
    def test_a_step_is_answered_in_its_own_words(self):
        for title, button in {
            "Locking plate out": "It is out",
            "Crank in, caps by number, arrow to the front": "It is in",
            "Both heads on, bolts finger tight": "They are on",
            "Guides of bank A on": "They are on",
            "Barrel and head on, nuts finger tight": "They are on",
            "Pistons in": "They are in",
            "Followers, each in its own place": "",
            "Slide the cam in without touching the bearings": "",
            "On": "",
        }.items():
            with self.subTest(title=title):
                self.assertEqual(in_its_own_words(title), button)


class RenamedTests(unittest.TestCase):
    def warned(self, was, reads):
        signed = SimpleNamespace(body=SignOff(kind="sign_off", shown=(was,)))
        with patch.object(House, "says", return_value=[reads]):
            return list(HOUSE._signed_otherwise(SimpleNamespace(facts={SIGNED: signed})))

    def test_an_older_word_for_the_same_is_no_other_reading_and_another_figure_is(self):
        now = "True TDC: pointer error +0.50°, U = 0.20°"
        self.assertEqual(self.warned("True TDC: wheel zero +0.50°, U = 0.20°", now), [])
        self.assertEqual(len(self.warned("True TDC: wheel zero +0.60°, U = 0.20°", now)), 1)
