"""What happens beside the run: how an engine came in, marks of one's own, a shaft turned alone, trouble, plugs, parts that come later."""

import unittest
from random import Random

from gurvo_core.errors import AskFirst, CoreError, EntryRefused
from gurvo_core.walk import MISTAKES, Robot, mistake_of, next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.engines import family_with_run


def tape(build):
    """The last line of the tape, as it is said."""
    return HOUSE.tape_line(build.folded.entries[-1], None)


def step_of(build, key):
    """A step as it is shown."""
    return next(one for one in build.state.steps if one.key == key)


class AsFoundTests(unittest.TestCase):
    def test_how_it_came_in_is_asked_first_and_nothing_of_it_must_be_said(self):
        build = Build("heath-4").to("as-found")
        question = next_question(build.state)
        self.assertEqual([field.key for field in question.fields], ["cam-mark", "belt-cord", "drips", "complaint"])
        self.assertFalse(any(field.needed for field in question.fields))
        build.enter("step_done", step="as-found", answers={"cam-mark": "off", "drips": "front seal"})
        self.assertIn("front seal", tape(build).detail)

    def test_a_tooth_out_as_found_is_no_fault_of_the_build(self):
        build = Build("holm-d4").to("as-found")
        question = next_question(build.state)
        key = next(field.key for field in question.fields if field.kind == "choice")
        build.enter("step_done", step="as-found", answers={key: "off"})
        self.assertFalse(any("off" in end.lower() for end in build.ends()))
        self.assertTrue(build.play().state.signed)


class OwnMarkTests(unittest.TestCase):
    def test_a_mark_of_ones_own_is_looked_at_like_the_others(self):
        build = Build("heath-4").to("belt-on")
        build.enter("own_mark", name="White paint on the cam wheel", meets="a scratch on the head")
        self.assertEqual(tape(build).title, "Own mark: White paint on the cam wheel")
        build.to("turn")
        build.turned("turn", 1)
        own = [one for one in next_question(build.state).looks if one.kind == "own"]
        self.assertEqual([one.name for one in own], ["White paint on the cam wheel"])


class TroubleTests(unittest.TestCase):
    def test_each_sort_of_trouble_stops_the_turning_until_it_is_looked_into(self):
        for what in ("dead_stop", "stiff", "noise"):
            with self.subTest(what):
                build = Build("heath-4").to("park")
                build.enter("trouble", step="park", what=what, note="just before the arrow")
                self.assertFalse(build.state.permission.free)
                self.assertIn("just before the arrow", tape(build).detail)
                build.answer(next_question(build.state))
                self.assertTrue(build.state.permission.free)

    def test_trouble_without_a_step_that_there_is_is_refused(self):
        build = Build("heath-4").to("park")
        with self.assertRaises(EntryRefused):
            build.enter("trouble", step="nowhere", what="noise", note="a click")

    def test_a_shaft_turned_by_itself_is_said_on_the_tape(self):
        build = Build("heath-4").to("belt-on")
        build.enter("shaft_turned", shaft="cam", way="back", then="snapped", note="the wrench slipped")
        line = tape(build)
        self.assertIn("turned by itself", line.title)
        self.assertTrue(line.look_again)
        with self.assertRaises(EntryRefused):
            build.enter("shaft_turned", shaft="nothing", then="stands")

    def test_a_cam_turned_alone_after_the_belt_is_on_opens_its_proof(self):
        build = Build("heath-4").to("cover-on")
        self.assertEqual([one.by for one in build.state.hand_over.proofs], ["marks"])
        build.enter("shaft_turned", shaft="cam", then="stands")
        self.assertEqual([one.by for one in build.state.hand_over.proofs], [None])
        build.play()
        self.assertTrue(build.state.signed)


