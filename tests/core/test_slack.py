"""What moves when one shaft is turned: rigid limits by hand, and the least movement against a linear program."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog

from gurvo_core.motion.slack import Tie, slack_after, turn_one, turned_by
from gurvo_core.motion.spring import spring_way
from gurvo_core.reading import read_document
from tests.engines import family, family_copy

SLACK = st.floats(0, 40)


@st.composite
def drives(draw):
    """A ring of shafts, as one loop joins them, with a second loop hung on one of them."""
    count = draw(st.integers(2, 6))
    names = [f"s{n}" for n in range(count)]
    ties = [Tie(begins=names[n - 1], ends=names[n], slack_deg=draw(SLACK)) for n in range(count)]
    at = draw(st.sampled_from(names))
    return [*ties, Tie(begins=at, ends="second", slack_deg=draw(SLACK)), Tie(begins="second", ends=at, slack_deg=draw(SLACK))], names


def least_movement(ties, shaft, by_deg):
    """Reference: the smallest movements that keep every run from being longer than it is, by scipy's linear program."""
    names = sorted({name for tie in ties for name in (tie.begins, tie.ends)})
    rows, limits = [], []
    for tie in ties:
        row = [0.0] * len(names)
        row[names.index(tie.ends)] += 1
        row[names.index(tie.begins)] -= 1
        rows.append(row)
        limits.append(tie.slack_deg)
    sign = 1 if by_deg > 0 else -1
    own = (0, None) if by_deg > 0 else (None, 0)
    bounds = [(by_deg, by_deg) if name == shaft else own for name in names]
    found = linprog([sign] * len(names), A_ub=rows, b_ub=limits, bounds=bounds)
    return dict(zip(names, found.x, strict=True))


class TurnTests(unittest.TestCase):
    """Rigid limits."""

    loop = (Tie(begins="cam", ends="crank", slack_deg=18.0), Tie(begins="crank", ends="cam", slack_deg=30.0))

    def test_by_hand_the_crank_takes_up_the_pulled_run_before_the_cam_follows(self):
        self.assertEqual(turn_one(self.loop, "crank", 18.0).moved_deg.get("cam", 0.0), 0.0)
        moved = turn_one(self.loop, "crank", 20.0).moved_deg
        self.assertEqual((moved["cam"], slack_after(self.loop[0], moved), slack_after(self.loop[1], moved)), (2.0, 0.0, 48.0))

    def test_turned_back_it_takes_up_the_other_run(self):
        self.assertEqual(turn_one(self.loop, "crank", -35.0).moved_deg, {"crank": -35.0, "cam": -5.0})

    def test_what_is_held_stops_everything(self):
        turned = turn_one(self.loop, "crank", 90.0, held={"cam"})
        self.assertEqual((turned.moved_deg, turned.stopped_by), ({"crank": 18.0}, "cam"))
        self.assertIsNone(turn_one(self.loop, "crank", 17.0, held={"cam"}).stopped_by)

    @settings(max_examples=60)
    @given(drives(), st.floats(-120, 120).filter(lambda deg: abs(deg) > 0.1))
    def test_the_least_movement_is_that_of_a_linear_program(self, drive, by_deg):
        """Library: scipy's linprog."""
        ties, names = drive
        moved = turn_one(ties, names[0], by_deg).moved_deg
        for name, expected in least_movement(ties, names[0], by_deg).items():
            self.assertAlmostEqual(moved.get(name, 0.0), expected, places=6)

    @given(drives(), st.floats(-120, 120))
    def test_no_run_is_ever_stretched_and_no_slack_is_lost_round_a_loop(self, drive, by_deg):
        """Property: every run keeps at least no slack, and the slack of a whole loop stays what it was."""
        ties, names = drive
        moved = turn_one(ties, names[0], by_deg).moved_deg
        after = [slack_after(tie, moved) for tie in ties]
        self.assertGreaterEqual(min(after), -1e-9)
        self.assertAlmostEqual(sum(after[: len(names)]), sum(tie.slack_deg for tie in ties[: len(names)]), places=6)

    @given(drives(), st.lists(st.floats(-120, 120), min_size=1, max_size=9))
    def test_many_angles_at_once_are_the_same_as_one_by_one(self, drive, angles):
        ties, names = drive
        swept = turned_by(ties, names[0], angles)
        for n, by_deg in enumerate(angles):
            moved = turn_one(ties, names[0], by_deg).moved_deg if by_deg else {}
            self.assertTrue(np.allclose([swept[name][n] for name in swept], [moved.get(name, 0.0) for name in swept]))


class SpringTests(unittest.TestCase):
    """Which way valve springs push."""

    def test_a_cam_is_pushed_off_its_nose_on_the_side_it_stands_on(self):
        """By hand: before the nose the spring turns the cam back, after it on; on the base circle it rests."""
        engine = family("wick-1")
        nose_deg = 360 + engine.camshafts[0].lobes[0].nose_after_overlap_deg
        said = [spring_way(engine, "cam", nose_deg + away) for away in (-40, 40, -350)]
        self.assertEqual(said, [-1, 1, 0])

    def test_the_stronger_springs_of_one_side_decide_and_unknown_ones_do_not(self):
        """By hand: where one closes and the other opens, the stronger springs have their way; of unknown ones nothing is said."""
        data = family_copy("wick-1")
        data["springs"] = [{"valve": "intake", "rate_n_mm": 0.1, "preload_n": 900}, {"valve": "exhaust", "rate_n_mm": 0.1, "preload_n": 50}]
        engine = read_document(data)
        # where both are open, the one closing and the other opening
        angles = [deg for deg in range(300, 420) if spring_way(engine, "cam", deg) == -1]
        self.assertTrue(angles)
        data["springs"].reverse()
        for spring, valve in zip(data["springs"], ("intake", "exhaust"), strict=True):
            spring["valve"] = valve
        turned = read_document(data)
        both = [deg for deg in angles if spring_way(turned, "cam", deg) == 1]
        self.assertTrue(both)
        data["springs"] = []
        self.assertIn(None, [spring_way(read_document(data), "cam", deg) for deg in range(0, 720, 2)])

    def test_without_its_lift_nothing_is_said(self):
        data = family_copy("wick-1")
        for lobe in data["camshafts"][0]["lobes"]:
            lobe.pop("nose_deg", None)
        self.assertIsNone(spring_way(read_document(data), "cam", 0.0))
