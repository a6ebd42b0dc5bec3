"""What is answered in minutes is a whole document that can be built by; whatever is changed by hand stays."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from demo import documents
from gurvo_core.reading import read_document
from gurvo_core.walk import walk_right
from gurvo_core.writer.answers import Answered
from gurvo_core.writer.between import edits_between
from gurvo_core.writer.compose.whole import compose
from gurvo_core.writer.draft import Draft, Numbered, written
from gurvo_core.writer.edits import Answer, read_edit
from tests.core.outlines import outlines

FAMILIES = sorted(file.stem for file in documents.FAMILIES.glob("*.json"))
NAMED = st.lists(
    st.fixed_dictionaries({"id": st.sampled_from("abcdefg"), "x": st.integers(0, 3)}), max_size=6, unique_by=lambda one: one["id"]
)
GROUPS = st.recursive(
    st.one_of(st.integers(0, 3), NAMED),
    lambda inside: st.dictionaries(st.sampled_from(["k/1", "m", "n~"]), inside, max_size=3),
    max_leaves=8,
)


def numbered(edits, start=0):
    return tuple(Numbered(n, one) for n, one in enumerate(edits, start))


class ComposedTests(unittest.TestCase):
    def test_of_nothing_at_all_there_is_a_run_that_can_be_walked(self):
        self.assertEqual(walk_right(read_document(compose({}))), "")

    @settings(max_examples=6)
    @given(outlines())
    def test_any_outline_is_sound_and_walked_to_a_signed_hand_over(self, answers):
        """Property: no fault, and no step at which whoever answers everything rightly gets stuck."""
        self.assertEqual(walk_right(read_document(compose(answers))), "")

    @settings(max_examples=25)
    @given(outlines(), outlines())
    def test_edits_by_hand_stay_while_answers_change(self, before, after):
        """Property: what was written by hand stands in whatever is composed later, or is said to have lost its place."""
        first = compose(before)
        step = {"id": "by-hand", "does": "do", "says": "Look at it"}
        hand = [
            {"does": "set", "at": "/stages/hand-over/steps/oil/says", "value": "Oil in"},
            {"does": "add", "to": "/stages/turn/steps", "after": "turn-over", "value": step},
            {"does": "set", "at": "/things/holder/made_of", "value": "two pegs"},
        ]
        answers = [Answer(question=key, text=one.text) for key, one in {**before, **after}.items()]
        found = written(Draft(None, numbered([*answers, *map(read_edit, hand)])))
        steps = {one["id"]: one for stage in found.document["stages"] for one in stage["steps"]}
        self.assertEqual(steps["oil"]["says"], "Oil in")
        self.assertEqual(len(answers) + 1 in found.lost, "by-hand" not in steps)
        self.assertEqual(len(answers) + 2 in found.lost, not any(one["id"] == "holder" for one in found.document["things"]))
        self.assertEqual(compose(before), first)  # nothing that is composed is changed by what is written into it


class MadeAnewTests(unittest.TestCase):
    def test_every_family_is_made_anew_from_nothing_by_edits_alone(self):
        for code in FAMILIES:
            with self.subTest(code):
                data = documents.family_data(code)
                edits = edits_between(compose({}), data)
                again = [read_edit(edit.model_dump()) for edit in edits]  # as they are kept
                found = written(Draft(None, numbered(again)))
                self.assertEqual((found.document, found.lost), (data, {}))

    @given(st.dictionaries(st.sampled_from(["a", "b", "c"]), GROUPS), st.dictionaries(st.sampled_from(["a", "b", "c"]), GROUPS))
    def test_edits_between_any_two_lead_from_one_to_the_other(self, before, after):
        """Property: whatever is added, taken out, moved or changed."""
        found = written(Draft(before, numbered(edits_between(before, after))))
        self.assertEqual((found.document, found.lost), (after, {}))

    def test_an_answer_not_known_is_as_none_but_for_being_answered(self):
        self.assertEqual(compose({"cylinders": Answered(None)}), compose({}))
