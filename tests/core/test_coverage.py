"""The stated uncertainty is honest: a few cells of the table that the benchmark prints in full."""

import unittest

from benchmarks.coverage import AIM, WITHIN, share_within

SESSIONS = 800
CHANCE = 1.6  # two standard deviations of a share of 95 % in so many sessions, on top of what is allowed
CELLS = (
    ("positive stop", "tractor", 1.0, 6),
    ("positive stop", "railcar", 0.25, 1),
    ("equal drops", "railcar", 0.5, 6),
    ("fit", "sprayer", 1.0, 2),
    ("at the top", "tractor", 0.5, 2),
    ("three stops", "sprayer", 0.25, 1),
    ("four drops", "tractor", 0.25, 2),
    ("a cam's lift", "railcar", 0.25, 2),
)


class CoverageTests(unittest.TestCase):
    def test_the_truth_lies_within_the_stated_u_in_nineteen_cases_of_twenty(self):
        """Property: 95 % within 2, on seeded sessions with a wheel off centre: more depths and more points do not divide that down."""
        for cell in CELLS:
            with self.subTest(cell=cell):
                self.assertAlmostEqual(share_within(*cell, sessions=SESSIONS), AIM, delta=WITHIN + CHANCE)
