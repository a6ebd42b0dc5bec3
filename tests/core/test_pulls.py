"""Pull by pull at the bench: order, wrench, windows and siblings, bolts found loose, and how the run follows."""

import unittest
from datetime import date, timedelta

from gurvo_core.errors import AskFirst, CoreError, DocumentError, EntryRefused
from gurvo_core.joints.job.kept import keep_trace
from gurvo_core.joints.job.show import pull_lines
from gurvo_core.ledger import Gauge
from gurvo_core.reading import doubts_of, read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.core.test_trace import pulled
from tests.engines import WRENCHES, family_copy_with_run

TORQUES = ("70", "69", "54", "72", "70", "71", "69", "73", "70", "71")
ANGLED = {"step": "head-angle", "stage": 3}


def at_the_head(until="head-angle"):
    """Quern 4 before the last stage of its head."""
    return Build("quern-4").to(until)


class PassesTests(unittest.TestCase):
    def test_a_bolt_is_done_with_a_stage_that_goes_round_twice_after_the_second_time(self):
        build = Build("sorrel-f4").to("case-tight")
        build.enter("joint_ready", step="case-tight", threads="oiled", wrench="T2")
        done = []
        for stage in (1, 2, 2):
            for _ in range(12):
                pull = next_question(build.state)
                self.assertEqual((pull.kind, pull.stage), ("pull", stage))
                build.answer(pull)
            done.append({tuple(spot.done) for spot in build.state.joints.joint.spots} if build.state.joints.joint else {(True, True)})
        self.assertEqual(done, [{(True, False)}, {(True, False)}, {(True, True)}])


class PullCase(unittest.TestCase):
    def refused(self, words, kind, error=EntryRefused, build=None, **body):
        with self.assertRaises(error) as caught:
            (build or self.build).enter(kind, **body)
        self.assertIn(words, str(caught.exception).lower())
        return caught.exception

    def ready(self, step="head-angle", **more):
        self.build.enter("joint_ready", **{"step": step, "threads": "oiled", "wrench": "T2", "angle_by": "gauge", **more})

    def pull(self, bolt, torque=None, **more):
        shown = {"torque": {"text": torque, "unit": "N·m"}} if torque else {}
        return self.build.enter("pull", **{**ANGLED, "fastener": str(bolt), **shown, **more})

    def pull_all(self, torques=TORQUES):
        for bolt, torque in enumerate(torques, 1):
            self.pull(bolt, torque)


