"""Only what would do something else is changed to try the tests, in a copy in which they run as they do here."""

import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from tools.mutants import copy_house, does_something

LOAD_ALL = """
import unittest, pathlib
names = [".".join(file.with_suffix("").parts) for file in pathlib.Path("tests/core").rglob("test_*.py")]
loader = unittest.TestLoader()
loader.loadTestsFromNames(names)
print(len(names), loader.errors)
"""


class CopyTests(unittest.TestCase):
    def test_every_test_of_the_core_can_be_loaded_in_the_copy(self):
        with tempfile.TemporaryDirectory() as folder:
            copy_house(Path(folder))
            env = {**os.environ, "PYTHONPATH": f"{folder}/core:{folder}"}
            loaded = subprocess.run([sys.executable, "-c", LOAD_ALL], cwd=folder, env=env, capture_output=True, text=True, check=False)
            self.assertRegex(loaded.stdout, r"^\d\d+ \[\]$", loaded.stderr)
            self.assertTrue((Path(folder) / "web" / "src" / "app" / "saying.ts").exists())


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
