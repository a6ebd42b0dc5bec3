"""The run of work: whole builds, each rule of loose ends and permission by itself, every way of forgetting something.

What is right here is common practice at the bench, without a published source.
"""

import random
import unittest
from datetime import timedelta

from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from gurvo_core.errors import AskFirst, CoreError, DocumentError, EntryRefused
from gurvo_core.reading import read_document
from gurvo_core.run.job.entries import TurnSeen
from gurvo_core.run.job.off import laid_off
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.engines import CODES, LITTLE_KNOWN, family_copy_with_run, family_with_run


class RunCase(unittest.TestCase):
    def refused(self, words, make, kind=EntryRefused):
        with self.assertRaises(kind) as caught:
            make()
        self.assertIn(words.lower(), str(caught.exception).lower())


class WholeBuildTests(RunCase):
    def test_every_family_is_built_from_receiving_to_hand_over(self):
        for code in (*CODES, LITTLE_KNOWN):
            with self.subTest(code=code):
                build = Build(code).play()
                self.assertTrue(build.state.signed)
                self.assertEqual((build.ends(), {step.status for step in build.state.steps}), ([], {"done"}))
                tape = "\n".join(HOUSE.tape_line(entry, None).title for entry in build.folded.entries)
                self.assertEqual([step.title for step in build.state.steps if step.does == "run" and step.title not in tape], [])

    def test_folding_all_at_once_is_the_same(self):
        build = Build("wick-1").play()
        self.assertEqual(HOUSE.show(HOUSE.fold(build.engine, build.folded.entries)), build.state)

    def test_four_cylinder_engines_have_forty_steps_and_more(self):
        for code in ("quern-4", "tarn-f4", "sorrel-f4", "teasel-4"):
            self.assertGreaterEqual(sum(len(stage.steps) for stage in family_with_run(code).stages), 40, code)

    def test_steps_may_be_done_in_any_order_that_their_needs_allow(self):
        build = Build("wick-1")
        build.done("look", found="good")
        build.done("wire-on")
        self.refused("“Piston to bore” first", lambda: build.done("barrel"))


class WhatComesNextTests(unittest.TestCase):
    def test_after_a_bead_comes_its_own_closing_and_only_then_what_stands_on_it(self):
        build = Build("quern-4").to("cover-bead")
        opening = next_question(build.state)
        self.assertEqual((opening.key, opening.next_step), ("cover-bead", None))
        build.answer(opening)
        closing = next_question(build.state)
        self.assertEqual((closing.key, closing.next_step, closing.button), ("cover-bead", "cover-bolts", "It is closed"))
        build.answer(closing)
        self.assertEqual(next_question(build.state).key, "cover-bolts")

    def test_a_mark_that_is_off_undoes_the_loop_it_is_of_and_no_other(self):
        now = Build("sorrel-f4").to("turn-twice").folded.states["run"]
        marks = {mark.id: mark.wheel for mark in now.document.drive.marks}
        lays = {one.step.loop: one.step.id for one in now.plan.steps if one.step.does == "lay"}
        self.assertGreater(len(lays), 1)
        for stage in now.document.drive.stages:
            own = [mark for mark, wheel in marks.items() if wheel in stage.wheel_ids]
            alone = [mark for mark in own if sum(marks[mark] in other.wheel_ids for other in now.document.drive.stages) == 1]
            for mark in alone:
                seen = TurnSeen(
                    kind="turn_seen", step="turn-twice", stop=1, saw="off", looks=[{"of": mark, "saw": "off", "teeth": 1, "way": "behind"}]
                )
                with self.subTest(mark=mark):
                    self.assertEqual(laid_off(now, seen), (lays[stage.id],))