class SiblingTests(PullCase):
    def setUp(self):
        self.build = at_the_head()
        self.ready()

    def test_the_one_bad_bolt_of_ten_is_caught_and_holds_the_engine(self):
        self.pull_all()
        judged = self.build.state.joints.joint.flagged
        self.assertEqual([(one.fastener, one.title) for one in judged], [("3", "Cylinder head, bolt 3 ended 16 N·m below the others")])
        self.assertIn("Take it out and look", judged[0].sentence)
        self.assertEqual(self.build.state.current, "head-angle")
        self.assertIn("Cylinder head, bolt 3 ended 16 N·m below the others", self.build.ends())
        lines = [line for line in pull_lines(self.build.folded.states["joints"]) if line.is_apart]
        self.assertEqual([(line.fastener, line.torque_nm) for line in lines], [("3", 54.0)])

    def test_gone_on_with_it_stays_a_loose_end_and_the_lead_ends_it(self):
        self.pull_all()
        of_it = {**ANGLED, "fastener": "3"}
        self.refused("say why", "pull_decided", **of_it, decision="go_on")
        self.build.enter("pull_decided", **of_it, decision="go_on", reason="threads looked at")
        self.assertNotEqual(self.build.state.current, "head-angle")
        self.build.end("bolt 3 ended")
        self.refused("only the lead", "pull_decided", AskFirst, **of_it, decision="accepted", reason="seen")
        self.build.enter("pull_decided", **of_it, decision="accepted", reason="seen", by=LEAD, because="seen and measured")
        self.assertNotIn("bolt 3", " ".join(self.build.ends()))

    def test_taken_out_it_must_be_new_and_is_pulled_from_the_first_stage(self):
        self.pull_all()
        self.build.enter("pull_decided", **ANGLED, fastener="3", decision="take_out")
        self.assertEqual(self.build.state.current, "head-65")
        self.ready("head-65", angle_by=None)
        first = {"step": "head-65", "stage": 1, "fastener": "3"}
        self.refused("put in a new one", "pull", **first)
        self.build.enter("bolt", step="head-65", fastener="3", found="replaced")
        for stage in (1, 2):
            self.build.enter("pull", **{**first, "stage": stage})
        self.ready()
        self.pull(3, "70")
        self.assertNotEqual(self.build.state.current, "head-angle")
        self.assertNotIn("bolt 3", " ".join(self.build.ends()))

    def test_a_bolt_that_is_turned_on_does_not_lose_torque(self):
        self.pull(1, "55")
        self.assertIn("bolt 1 ended at 55 N·m, below the 65 it was turned from", self.build.ends()[-1])

    def test_an_angle_out_of_its_window_is_said(self):
        self.pull(1, "70", angle="97")
        self.assertIn("was turned 97°, above its window of 85 to 95", self.build.ends()[-1])

    def test_four_make_a_family_and_three_do_not(self):
        for bolt, torque in enumerate(("90", "64", "90"), 1):
            self.pull(bolt, torque)
        self.assertEqual(self.build.state.joints.joint.flagged, [])
        self.assertIn("compared from 4 on; these lie within 26 N·m", self.build.state.joints.joint.siblings_tell)
        self.pull(4, "91")
        self.assertIn("one in a hundred", self.build.state.joints.joint.siblings_tell)
        self.assertEqual([one.fastener for one in self.build.state.joints.joint.flagged], ["2"])

    def test_a_struck_pull_is_asked_for_again(self):
        self.pull_all(TORQUES[:2])
        last = self.build.folded.entries[-1].id
        self.build.enter("strike", strikes=str(last), reason="wrong bolt")
        self.assertEqual(next_question(self.build.state).fastener, "2")


class OrderTests(PullCase):
    def setUp(self):
        self.build = at_the_head()
        self.ready()

    def test_another_bolt_of_the_stage_is_asked_about(self):
        refused = self.refused("bolt 1 is next in the order", "pull", AskFirst, **ANGLED, fastener="4")
        self.assertEqual((refused.field, refused.way_out), ("fastener", "reason"))
        self.pull(4, because="the hoist is in the way")
        self.assertEqual(next_question(self.build.state).fastener, "1")

    def test_no_bolt_is_pulled_twice_or_a_stage_ahead(self):
        self.pull(1)
        self.refused("has been pulled at this stage", "pull", **ANGLED, fastener="1")
        build = at_the_head("head-65")
        build.enter("joint_ready", step="head-65", threads="oiled", wrench="T2")
        ahead = {"step": "head-65", "stage": 2, "fastener": "1"}
        self.refused("no fastener is more than one stage ahead", "pull", build=build, **ahead)

    def test_left_on_purpose_until_something(self):
        self.refused("until what", "joint_left", step="head-angle", until="")
        self.build.enter("joint_left", step="head-angle", until="the cam is proven")
        self.assertEqual(self.build.end("Cylinder head left as it is").until, "the cam is proven")
        self.pull(1)
        self.assertNotIn("Cylinder head left as it is", self.build.ends())

    def test_begun_anew_says_why_and_one_time_bolts_are_spent(self):
        self.pull_all(TORQUES[:4])
        self.refused("say why", "joint_anew", step="head-angle", reason="")
        self.build.enter("joint_anew", step="head-angle", reason="the gauge slipped")
        self.refused("put in a new one", "pull", **ANGLED, fastener="1")
        self.assertEqual(self.build.state.joints.joint.spent, ["1", "2", "3", "4"])


