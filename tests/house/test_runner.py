"""Several runners that share one list of tests: each class is run once, by whoever comes first."""

import os
import unittest
from contextlib import redirect_stdout
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory

from tests.runner import Shared, counts_of, ended


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
        self.assertEqual(counts_of(result), {"passed": 3, "failed": 0, "skipped": 0})

    def test_a_process_that_breaks_down_has_failed_and_what_it_said_is_not_lost(self):
        said = self.folder / "1.txt"
        said.write_text("three tests in")
        pid = os.fork()
        if not pid:
            os._exit(3)
        with redirect_stdout(StringIO()) as shown:
            self.assertEqual(ended(pid, said), {"failed": 1})
        self.assertEqual(shown.getvalue(), "three tests in\n")
