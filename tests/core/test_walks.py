"""A robot builds engines from nothing to a signed record: as they should be, with mistakes, and of which little is known."""

import unittest
from random import Random

from hypothesis import given, settings
from hypothesis import strategies as st

from demo import documents
from gurvo_core.reading import doubts_of, read_document
from gurvo_core.walk import MISTAKES, Robot, walk_document, walk_right, walk_wrong
from tests.core.little_known import little_known
from tests.engines import family_with_run

SEED = 7
FAMILIES = sorted(file.stem for file in documents.FAMILIES.glob("*.json"))


class WalkTests(unittest.TestCase):
    def test_every_family_goes_from_nothing_to_a_signed_record(self):
        for code in FAMILIES:
            with self.subTest(code):
                self.assertEqual(walk_right(family_with_run(code)), "")

    def test_no_mistake_leads_where_nobody_can_go_on(self):
        codes = FAMILIES
        for n, mistake in enumerate(MISTAKES):
            with self.subTest(mistake.__doc__):
                self.assertEqual(walk_wrong(family_with_run(codes[n % len(codes)]), Random(SEED), mistake), "")

    @settings(max_examples=6)
    @given(little_known(), st.integers(0, 999))
    def test_an_engine_of_which_little_is_known_can_be_built_and_signed(self, data, seed):
        document = read_document(data)
        self.assertEqual(walk_right(document), "")
        self.assertEqual(walk_wrong(document, Random(seed)), "")

    def test_a_run_that_cannot_be_gone_through_is_said_to_be_so(self):
        data = family_with_run("heath-4").model_dump(mode="json", exclude_unset=True, by_alias=True)
        steps = next(stage["steps"] for stage in data["stages"] if stage["id"] == "belt-stage")
        next(step for step in steps if step["id"] == "belt-on")["needs"] = [{"held": "cam"}]
        document = read_document(data)
        self.assertIn("nothing holds Camshaft", Robot(document).walk())
        fault = walk_document(document).stuck[0]
        self.assertIn("gets stuck before “Belt from the crank, tight past the pump”", fault.sentence)
        at, n = (int(part) for part in fault.path.split(".")[1::2])
        self.assertEqual(data["stages"][at]["steps"][n]["id"], "belt-on")


class DoubtTests(unittest.TestCase):
    def doubts(self, change):
        data = family_with_run("heath-4").model_dump(mode="json", exclude_unset=True, by_alias=True)
        change(data)
        return {one.path: one.sentence for one in doubts_of(read_document(data))}

    def test_a_belt_that_is_never_turned_over_is_doubtful(self):
        def forget(data):
            for stage in data["stages"]:
                for step in stage["steps"]:
                    if step["does"] == "turn_over":
                        step.update(does="do", position=None, stops=[])

        said = self.doubts(forget)
        self.assertIn("never turned over by hand", " ".join(said.values()))
        self.assertIn("Nothing in this run tells that Camshaft stands right", said["camshafts.0"])

    def test_a_cam_without_any_mark_is_doubtful(self):
        self.assertEqual(self.doubts(lambda data: None), {})
        said = self.doubts(lambda data: data["drive"].update(marks=data["drive"]["marks"][:1]))
        self.assertEqual(list(said), ["camshafts.0"])