class RunTests(PullCase):
    def test_the_step_is_done_with_its_last_pull_and_opened_with_what_it_stands_on(self):
        self.build = at_the_head("pushrods-in")
        self.build.enter("step_opened", step="head-on", reason="the gasket was the wrong one")
        status = {step.key: step.status for step in self.build.state.steps}
        self.assertEqual((status["head-65"], status["head-angle"]), ("open", "open"))
        self.build.done("head-on")
        self.ready("head-65", angle_by=None)
        self.assertEqual(next_question(self.build.state).key, "head-65:1.1.1")

    def test_a_bolt_found_loose_opens_its_own_joint_and_undoes_nothing_else(self):
        self.build = at_the_head("setup")
        self.refused("say how it was found", "bolt", step="head-angle", fastener="7", found="loose")
        self.build.enter("bolt", step="head-angle", fastener="7", found="loose", note="by the click, at 40")
        self.assertEqual(self.build.end_count("Open again: Head bolts to the second stage, middle outward and"), 1)
        status = {step.key: step.status for step in self.build.state.steps}
        self.assertEqual((status["head-angle"], status["pushrods-in"]), ("open", "done"))

    def test_a_step_that_was_done_as_a_whole_before_stays_done(self):
        """Ledgers from before a joint had figures: the step was said to be done, and is."""
        build = Build("wick-1").to("studs")
        words = read_document(words_again(family_copy_with_run("wick-1"), "head"))
        earlier = Build(words)
        earlier.folded = HOUSE.fold(words, build.folded.entries)
        earlier.answer(next_question(earlier.state))
        again = HOUSE.show(HOUSE.fold(build.engine, earlier.folded.entries))
        self.assertEqual(next(step.status for step in again.steps if step.key == "studs"), "done")

    def test_two_rounds_of_a_ring(self):
        build = Build("sorrel-f4").to("case-tight")
        build.answer(next_question(build.state))
        seen = []
        while (question := next_question(build.state)).kind == "pull":
            seen.append((question.stage, question.turn, question.fastener))
            build.answer(question)
        self.assertEqual(seen[12:], [(2, turn, str(n)) for turn in (1, 2) for n in range(1, 13)])


class ReadyTests(PullCase):
    def setUp(self):
        self.build = at_the_head()

    def test_what_is_asked_before_the_first_pull(self):
        ready = {"step": "head-angle", "threads": "oiled", "wrench": "T2", "angle_by": "eye"}
        self.refused("first say how the threads are", "pull", **ANGLED, fastener="1")
        self.refused("by eye is an answer too", "joint_ready", **{**ready, "angle_by": None})
        self.refused("dry the same torque would pull", "joint_ready", AskFirst, **{**ready, "threads": "dry"})
        self.refused("needs the wrench's lever", "joint_ready", **ready, extension_mm=100)
        self.build.enter("joint_ready", **ready)
        self.pull(1)
        self.assertEqual(pull_lines(self.build.folded.states["joints"])[-1].angle_by, "by eye")

    def test_the_wrench_must_be_good_enough(self):
        self.build = at_the_head("head-65")
        ready = {"step": "head-65", "threads": "oiled"}
        self.refused("ends at 25 n·m", "joint_ready", **ready, wrench="T1")
        self.refused("no wrench called t9", "joint_ready", **ready, wrench="T9")
        self.refused("no wrench is named", "joint_ready", AskFirst, **ready)

    def test_a_wrench_out_of_date_or_worn_is_asked_about(self):
        ready = {"step": "head-65", "threads": "oiled", "wrench": "T2"}
        build = at_the_head("head-65")
        for words, what in (("5200 pulls", {"pulls": 5200}), ("ran out on 01 mar 2026", {"due": date(2026, 3, 1)})):
            build.gauges = (*self.build.gauges, WRENCHES[1].model_copy(update=what))
            self.refused(words, "joint_ready", AskFirst, build=build, **ready)
        build.enter("joint_ready", **ready, because="the other is away to be calibrated")

    def test_a_bar_needs_its_check_of_the_day(self):
        bar = Gauge(id="B1", name="bar", kind="bar", resolution=1, expanded_uncertainty=5, least=20, most=120)
        build = at_the_head("head-65")
        ready = {"step": "head-65", "threads": "oiled", "wrench": "B1"}
        build.gauges = (*build.gauges, bar)
        self.refused("check it against a wrench today", "joint_ready", AskFirst, build=build, **ready)
        build.gauges = (*build.gauges, bar.model_copy(update={"checked": build.clock.date()}))
        build.enter("joint_ready", **ready)

    def test_counter_hold_is_named(self):
        build = Build("quern-4").to("bolt-tight")
        ready = {"step": "bolt-tight", "threads": "dry", "wrench": "T2"}
        self.refused("the flywheel pin hold against the wrench", "joint_ready", build=build, **ready)
        build.enter("joint_ready", **ready, held=True)

    def test_an_extension_is_set_and_read_back(self):
        self.ready(lever_mm=400, extension_mm=100)
        self.pull(1, "56")
        self.assertEqual(pull_lines(self.build.folded.states["joints"])[-1].torque_nm, 70.0)


