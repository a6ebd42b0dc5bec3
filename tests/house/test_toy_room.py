"""A room can be added with no line changed outside it: entries, questions, loose ends, API and record follow by themselves."""

import os
import subprocess
import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).parents[2]


class ToyRoomTests(unittest.TestCase):
    runs_long = True

    def test_one_more_room_works_everywhere_without_a_line_changed(self):
        command = [sys.executable, ROOT / "server" / "manage.py", "test", "--noinput", "--top-level-directory", ROOT]
        env = {**os.environ, "DJANGO_SETTINGS_MODULE": "tests.house.toy_settings"}
        run = subprocess.run([*command, "tests.house.toy_walk"], env=env, capture_output=True, text=True, check=False)
        self.assertEqual(run.returncode, 0, run.stdout + run.stderr)
        self.assertIn("6 passed", run.stdout + run.stderr)
