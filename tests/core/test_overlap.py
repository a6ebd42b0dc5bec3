"""Which pistons are high and which valves are open: against the rules by which valves are set on engines of the usual firing orders."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.engine.position import TimingPosition
from gurvo_core.motion.overlap import at_counted, at_crank, at_position, words_of_place
from tests.builds import Build
from tests.engines import family_with_run

# source: common practice; while the one fires the other rocks, its valves between exhaust and intake
ROCKING = {
    (1, 3, 4, 2): {1: 4, 3: 2, 4: 1, 2: 3},
    (1, 2, 4, 3): {1: 4, 2: 3, 4: 1, 3: 2},
    (1, 5, 3, 6, 2, 4): {1: 6, 5: 2, 3: 4, 6: 1, 2: 5, 4: 3},
    (1, 8, 4, 3, 6, 5, 7, 2): {1: 6, 8: 5, 4: 7, 3: 2, 6: 1, 5: 8, 7: 4, 2: 3},
}
# source: common practice for 1-3-4-2 with the first cylinder at firing TDC: these four valves are shut and may be set, the others are not
SHUT_AT_1 = {("intake", 1), ("exhaust", 1), ("intake", 2), ("exhaust", 3)}


def engine(order):
    """An engine of which little more than its firing order is known."""
    base = family_with_run("heath-4")
    bank = base.banks[0].model_copy(update={"cylinders": tuple(sorted(order))})
    return base.model_copy(update={"firing_order": order, "firing_intervals_deg": None, "reference_cylinder": order[0], "banks": (bank,)})


class OrderTests(TestCase):
    def test_while_one_fires_its_partner_rocks(self):
        for order, partners in ROCKING.items():
            document = engine(order)
            for fires, rocks in partners.items():
                here = at_crank(document, document.firing_deg[fires])
                self.assertEqual((here.overlap, here.near_top), ((rocks,), tuple(sorted((fires, rocks)))))

    def test_the_valves_that_may_be_set_are_not_pressed_on(self):
        here = at_crank(engine((1, 3, 4, 2)), 0.0)
        self.assertFalse(SHUT_AT_1 & set(here.pressed))
        self.assertEqual(set(here.pressed), {("exhaust", 2), ("intake", 3)})
        self.assertFalse(here.by_lobes)

    def test_half_way_no_piston_of_a_four_is_near_the_top(self):
        for crank_deg in (90, 270, 450, 630):
            here = at_crank(engine((1, 3, 4, 2)), crank_deg)
            self.assertEqual(here.near_top, ())
            self.assertGreater(here.least_down, 0.5)  # a rod takes the piston below half its stroke at a quarter turn

    @given(st.sampled_from(sorted(ROCKING)), st.floats(0, 720))
    def test_a_whole_turn_on_the_same_pistons_are_high_and_without_the_stroke_nothing_more_is_said(self, order, crank_deg):
        document = engine(order)
        now, later = at_crank(document, crank_deg), at_crank(document, crank_deg + 360)
        self.assertEqual(now.near_top, later.near_top)
        unsure = at_crank(document, crank_deg, is_stroke_known=False)
        self.assertEqual((unsure.near_top, unsure.overlap, unsure.pressed), (now.near_top, (), ()))


class KnownTests(TestCase):
    def test_lobes_that_are_known_say_it_themselves(self):
        document = family_with_run("quern-4")
        here = at_crank(document, 0.0)
        self.assertTrue(here.by_lobes)
        self.assertEqual((here.near_top, here.overlap), ((1, 4), (4,)))
        self.assertFalse(any("firing order alone" in one for one in words_of_place(here)))

    def test_counted_from_a_mark_of_unknown_stroke_the_pistons_alone_are_said(self):
        document = family_with_run("holm-d4")  # cylinder 1 at the top; on which stroke, nobody knows
        self.assertEqual([at_counted(document, deg).near_top for deg in (0, 180, 90)], [(1, 4), (2, 3), ()])
        self.assertEqual(at_counted(document, 0).overlap, ())

    def test_without_a_firing_order_or_an_angle_nothing_is_said(self):
        document = engine((1, 3, 4, 2))
        self.assertIsNone(at_crank(family_with_run("heath-4").model_copy(update={"firing_order": ()}), 0.0))
        self.assertIsNone(at_position(document, TimingPosition(id="p", name="P", kind="offset")))
        self.assertEqual(words_of_place(None), [])

    def test_a_position_is_said_in_words(self):
        document = engine((1, 3, 4, 2))
        tdc = TimingPosition(id="p", name="P", kind="tdc", stroke="overlap")
        said = words_of_place(at_position(document, tdc))
        self.assertIn("Near the top: pistons 1 and 4. A cam that is turned by itself may put a valve on one of them.", said)
        self.assertIn("With the drive laid, cylinder 1 is on overlap: both its valves are off their seats.", said)
        half = TimingPosition(id="h", name="H", kind="offset", after_tdc_deg=90)
        self.assertEqual(len(words_of_place(at_position(document, half))), 1)  # its stroke is not known


class BenchTests(TestCase):
    def test_before_a_head_is_on_no_valve_is_spoken_of(self):
        build = Build("quern-4").to("dots")
        self.assertEqual([one.here for one in build.state.run.positions], [[]])
        self.assertIn("Near the top: pistons 1 and 4.", build.play("").state.run.positions[0].here[0])