class BadInputTests(PullCase):
    def setUp(self):
        self.build = at_the_head("mains-60")
        self.ready("mains-60", angle_by=None)
        self.first = {"step": "mains-60", "stage": 1, "fastener": "1"}

    def test_a_unit_that_was_meant_otherwise(self):
        typed = {"text": "22", "unit": "N·m"}
        refused = self.refused("did you mean lbf·ft", "pull", AskFirst, **self.first, torque=typed)
        self.assertEqual((refused.field, refused.way_out), ("torque.unit", "reason"))

    def test_figures_that_cannot_be(self):
        for field, words, more in (
            ("torque.text", "not a number", {"torque": {"text": "tight", "unit": "N·m"}}),
            ("torque.text", "above 0", {"torque": {"text": "-30", "unit": "N·m"}}),
            ("unit", "does not measure torque", {"torque": {"text": "30", "unit": "mm"}}),
            ("angle", "only where one is turned", {"angle": "90"}),
            ("before", "more than 0°", {"before": "0"}),
        ):
            with self.subTest(field=field, words=words):
                refused = self.refused(words, "pull", CoreError, **self.first, **more)
                self.assertEqual(refused.field, field)

    def test_two_wrenches_on_one_joint_are_asked_about(self):
        self.build.enter("pull", **self.first, wrench="T2")
        other = WRENCHES[1].model_copy(update={"id": "T8"})
        self.build.gauges = (*self.build.gauges, other)
        self.refused("finish a stage with the one", "pull", AskFirst, **{**self.first, "fastener": "2"}, wrench="T8")

    def test_a_trace_comes_with_its_pull(self):
        kept = keep_trace(pulled("normal", to_nm=30)).model_dump()
        self.build.enter("pull", **self.first, torque={"text": "30", "unit": "N·m"}, trace=kept)
        with self.assertRaises(CoreError):
            self.build.enter("pull", **{**self.first, "fastener": "2"}, trace={**kept, "points": 7})

    def test_a_torque_out_of_its_window_is_kept_and_said(self):
        self.build.enter("pull", **self.first, torque={"text": "33", "unit": "N·m"})
        self.assertIn("above its window of 28.2 to 31.8", self.build.ends()[-1])

    def test_a_joint_whose_fasteners_changed_with_the_revision(self):
        """Pulls of fasteners that are no longer there count no more; the others do."""
        for bolt in range(1, 11):
            self.build.enter("pull", **{**self.first, "fastener": str(bolt)})
        data = family_copy_with_run("quern-4")
        joint = next(one for one in data["joints"] if one["id"] == "mains")
        joint.update(fasteners=8, pattern={"kind": "rows", "columns": 4})
        newer = HOUSE.fold(read_document(data), self.build.folded.entries)
        lines = [line for line in pull_lines(newer.states["joints"]) if line.joint == "Main caps"]
        self.assertEqual([line.fastener for line in lines], [str(n) for n in range(1, 9)])
        self.assertEqual(next_question(HOUSE.show(newer)).key, "mains-60:2.1.1")


