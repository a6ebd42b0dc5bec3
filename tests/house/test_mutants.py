"""Only what would do something else is changed to try the tests."""

import unittest

from tools.mutants import does_something


class DoesSomethingTests(unittest.TestCase):
    def test_types_signatures_and_decorators_are_left(self):
        for line, column in (
            ("def shim_mm(now_mm: float, *, by: float = 1.0) -> float:", 24),
            ("    @lru_cache(maxsize=64)", 23),
            ("    standard_u: Typed | None = Field(default=None)", 22),
            ("    at: datetime | None", 17),
        ):
            with self.subTest(line):
                self.assertFalse(does_something(line, column))

    def test_what_is_worked_out_is_changed(self):
        for line, column in (
            ("    return shim_now_mm + (lash_mm - wanted_mm) / acts_by", 46),
            ("    stop: int = Field(ge=1, le=64)", 31),
            ("    if low is None or high is None:", 17),
        ):
            with self.subTest(line):
                self.assertTrue(does_something(line, column))