class ProvenTests(RunCase):
    def test_plates_and_pin_must_go_in_again_and_are_asked_for_one_by_one(self):
        build = Build("brae-v8").to("turn")
        build.turned("turn", 1)
        question = next_question(build.state)
        self.assertEqual([one.of for one in question.looks if one.kind == "tool"], ["crank-pin", "plate-a", "plate-b"])
        self.refused("try plate on the cams of bank b", lambda: build.turned("turn", 2, went_in=["crank-pin", "plate-a"]))
        self.refused("not go in: then they do not meet", lambda: build.turned("turn", 2, off={"of": "plate-a", "saw": "tool"}, saw="meets"))
        build.turned("turn", 2)
        self.assertIn("plate on the cams of bank B", HOUSE.tape_line(build.folded.entries[-1], None).detail)

    def test_the_one_dummy_tensioner_is_moved_over_and_a_plate_is_no_counter_hold(self):
        build = Build("brae-v8").to("wrench-a")
        self.refused("nothing holds", lambda: build.done("clamp-a", angle_by="gauge"))
        self.assertIn("when the bank's own tensioner is in", build.end("Dummy tensioner").until)
        self.refused("take it off there first", lambda: build.enter("thing", thing="dummy", on=True, place="bank B"))

    def test_a_need_may_name_the_place_of_a_thing_and_the_part_it_stands_in_for(self):
        data = family_copy_with_run("brae-v8")
        step = next(step for stage in data["stages"] for step in stage["steps"] if step["id"] == "wrench-a")
        step["needs"].append({"off": "dummy", "place": "bank B"})
        dummy = next(thing for thing in data["things"] if thing["id"] == "dummy")
        dummy["stands_in_for"] = ["tensioner A", "tensioner B"]
        build = Build(read_document(data)).to("wrench-a")
        self.assertIn("when tensioner A is in", build.end("Dummy tensioner").until)
        step["needs"][-1] = {"on": "dummy", "place": "bank B"}
        build = Build(read_document(data)).to("dummy-a")
        build.answer(next_question(build.state))
        self.refused("dummy tensioner is not on, bank B", lambda: build.done("wrench-a"))
        step["needs"][-1] = {"on": "dummy", "place": "bank C"}
        with self.assertRaises(DocumentError) as caught:
            read_document(data)
        self.assertIn("This names place bank C, which is not there", str(caught.exception.faults))

    def test_a_chain_past_its_wear_limit_goes_on_only_if_the_lead_takes_it(self):
        data = family_copy_with_run("quern-4")
        data["drive"]["stages"][0].update(longest_mm=193.5, over_pitches=20)
        build = Build(read_document(data)).to("chain-on")
        self.refused("past the wear limit of 193.5", lambda: build.done("chain-on", slack="tight", pulled="194"), AskFirst)
        self.refused("shorter than 20 pitches of a new one, 190.5 mm", lambda: build.done("chain-on", slack="tight", pulled="180"))
        self.refused("say what is seen", lambda: build.done("chain-on", slack="tight", pulled="191.2"))

    def test_pins_are_counted_with_both_ends_and_a_dog_the_wrong_way_is_refused(self):
        build = Build("mallow-2").to("chain-on")
        question = next_question(build.state)
        self.assertIn("both ends counted", question.fields[0].label)
        self.assertIn("No mark, though it looks like one: dot beside the groove", question.hint)
        self.refused("the book counts 9", lambda: build.done("chain-on", between="8", slack="tight"))
        build.to("pump-on")
        self.refused("take it apart and turn it round", lambda: build.done("pump-on", coupled="other"))
        build.done("pump-on", coupled="right")

    def test_a_bead_closed_too_late_is_laid_anew_or_taken_by_the_lead(self):
        build = Build("brae-v8").to("front-bead")
        build.done("front-bead")
        build.clock += timedelta(minutes=12)
        self.refused("was opened 15 minutes ago and works for 10", lambda: build.done("front-bead"), AskFirst)
        build.done("front-bead", by=LEAD, because="cool shop, still wet")

    def test_permission_says_which_way_and_how_far(self):
        build = Build("brae-v8").to("park")
        self.assertEqual(build.state.permission.way, "back, for “Crank back to the pin, well before TDC of 1” alone")
        build.enter("step_done", step="park", answers={"found_by": "pin"})
        self.assertEqual(build.state.permission.how_far, "no further than where it is parked: crank pinned, 57° before TDC of 1")
        build = Build("wick-1").to("tdc:before")
        self.assertEqual((build.state.permission.way, build.state.permission.how_far), ("either way, gently", "up to the piston stop"))
        self.assertEqual(Build("wick-1").state.permission.way, "", "what may not be turned has no way")


