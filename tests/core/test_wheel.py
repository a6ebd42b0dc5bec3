"""The builder's own wheel: every numbering, either way round."""

import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.angles import signed_deg
from gurvo_core.errors import ReadingError
from gurvo_core.timing import DegreeWheel, sides_of, wheel_deg, wheel_figure
from gurvo_core.timing.wheel import HIGHEST

numberings = st.sampled_from(sorted(HIGHEST))
ways = st.sampled_from(["grows", "falls"])


@st.composite
def readings(draw):
    """A figure with up to four decimals that the wheel can show, and a side if it needs one."""
    wheel = DegreeWheel(numbering=draw(numberings), runs=draw(ways))
    steps = draw(st.integers(1, int(HIGHEST[wheel.numbering]) * 10_000 - 1))
    sides = sides_of(wheel.numbering)
    return wheel, float(Decimal(steps) / 10_000), draw(st.sampled_from(sides)) if sides else None


class WheelTests(unittest.TestCase):
    @given(readings())
    def test_reading_and_writing_back_is_exact(self, reading):
        """Property: any figure of any numbering, running either way, comes back to the last digit with its side."""
        wheel, figure, side = reading
        self.assertEqual(wheel_figure(wheel_deg(figure, side, wheel), wheel), (figure, side))

    @given(readings(), st.floats(-5, 5))
    def test_a_little_further_on_is_a_little_further_on(self, reading, further):
        """Property: turning on by a little moves the reading by just that, across every zero and fold."""
        wheel, figure, side = reading
        turned = wheel_deg(figure, side, wheel)
        again = wheel_deg(*wheel_figure(turned + further, wheel), wheel)
        self.assertAlmostEqual(signed_deg(again - turned), further, delta=1e-8)

    def test_a_clockwise_printed_wheel_on_a_clockwise_crank_reads_down(self):
        """By hand: ten degrees past the zero it reads 350."""
        self.assertEqual(wheel_figure(10, DegreeWheel(numbering="0-360", runs="falls")), (350, None))
        self.assertEqual(wheel_deg(350, None, DegreeWheel(numbering="0-360", runs="falls")), 10)

    def test_quarter_wheel_by_hand(self):
        """By hand: 50.5 after BDC is 230.5 past TDC; 30 before BDC is 150; 41.5 before TDC is 318.5."""
        wheel = DegreeWheel(numbering="0-90-0-90-0")
        self.assertEqual(wheel_deg(50.5, "after BDC", wheel), 230.5)
        self.assertEqual(wheel_deg(30, "before BDC", wheel), 150)
        self.assertEqual(wheel_deg(41.5, "before TDC", wheel), 318.5)

    def test_its_highest_figure_is_read_and_none_beyond(self):
        """By hand: half a turn is 180 after TDC, a quarter 90; the fold of a quartered wheel lies there."""
        for numbering, figure, side, turned in (
            ("0-360", 360, None, 0),
            ("0-180-0", 180, "after TDC", 180),
            ("0-90-0-90-0", 90, "after TDC", 90),
            ("0-90-0-90-0", 90, "before BDC", 90),
        ):
            wheel = DegreeWheel(numbering=numbering)
            with self.subTest(numbering=numbering, side=side):
                self.assertAlmostEqual(signed_deg(wheel_deg(figure, side, wheel) - turned), 0)
                self.assertRaises(ReadingError, wheel_deg, figure + 0.1, side, wheel)

    def test_what_a_wheel_cannot_read_is_refused(self):
        tries = [("0-360", 400, None, "text"), ("0-90-0-90-0", 95, "after TDC", "text"), ("0-180-0", 12, None, "side")]
        tries += [("0-180-0", 12, "after BDC", "side"), ("0-360", 12, "after TDC", "side"), ("0-360", -1, None, "text")]
        for numbering, figure, side, field in tries:
            with self.subTest(numbering=numbering, figure=figure, side=side), self.assertRaises(ReadingError) as refused:
                wheel_deg(figure, side, DegreeWheel(numbering=numbering))
            self.assertEqual(refused.exception.field, field)
