"""After how many turns marks meet again, against a count of every turn."""

import unittest
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.engine import EngineDocument
from gurvo_core.run.job.meet_again import meet_again_turns, meet_again_words
from tests.engines import family


def garth(crank, idler, cam):
    """The diesel whose idler faces three gears, with other teeth."""
    data = family("garth-d6").model_dump(mode="json")
    teeth = {"crank-gear": crank, "idler-gear": idler, "cam-gear": cam, "pump-gear": cam}
    for wheel in data["drive"]["wheels"]:
        wheel["teeth"] = teeth.get(wheel["id"], wheel["teeth"])
    return EngineDocument.model_validate(data)


class MeetAgainTests(unittest.TestCase):
    @given(st.integers(18, 40), st.integers(20, 60))
    def test_gears_meet_again_when_each_has_come_round(self, crank, idler):
        """By counting: turn on by whole turns of the crank until all three gears stand as they stood."""
        document = garth(crank, idler, 2 * crank)
        turns = next(n for n in range(1, 5000) if all(Fraction(n * crank, teeth).denominator == 1 for teeth in (idler, 2 * crank)))
        self.assertEqual(meet_again_turns(document, document.drive.stages[0]), turns)

    def test_it_is_said_where_it_is_more_than_the_cycle(self):
        """By hand: 30 teeth over 45 come round together after 3 turns, with the cam after 6; an idler of 30 is back with the cam."""
        self.assertIn("meet again only after 6 turns of the crank", meet_again_words(garth(30, 45, 60)))
        self.assertEqual(meet_again_words(garth(30, 30, 60)), "")
