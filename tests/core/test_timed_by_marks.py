"""Engines timed by marks, locks and gears: what is seen is answered for by name, and each cam has the proof that there is, or none."""

import unittest

from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.walk import next_question
from tests.builds import LEAD, Build


def proofs(build):
    return {one.name: (one.by, one.words) for one in build.state.hand_over.proofs}


class MarksCase(unittest.TestCase):
    def refused(self, words, do):
        with self.assertRaises(EntryRefused) as caught:
            do()
        self.assertIn(words.lower(), str(caught.exception).lower())

    def laid(self, build, **more):
        """Lay what is asked, all on its marks, with something said otherwise."""
        question = next_question(build.state)
        looks = [{"of": one.of, "saw": "meets"} for one in question.looks]
        build.enter("step_done", step=question.step, looks=more.pop("looks", looks), answers=more)


class NamedTests(MarksCase):
    def test_each_mark_is_asked_by_its_name_and_what_only_looks_like_one_is_not(self):
        question = next_question(Build("heath-4").to("belt-on").state)
        self.assertEqual([one.name for one in question.looks], ["Notch of the crank wheel", "Dot of the cam wheel"])
        self.assertIn("no mark, though it looks like one: letter on a spoke", f"{question.hint} {question.looks[1].beside}".lower())

    def test_a_mark_that_was_not_answered_for_is_no_proof(self):
        build = Build("heath-4").to("belt-on")
        self.refused("dot of the cam wheel", lambda: self.laid(build, slack="tight", looks=[{"of": "crank-notch", "saw": "meets"}]))

    def test_the_cam_is_looked_at_where_all_wheels_come_together_again(self):
        build = Build("heath-4").to("turn")
        self.assertEqual([one.of for one in next_question(build.state).looks], ["crank-notch"])
        build.turned("turn", 1)
        self.assertEqual([one.of for one in next_question(build.state).looks], ["crank-notch", "cam-dot"])

    def test_whether_the_pulled_run_is_tight_is_asked_without_a_tooth_known(self):
        build = Build("heath-4").to("belt-on")
        field = next(one for one in next_question(build.state).fields if one.key == "slack")
        self.assertEqual([option.value for option in field.options], ["tight", "left"])
        with self.assertRaises((AskFirst, EntryRefused)):
            self.laid(build, slack="left")

    def test_laid_off_by_a_tooth_is_laid_again_there_and_then(self):
        build = Build("holm-d4").to("gears-on")
        looks = [{"of": one.of, "saw": "meets"} for one in next_question(build.state).looks]
        looks[1] = {"of": "cam-two", "saw": "off", "teeth": 1, "way": "behind"}
        with self.assertRaises(AskFirst) as asked:
            self.laid(build, looks=looks)
        self.assertIn("two dots of the cam gear off by a tooth, behind: lay it again", str(asked.exception).lower())


class OffTests(MarksCase):
    def off(self):
        build = Build("heath-4").to("turn")
        build.turned("turn", 1)
        build.turned("turn", 2, off={"of": "cam-dot", "saw": "less", "way": "behind"})
        return build

    def test_off_undoes_the_laying_and_offers_it_next(self):
        build = self.off()
        self.assertIn("Dot of the cam wheel off by less than a tooth, behind", build.ends())
        self.assertEqual(next_question(build.state).key, "park")  # the crank is off its mark, and laying needs it there
        build.answer(next_question(build.state))
        self.assertEqual(next_question(build.state).key, "belt-on")
        build.play()
        self.assertTrue(build.state.signed)

    def test_they_meet_after_off_with_nothing_between_asks(self):
        build = self.off()
        looks = [{"of": of, "saw": "meets"} for of in ("crank-notch", "cam-dot")]
        with self.assertRaises((AskFirst, EntryRefused)):
            build.enter("turn_seen", step="turn", stop=1, saw="meets", looks=looks[:1], went_in=[])

    def test_marks_taken_as_they_are_are_the_leads_word_on_the_record(self):
        build = self.off()
        taken = {"kind": "marks_taken", "step": "turn", "reason": "the book allows half a tooth"}
        build.enter(**taken, by=LEAD)
        build.play()
        by, words = proofs(build)["Camshaft"]
        self.assertEqual(by, "word")
        self.assertIn("the book allows half a tooth", words)

    def test_a_dead_stop_is_looked_into_before_anything_turns(self):
        build = Build("heath-4").to("turn")
        build.enter("trouble", step="turn", what="dead_stop", note="half way round")
        self.assertFalse(build.state.permission.free)
        question = next_question(build.state)
        self.assertEqual(question.kind, "hard_stop")
        build.answer(question)
        self.assertEqual(next_question(build.state).key, "turn")


