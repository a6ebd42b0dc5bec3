"""What a book may ask of its joints, and the demo's families do: each comes to be asked as it is meant."""

import unittest

from gurvo_core.joints.job.show import pull_lines
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import Build
from tests.engines import CODES, LITTLE_KNOWN, family_with_run


class SayableTests(unittest.TestCase):
    def asked(self, family, step):
        """Everything that is asked of a joint, in order, as it is said."""
        build, said = Build(family).to(step), []
        build.answer(next_question(build.state))
        while (question := next_question(build.state)) is not None and question.kind == "pull":
            said.append(question)
            build.answer(question)
        self.build = build
        return said

    def words(self, family, step):
        return [question.ask.split(": ", 1)[1] for question in self.asked(family, step)]

    def test_torque_then_angle(self):
        self.assertEqual(self.words("quern-4", "head-65"), ["40 N·m"] * 10 + ["65 N·m"] * 10)
        self.assertEqual(self.words("quern-4", "head-angle"), ["turn it 90°"] * 10)

    def test_torque_a_full_turn_loose_a_lower_torque_a_larger_angle(self):
        first = self.words("tarn-f4", "right-head-30")
        self.assertEqual([first[0], first[6], first[12]], ["40 N·m", "back 360°", "30 N·m"])
        self.assertEqual(self.words("tarn-f4", "right-head-angle"), ["turn it 80°"] * 12)

    def test_a_left_hand_thread(self):
        (question,) = next_question(Build("teasel-4").to("pump-wheel-tight").state).pulls
        self.assertTrue(question.left_hand)
        self.assertIn("tightens the other way round", question.hint)

    def test_four_nuts_crosswise_that_clamp_two_parts(self):
        said = self.asked("wick-1", "studs")
        self.assertEqual([question.fastener for question in said], ["all", *"1234", *"1234"])
        joint = family_with_run("wick-1").joint("head")
        self.assertEqual([part.name for part in joint.clamped], ["head", "barrel"])

    def test_a_ring_once_round_and_once_more(self):
        said = self.asked("sorrel-f4", "case-tight")
        self.assertEqual([question.turn for question in said], [1] * 24 + [2] * 12)
        self.assertIn("Round 2 of 2:", said[-1].hint)

    def test_dry_opposing_pairs_of_a_gear(self):
        build = Build("garth-d6").to("cam-gear-tight")
        self.assertEqual(next_question(build.state).threads, "dry")
        spots = {spot.id: spot for spot in build.state.joints.joint.spots}
        for first, second in (("1", "2"), ("3", "4"), ("5", "6"), ("7", "8")):
            self.assertAlmostEqual(spots[first].x_mm, -spots[second].x_mm, delta=1e-5)

    def test_caps_drawn_down_in_small_steps_with_those_that_are_loaded(self):
        said = self.asked("tarn-f4", "right-caps-snug")
        self.assertEqual({question.fastener for question in said}, {"all"})
        self.assertIn(f"Round 1 of {len(said)}:", said[0].hint)
        self.assertIn("Springs push up at cylinder", said[0].hint)

    def test_a_bolt_with_a_generic_figure_says_so_on_screen_tape_and_paper(self):
        said = self.asked("mallow-2", "plate-tight")
        self.assertTrue(all(question.is_generic and "a generic figure" in question.ask for question in said))
        line = self.build.folded.entries[-1].body
        self.assertIn("(generic)", line.asked)
        self.assertIn("generic figure", next(paper.warns for paper in HOUSE.papers(self.build.folded) if paper.warns))
        self.assertTrue(pull_lines(self.build.folded.states["joints"])[-1].is_generic)

    def test_a_phaser_bolt_is_held_by_what_the_book_names(self):
        build = Build("corrie-v6").to("phasers-tight")
        question = next_question(build.state)
        self.assertEqual((question.threads, question.held_by), ("assembly lube", "a wrench on the cams' flats"))


class EveryFamilyTests(unittest.TestCase):
    def test_every_joint_has_its_page_with_every_fastener_at_every_stage(self):
        for code in (*CODES, LITTLE_KNOWN):
            build = Build(code).play()
            names = [joint.joint.name for joint in build.folded.states["joints"].book.joints.values()]
            papers = {paper.title: paper for paper in HOUSE.papers(build.folded)}
            lines = [(table, row) for paper in papers.values() for table in paper.tables for row in table.rows]
            self.assertEqual([row.cells for table, row in lines if len(row.cells) != len(table.heads)], [])
            for name in names:
                with self.subTest(family=code, joint=name):
                    self.assertTrue(all(cell for row in papers[name].tables[0].rows for cell in row.cells))
                    self.assertEqual(papers[name].apart, ())

    def test_a_signature_keeps_how_many_pulls_there_were(self):
        build = Build("wick-1").play()
        signed = next(entry.body for entry in build.folded.entries if entry.body.kind == "sign_off")
        self.assertIn("Stud nuts: 9 of 9 pulls", signed.shown)
