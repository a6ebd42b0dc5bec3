"""Where banks stand behind the drive: at their angles from the crank, their decks as far as stroke, rod and crown reach."""

import math
from unittest import TestCase

from gurvo_core.drive.banks import CROWN, WALL, drawn_banks
from tests.engines import family_with_run


class BankTests(TestCase):
    def test_a_deck_is_square_to_its_banks_axis_and_as_far_as_the_piston_goes(self):
        for code in ("quern-4", "corrie-v6", "brae-v8", "tarn-f4"):
            document = family_with_run(code)
            for bank, drawn in zip(document.banks, drawn_banks(document), strict=True):
                train = bank.cranktrain
                _, left, right, _ = ((corner.x_mm, corner.y_mm) for corner in drawn.outline)
                x, y = (left[0] + right[0]) / 2, (left[1] + right[1]) / 2
                turned = math.degrees(math.atan2(x, y)) - bank.axis_deg  # clockwise from straight up
                self.assertAlmostEqual(math.remainder(turned, 360), 0, delta=0.2)
                self.assertAlmostEqual(math.hypot(x, y), train.stroke_mm / 2 + train.rod_mm + CROWN * train.bore_mm, delta=0.2)
                self.assertAlmostEqual(math.dist(left, right), 2 * WALL * train.bore_mm, delta=0.2)

    def test_what_is_not_known_is_not_drawn(self):
        self.assertEqual(drawn_banks(family_with_run("heath-4")), [])
