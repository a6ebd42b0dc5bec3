"""Every kind of tensioner has its own questions, with no figure known; what did not work is not taken for armed or proven."""

import unittest

from demo.documents import family_data
from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from tests.builds import LEAD, Build

# what is asked by kind while it is fitted, armed and proven: key, the answer that is right, one that is not
ASKED = {
    "hydraulic": {"take-up": ("rod", "out", "in"), "crept": ("stays", "stays", "leaks")},
    "ratchet": {"roller-in": ("back", "back", "out"), "take-up": ("snap", "heard", "not")},
    "press_and_release": {"roller-in": ("clip", "in", "out"), "take-up": ("pressed", "works", "not")},
    "oil_fed": {"roller-in": ("locked", "locked", "loose")},
    "eccentric": {
        "roller-in": ("lock", "loose", "tight"),
        "take-up": ("pointer", "notch", "before"),
        "crept": ("pointer", "notch", "past"),
    },
    "spring_then_lock": {
        "roller-in": ("hooked", "hooked", "off"),
        "take-up": ("took", "took", "not"),
        "crept": ("crept", "stands", "crept"),
    },
    "manual": {"take-up": ("punch", "released", "not")},
    None: {"crept": ("runs", "tight", "slack")},
}


def built_with(kind):
    """The belt four with another tensioner."""
    data = family_data("heath-4")
    data["drive"]["stages"][0]["tensioner"]["kind"] = kind
    return Build(read_document(data))


def wrongly(build, key, text):
    """Answer the step at hand with one answer that is not right."""
    question = next_question(build.state)
    answers = {field.key: field.options[0].value for field in question.fields if field.needed and field.kind == "choice"}
    build.enter("step_done", step=question.step, answers={**answers, key: text})


class TensionKindTests(unittest.TestCase):
    def test_each_kind_is_asked_in_its_own_words(self):
        for kind, steps in ASKED.items():
            for step, (key, right, _) in steps.items():
                with self.subTest(kind=kind, step=step):
                    build = built_with(kind).to(step)
                    field = next(one for one in next_question(build.state).fields if one.key == key)
                    self.assertEqual((field.needed, field.options[0].value), (True, right))

    def test_what_did_not_work_is_refused_or_asked_about(self):
        for kind, steps in ASKED.items():
            for step, (key, _, wrong) in steps.items():
                with self.subTest(kind=kind, step=step), self.assertRaises((AskFirst, EntryRefused)) as caught:
                    wrongly(built_with(kind).to(step), key, wrong)
                self.assertTrue(str(caught.exception))

    def test_an_answer_left_out_is_asked_for_by_its_field(self):
        build = built_with("ratchet").to("take-up")
        with self.assertRaisesRegex(EntryRefused, "Say this too"):
            build.done("take-up")

    def test_each_is_built_to_a_signed_record(self):
        for kind in ASKED:
            with self.subTest(kind=kind):
                self.assertTrue(built_with(kind).play().state.signed)

    def test_an_oil_fed_one_is_proven_by_pressure_at_the_first_start(self):
        build = built_with("oil_fed").to("turn")
        build.to("start")
        ends = [end for end in build.state.loose_ends if "tensioner" in end.title]
        self.assertTrue(all("first start" in end.until for end in ends), ends)

    def test_a_spring_that_crept_is_set_again_and_turned_over_again(self):
        build = built_with("spring_then_lock").to("crept")
        with self.assertRaises((AskFirst, EntryRefused)):
            wrongly(build, "crept", "crept")
        build.enter("step_opened", step="take-up", reason="it crept by a finger's width")
        proofs = [one.by for one in build.state.hand_over.proofs]
        self.assertEqual(proofs, [None])
        self.assertEqual(next_question(build.state).key, "take-up")
        build.play()
        self.assertTrue(build.state.signed)

    def test_a_lead_takes_what_a_builder_may_not(self):
        build = built_with("eccentric").to("crept")
        question = next_question(build.state)
        answers = {field.key: field.options[0].value for field in question.fields if field.needed}
        with self.assertRaises((AskFirst, EntryRefused)):
            build.enter("step_done", step="crept", answers={**answers, "pointer": "past"})
        build.enter("step_skipped", step="crept", reason="the notch is worn, the belt is judged by hand", by=LEAD)
        self.assertNotIn("crept", [one.key for one in build.state.steps if one.status == "now"])
