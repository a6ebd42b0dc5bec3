"""The clearway on the bench: nothing is said before somebody looks; then where all stand, what may be turned, and the way."""

from unittest import TestCase

from gurvo_core.clearway.job.thought import thought_of
from gurvo_core.clocks import read_clock
from gurvo_core.errors import AskFirst, CoreError, EntryRefused
from gurvo_core.ledger import SHAFTS
from gurvo_core.motion.told import clock_of, place_of, told_by
from gurvo_core.walk import next_question
from tests.builds import LEAD, Build
from tests.engines import CODES, family_with_run


def look(build, shaft, place, of="nose-0"):
    """Somebody looks where a shaft stands, and tells its clock position in degrees."""
    clock = clock_of(build.engine, shaft, of, place)
    return build.enter("shaft_seen", shaft=shaft, at={"of": of, "clock": f"{clock:.0f}°"})


def cams_snapped(places=(640, 60, 690, 20)):
    """A V6 with its four cams in and its crank at its mark: nobody has a chain on."""
    build = Build("corrie-v6").to("sec-a")
    for cam, place in zip(("intake-a", "exhaust-a", "intake-b", "exhaust-b"), places, strict=True):
        look(build, cam, place)
    return build


def shaft(build, name):
    return next(one for one in build.state.clearway.shafts if one.shaft == name)


def follow(build, most=12):
    """Goes the proposed way move by move."""
    moves = []
    while (question := next_question(build.state)).kind == "clearway_move" and question.ways and len(moves) < most:
        move = question.ways[0].moves[0]
        moves.append(move)
        build.enter("shaft_turned", shaft=move.shaft, by_deg=move.by_deg, then="stands")
    return moves


class ClockTests(TestCase):
    def test_a_clock_position_as_one_says_it(self):
        for text, deg in (("12", 0), ("3:30", 105), ("half past 7", 225), ("7 o'clock", 210), ("225°", 225), ("10,5 deg", 10.5)):
            self.assertAlmostEqual(read_clock(text).deg, deg, msg=text)
        for text in ("", "13", "half past", "400°", "7:75", "noon"):
            with self.assertRaises(CoreError, msg=text):
                read_clock(text)
        self.assertGreater(read_clock("7").within_deg, read_clock("7:30").within_deg)

    def test_whatever_tells_where_a_shaft_stands_tells_it_back(self):
        told = 0
        for code in CODES:
            document = family_with_run(code)
            for cam in document.camshafts:
                for by in told_by(document, cam.id):
                    for place in (0.0, 123.0, 700.0):
                        back = place_of(document, cam.id, by.of, clock_of(document, cam.id, by.of, place))
                        self.assertAlmostEqual((back - place + 360) % 720 - 360, 0.0, places=6)
                        told += 1
        self.assertGreater(told, 60)


class NobodyLookedTests(TestCase):
    def test_nothing_is_asked_or_said_that_was_not_before(self):
        build = Build("corrie-v6").to("sec-a")
        self.assertEqual(next_question(build.state).kind, "step_done")
        self.assertTrue(all(one.reach is None and not one.rest for one in build.state.clearway.shafts))
        self.assertFalse([end for end in build.ends() if "spring load" in end])
        self.assertIsNone(Build("corrie-v6").to("rods-tight").state.clearway)

    def test_as_long_as_one_camshaft_was_not_looked_at_no_way_is_proposed(self):
        build = Build("corrie-v6").to("sec-a")
        for cam in ("intake-a", "exhaust-a", "intake-b"):
            look(build, cam, 60)
        self.assertEqual((next_question(build.state).kind, build.state.clearway.asks), ("step_done", ["Exhaust cam B"]))


