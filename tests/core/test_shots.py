"""The bench as it will stand at each step of a run, kept while it is walked through."""

import unittest

from gurvo_core.reading import read_document
from gurvo_core.walk import walk_document
from gurvo_core.writer.answers import Answered
from gurvo_core.writer.compose.whole import compose
from tests.engines import family_with_run

CLAMPED = {
    "name": "Found 4",
    "fuel": "petrol",
    "layout": "inline",
    "cylinders": "4",
    "cams": "one",
    "drives": "chain",
    "passes.chain": "crank, cam",
    "tensioner.chain": "hydraulic",
    "fixed.cam-wheel": "clamped",
    "known_by": "locks",
    "position": "pin",
    "lock.crank": "pin in the flywheel",
    "lock.cam": "plate",
}


class ShotsTests(unittest.TestCase):
    def walked(self, **change):
        answers = {key: Answered(text) for key, text in {**CLAMPED, **change}.items()}
        return walk_document(read_document(compose(answers)))

    def test_every_step_that_is_come_to_has_one_in_the_order_of_the_work(self):
        walked = self.walked()
        steps = [shot.step for shot in walked.shots]
        self.assertEqual(walked.stuck, [])
        self.assertEqual(len(set(steps)), len(steps))
        for before, after in (("park", "in-lock-crank"), ("in-lock-cam", "on-chain"), ("out-lock-cam", "turn-over"), ("seen", "on-front")):
            self.assertLess(steps.index(before), steps.index(after))

    def test_the_crank_may_not_be_turned_while_something_is_in(self):
        shots = {shot.step: shot for shot in self.walked().shots}
        self.assertTrue(shots["park"].free)
        self.assertFalse(shots["on-chain"].free)
        self.assertIn("pin in the flywheel", " ".join(shots["on-chain"].loose_ends).lower())
        self.assertTrue(shots["turn-over"].free)

    def test_what_is_asked_there_is_told(self):
        shots = {shot.step: shot for shot in self.walked().shots}
        self.assertIn("Turn it twice, by hand", " ".join(shots["turn-over"].asks))
        self.assertTrue(all(shot.asks for shot in shots.values()))

    def test_a_run_in_which_somebody_sticks_has_shots_up_to_there(self):
        data = compose({key: Answered(text) for key, text in CLAMPED.items()})
        for stage in data["stages"]:
            for step in stage["steps"]:
                if step["id"] == "turn-over":
                    step["needs"] = [{"held": "cam"}]
        walked = walk_document(read_document(data))
        self.assertIn("gets stuck before", walked.stuck[0].sentence)
        steps = [shot.step for shot in walked.shots]
        self.assertIn("out-lock-cam", steps)
        self.assertNotIn("on-front", steps)

    def test_a_family_of_the_shop_is_shot_as_it_is_walked(self):
        document = family_with_run("heath-4")
        shots = [shot.step for shot in walk_document(document).shots]
        planned = [step.id for stage in document.stages for step in stage.steps]
        self.assertEqual([step for step in planned if step not in shots], [])

    def test_a_cam_that_nothing_proves_is_taken_on_the_leads_word(self):
        """A doubt of the document, and no dead end of its run."""
        walked = self.walked(known_by=None)
        self.assertEqual(walked.stuck, [])
        self.assertGreater(walked.entries, 20)