def words_again(data, joint_id):
    """A document before one of its joints had figures."""
    plain = {"id": joint_id, "name": "Cylinder studs", "thread": "M8x1.25", "fasteners": 4, "stages": ["10 N·m", "22 N·m"]}
    return {**data, "joints": [plain if joint["id"] == joint_id else joint for joint in data["joints"]]}


class WaitTests(PullCase):
    def test_a_joint_rests_as_long_as_its_book_has_it(self):
        data = family_copy_with_run("wick-1")
        stages = [{"does": "torque", "torque_nm": 10}, {"does": "wait", "minutes": 30}, {"does": "torque", "torque_nm": 22}]
        next(one for one in data["joints"] if one["id"] == "head")["stages"] = stages
        self.build = Build(read_document(data)).to("studs:2.1.all")
        rest = {"step": "studs", "stage": 2, "fastener": "all"}
        self.refused("it has rested 3 minutes of 30", "pull", AskFirst, **rest)
        self.build.clock += timedelta(minutes=30)
        self.build.enter("pull", **rest)
        self.assertEqual(next_question(self.build.state).key, "studs:3.1.1")


class OddJointTests(PullCase):
    """The head of wick 1, four bolts, as other books would have it."""

    def at(self, until, **change):
        data = family_copy_with_run("wick-1")
        next(one for one in data["joints"] if one["id"] == "head").update(change)
        self.build = Build(read_document(data)).to(until)

    def test_words_among_figures_are_done_as_they_say(self):
        self.at(
            "studs:2.1.all", stages=[{"does": "torque", "torque_nm": 10}, "Tap each with a mallet", {"does": "torque", "torque_nm": 22}]
        )
        question = next_question(self.build.state)
        self.assertEqual((question.ask.split(": ")[1], question.asks_torque), ("tap each with a mallet", False))
        self.build.enter("pull", step="studs", stage=2, fastener="all")
        self.assertEqual(next_question(self.build.state).key, "studs:3.1.1")

    def test_one_bolt_to_its_end_before_the_next(self):
        stages = [{"does": "hand"}, {"does": "torque", "torque_nm": 10}, {"does": "angle", "angle_deg": 90}]
        self.at("studs:2.1.1", stages=stages, one_after_another=True)
        pull = {"step": "studs", "stage": 2}
        self.refused("bolt 1 is next in the order", "pull", AskFirst, **pull, fastener="2")
        self.build.enter("pull", **pull, fastener="1")
        self.assertEqual(next_question(self.build.state).key, "studs:3.1.1")
        self.refused("tightened to its end before the next", "pull", **pull, fastener="2")
        self.build.enter("pull", step="studs", stage=3, fastener="1")
        self.assertEqual(next_question(self.build.state).key, "studs:2.1.2")
        self.refused("tightened to its end before the next", "pull", step="studs", stage=3, fastener="2")

    def test_a_torque_and_angle_is_judged_at_its_end(self):
        window = {"torque_nm": 10, "angle_deg": 90, "least_nm": 25, "most_nm": 40}
        self.at("studs:1.1.1", stages=[{"does": "torque_angle", **window}])
        self.build.enter("pull", step="studs", stage=1, fastener="1", torque={"text": "20", "unit": "N·m"})
        self.assertIn("ended at 20 N·m, below its window of 25 to 40", self.build.ends()[-1])

    def test_an_angle_that_nobody_knows_is_turned_and_not_judged(self):
        self.at("studs:2.1.1", stages=[{"does": "torque", "torque_nm": 10}, {"does": "angle", "angle_deg": None}])
        self.assertIn("no angle is known", next_question(self.build.state).ask)
        self.build.enter("pull", step="studs", stage=2, fastener="1", angle="70")
        self.assertEqual(HOUSE.tape_line(self.build.folded.entries[-1], None).value, "an angle, none known · turned 70°")
        self.assertEqual(self.build.state.joints.joint.flagged, [])

    def test_one_bolt_is_one_answer(self):
        stages = [{"does": "hand"}, {"does": "torque", "torque_nm": 22, "quoted": [{"value": 16.2, "unit": "lbf·ft"}]}]
        self.at("studs", stages=stages, fasteners=1, pattern=None)
        question = next_question(self.build.state)
        self.assertEqual([(one.does, one.book and one.book.text) for one in question.pulls], [("hand", None), ("torque", "16.2")])
        ready = {"step": "studs", "threads": question.threads or "dry", "wrench": "T1"}
        shown = {"stage": 2, "torque": {"text": "0", "unit": "N·m"}}
        refused = self.refused("a torque is above 0", "joint_ready", **ready, pulls=[{"stage": 1}, shown])
        self.assertEqual(refused.field, "pulls.1.torque.text")
        self.refused("not pulled at once", "joint_ready", **ready, pulls=[shown])
        self.refused("how threads and heads are left", "joint_ready", **{**ready, "threads": None}, pulls=[])
        self.build.enter("joint_ready", **ready, pulls=[{"stage": 1}, {"stage": 2}])
        self.assertNotEqual(self.build.state.current, "studs")
        self.build.enter("strike", strikes=str(self.build.folded.entries[-1].id), reason="the other engine")
        self.assertEqual(self.build.state.current, "studs")