class WhereTests(TestCase):
    def test_each_shaft_says_where_it_stands_and_how_that_is_known(self):
        build = cams_snapped()
        self.assertEqual([one.how for one in build.state.clearway.shafts], ["parked", *["seen"] * 4])
        self.assertIn("snaps", shaft(build, "intake-a").rest)
        self.assertEqual(build.end_count("under spring load"), 3)
        self.assertIn("3 camshafts are under spring load", build.state.permission.reasons)

    def test_once_the_crank_is_not_where_it_was_parked_it_is_said_how_far_it_may_be_turned(self):
        build = cams_snapped()
        build.enter("shaft_seen", shaft="crank", at={"of": "crank-a-mark", "clock": "6:10"})
        self.assertIn("forward at most, then", build.state.permission.how_far)

    def test_seen_from_the_flywheel_it_is_the_other_way_round(self):
        one, other = Build("corrie-v6").to("sec-a"), Build("corrie-v6").to("sec-a")
        one.enter("shaft_seen", shaft="intake-a", at={"of": "in-a-dot", "clock": "2"})
        other.enter("shaft_seen", shaft="intake-a", at={"of": "in-a-dot", "clock": "10", "seen_from": "flywheel"})
        self.assertEqual(*(next(iter(build.folded.facts.get(SHAFTS).told)).place_deg for build in (one, other)))

    def test_a_laid_chain_takes_its_camshafts_along_and_what_was_seen_before_counts_no_more(self):
        build = cams_snapped()
        follow(build)
        build.to("park-b")
        self.assertEqual([one.how for one in build.state.clearway.shafts][:3], ["turned", "laid", "laid"])

    def test_what_is_no_mark_of_it_or_no_clock_position_is_refused_in_a_sentence(self):
        build = Build("corrie-v6").to("sec-a")
        for at, field in (({"of": "ex-a-dot", "clock": "3"}, "at.of"), ({"of": "in-a-dot", "clock": "noon"}, "at.clock")):
            with self.assertRaises(EntryRefused) as refused:
                build.enter("shaft_seen", shaft="intake-a", at=at)
            self.assertEqual(refused.exception.field, field)


class WayTests(TestCase):
    def test_a_bank_that_snapped_is_brought_to_its_marks_move_by_move(self):
        build = cams_snapped()
        moves = follow(build)
        self.assertTrue(moves)
        self.assertTrue(all(move.gap is None or move.gap.gap_mm > 0 for move in moves))
        self.assertEqual(next_question(build.state).key, "sec-a")
        thought = thought_of(build.folded.states["clearway"], build.folded.facts.get(SHAFTS))
        for cam in ("intake-a", "exhaust-a"):
            off = (thought.where.of(cam).place_deg + 360) % 720 - 360
            self.assertLess(abs(off), 3)

    def test_standing_elsewhere_plans_anew(self):
        build = cams_snapped()
        before = next_question(build.state).ways[0]
        look(build, "exhaust-a", 100)
        self.assertNotEqual(next_question(build.state).ways[0], before)

    def test_a_snap_to_somewhere_else_is_gone_on_from(self):
        build = cams_snapped()
        move = next_question(build.state).ways[0].moves[0]
        clock = clock_of(build.engine, move.shaft, "nose-0", 500)
        build.enter("shaft_turned", shaft=move.shaft, by_deg=move.by_deg, then="snapped", at={"of": "nose-0", "clock": f"{clock:.0f}°"})
        self.assertEqual(shaft(build, move.shaft).how, "turned")
        self.assertEqual(next_question(build.state).kind, "clearway_move")
        self.assertTrue(follow(build))

    def test_a_way_may_be_left_with_a_reason_and_the_step_asks_as_it_always_did(self):
        build = cams_snapped()
        with self.assertRaises(EntryRefused):
            build.enter("way_left", step="sec-a", reason="")
        build.enter("way_left", step="sec-a", reason="rockers are out, nothing can meet")
        self.assertEqual(next_question(build.state).kind, "step_done")

    def test_with_a_camshaft_nobody_can_place_any_more_no_way_is_made_up(self):
        build = cams_snapped()
        build.enter("shaft_turned", shaft="exhaust-b", then="snapped")
        self.assertEqual(build.state.clearway.asks, ["Exhaust cam B"])
        self.assertEqual(next_question(build.state).kind, "step_done")


