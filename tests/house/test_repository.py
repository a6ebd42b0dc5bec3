"""The repository keeps its own promises: lock files, README, generated files, layering."""

import importlib
import json
import pkgutil
import re
import subprocess
import unittest
from pathlib import Path

import benchmarks

ROOT = Path(__file__).parents[2]


def tracked(*patterns):
    said = subprocess.run(["git", "ls-files", "-co", "--exclude-standard", *patterns], cwd=ROOT, capture_output=True, text=True, check=True)
    return [ROOT / name for name in said.stdout.splitlines() if (ROOT / name).exists()]


class LockTests(unittest.TestCase):
    def locked(self, name):
        """Versions and hashes of a lock, by package."""
        one_a_line = (ROOT / name).read_text().replace("\\\n", " ")
        kept = {}
        for line in one_a_line.splitlines():
            self.assertRegex(line, r"^[a-z0-9-]+==[0-9][\w.]*( ; [^:/]+?)?(\s+--hash=sha256:[0-9a-f]{64})+$")
            kept[line.split("==")[0]] = line.split("==")[1]
        return kept

    def test_python_versions_are_exact_with_their_hashes_and_name_no_address(self):
        self.assertGreater(len(self.locked("requirements.lock")), 20)

    def test_what_checks_stands_on_the_very_versions_that_a_shop_runs(self):
        shop, checks = self.locked("requirements.lock"), self.locked("checks.lock")
        self.assertEqual({name: checks.get(name) for name in shop}, shop)
        self.assertEqual({"playwright", "hypothesis", "mypy"} & set(checks), {"playwright", "hypothesis", "mypy"})
        self.assertFalse({"playwright", "hypothesis", "mypy"} & set(shop))

    def test_npm_versions_are_exact_and_name_no_address(self):
        package = json.loads((ROOT / "web" / "package.json").read_text())
        for version in (package["dependencies"] | package["devDependencies"]).values():
            self.assertRegex(version, r"^\d+\.\d+\.\d+$")
        self.assertNotIn('"resolved"', (ROOT / "web" / "package-lock.json").read_text())

    def test_mantines_packages_are_of_one_version(self):
        package = json.loads((ROOT / "web" / "package.json").read_text())
        versions = {version for name, version in package["dependencies"].items() if name.startswith("@mantine/")}
        self.assertEqual(len(versions), 1)


class ReadmeTests(unittest.TestCase):
    def test_every_file_it_links_is_there_and_every_picture_is_linked(self):
        readme = (ROOT / "README.md").read_text("utf-8")
        for link in re.findall(r"\]\(([^)#:]+)\)", readme):
            with self.subTest(link=link):
                self.assertTrue((ROOT / link).exists())
        for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
            with self.subTest(picture=picture.name):
                self.assertIn(f"docs/screenshots/{picture.name}", readme)


class DocsTests(unittest.TestCase):
    def test_lines_of_text_wrap(self):
        """Rows of tables and pictures cannot, nor can what is fenced."""
        for page in tracked("*.md"):
            fenced = False
            for number, line in enumerate(page.read_text("utf-8").splitlines(), 1):
                fenced ^= line.lstrip().startswith("```")
                if not fenced and not line.lstrip().startswith(("|", "![", "#")):
                    self.assertLessEqual(len(line), 140, (page.name, number))


class WebTests(unittest.TestCase):
    def test_rooms_of_the_web_have_no_untyped_corner(self):
        for file in tracked("web/src/*.ts", "web/src/*.tsx"):
            if file.name == "schema.d.ts":
                continue
            text = file.read_text("utf-8")
            with self.subTest(file=file.name):
                self.assertNotRegex(text, r":\s*any\b|<any>|@ts-ignore|@ts-nocheck")

    def test_whatever_is_used_of_mantine_has_its_style_sheet(self):
        """Second method: the classes that the built scripts name, against those of Mantine's whole sheet and of ours."""
        built, whole = ROOT / "web" / "dist" / "assets", ROOT / "web" / "node_modules" / "@mantine" / "core" / "styles.css"
        named = set(re.findall(r"\bm_[0-9a-f]{6,8}\b", "".join(file.read_text("utf-8") for file in built.glob("*.js"))))
        styled = set(re.findall(r"\.(m_[0-9a-f]{6,8})\b", whole.read_text("utf-8")))
        ours = set(re.findall(r"\.(m_[0-9a-f]{6,8})\b", "".join(file.read_text("utf-8") for file in built.glob("*.css"))))
        self.assertGreater(len(named & styled), 50)
        self.assertEqual(named & styled - ours, set(), "add what they belong to in web/src/app/mantine.ts")

    def test_the_web_reaches_no_address_but_its_own(self):
        for file in tracked("web/src/*.ts", "web/src/*.tsx", "web/src/*.css", "web/index.html"):
            if file.name == "schema.d.ts":
                continue
            with self.subTest(file=file.name):
                self.assertNotRegex(file.read_text("utf-8"), r"https?://(?!www\.w3\.org/)")


class SourcesTests(unittest.TestCase):
    def test_every_source_the_core_cites_is_listed(self):
        """A tag in square brackets behind a source stands in docs/sources.md."""
        listed = set(re.findall(r"^## (\S+)", (ROOT / "docs" / "sources.md").read_text("utf-8"), re.M))
        cited = set()
        for file in tracked("core/*.py"):
            for block in re.findall(r"^ +Source: (.*?)(?:\n\n|>>>|\"\"\")", file.read_text("utf-8"), re.S | re.M):
                cited |= set(re.findall(r"\[([a-z-]+)\]", block))
        self.assertTrue(cited)
        self.assertLessEqual(cited, listed)


class BenchmarkTests(unittest.TestCase):
    def test_every_benchmark_loads(self):
        """They run seldom: what they take from elsewhere must be there when they do."""
        names = [module.name for module in pkgutil.iter_modules(benchmarks.__path__)]
        self.assertGreater(len(names), 15)
        for name in names:
            with self.subTest(name):
                importlib.import_module(f"benchmarks.{name}")
