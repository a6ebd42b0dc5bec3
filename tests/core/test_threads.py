"""Threads and what bolts bear, against printed tables."""

import math
import unittest

from gurvo_core.errors import FigureError
from gurvo_core.joints.strength import proof_load_n
from gurvo_core.joints.thread import read_thread

THREE_FIGURES = 0.0051  # the tables print three figures
IN2_MM2 = 25.4**2

COARSE_MM2 = {5: 14.2, 6: 20.1, 7: 28.9, 8: 36.6, 10: 58.0, 12: 84.3, 14: 115, 16: 157, 18: 192, 20: 245, 22: 303, 24: 353}
FINE_MM2 = {"M8x1": 39.2, "M10x1.25": 61.2, "M10x1": 64.5, "M12x1.25": 92.1, "M12x1.5": 88.1, "M14x1.5": 125, "M16x1.5": 167}
LARGE_FINE_MM2 = {"M18x1.5": 216, "M20x1.5": 272, "M22x1.5": 333, "M24x2": 384}
UNIFIED_IN2 = {
    "1/4-20": 0.0318,
    "1/4-28": 0.0364,
    "5/16-18": 0.0524,
    "5/16-24": 0.0580,
    "3/8-16": 0.0775,
    "3/8-24": 0.0878,
    "7/16-14": 0.1063,
    "7/16-20": 0.1187,
    "1/2-13": 0.1419,
    "1/2-20": 0.1599,
    "5/8-11": 0.226,
    "3/4-10": 0.334,
    "3/4-16": 0.373,
}
PROOF_KN = {
    "8.8": {5: 8.23, 6: 11.6, 8: 21.2, 10: 33.7, 12: 48.9, 14: 66.7, 16: 91.0, 18: 115, 20: 147, 22: 182, 24: 212},
    "10.9": {5: 11.8, 6: 16.7, 8: 30.4, 10: 48.1, 12: 70.0, 14: 95.5, 16: 130, 18: 159, 20: 203, 22: 252, 24: 293},
}


class ThreadTests(unittest.TestCase):
    def near(self, value, printed, within=THREE_FIGURES):
        self.assertLessEqual(abs(value / printed - 1), within, (value, printed))

    def test_metric_stress_areas(self):
        """From memory: ISO 898-1, table of nominal stress areas, coarse and fine."""
        printed = {f"M{size}": area for size, area in COARSE_MM2.items()} | FINE_MM2 | LARGE_FINE_MM2
        for name, area in printed.items():
            with self.subTest(thread=name):
                self.near(read_thread(name).stress_area_mm2, area)

    def test_the_area_by_pitch_and_root_diameter(self):
        """From memory: ISO 898-1 writes it with d2 and d3; both ways agree to the sixth figure of their constants."""
        for size in COARSE_MM2:
            thread = read_thread(f"M{size}")
            root_mm = thread.diameter_mm - 1.226869 * thread.pitch_mm
            written = math.pi / 4 * ((thread.pitch_diameter_mm + root_mm) / 2) ** 2
            self.near(thread.stress_area_mm2, written, 1e-6)

    def test_unified_stress_areas(self):
        """From memory: ASME B1.1, tensile stress areas in square inches."""
        for name, area in UNIFIED_IN2.items():
            with self.subTest(thread=name):
                self.near(read_thread(name).stress_area_mm2 / IN2_MM2, area)

    def test_proof_loads(self):
        """From memory: ISO 898-1, proof loads in kN; printed from rounded areas."""
        for name, loads in PROOF_KN.items():
            for size, load in loads.items():
                with self.subTest(bolt=f"{name} M{size}"):
                    self.near(proof_load_n(name, read_thread(f"M{size}")) / 1000, load, 0.0065)

    def test_what_is_no_thread_is_refused_with_what_would_be(self):
        for text, words in (
            ("10 mm", "write M10x1.25"),
            ("M13", "coarse pitch of M13 is not known"),
            ("M10x9", "too coarse"),
            ("3/8-24 UNC", "16 threads to the inch"),
            ("7/17-14", "no thread known"),
        ):
            with self.subTest(text=text), self.assertRaisesRegex(FigureError, words):
                read_thread(text)

    def test_series_and_threads_to_the_inch_say_the_same(self):
        self.assertEqual(read_thread("3/8 UNF").pitch_mm, read_thread("3/8-24").pitch_mm)
        self.assertEqual(read_thread("1/2").pitch_mm, read_thread("1/2-13 UNC").pitch_mm)
