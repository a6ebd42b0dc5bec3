"""The simulated instruments: resolution, noise and drift as they claim, and one crank for encoder and dial."""

import unittest
from unittest import mock

import numpy as np

from standins.instruments import CRANK, ZERO_DEG, Crank, all_instruments


class StandInTests(unittest.TestCase):
    def setUp(self):
        self.now = 1000.0
        for module in ("standins.instruments.monotonic",):
            patched = mock.patch(module, side_effect=lambda: self.now)
            patched.start()
            self.addCleanup(patched.stop)
        self.instruments = all_instruments()

    def readings(self, name, count=400):
        return np.array([float(self.instruments[name].reading().split(",")[0]) for _ in range(count)])

    def test_what_each_shows_is_in_steps_of_its_resolution(self):
        for name, instrument in self.instruments.items():
            steps = self.readings(name) / instrument.resolution
            with self.subTest(instrument=name):
                np.testing.assert_allclose(steps, np.rint(steps), atol=1e-6)

    def test_noise_is_as_large_as_it_claims(self):
        for name in ("dial", "bore"):
            instrument = self.instruments[name]
            spread = self.readings(name, 2000).std()
            # rounding adds its own twelfth
            claimed = (instrument.noise**2 + instrument.resolution**2 / 12) ** 0.5
            with self.subTest(instrument=name):
                self.assertAlmostEqual(spread / claimed, 1, delta=0.15)

    def test_encoder_and_dial_are_on_one_crank(self):
        """By hand: a quarter of the sweep later both have moved, and the dial shows the drop at the crank's own angle."""
        self.instruments["encoder"].command(["TARGET", "-20", "20"])
        self.now += 2.0
        angle = float(self.instruments["encoder"].reading()) - ZERO_DEG
        drop = float(self.instruments["dial"].reading())
        self.assertAlmostEqual(angle, -20 - ZERO_DEG + 9.0 * 1.2, delta=0.2)
        r, length = CRANK.throw_mm, CRANK.rod_mm
        pin = np.radians(angle)
        expected = r + length - (r * np.cos(pin) + np.sqrt(length**2 - (r * np.sin(pin)) ** 2))
        self.assertAlmostEqual(drop, float(expected), delta=0.03)

    def test_zero_takes_out_what_is_there_and_the_bore_drifts_in_the_hand(self):
        dial, bore = self.instruments["dial"], self.instruments["bore"]
        bore.begun = self.now
        dial.command(["ZERO"])
        self.assertLess(abs(self.readings("dial").mean()), 0.001)
        first = self.readings("bore").mean()
        self.now += 200 * np.pi / 0.4  # whole turns: nothing but the warmth is left
        self.assertAlmostEqual(self.readings("bore").mean() - first, 0.001, delta=0.0003)
        self.assertEqual(bore.unit, "mm")

    def test_the_wrench_pulls_to_what_it_was_told_and_rests(self):
        wrench = self.instruments["wrench"]
        wrench.command(["TARGET", "40", "0"])
        torques = []
        for _ in range(240):
            self.now += 1 / 60
            torques.append(float(wrench.reading().split(",")[0]))
        self.assertAlmostEqual(max(torques), 40, delta=1.0)
        self.assertLess(max(torques[-5:]), 0.5)

    def test_a_crank_turns_no_farther_than_it_was_told(self):
        crank = Crank()
        crank.turn(-10, 10)
        self.now += 60
        self.assertEqual(crank.at_deg, 10)

    def test_what_is_no_command_is_refused(self):
        for words in (["JOINT", "rusty"], ["TARGET", "much"], ["SING"]):
            with self.subTest(words=words), self.assertRaises((ValueError, IndexError)):
                self.instruments["wrench"].command(words)
