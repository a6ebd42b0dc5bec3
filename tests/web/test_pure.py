"""The web's pure modules, each held to figures from outside it; run by Node, told here test by test."""

import re
import subprocess
import unittest
from pathlib import Path


class PureModulesTests(unittest.TestCase):
    def test_every_one_of_them(self):
        ran = subprocess.run(["node", Path(__file__).with_name("run.mjs")], capture_output=True, text=True, check=False)
        told = re.findall(r"^ *(not ok|ok) \d+ - (.+)$", ran.stdout, re.M)
        self.assertGreater(len(told), 15, ran.stdout + ran.stderr)
        for how, name in told:
            with self.subTest(name):
                self.assertEqual(how, "ok", ran.stdout)
        self.assertEqual(ran.returncode, 0, ran.stderr)
