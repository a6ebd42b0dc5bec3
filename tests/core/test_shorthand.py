"""Lines that a lead types, read and written back in one form; a refusal points at the word."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.engine.joint import JointStage
from gurvo_core.errors import WordRefused
from gurvo_core.units import per_unit
from gurvo_core.writer.shorthand.card import Card, read_card, write_card
from gurvo_core.writer.shorthand.heads import (
    HeadSaid,
    SpringSaid,
    read_base,
    read_friction,
    read_head,
    read_spring,
    write_head,
    write_spring,
)
from gurvo_core.writer.shorthand.lash import LashSaid, read_lash, write_lash
from gurvo_core.writer.shorthand.limits import read_limits, write_limits
from gurvo_core.writer.shorthand.links import LinkSaid, read_links, write_links
from gurvo_core.writer.shorthand.mark import MarkSaid, read_mark, write_mark
from gurvo_core.writer.shorthand.order import read_numbers, read_rows, write_numbers, write_rows
from gurvo_core.writer.shorthand.path import Passed, read_path, write_path
from gurvo_core.writer.shorthand.pattern import Bolts, read_pattern, write_pattern
from gurvo_core.writer.shorthand.sizes import Sizes, read_sizes, write_sizes
from gurvo_core.writer.shorthand.stages import read_stages, write_stages
from gurvo_core.writer.shorthand.valves import read_valves, write_valves

# each sort of line: how it is read and written, what is typed, what that means, and its one form
LINES = (
    (read_numbers, write_numbers, "1 3,4-2", (1, 3, 4, 2), "1-3-4-2"),
    (lambda text: read_rows(text, 2), write_rows, "1,3/2,4", ((1, 3), (2, 4)), "1-3 / 2-4"),
    (
        read_path,
        write_path,
        "Crank,  idler Back > intake",
        (Passed("crank"), Passed("idler", True), Passed("intake")),
        "crank, idler back, intake",
    ),
    (read_limits, write_limits, "0,03 to 0.06", (0.03, 0.06), "0.03-0.06"),
    (read_limits, write_limits, "1-2 thou", (0.0254, 0.0508), "0.0254-0.0508"),
    (read_limits, write_limits, "<0.10", (None, 0.1), "< 0.1"),
    (read_card, write_card, "16/52 54/14 at 1 mm", Card((16, 52), (54, 14), 1.0), "16/52 54/14 at 1.00"),
    (read_card, write_card, "- 54/-3 at 1.27", Card(None, (54, -3), 1.27), "- 54/-3 at 1.27"),
    (read_pattern, write_pattern, "2×5 middle outward", Bolts(10, "rows", 2, "middle_outward"), "2 x 5 middle outward"),
    (read_pattern, write_pattern, "circle of 6", Bolts(6, "circle"), "circle of 6"),
    (read_pattern, write_pattern, "3 pairs round", Bolts(6, "pairs", 2, "round"), "3 pairs round"),
    (read_valves, write_valves, "2+1", (2, 1), "2 + 1"),
    (read_sizes, write_sizes, "86x86 rod 143,5", Sizes(86, 86, 143.5), "86 x 86, rod 143.5"),
    (read_mark, write_mark, "dot to edge at half past 3", MarkSaid("dot", "edge", 105), "dot to edge at 3:30"),
    (read_mark, write_mark, "notch", MarkSaid("notch"), "notch"),
    (read_links, write_links, "Crank 25, intake 8.5, exhaust", (LinkSaid("crank", 25), LinkSaid("intake", 8.5), LinkSaid("exhaust")), None),
    (
        read_head,
        write_head,
        "34 mm at -14° across -17, to piston 4,6 pocket 0",
        HeadSaid(34, -14, -17, 4.6, 0),
        "34 at -14°, across -17, to piston 4.6, pocket 0",
    ),
    (read_head, write_head, "40", HeadSaid(40), "40"),
    (read_spring, write_spring, "220N + 28 N/mm", SpringSaid(220, 28), "220 N + 28 N/mm"),
    (read_spring, write_spring, "220 N+28.5 N/mm, binds at 12", SpringSaid(220, 28.5, 12), "220 N + 28.5 N/mm, binds at 12"),
    (read_lash, write_lash, "0.2-0.3 by shims, hot", LashSaid("shim", (0.2, 0.3), "hot"), "0.2-0.3 by shim, hot"),
)

# lines that cannot be read, the word that is pointed at, and some of what is said of it
WRONG = (
    (read_numbers, "1-3-x-2", "x", "is no cylinder"),
    (read_numbers, "1-3-3-2", "3", "said twice"),
    (lambda text: read_rows(text, 2), "1-2 / 2-3", "2-3", "stands in two rows"),
    (read_path, "crank, , cam", ",", "something is missing"),
    (read_path, "crank, idler, idler", "idler", "passed twice"),
    (read_limits, "0.2-0.1", "0.1", "is less than the least"),
    (read_limits, "0.1-wide", "wide", "is not a number"),
    (read_card, "16/52 54/14", "16/52 54/14", "at which lift"),
    (read_card, "16/52 54 at 1", "54", "is no pair"),
    (read_card, "16/252 54/14 at 1", "252", "more than half a turn"),
    (read_pattern, "0 x 5", "0", "is no number of bolts"),
    (read_valves, "2 + many", "many", "is no number of valves"),
    (read_sizes, "86 x 86, rod 40", "40", "shorter than its crank's throw"),
    (read_base, "0", "0", "no base circle"),
    (read_friction, "1.2", "1.2", "no friction"),
    (read_head, "34 at 75°", "75", "no valve's angle"),
    (read_head, "0 at 3", "0", "no valve's head"),
    (read_spring, "220 N + stiff N/mm", "stiff", "is not a number"),
    (read_mark, "dot to line at 13", "13", "is no clock position"),
    (read_links, "crank 25.3", "25.3", "is no number of links"),
    (read_stages, "30 + 50 zz", "50 zz", "cannot be read"),
    (read_stages, "hand, 30 + 40", "30 + 40", "one torque and one angle"),
)

FIGURES = st.integers(1, 4000).map(lambda n: n / 10)
ONE = st.one_of(
    st.just({"does": "hand"}),
    st.just({"does": "torque"}),
    st.just({"does": "loosen"}),
    st.just("as the old hand had it"),
    FIGURES.map(lambda nm: {"does": "torque", "torque_nm": nm}),
    FIGURES.map(lambda lb: {"does": "torque", "torque_nm": round(lb * per_unit("lbf·ft"), 3), "quoted": [{"value": lb, "unit": "lbf·ft"}]}),
    FIGURES.map(lambda deg: {"does": "angle", "angle_deg": deg}),
    FIGURES.map(lambda deg: {"does": "angle", "angle_deg": deg, "passes": 2}),
    st.tuples(FIGURES, FIGURES).map(lambda pair: {"does": "torque_angle", "torque_nm": pair[0], "angle_deg": pair[1]}),
)


class LinesTests(unittest.TestCase):
    def test_each_is_read_and_written_in_its_one_form(self):
        for read, write, typed, means, form in LINES:
            with self.subTest(typed):
                self.assertEqual(read(typed), means)
                self.assertEqual(write(means), form or typed.lower())
                self.assertEqual(read(write(means)), means)

    def test_a_refusal_points_at_the_word(self):
        for read, typed, word, says in WRONG:
            with self.subTest(typed):
                with self.assertRaises(WordRefused) as refused:
                    read(typed)
                self.assertIn(says, str(refused.exception).lower())
                self.assertEqual(typed[refused.exception.begin : refused.exception.end], word)

    @given(st.text(max_size=60))
    def test_whatever_is_typed_is_read_or_refused(self, typed):
        """Property: no line breaks a reader, and what is pointed at lies within the line."""
        for read in dict.fromkeys([*(one[0] for one in LINES), read_stages]):
            try:
                read(typed)
            except WordRefused as refused:
                self.assertLessEqual(0, refused.begin)
                self.assertTrue(str(refused))


class StagesTests(unittest.TestCase):
    def test_what_the_trade_writes(self):
        cases = {
            "20 + 60 + 90° + 90°": ["20 N·m", "60 N·m", "turn 90°", "turn 90°"],
            "hand, 40, back 180, 27 + 60°": ["finger tight", "40 N·m", "loosen 180°", "27 N·m and 60°"],
            "27 + 60° at once": ["27 N·m and 60°"],
            "40 twice + a quarter turn": ["40 N·m, twice", "turn 90°"],
            "30 + wait 10 min + 45 nm": ["30 N·m", "wait 10 min", "45 N·m"],
            "?": ["generic torque"],
        }
        for typed, words in cases.items():
            with self.subTest(typed):
                self.assertEqual([JointStage.model_validate(stage).words for stage in read_stages(typed)], words)

    def test_foot_pounds_are_kept_as_they_are_quoted(self):
        """NIST SP 811: 1 lbf·ft = 1.355 818 N·m."""
        stage = read_stages("25 lbf·ft")[0]
        self.assertAlmostEqual(stage["torque_nm"], 25 * 1.355818, places=3)
        self.assertEqual(stage["quoted"], [{"value": 25, "unit": "lbf·ft"}])

    @given(st.lists(ONE, min_size=1, max_size=6))
    def test_written_back_and_read_again_they_are_the_same(self, stages):
        """Property: whatever a line can say."""
        self.assertEqual(list(read_stages(write_stages(stages))), stages)

    def test_what_a_line_cannot_say_is_not_written(self):
        for stage in ({"does": "draw_down"}, {"does": "torque", "torque_nm": 20, "least_nm": 18}, {"does": "angle"}):
            self.assertIsNone(write_stages([stage]))