class RefusedTests(TestCase):
    def test_a_turn_that_would_bend_a_valve_is_taken_for_a_reason_alone(self):
        build = cams_snapped()
        far = thought_of(build.folded.states["clearway"], build.folded.facts.get(SHAFTS)).reached
        on = next(one for one in far if one.shaft == "exhaust-a").forward_deg + 20
        with self.assertRaises(AskFirst) as refused:
            build.enter("shaft_turned", shaft="exhaust-a", by_deg=on, then="stands")
        self.assertIn("meets", refused.exception.rule)
        build.enter("shaft_turned", shaft="exhaust-a", by_deg=on, then="stands", because="rockers of cylinder 1 were out")

    def test_a_crank_that_cannot_get_there_is_not_parked_without_a_word(self):
        """Cams wide open at cylinders that come up on the way."""
        build = cams_snapped((470, 0, 240, 120))
        build.enter("shaft_seen", shaft="crank", at={"of": "crank-a-mark", "clock": "3"})
        question = next_question(build.state)
        self.assertEqual(question.kind, "clearway_move")
        clear = thought_of(build.folded.states["clearway"], build.folded.facts.get(SHAFTS))
        self.assertTrue(clear.crank_by(360))

    def test_the_crank_turned_on_the_twin_asks_the_same(self):
        build = cams_snapped()
        for to in ("200", "560"):  # half a turn on: either way something stands in its way
            with self.assertRaises(AskFirst) as refused:
                build.enter("turn", to=to)
            self.assertEqual(refused.exception.field, "to")
        build.enter("turn", to="20")
        crank = shaft(build, "crank")
        self.assertEqual((crank.how, crank.place_deg), ("turned", 20.0))  # and stands there from now on

    def test_looking_for_tdc_on_a_stop_asks_for_camshafts_out_of_the_way_and_a_reading_through_them_for_a_reason(self):
        build = Build("sorrel-f4").to("tdc:method")
        for cam, of in (("cam-left", "left-line"), ("cam-right", "right-line")):
            clock = clock_of(build.engine, cam, of, 630)
            build.enter("shaft_seen", shaft=cam, at={"of": of, "clock": f"{clock:.0f}°"})
        self.assertEqual(next_question(build.state).key, "tdc:way")
        build.enter("way_left", step="tdc", reason="plugs are out, it is felt for")
        while (question := next_question(build.state)).key != "tdc:after":
            build.answer(question)
        with self.assertRaises(AskFirst) as refused:
            build.answer(question)
        self.assertEqual(refused.exception.field, "place")
        self.assertIn("exhaust 2 meets piston 2", refused.exception.rule)

    def test_two_camshafts_on_one_chain_are_turned_as_one(self):
        build = cams_snapped()
        told = build.folded.facts.get(SHAFTS)._replace(laid=frozenset({"secondary-a"}))
        thought = thought_of(build.folded.states["clearway"], told)
        self.assertEqual(thought.where.tied, (("intake-a", "exhaust-a"),))
        self.assertEqual(thought.names["intake-a"], "Intake cam A and exhaust cam A")
        self.assertNotIn("exhaust-a", thought.rests)
        moved = build.folded.states["run"].document.drive.turning_with("exhaust-a", {"secondary-a"})
        self.assertEqual(moved, {"intake-a", "exhaust-a"})

    def test_a_dead_stop_says_what_it_may_have_been(self):
        build = cams_snapped()
        build.enter("shaft_turned", shaft="exhaust-a", by_deg=95, then="dead_stop", at={"of": "nose-0", "clock": "95°"})
        self.assertFalse(build.state.permission.free)
        self.assertTrue(any("exhaust 1 on piston 1" in words for words in build.state.warnings), build.state.warnings)
        self.assertTrue(build.state.clearway.met)