class DocumentTests(unittest.TestCase):
    def faults(self, **change):
        data = family_copy_with_run("wick-1")
        joint = next(one for one in data["joints"] if one["id"] == "head")
        joint.update(change)
        try:
            return [fault.sentence for fault in doubts_of(read_document(data))]
        except DocumentError as error:
            return [fault.sentence for fault in error.faults]

    def test_what_a_joint_cannot_say(self):
        torque = {"does": "torque", "torque_nm": 22}
        for words, change in (
            ("an angle is turned from something", {"stages": [{"does": "angle", "angle_deg": 90}]}),
            ("said is for said alone", {"stages": [{**torque, "said": "oil it"}]}),
            ("a stage that does said needs said", {"stages": [{"does": "said"}, torque]}),
            ("needs angle_deg", {"stages": [torque, {"does": "angle"}]}),
            ("from least to most", {"stages": [{**torque, "least_nm": 25}]}),
            ("names every fastener once", {"order": ["1", "2", "3", "3"]}),
            ("do not hold 4", {"pattern": {"kind": "rows", "columns": 1}}),
            ("no thread known", {"thread": "8 mm"}),
            ("there is no fastener 9", {"stages": [{**torque, "other": [{"fasteners": ["9"], "torque_nm": 5}]}]}),
            ("does not reach through", {"length_mm": 100}),
            ("ask which is meant", {"stages": [{**torque, "quoted": [{"value": 14, "unit": "lbf·ft"}]}]}),
            ("differs by 111 %", {"stages": [{"does": "torque", "torque_nm": 40, "quoted": [{"value": 14, "unit": "lbf·ft"}]}]}),  # by hand
            ("past yield even with the most friction", {"stages": [{"does": "torque", "torque_nm": 90}]}),
        ):
            with self.subTest(words=words):
                self.assertIn(words, " ".join(self.faults(**change)))

    def test_figures_that_were_rounded_in_each_unit_are_no_conflict(self):
        """By hand: 10 N·m is 7.38 lbf·ft, which a book writes as 7; 22 N·m is never 14."""
        for value, unit, torque in ((7, "lbf·ft", 10), (16, "lbf·ft", 22), (195, "lbf·in", 22)):
            stages = [{"does": "torque", "torque_nm": torque, "quoted": [{"value": value, "unit": unit}]}]
            with self.subTest(value=value, unit=unit):
                self.assertEqual(self.faults(stages=stages), [])

    def test_what_is_sound_has_no_faults(self):
        self.assertEqual(self.faults(), [])
        self.assertEqual(self.faults(rule="round"), [])