class ForgottenTests(RunCase):
    """Every way of forgetting something that shops tell of: caught by name."""

    def test_a_one_time_bolt_not_confirmed_new(self):
        build = Build("tarn-f4").to("pistons-in")
        build.enter("step_opened", step="lay-out", reason="bolts taken for another engine")
        self.refused("rod bolts not on the bench yet", lambda: build.done("pistons-in"))

    def test_a_missing_part_holds_back_only_what_uses_it(self):
        build = Build("wick-1")
        build.done("new", cam_chain="missing", base_and_head_gaskets="new")
        self.assertEqual(build.ends(), ["Missing: cam chain"])
        build.play("new")  # it is asked for again once nothing else can be done
        self.refused("cam chain not on the bench yet", lambda: build.done("chain-on"))
        build.done("new", cam_chain="new", base_and_head_gaskets="new")
        build.play("wire-off")
        self.assertNotIn("Missing: cam chain", build.ends())

    def test_lifters_not_back_in_their_own_places(self):
        build = Build("quern-4").to("lifters-down")
        self.assertIn("lifters", " ".join(build.ends()))
        build.answer(next_question(build.state))
        self.assertNotIn("Lifters, marked by place: not back in their own places", build.ends())

    def test_a_zip_tie_left_on(self):
        build = Build("tarn-f4").to("tie-off")
        end = build.end("Zip tie")
        self.assertEqual((end.stops_turning, end.until, end.by), (False, "“Zip tie off”", "Della"))
        self.assertEqual((build.state.permission.free, build.state.permission.careful), (True, True))
        self.refused("do not cover: zip tie", lambda: build.done("sump-on"))

    def test_a_lock_plate_left_in(self):
        build = Build("teasel-4").to("plate-out")
        self.assertFalse(build.state.permission.free)
        self.refused("Do not turn: plate between the cams", lambda: build.enter("turn_seen", step="turn", stop=1, saw="meets"))
        self.refused("plate between the cams", lambda: build.done("park", found_by="mark"))

    def test_a_thing_put_on_outside_the_book_is_a_loose_end_too(self):
        build = Build("wick-1").to("bore-fit")
        build.enter("thing", thing="rotor-strap", on=True, note="to hold it while the barrel goes on")
        self.assertFalse(build.state.permission.free)
        build.enter("thing", thing="rotor-strap", on=False)
        self.refused("is not on", lambda: build.enter("thing", thing="rotor-strap", on=False))

    def test_one_holder_with_two_places_is_moved_over(self):
        build = Build("tarn-f4").to("right-pulley")
        self.refused("take it off there first", lambda: build.enter("thing", thing="cam-holder", on=True, place="left cam"))
        self.refused("nothing holds Left camshaft", lambda: build.done("left-pulley"))

    def test_a_lock_for_timing_is_no_counter_hold(self):
        build = Build("teasel-4").to("wheels-tight")
        build.enter("thing", thing="wheel-wrench", on=False)
        build.enter("thing", thing="cam-plate", on=True)
        self.refused("is a lock for timing and may not be pulled against", lambda: build.done("wheels-tight"))

    def test_a_tensioner_not_armed_and_not_proven(self):
        build = Build("tarn-f4").to("pin-pulled")
        self.assertIn("Timing belt: tensioner not armed", build.ends())
        build.to("tensioner-proven")
        self.assertIn("Timing belt: tensioner not proven", build.ends())
        self.refused("tensioner not proven", lambda: build.done("sump-on"))

    def test_caps_left_snug_on_purpose_say_until_when(self):
        build = Build("tarn-f4").to("seals-in")
        end = build.end("Right cam caps")
        self.assertEqual(
            (end.title, end.until), ("Right cam caps: at stage 1 of 2", "left so on purpose until “Right caps to their figure”")
        )

    def test_a_joint_left_finger_tight(self):
        build = Build("wick-1").to("studs")
        self.assertIn("Stud nuts: finger tight", build.ends())

    def test_plugs_left_in(self):
        build = Build("tarn-f4").to("plugs-out")
        self.assertIn("plugs not out and stand not locked yet", build.state.permission.reasons)
        self.refused("plugs not out", lambda: build.done("park-cams", found_by="mark"))

    def test_sealant_left_open_and_not_yet_cured(self):
        build = Build("tarn-f4").to("case-bead")
        build.done("case-bead")
        end = build.end("Sealant open")
        self.assertEqual((end.ends_at - end.at).total_seconds(), 12 * 60)
        build.done("case-bead")
        curing = build.end("Sealant curing")
        self.assertTrue(curing.clears)
        self.assertEqual((curing.ends_at - build.clock).total_seconds(), 60 * 60)

    def test_a_sealant_that_cures_holds_back_what_needs_it_cured(self):
        build = Build("teasel-4").to("oil")
        self.refused("cures for another", lambda: build.done("oil"))

    def test_a_hard_stop_forbids_turning_until_it_is_looked_into(self):
        build = Build("wick-1").to("turn")
        build.enter("turn_seen", step="turn", stop=1, saw="hard_stop")
        self.assertEqual(build.state.permission.title, "Do not turn")
        self.refused("hard stop", lambda: build.enter("turn_seen", step="turn", stop=1, saw="meets"))
        self.assertEqual(next_question(build.state).kind, "hard_stop")
        self.refused("say what it was", lambda: build.enter("hard_stop", found=""))
        build.enter("hard_stop", found="the wire under the chain")
        self.assertTrue(build.state.permission.free)

    def test_marks_that_are_off_hold_back_the_covers_until_they_meet(self):
        build = Build("wick-1").to("turn")
        build.turned("turn", 1, off={"of": "rotor-line", "saw": "off", "teeth": 1, "way": "behind"})
        end = build.end("off by a tooth, behind")
        self.assertIn("Chain over its sprocket", end.until)
        self.assertEqual(next_question(build.state).key, "wire-on")  # what laying it again needs, and then that
        build.to("chain-on")
        build.play("chain-proven")
        self.assertFalse([title for title in build.ends() if "off by" in title])

    def test_marks_not_seen_again_since_the_drive_was_touched(self):
        build = Build("wick-1").to("chain-proven")
        build.enter("step_opened", step="screw", reason="screwed in again")
        build.play("turn")
        self.assertIn("Marks not seen again since the drive was touched", build.ends())

    def test_a_replaced_tensioner_reopens_what_stands_on_it_and_says_by_what(self):
        build = Build("tarn-f4").to("belt-guide")
        build.enter("step_opened", step="tensioner-on", reason="tensioner replaced: it leaked")
        opened = {step.key for step in build.state.steps if step.note == "open again"}
        self.assertGreaterEqual(opened, {"tensioner-on", "pin-pulled", "turn-twice", "tensioner-proven", "belt-proven"})
        question = next(q for step in build.state.steps for q in step.questions if q.key == "pin-pulled")
        self.assertIn("stands on “Tensioner fitted, pin still in”", question.hint)

    def test_a_hold_point_is_signed_by_a_lead_who_did_not_do_it(self):
        build = Build("wick-1").to("closed")
        build.done("closed", by=LEAD)
        self.refused("whoever did a step does not sign it", lambda: build.enter("hold_point", step="closed", by=LEAD))
        self.assertIn("Hold point: Covers looked at", build.ends())
        self.refused("waits for its signature", lambda: build.done("oil"))
        build.enter("hold_point", step="closed", by="Another lead")
        build.done("oil")

    def test_something_not_good_is_replaced_or_holds_back(self):
        build = Build("wick-1")
        self.refused("say what is wrong with it", lambda: build.done("look", found="not_good"))
        build.done("look", found="not_good", reason="a pit on the exhaust lobe")
        self.assertEqual(build.ends(), ["Not good: Cam lobes and rocker faces"])
        build.done("look", found="replaced", reason="another cam")
        self.assertEqual(build.ends(), [])

    def test_a_fit_out_of_its_limits_is_the_leads_to_decide(self):
        build = Build("wick-1").to("bore-fit")
        out = {"piston_clearance": "0.4"}
        self.refused("the lead decides", lambda: build.done("bore-fit", **out), AskFirst)
        self.refused("the lead decides", lambda: build.done("bore-fit", because="old barrel", **out), AskFirst)
        build.done("bore-fit", by=LEAD, because="next oversize is ordered; it runs in an orchard", **out)

    def test_a_miscounted_chain_is_not_laid(self):
        build = Build("tarn-f4").to("belt-on")
        self.refused(
            "the book counts 66.5; you counted 66", lambda: build.done("belt-on", line_crank="63.5", line_left="66", slack="tight")
        )

    def test_a_step_left_out_is_the_leads_with_a_reason(self):
        build = Build("wick-1")
        with self.assertRaisesRegex(CoreError, "Say why"):
            build.enter("step_skipped", step="look", reason="", by=LEAD)
        self.assertTrue(HOUSE.needs_lead(build.folded, HOUSE.read({"kind": "step_skipped", "step": "look", "reason": "x"}, 2)))
        build.enter("step_skipped", step="look", reason="new cam out of its box", by=LEAD)
        self.assertEqual(next(step.note for step in build.state.steps if step.key == "look"), "left out")

    def test_nothing_is_handed_over_with_a_step_open(self):
        build = Build("wick-1").to("start")
        self.refused("2 steps are open, first “Start, idle, listen”", lambda: build.enter("sign_off", by=LEAD))