class CapsTests(TestCase):
    def test_while_caps_are_drawn_down_it_is_said_where_each_camshaft_stands_easiest(self):
        build = Build("teasel-4")
        while (state := build.state).current != "caps-8":
            build.answer(next_question(state))
        said = state.clearway.caps
        self.assertEqual([words.partition(" goes")[0] for words in said], ["Intake cam", "Exhaust cam"])
        self.assertEqual(Build("teasel-4").to("plate-in").state.clearway.caps, [])


class MeasuredTests(TestCase):
    def test_a_dial_moves_the_model_of_its_valve_and_less_surely_of_its_like(self):
        build = Build("teasel-4").to("plate-in")
        body = {"camshaft": "intake", "cylinder": 1, "valve": "intake", "how": "dial", "gap": {"text": "3.20", "unit": "mm"}, "gauge": "D2"}
        build.enter("gap_measured", **body)
        (read,) = build.state.clearway.measured
        self.assertEqual((read.name, read.how), ("intake 1", "dial"))
        self.assertLess(read.least_mm, 3.2)
        thought = thought_of(build.folded.states["clearway"], build.folded.facts.get(SHAFTS))
        shut = {one.name: one.shut_mm for one in thought.ground.valves}
        self.assertAlmostEqual(shut["intake 1"].value, 3.2)
        self.assertAlmostEqual(shut["intake 3"].value, 3.2)
        self.assertLess(shut["intake 1"].u, shut["intake 3"].u)
        self.assertAlmostEqual(shut["exhaust 1"].value, 4.4)

    def test_clay_is_the_least_in_turning_over(self):
        by_clay, by_dial = Build("teasel-4").to("plate-in"), Build("teasel-4").to("plate-in")
        own = {"camshaft": "exhaust", "cylinder": 2, "valve": "exhaust"}
        by_dial.enter("gap_measured", **own, how="dial", gap={"text": "4.40", "unit": "mm"})
        least = by_dial.state.clearway.measured[0].least_mm
        by_clay.enter("gap_measured", **own, how="clay", gap={"text": f"{least:.6f}", "unit": "mm"})
        reads = [build.folded.states["clearway"].read["exhaust:2:exhaust:"] for build in (by_clay, by_dial)]
        self.assertAlmostEqual(reads[0].shut_mm.value, reads[1].shut_mm.value, places=5)
        self.assertGreater(reads[0].shut_mm.u, reads[1].shut_mm.u)

    def test_what_lies_near_the_limit_cannot_be_told(self):
        """By hand: wanted 2.0 from the document, U of clay 0.2."""
        build = Build("teasel-4").to("plate-in")
        own = {"camshaft": "exhaust", "cylinder": 1, "valve": "exhaust", "how": "clay"}
        for text, verdict in (("2.30", "in"), ("2.10", "can't tell"), ("1.70", "out")):
            build.enter("gap_measured", **own, gap={"text": text, "unit": "mm"})
            self.assertEqual(build.state.clearway.measured[0].verdict, verdict)

    def test_no_such_valve_and_no_such_figure(self):
        build = Build("teasel-4").to("plate-in")
        own = {"camshaft": "intake", "cylinder": 1, "valve": "intake", "how": "clay"}
        for more, field in (
            ({"camshaft": "exhaust", "gap": {"text": "2", "unit": "mm"}}, "valve"),
            ({"gap": {"text": "-1", "unit": "mm"}}, "gap.text"),
            ({"gap": {"text": "two", "unit": "mm"}}, "gap.text"),
        ):
            with self.assertRaises(EntryRefused) as refused:
                build.enter("gap_measured", **{**own, **more})
            self.assertEqual(refused.exception.field, field)

    def test_a_struck_measurement_leaves_nothing(self):
        build = Build("teasel-4").to("plate-in")
        own = {"camshaft": "intake", "cylinder": 1, "valve": "intake", "how": "dial"}
        build.enter("gap_measured", **own, gap={"text": "3.20", "unit": "mm"})
        build.enter("strike", strikes=str(build.folded.entries[-1].id), reason="wrong cylinder", by=LEAD)
        self.assertEqual(build.state.clearway.measured, [])
