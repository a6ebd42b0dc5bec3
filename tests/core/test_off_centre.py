"""A wheel off centre, told by two opposite pointers: found, taken off every reading, and said to be as sure as it is."""

import math
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.angles import signed_deg
from gurvo_core.errors import CoreError
from gurvo_core.timing.job.readings import off_of
from gurvo_core.timing.off_centre import off_centre
from tests.engines import SETUP, STOP_IN, Ledger, check, standing, stop, timing

RESOLUTION_DEG = 0.5 / 12**0.5
OFF = st.floats(-3, 3)
FOLDED = {**SETUP, "numbering": "0-180-0"}


def reads(true_deg, sine, cosine):
    """What a wheel shows that sits off centre."""
    return true_deg + sine * math.sin(math.radians(true_deg)) + cosine * math.cos(math.radians(true_deg))


def folded(turned_deg):
    """A figure on a wheel numbered 0-180-0."""
    turned = turned_deg % 360
    return {"text": f"{min(turned, 360 - turned):.3f}", "side": "after TDC" if turned <= 180 else "before TDC"}


def opposite(here, there):
    return {"kind": "wheel_check", "wheel": folded(here), "opposite": folded(there)}


class FitTests(unittest.TestCase):
    @given(OFF, OFF, OFF, st.floats(0, 90), st.integers(3, 8))
    def test_it_is_found_wherever_the_second_pointer_stands(self, sine, cosine, apart, begins, count):
        """Second method: readings made by geometry; what is left after taking it off is less than anybody reads."""
        places = [begins + 360 * n / count for n in range(count)]
        found = off_centre([(reads(at, sine, cosine), reads(at + 180, sine, cosine) + apart) for at in places], RESOLUTION_DEG)
        for at in (0.0, 77.0, 200.0):
            self.assertAlmostEqual(signed_deg(found.true_deg(reads(at, sine, cosine)) - at), 0, delta=0.01)

    def test_its_uncertainty_is_that_of_simulated_readings(self):
        """Second method: four thousand wheels read to half a degree at four places: what is left scatters as it says."""
        chance, left = np.random.default_rng(8), []
        for _ in range(4000):
            zero = chance.uniform(0, 90)
            pairs = [tuple(round(reads(zero + at + half, 0.4, -0.3) / 0.5) * 0.5 for half in (0, 180)) for at in (0, 90, 180, 270)]
            found = off_centre(pairs, RESOLUTION_DEG)
            left.append(found.true_deg(reads(33.0, 0.4, -0.3)) - 33.0)
        self.assertAlmostEqual(float(np.std(left)), off_centre(pairs, RESOLUTION_DEG).u_deg, delta=0.03)

    def test_two_places_or_three_side_by_side_tell_nothing(self):
        for places, tell in (((0, 120), False), ((0, 1, 2), False), ((0, 120, 240), True), ((10, 90, 200, 300), True)):
            with self.subTest(places):
                self.assertEqual(off_centre([(float(at), at + 180.0) for at in places], RESOLUTION_DEG) is not None, tell)


class BenchTests(unittest.TestCase):
    """By hand: a wheel 1.2 degrees off after TDC and before it alike moves a zero found by a stop by what it errs there."""

    def ledger(self, *, checked):
        ledger = Ledger()
        ledger.add(FOLDED)
        for at in (0, 90, 180, 270) if checked else ():
            ledger.add(opposite(reads(at, 0.0, 1.2), reads(at + 180, 0.0, 1.2)))
        ledger.add(STOP_IN)
        ledger.add(stop("before", f"{-reads(-41.0, 0.0, 1.2):.3f}"))
        ledger.add(stop("after", f"{reads(41.0, 0.0, 1.2):.3f}"))
        return ledger

    def test_what_it_errs_is_taken_off_every_reading(self):
        bare, told = (timing(self.ledger(checked=checked)).tdc for checked in (False, True))
        self.assertAlmostEqual(bare.zero_deg, 1.2 * math.cos(math.radians(41)), delta=0.05)
        self.assertAlmostEqual(told.zero_deg, 0, delta=0.05)

    def test_it_is_checked_before_anything_is_read_and_about_opposite(self):
        ledger = Ledger()
        ledger.add(FOLDED)
        for here, there in ((-30, 150.5), (30, 211), (100, 279)):
            check(ledger, opposite(here, there))
        wrong = {**opposite(-30, 150), "opposite": {"text": "300", "side": "after TDC"}}
        for body, words in ((opposite(-30, 40), "from opposite"), (wrong, "no 300")):
            with self.subTest(words), self.assertRaisesRegex(CoreError, words):
                check(ledger, body)
        with self.assertRaisesRegex(CoreError, "set it up anew"):
            check(self.ledger(checked=False), opposite(-30, 150))
        self.assertIsNone(off_of(standing(ledger).states["timing"]))