class BadInputTests(RunCase):
    def test_more_teeth_than_any_wheel_has(self):
        build = Build("wick-1").to("turn")
        most = max(wheel.teeth for wheel in build.engine.drive.wheels)
        off = {"of": "rotor-line", "saw": "off", "way": "ahead"}
        self.refused(f"the largest has {most}", lambda: build.turned("turn", 1, off={**off, "teeth": most + 1}))

    def test_a_stop_seen_by_somebody_else_meanwhile(self):
        build = Build("wick-1").to("turn")
        build.turned("turn", 1)
        self.refused("stop 2 of 2 is next", lambda: build.turned("turn", 1))

    def test_a_step_recorded_from_an_old_screen(self):
        build = Build("wick-1")
        build.done("wire-on")
        self.refused("done already", lambda: build.done("wire-on"))
        self.refused("has no step nowhere", lambda: build.done("nowhere"))

    def test_answers_that_were_not_asked_or_cannot_be(self):
        build = Build("wick-1")
        for answers, field in (
            ({"found": "fine"}, "answers.found"),
            ({"found": "good", "colour": "blue"}, "answers.colour"),
            ({}, "answers.found"),
        ):
            with self.subTest(answers=answers), self.assertRaises(CoreError) as caught:
                build.done("look", **answers)
            self.assertEqual(caught.exception.field, field)

    def test_a_variant_changed_after_parts_were_fitted(self):
        build = Build("quern-4").to("mains-60")
        self.refused("the lead changes it", lambda: build.enter("variant", group="slots", option="one-slot"), AskFirst)
        build.enter("variant", group="slots", option="one-slot", by=LEAD, because="the sprocket was swapped")
        self.assertIn("sprocket-one", {step.key for step in build.state.steps})

    def test_a_done_step_that_a_newer_document_no_longer_has_is_kept_and_said(self):
        build = Build("wick-1").to("studs")
        stages = [stage.model_copy(update={"steps": tuple(s for s in stage.steps if s.id != "look")}) for stage in build.engine.stages]
        newer = build.engine.model_copy(update={"stages": tuple(stages)})
        self.assertEqual(HOUSE.show(HOUSE.fold(newer, build.folded.entries)).run.former, ["look"])