class PermissionTests(unittest.TestCase):
    def test_it_names_the_way_the_window_and_what_is_loose(self):
        build = Build("heath-4").to("belt-on")
        said = build.state.permission
        self.assertEqual((said.free, said.careful, said.way), (True, True, "the running way only"))
        self.assertIn("no further than where it is parked", said.how_far)
        self.assertIn("plugs are out", said.reasons)

    def test_nobody_turns_before_the_plugs_are_out_nor_once_they_are_in(self):
        build = Build("heath-4").to("plugs")
        self.assertEqual((build.state.permission.free, build.state.permission.reasons), (False, ["plugs not out and stand not locked yet"]))
        build.play()
        self.assertEqual((build.state.permission.free, build.state.permission.reasons), (False, ["plugs are in: only starting is allowed"]))

    def test_a_thing_is_told_by_its_place(self):
        build = Build("tarn-f4").to("turn-twice")
        build.enter("thing", thing="tie", on=True, place="on the left cam")
        self.assertIn("left cam", " ".join(build.state.permission.reasons + [end.title for end in build.state.loose_ends]).lower())


class ComesLaterTests(unittest.TestCase):
    def test_a_missing_part_is_asked_for_again_and_holds_only_what_uses_it(self):
        build = Build("heath-4").to("new")
        build.done("new", belt="missing", head_bolts="new", gasket="new")
        self.assertNotEqual(next_question(build.state).key, "new")
        build.play("new")
        self.assertIn("not on the bench yet", step_of(build, "belt-on").questions[-1].blocked)
        self.assertIn("timing belt not on the bench yet", next_question(build.state).hint)
        build.play()
        self.assertTrue(build.state.signed)

    def test_a_lead_leaves_out_any_step_and_the_record_goes_on(self):
        build = Build("heath-4").to("head-tight")
        build.enter("step_skipped", step="head-tight", reason="pulled by the machinist, his sheet is in the file", by=LEAD)
        self.assertEqual(step_of(build, "head-tight").note, "left out")
        build.play()
        self.assertTrue(build.state.signed)

    def test_a_step_cannot_be_done_twice_but_may_be_opened_again(self):
        build = Build("heath-4").to("head-tight")
        with self.assertRaisesRegex(EntryRefused, "done already"):
            build.done("head-on")
        build.enter("step_opened", step="head-on", reason="gasket the wrong way round")
        self.assertIn("Open again: Head on, bolts finger tight", " ".join(build.ends()))

    def test_a_joint_told_in_words_is_gone_through_stage_by_stage(self):
        build = Build("heath-4").to("head-tight")
        question = next_question(build.state)
        self.assertEqual([field.label for field in question.fields], ["40 N·m", "A quarter turn", "A quarter turn"])
        self.assertIn("From the middle to the ends", question.hint)
        with self.assertRaisesRegex(EntryRefused, "Say this too: A quarter turn"):
            build.enter("step_done", step="head-tight", answers={"stage.1": "done", "stage.2": "done"})
        build.answer(question)
        self.assertIn("stage 1, 2 and 3 done", tape(build).detail)


class ReplayTests(unittest.TestCase):
    def test_a_ledger_full_of_mistakes_folds_to_the_state_that_the_bench_had(self):
        """Entry by entry, as a bench does, and all at once, as a record is read: the same."""
        for seed, code in enumerate(("heath-4", "scar-v6", "holm-d4", "wick-1", "mallow-2")):
            with self.subTest(code):
                robot, chance = Robot(family_with_run(code)), Random(seed)
                for n in range(70):
                    question = next_question(robot.state)
                    wrong = mistake_of(robot, question, chance, MISTAKES[n % len(MISTAKES)]) if n % 3 == 0 else None
                    try:
                        robot.say(wrong) if wrong else robot.answer_next()
                    except CoreError:
                        continue
                again = HOUSE.show(HOUSE.fold(robot.document, robot.folded.entries))
                self.assertEqual([step.status for step in again.steps], [step.status for step in robot.state.steps])
                self.assertEqual([end.title for end in again.loose_ends], [end.title for end in robot.state.loose_ends])
                self.assertEqual(again.permission, robot.state.permission)
                self.assertEqual(again.hand_over, robot.state.hand_over)

    def test_a_refused_entry_changes_nothing(self):
        build = Build("heath-4").to("turn")
        before = build.folded
        for body in (
            {"kind": "turn_seen", "step": "turn", "stop": 2, "saw": "meets"},
            {"kind": "step_done", "step": "crept", "answers": {}},
            {"kind": "found", "pointer": "/nowhere", "value": "7", "how": "counted"},
        ):
            with self.subTest(body["kind"]), self.assertRaises((AskFirst, EntryRefused)):
                build.enter(**body)
        self.assertIs(build.folded, before)
