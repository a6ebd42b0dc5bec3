"""Firing order, intervals and throws of common layouts, described as documents."""

import unittest

from gurvo_core.errors import DocumentError
from gurvo_core.motion import cycle_frames
from gurvo_core.reading import read_document
from tests.engines import family, quern_4_copy


def engine_with(order, pins, intervals=None, banks=None):
    """The demo engine's cam and rods on another crank: firing order, pins, uneven intervals and banks' axes if any."""
    data = quern_4_copy()
    cylinders = sorted(order)
    data |= {"firing_order": order, "firing_intervals_deg": intervals, "reference_cylinder": order[0]}
    train = data["banks"][0]["cranktrain"]
    rows = banks or {0: cylinders}
    data["banks"] = [
        {"id": f"b{n}", "name": f"B{n}", "axis_deg": a, "cylinders": c, "cranktrain": train} for n, (a, c) in enumerate(rows.items())
    ]
    data["throws"] = [{"cylinder": number, "throw": number, "pin_deg": pins[number]} for number in cylinders]
    lobes = data["camshafts"][0]["lobes"]
    shapes = {lobe["valve"]: lobe for lobe in lobes}
    data["camshafts"][0]["lobes"] = [{**shape, "cylinder": number} for number in cylinders for shape in shapes.values()]
    return data


class FiringTests(unittest.TestCase):
    def firing(self, *layout):
        return read_document(engine_with(*layout)).firing_deg

    def test_an_inline_six_fires_every_120_degrees(self):
        """Practice: 1-5-3-6-2-4, throws in pairs 120 degrees apart; even firing is 720 / n."""
        pins = {1: 0, 2: 240, 3: 120, 4: 120, 5: 240, 6: 0}
        firing = self.firing([1, 5, 3, 6, 2, 4], pins)
        self.assertEqual(sorted(firing.values()), [n * 120 for n in range(6)])
        self.assertEqual((firing[6], firing[4]), (360, 600))

    def test_an_inline_three_fires_every_240_degrees(self):
        """Practice: 1-3-2; throws at 0, 120 and 240: there is no place with all pistons far down."""
        firing = self.firing([1, 3, 2], {1: 0, 3: 120, 2: 240})
        self.assertEqual(firing, {1: 0, 3: 240, 2: 480})
        frames = cycle_frames(read_document(engine_with([1, 3, 2], {1: 0, 3: 120, 2: 240})))
        highest = frames.drop_mm.min(axis=0)
        self.assertLess(highest.max(), 86 / 2)

    def test_a_single_fires_once_in_two_turns(self):
        self.assertEqual(self.firing([1], {1: 0}), {1: 0})

    def test_an_uneven_twin_has_its_intervals_written_out(self):
        """By hand: two cylinders in a row with pins 90 degrees apart: 270 then 450."""
        self.assertEqual(self.firing([1, 2], {1: 0, 2: 90}, [270, 450]), {1: 0, 2: 270})

    def test_intervals_that_do_not_fit_are_refused(self):
        tries = {
            "firing_intervals_deg": engine_with([1, 2], {1: 0, 2: 90}, [270, 400]),
            "throws.1.pin_deg": engine_with([1, 2], {1: 0, 2: 90}, [360, 360]),
            "firing_order.0": engine_with([2, 1], {1: 0, 2: 0}),
        }
        for path, data in tries.items():
            with self.subTest(path=path), self.assertRaises(DocumentError) as refused:
                read_document(data)
            self.assertIn(path, [fault.path for fault in refused.exception.faults])

    def test_a_60_degree_v6_fires_evenly_with_pins_split_by_60(self):
        """Practice: even firing is 720 / n = 120; the rods of one throw stand 60 degrees apart."""
        pins = {1: 0, 2: 300, 3: 120, 4: 60, 5: 240, 6: 180}
        firing = self.firing([1, 2, 3, 4, 5, 6], pins, None, {-30: [1, 3, 5], 30: [2, 4, 6]})
        self.assertEqual(list(firing.values()), [n * 120 for n in range(6)])

    def test_a_90_degree_v6_fires_evenly_with_pins_split_by_30(self):
        """Practice: 90 degrees between the banks, 120 between firings: the pins of one throw are split by 30."""
        pins = {1: 0, 2: 330, 3: 120, 4: 90, 5: 240, 6: 210}
        firing = self.firing([1, 2, 3, 4, 5, 6], pins, None, {-45: [1, 3, 5], 45: [2, 4, 6]})
        self.assertEqual(firing[2], 120)

    def test_a_90_degree_v_twin_on_one_pin_fires_270_and_450(self):
        """Practice: cylinder 2 follows by the angle of the V, a turn later where that is its firing turn."""
        self.assertEqual(self.firing([1, 2], {1: 0, 2: 0}, [450, 270], {-45: [1], 45: [2]}), {1: 0, 2: 450})
        with self.assertRaises(DocumentError):
            self.firing([1, 2], {1: 0, 2: 0}, [360, 360], {-45: [1], 45: [2]})

    def test_a_90_degree_v8_with_a_cross_crank_fires_every_90_degrees(self):
        """Practice: throws at 0, 90, 270, 180; two rods a throw; 720 / 8 = 90."""
        order = [1, 8, 4, 3, 6, 5, 7, 2]
        axis = {number: (45 if number % 2 else -45) for number in order}
        pins = {number: (axis[number] - axis[1] - 90 * order.index(number)) % 360 for number in order}
        self.assertEqual({pins[1], pins[2]}, {0})
        firing = self.firing(order, pins, None, {45: [1, 3, 5, 7], -45: [2, 4, 6, 8]})
        self.assertEqual(sorted(firing.values()), [n * 90 for n in range(8)])
        shared = [{pins[a], pins[a + 1]} for a in (1, 3, 5, 7)]
        self.assertTrue(all(len(pair) == 1 for pair in shared), shared)

    def test_opposed_pistons_of_a_flat_four_are_at_the_top_together(self):
        """Practice: pins of an opposed pair half a turn apart; one fires while the other is at overlap."""
        document = family("tarn-f4")
        self.assertEqual(document.firing_deg, {1: 0, 3: 180, 2: 360, 4: 540})
        drops = cycle_frames(document).drop_mm
        self.assertAlmostEqual(abs(drops[0] - drops[1]).max(), 0, places=9)

    def test_a_counter_clockwise_crank_meets_its_banks_the_other_way_round(self):
        """Property: seen in a mirror, the same engine: axes change sides, pins and firing stay."""
        pins = {1: 0, 2: 300, 3: 120, 4: 60, 5: 240, 6: 180}
        data = engine_with([1, 2, 3, 4, 5, 6], pins, None, {30: [1, 3, 5], -30: [2, 4, 6]})
        data["running_direction"] = "counter-clockwise"
        self.assertEqual(read_document(data).firing_deg[2], 120)

    def test_every_piston_is_at_the_top_when_it_fires_and_one_turn_later(self):
        """Property: whatever the layout."""
        for order, pins in (([1, 3, 4, 2], {1: 0, 2: 180, 3: 180, 4: 0}), ([1, 3, 2], {1: 0, 3: 120, 2: 240}), ([1], {1: 0})):
            document = read_document(engine_with(order, pins))
            frames = cycle_frames(document)
            for row, cylinder in enumerate(frames.cylinders):
                fires = int(document.firing_deg[cylinder])
                with self.subTest(order=order, cylinder=cylinder):
                    self.assertAlmostEqual(frames.drop_mm[row, fires], 0, places=9)
                    self.assertAlmostEqual(frames.drop_mm[row, (fires + 360) % 720], 0, places=9)
