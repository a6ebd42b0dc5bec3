"""Firing order, intervals and throws of common layouts, described as documents."""

import unittest

from gurvo_core.engine import read_document
from gurvo_core.errors import DocumentError
from gurvo_core.motion import cycle_frames
from tests.engines import quern_4_copy


def engine_with(order, throws, intervals=None):
    """The demo engine's cam and rods on another crank: firing order, TDC of each cylinder's throw, uneven intervals if any."""
    data = quern_4_copy()
    cylinders = sorted(order)
    data |= {"cylinders": cylinders, "firing_order": order, "firing_intervals_deg": intervals, "reference_cylinder": order[0]}
    data["cranktrain"]["throws"] = [{"cylinder": number, "tdc_deg": throws[number]} for number in cylinders]
    lobes = data["camshafts"][0]["lobes"]
    shapes = {lobe["valve"]: lobe for lobe in lobes}
    data["camshafts"][0]["lobes"] = [{**shape, "cylinder": number} for number in cylinders for shape in shapes.values()]
    return data


class FiringTests(unittest.TestCase):
    def firing(self, *layout):
        return read_document(engine_with(*layout)).firing_deg

    def test_an_inline_six_fires_every_120_degrees(self):
        """Practice: 1-5-3-6-2-4, throws in pairs 120 degrees apart; even firing is 720 / n."""
        throws = {1: 0, 2: 480 % 360, 3: 240, 4: 600 % 360, 5: 120, 6: 0}
        firing = self.firing([1, 5, 3, 6, 2, 4], throws)
        self.assertEqual(sorted(firing.values()), [n * 120 for n in range(6)])
        self.assertEqual((firing[6], firing[4]), (360, 600))

    def test_an_inline_three_fires_every_240_degrees(self):
        """Practice: 1-3-2; throws at 0, 120 and 240: there is no place with all pistons far down."""
        firing = self.firing([1, 3, 2], {1: 0, 3: 240, 2: 120})
        self.assertEqual(firing, {1: 0, 3: 240, 2: 480})
        frames = cycle_frames(read_document(engine_with([1, 3, 2], {1: 0, 3: 240, 2: 120})))
        highest = frames.drop_mm.min(axis=0)
        self.assertLess(highest.max(), 86 / 2)

    def test_a_single_fires_once_in_two_turns(self):
        self.assertEqual(self.firing([1], {1: 0}), {1: 0})

    def test_an_uneven_twin_has_its_intervals_written_out(self):
        """By hand: a 90 degree twin on one pin: 270 then 450."""
        self.assertEqual(self.firing([1, 2], {1: 0, 2: 270}, [270, 450]), {1: 0, 2: 270})

    def test_intervals_that_do_not_fit_are_refused(self):
        tries = {
            "firing_intervals_deg": engine_with([1, 2], {1: 0, 2: 270}, [270, 400]),
            "cranktrain.throws.1.tdc_deg": engine_with([1, 2], {1: 0, 2: 270}, [360, 360]),
            "firing_order.0": engine_with([2, 1], {1: 0, 2: 0}),
        }
        for path, data in tries.items():
            with self.subTest(path=path), self.assertRaises(DocumentError) as refused:
                read_document(data)
            self.assertIn(path, [fault.path for fault in refused.exception.faults])

    def test_every_piston_is_at_the_top_when_it_fires_and_one_turn_later(self):
        """Property: whatever the layout."""
        for order, throws in (([1, 3, 4, 2], {1: 0, 2: 180, 3: 180, 4: 0}), ([1, 3, 2], {1: 0, 3: 240, 2: 120}), ([1], {1: 0})):
            document = read_document(engine_with(order, throws))
            frames = cycle_frames(document)
            for row, cylinder in enumerate(frames.cylinders):
                fires = int(document.firing_deg[cylinder])
                with self.subTest(order=order, cylinder=cylinder):
                    self.assertAlmostEqual(frames.drop_mm[row, fires], 0, places=9)
                    self.assertAlmostEqual(frames.drop_mm[row, (fires + 360) % 720], 0, places=9)
