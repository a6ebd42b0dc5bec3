"""Orders against common practice, and what holds for every joint: each fastener once a pass, none more than a stage ahead."""

import unittest
from collections import Counter
from itertools import groupby

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.engine import Joint
from gurvo_core.joints.order import order_of
from gurvo_core.joints.sequence import ALL, items_of, loaded_cylinders, spots_of
from tests.engines import family_with_run, quern_4

RULES = ("middle_outward", "crosswise", "opposing", "round")
STAGES = st.lists(
    st.sampled_from(
        [
            {"does": "hand"},
            {"does": "torque", "torque_nm": 30},
            {"does": "torque", "torque_nm": 50, "passes": 2},
            {"does": "torque_angle", "torque_nm": 20, "angle_deg": 60},
            {"does": "loosen", "angle_deg": 360},
            {"does": "draw_down", "draw": {"turn_deg": 180, "gap_mm": 2}},
            {"does": "wait", "minutes": 10},
        ]
    ),
    min_size=1,
    max_size=6,
)


def circle(count, **more):
    return Joint(id="x", name="Bolts", fasteners=count, pattern={"kind": "circle", "across_mm": 100}, **more)


class PracticeTests(unittest.TestCase):
    def test_ten_bolts_of_a_head_begin_with_the_middle_pair(self):
        """Practice: middle pair first, then outward, the four corners last."""
        joint = Joint(id="x", name="Head", fasteners=10, pattern={"kind": "rows", "columns": 5, "along_mm": 96, "across_mm": 140})
        away = [abs(spot.x_mm) for spot in spots_of(joint)]
        self.assertEqual(away, sorted(away))
        self.assertEqual([away.count(x) for x in (0, 96, 192)], [2, 4, 4])

    def test_four_bolts_of_a_cap_go_crosswise(self):
        """Practice: the second lies across from the first, the fourth across from the third."""
        order = order_of([(0, 0), (40, 0), (40, 30), (0, 30)], "crosswise")
        self.assertEqual(order, [0, 2, 1, 3])

    def test_eight_bolts_of_a_gear_in_opposite_pairs_stepping_round(self):
        """Practice: each pair lies across, each pair one further round than the pair before."""
        spots = spots_of(circle(8, rule="opposing"))
        for first, second in zip(spots[::2], spots[1::2], strict=True):
            self.assertAlmostEqual(first.x_mm + second.x_mm, 0, delta=1e-5)
            self.assertAlmostEqual(first.y_mm + second.y_mm, 0, delta=1e-5)

    def test_a_ring_once_round_and_once_more(self):
        joint = circle(12, rule="round", stages=({"does": "torque", "torque_nm": 47, "passes": 2},))
        keys = [item.key for item in items_of(quern_4(), joint)]
        self.assertEqual(keys, [f"1.{turn}.{n}" for turn in (1, 2) for n in range(1, 13)])

    def test_a_ring_begins_where_the_book_begins(self):
        corners = [{"id": name, "x_mm": x, "y_mm": y} for name, x, y in (("a", 0, 0), ("b", 40, 0), ("c", 40, 30), ("d", 0, 30))]
        joint = Joint(id="x", name="Cover", bolts=corners, rule="round", begins="c")
        self.assertEqual("".join(spot.id for spot in spots_of(joint)), "cdab")

    def test_a_pinned_order_is_kept(self):
        order = ("3", "1", "4", "2")
        self.assertEqual(tuple(spot.id for spot in spots_of(circle(4, order=order))), order)

    def test_caps_are_drawn_down_as_far_as_the_springs_push_them_up(self):
        """Second method: the gap is the largest lobe lift at the parked crank; a turn of M6 closes a millimetre."""
        engine = family_with_run("tarn-f4")
        joint = engine.joint("caps-right")
        lifts = loaded_cylinders(engine, joint)
        rounds = [item for item in items_of(engine, joint) if item.stage == 1]
        self.assertTrue(lifts)
        self.assertEqual(len(rounds), -(-max(lifts.values()) // 1))


class PropertyTests(unittest.TestCase):
    @given(st.lists(st.tuples(st.integers(-50, 50), st.integers(-50, 50)), max_size=24), st.sampled_from(RULES))
    def test_every_fastener_once(self, places, rule):
        """Property: whatever the places, also where several are the same."""
        self.assertEqual(sorted(order_of(places, rule)), list(range(len(places))))

    @given(st.integers(1, 14), STAGES)
    def test_none_is_more_than_a_stage_ahead(self, count, stages):
        """Property: at every moment the stages that any two fasteners have behind them differ by one round at most."""
        joint = circle(count, thread="M8", stages=tuple(stages))
        done = Counter({spot.id: 0 for spot in spots_of(joint)})
        for item in items_of(quern_4(), joint):
            for name in done if item.fastener == ALL else [item.fastener]:
                done[name] += 1
            self.assertLessEqual(max(done.values()) - min(done.values()), 1)
        self.assertEqual(len(set(done.values())), 1)

    @given(st.integers(1, 14), STAGES)
    def test_one_after_another_none_is_begun_while_one_is_half_way(self, count, stages):
        """Property: the same pulls in another order; between what is done to all at once, each fastener's lie side by side."""
        joint, plain = (circle(count, thread="M8", stages=tuple(stages), one_after_another=alone) for alone in (True, False))
        items = items_of(quern_4(), joint)
        self.assertEqual(Counter(items), Counter(items_of(quern_4(), plain)))
        runs = [list(run) for of_all, run in groupby(items, key=lambda item: item.fastener == ALL) if not of_all]
        for run in runs:
            self.assertEqual(len(list(groupby(run, key=lambda item: item.fastener))), len({item.fastener for item in run}))
