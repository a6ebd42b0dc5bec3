"""What the book forgets: a document's run of work is looked through before anybody builds by it."""

import json
import unittest
from pathlib import Path

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.upcast import upcast_document
from gurvo_core.errors import DocumentError
from gurvo_core.reading import read_document
from gurvo_core.run import has_run, plan_of
from tests.engines import CODES, family_copy, family_with_run

FROZEN = Path(__file__).parents[1] / "frozen" / "v1" / "Q4-0169.record.json"
STEP = {"id": "x", "does": "do", "says": "Something"}


def step(name, does, **more):
    return {"id": name, "does": does, "says": f"{does} {name}", **more}


def with_steps(*steps, **more):
    """The small engine with a run of these steps."""
    data = family_copy("wick-1")
    things = [{"id": "pin", "name": "Flywheel pin", "kind": "pin", "stops_turning": True, "holds": ["crank"]}]
    return {**data, "things": things, "stages": [{"id": "all", "title": "All", "steps": list(steps)}], **more}


class FaultTests(unittest.TestCase):
    def faults(self, *steps, **more):
        try:
            read_document(with_steps(*steps, **more))
        except DocumentError as error:
            return [(fault.path, fault.sentence) for fault in error.faults]
        return []

    def only(self, path, words, *steps, **more):
        found = self.faults(*steps, **more)
        self.assertEqual([where for where, _ in found], [path], found)
        self.assertIn(words, found[0][1])

    def test_every_family_is_without_faults_and_has_a_run(self):
        for code in CODES:
            self.assertTrue(has_run(family_with_run(code)), code)

    def test_sentences_alone_are_notes_and_no_run(self):
        document = read_document(with_steps("Wipe the face.", "Look again."))
        self.assertEqual((has_run(document), plan_of(document).steps), (False, ()))

    def test_a_sentence_among_steps_is_something_to_do(self):
        plan = plan_of(read_document(with_steps("Wipe the face.", STEP)))
        self.assertEqual([(one.step.id, one.step.does) for one in plan.steps], [("all.1", "do"), ("x", "do")])

    def test_a_thing_put_on_and_never_taken_off(self):
        self.only("stages.0.steps.0", "no later step takes it off: the book forgets it", step("in", "put_on", thing="pin"))

    def test_a_thing_taken_off_that_was_never_put_on(self):
        self.only("stages.0.steps.0", "was never put on", step("out", "take_off", thing="pin"))

    def test_a_joint_left_loose_and_never_come_back_to(self):
        self.only("stages.0.steps.0", "finger tight here and no later step comes back", step("on", "fit", joint="head"))
        self.only("stages.0.steps.1", "stage 1 of 3", step("on", "fit", joint="head"), step("tight", "tighten", joint="head", stage=1))

    def test_a_tensioner_never_proven(self):
        laid = (step("on", "lay", loop="chain"), step("arm", "tension", loop="chain", how_far="armed"))
        self.only("stages.0.steps.0", "its tensioner is never proven", *laid)

    def test_a_cover_over_a_joint_that_is_tightened_only_after_it(self):
        on, cover = step("on", "fit", joint="head"), step("lid", "fit", joint="cam-cover", covers=True, needs=[{"done": "on"}])
        late = step("tight", "tighten", joint="head", needs=[{"done": "lid"}])
        self.only("stages.0.steps.1", "tight only afterwards", on, cover, late, step("lid-tight", "tighten", joint="cam-cover"))

    def test_a_turn_with_a_pin_in_that_comes_out_only_after_it(self):
        pin, turn = step("in", "put_on", thing="pin"), step("turn", "turn_over", stops=[{"turns": 2}], needs=[{"done": "in"}])
        self.only(
            "stages.0.steps.1", "this turn can never be done", pin, turn, step("out", "take_off", thing="pin", needs=[{"done": "turn"}])
        )

    def test_steps_that_wait_for_each_other(self):
        a, b = step("a", "do", needs=[{"done": "b"}]), step("b", "do", needs=[{"done": "a"}])
        self.only("stages.0.steps.0.needs", "can never be done: a, b", a, b)

    def test_names_that_lead_nowhere(self):
        for path, one in (
            ("stages.0.steps.0.thing", step("x", "put_on", thing="wedge")),
            ("stages.0.steps.0.position", step("x", "park", position="bdc")),
            ("stages.0.steps.0.loop", step("x", "lay", loop="belt")),
            ("stages.0.steps.0.joint", step("x", "tighten", joint="mains")),
            ("stages.0.steps.0.needs.0.held", step("x", "do", needs=[{"held": "rotor"}])),
            ("stages.0.steps.0.needs.0.tight.joint", step("x", "do", needs=[{"tight": {"joint": "mains", "stage": 1}}])),
            ("stages.0.steps.0.only_in", step("x", "do", only_in="late")),
            ("stages.0.steps.0.parts.0", step("x", "ready", parts=["belt"])),
        ):
            with self.subTest(path=path):
                self.only(path, "which is not there", one)

    def test_what_a_step_must_say(self):
        self.only("stages.0.steps.0.thing", "says its thing", step("x", "put_on"))
        self.only("stages.0.steps.0.stops", "says its stops", step("x", "turn_over"))
        self.only("stages", "2 are called x here", STEP, STEP)
        self.only("stages.0.steps.0.stage", "stage 4 of a joint that has 3", step("x", "tighten", joint="head", stage=4))

    def test_a_need_says_just_one_thing(self):
        found = self.faults(step("x", "do", needs=[{"done": "x", "on": "pin"}]))
        self.assertTrue(any("just one thing" in sentence for _, sentence in found), found)


class UpcastTests(unittest.TestCase):
    def test_a_document_of_version_1_is_read_as_todays_with_ids_in_its_kit(self):
        old = json.loads(FROZEN.read_text("utf-8"))["document"]
        self.assertEqual(old["version"], 1)
        document = EngineDocument.model_validate(old)
        self.assertEqual(document.version, 3)
        self.assertEqual([part.name for part in document.kit], [part["name"] for part in old["kit"]])
        self.assertFalse(has_run(document))

    def test_names_alike_get_ids_of_their_own_and_nothing_else_is_touched(self):
        parts = [{"name": "head bolts"}, {"name": "Head bolts"}, {"name": "…"}]
        new = upcast_document({"version": 1, "kit": parts, "other": 1})
        self.assertEqual([part["id"] for part in new["kit"]], ["head-bolts", "head-bolts-2", "part"])
        self.assertEqual((new["version"], new["other"]), (3, 1))
        for data in (None, [], {"version": "1"}, {"version": 1, "kit": "bolts"}, {"version": 9}):
            self.assertEqual(upcast_document(data), data)
