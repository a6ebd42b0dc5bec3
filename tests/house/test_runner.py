"""Several runners that share one list of tests: each class is run once, by whoever comes first."""

import unittest
from pathlib import Path
from tempfile import TemporaryDirectory

from tests.runner import Shared


class Short(unittest.TestCase):
    def test_one(self):
        """Passes."""

    def test_two(self):
        """Passes."""


class Long(unittest.TestCase):
    runs_long = True

    def test_it(self):
        """Passes."""


class SharedTests(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(TemporaryDirectory()))

    def list_of(self):
        found = [unittest.defaultTestLoader.loadTestsFromTestCase(kind) for kind in (Short, Long)]
        return Shared(unittest.TestSuite(found), self.folder)

    def test_the_long_ones_are_begun_first_and_none_is_run_twice(self):
        one, two = iter(self.list_of()), iter(self.list_of())
        self.assertIsInstance(next(one), Long)
        self.assertEqual([type(test) for test in two], [Short, Short])
        self.assertEqual(list(one), [])

    def test_all_are_counted_that_were_run(self):
        result = unittest.TestResult()
        self.list_of().run(result)
        self.list_of().run(result)
        self.assertEqual((result.testsRun, result.wasSuccessful()), (3, True))