class ProofTests(MarksCase):
    def test_the_proof_is_what_there_is(self):
        for code, cam, way, words in (
            ("heath-4", "Camshaft", "marks", "dot of the cam wheel met after 2 turns by hand"),
            ("scar-v6", "Exhaust cam, right", "lock", "plate across the right cams went in again after 2 turns by hand"),
            ("holm-d4", "Camshaft", "marks", "met when the gears were laid, turned over by hand since"),
        ):
            with self.subTest(code):
                by, said = proofs(Build(code).play())[cam]
                self.assertEqual(by, way)
                self.assertIn(words, said)

    def test_a_degree_wheel_is_the_proof_where_the_cams_were_degreed(self):
        self.assertEqual({by for by, _ in proofs(Build("quern-4").play()).values()}, {"degreed"})

    def test_no_proof_no_signature_but_for_the_leads_word(self):
        build = Build("heath-4").to("turn")
        build.enter("step_skipped", step="turn", reason="no time", by=LEAD)
        build.play()
        self.assertFalse(build.state.signed)
        self.refused("nothing says that it stands right", lambda: build.enter("sign_off", remark="so be it", by=LEAD))
        build.enter("cam_word", camshaft="cam", reason="turned by me", by=LEAD)
        build.play()
        self.assertEqual((build.state.signed is not None, proofs(build)["Camshaft"][0]), (True, "word"))

    def test_the_proof_is_gone_once_the_drive_is_touched(self):
        build = Build("heath-4").to("cover-on")
        self.assertEqual(proofs(build)["Camshaft"][0], "marks")
        build.enter("step_opened", step="take-up", reason="spring changed")
        self.assertNotEqual(proofs(build)["Camshaft"][0], "marks")
        build.play()
        self.assertEqual(proofs(build)["Camshaft"][0], "marks")


class LeftOutTests(MarksCase):
    def test_a_part_that_is_not_good_is_put_right_piece_by_piece(self):
        build = Build("heath-4").to("look-lifters")
        fields = [one.key for one in next_question(build.state).fields if one.needed]
        self.assertEqual(len(fields), 8)
        build.enter("step_done", step="look-lifters", answers={**dict.fromkeys(fields, "good"), fields[2]: "not_good", "reason": "pitted"})
        self.assertIn("not good", " ".join(build.ends()).lower())
        self.assertTrue(next(step for step in build.state.steps if step.key == "head-on").questions[0].blocked)
        build.enter("step_done", step="look-lifters", answers={**dict.fromkeys(fields, "good"), fields[2]: "replaced", "reason": "new"})
        self.assertNotIn("not good", " ".join(build.ends()).lower())

    def test_bolts_of_a_joint_are_counted_where_nobody_knows_how_many(self):
        build = Build("holm-d4").to("head-on:/joints/head/fasteners")
        build.enter("found", pointer="/joints/head/fasteners", value="10", how="counted")
        build.to("head-tight")
        pulls = [
            one for shown in build.state.steps for one in shown.questions if getattr(one, "fastener", None) and one.step == "head-tight"
        ]
        self.assertTrue(pulls or next_question(build.state).kind == "joint_ready")

    def test_plugs_are_out_only_while_they_are(self):
        build = Build("heath-4").to("start")
        self.assertIn("plugs are in", " ".join(build.state.permission.reasons).lower())