def odd_entries(build, chance):
    """Things that go wrong, or that somebody does on his own."""
    steps = [one.step for one in build.folded.states["run"].plan.steps]
    step, thing = chance.choice(steps).id, chance.choice(build.engine.things)
    return chance.choice(
        [
            {"kind": "step_opened", "step": step, "reason": "undone"},
            {"kind": "thing", "thing": thing.id, "on": chance.random() < 0.5, "place": (thing.places or ("",))[0]},
            {"kind": "turn_seen", "step": "turn", "stop": 1, "saw": chance.choice(["hard_stop", "springy"])},
            {"kind": "turn_seen", "step": "turn", "stop": 1, "saw": "off", "looks": [{"of": "rotor-line", "saw": "less"}]},
            {"kind": "trouble", "step": step, "what": "noise", "note": "ticks"},
            {"kind": "step_done", "step": step, "answers": {}},
            {"kind": "sign_off"},
        ]
    )


class WalkTests(unittest.TestCase):
    @settings(max_examples=8, phases=[Phase.explicit, Phase.reuse, Phase.generate])
    @given(st.integers(0, 10**9))
    def test_no_walk_hands_over_a_loose_end_turns_against_a_pin_or_gets_stuck(self, seed):
        """Property: whatever is entered and refused on the way, in whatever order the needs allow."""
        build, chance = Build("wick-1"), random.Random(seed)
        for _ in range(120):
            state = build.state
            if state.signed:
                self.assertEqual(build.ends(), [])
                return
            stops = any(end.stops_turning for end in state.loose_ends)
            try:
                if chance.random() < 0.2:
                    body = odd_entries(build, chance)
                    build.enter(**body, by=LEAD if body["kind"] == "sign_off" else "Della")
                    self.assertFalse(stops and body["kind"] == "turn_seen")
                else:
                    self.go_on(build, state, chance)
            except CoreError:
                continue
        build.clock = build.clock.replace(year=2027)
        build.play()
        for _ in range(5):  # what somebody put on on his own, no step takes off
            for end in build.state.loose_ends:
                if end.ends_with:
                    build.enter(**end.ends_with)
            build.play()
        self.assertTrue(build.state.signed, [q.blocked for s in build.state.steps for q in s.questions if q.status == "open"])

    def go_on(self, build, state, chance):
        """Answer any question that can be, whatever the order; where there is none, a loose end can be ended."""
        firsts = [next((q for q in step.questions if q.status == "open"), None) for step in state.steps]
        questions = [q for q in firsts if q and not q.blocked and q.kind != "sign_off"]
        if questions or next_question(state):
            build.answer(chance.choice(questions) if questions else next_question(state))
        else:
            build.enter(**next(end.ends_with for end in state.loose_ends if end.ends_with))
