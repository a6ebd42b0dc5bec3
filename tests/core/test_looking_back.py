"""How figures lie, against NumPy; and which happenings are worth counting."""

import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.ledger.came_to import spread_of
from gurvo_core.work import HOUSE

FIGURES = st.lists(st.floats(-1000, 1000).map(lambda value: round(value, 4)), min_size=2, max_size=60)


class SpreadTests(unittest.TestCase):
    @given(FIGURES)
    def test_as_numpy_has_it(self, values):
        """numpy: mean, median, std with one degree of freedom taken off, min, max."""
        spread = spread_of(values)
        self.assertAlmostEqual(spread.mean, float(np.mean(values)), delta=1e-6)
        self.assertAlmostEqual(spread.median, float(np.median(values)), delta=1e-9)
        self.assertAlmostEqual(spread.scatter, float(np.std(values, ddof=1)), delta=1e-6)
        self.assertEqual((spread.times, spread.least, spread.most), (len(values), min(values), max(values)))

    def test_one_figure_scatters_not_and_none_is_refused(self):
        self.assertIsNone(spread_of([1.0]).scatter)
        with self.assertRaises(ValueError):
            spread_of([])


class HappeningTests(unittest.TestCase):
    def test_what_undoes_or_decides_is_counted(self):
        counted = {name for name, kind in HOUSE.kinds.items() if kind.happening}
        self.assertLessEqual({"step_opened", "joint_anew", "hard_stop", "pull_decided", "fit_decided", "cam_decision"}, counted)
        self.assertFalse(counted & {"pull", "note", "lift_reading", "step_done"})
