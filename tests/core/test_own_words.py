"""What a button says is what its heading says; and what was signed under an older word is not called other."""

import unittest
from types import SimpleNamespace
from unittest.mock import patch

from gurvo_core.engine import WorkStep
from gurvo_core.run.job.words import in_its_own_words
from gurvo_core.work import HOUSE, House
from gurvo_core.work.hand_over import SIGNED, SignOff


class ButtonTests(unittest.TestCase):
    def test_a_step_is_answered_in_its_own_words(self):
        for title, button in {
            "Locking plate out": "It is out",
            "Crank in, caps by number, arrow to the front": "It is in",
            "Crank into the left half": "It is in",
            "Left cam pulley on its dowel": "It is on",
            "Both heads on, bolts finger tight": "They are on",
            "Sprocket bolts A in by hand: the sprockets must still turn": "They are in",
            "Barrel and head on, nuts finger tight": "They are on",
            "Followers, each in its own place": "",
        }.items():
            with self.subTest(title=title):
                self.assertEqual(in_its_own_words(WorkStep.model_construct(does="fit", says=title)), button)

    def test_of_anything_else_only_where_all_of_it_says_so(self):
        for title, button in {"Plugs in": "They are in", "Oil in, fuel off": "", "Turn on to the mark": "", "Rope in, twice": ""}.items():
            with self.subTest(title=title):
                self.assertEqual(in_its_own_words(WorkStep.model_construct(does="do", says=title)), button)
        self.assertEqual(in_its_own_words(WorkStep.model_construct(does="park", says="Crank on")), "")


class RenamedTests(unittest.TestCase):
    def warned(self, was, reads):
        signed = SimpleNamespace(body=SignOff(kind="sign_off", shown=(was,)))
        with patch.object(House, "says", return_value=[reads]):
            return list(HOUSE._signed_otherwise(SimpleNamespace(facts={SIGNED: signed})))

    def test_an_older_word_for_the_same_is_no_other_reading_and_another_figure_is(self):
        now = "True TDC: pointer error +0.50°, U = 0.20°"
        self.assertEqual(self.warned("True TDC: wheel zero +0.50°, U = 0.20°", now), [])
        self.assertEqual(len(self.warned("True TDC: wheel zero +0.60°, U = 0.20°", now)), 1)
