"""What was worked out by other rules is known for that, whatever was changed in them."""

import tempfile
import unittest
from pathlib import Path

from gurvo_core.work import RULES_VERSION
from gurvo_core.work.rules_version import FITS_A_COLUMN, rules_version


class RulesVersionTests(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.source = Path(folder.name)
        (self.source / "a").mkdir()
        (self.source / "a" / "rule.py").write_text("LIMIT_MM = 0.05\n")

    def test_a_figure_a_name_or_another_file_makes_another_version(self):
        versions = [rules_version(self.source), rules_version(self.source)]
        (self.source / "a" / "rule.py").write_text("LIMIT_MM = 0.06\n")
        versions.append(rules_version(self.source))
        (self.source / "a" / "rule.py").rename(self.source / "a" / "other.py")
        versions.append(rules_version(self.source))
        (self.source / "b.py").write_text("")
        versions.append(rules_version(self.source))
        self.assertEqual(versions[0], versions[1])
        self.assertEqual(len(set(versions)), 4)

    def test_todays_is_that_of_the_core_and_fits_a_column(self):
        self.assertEqual(rules_version(), RULES_VERSION)
        self.assertTrue(0 <= RULES_VERSION <= FITS_A_COLUMN)
