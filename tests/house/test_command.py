"""./gurvo itself: one clear sentence when something is missing, quick when nothing changed, backups that are checked."""

import os
import shutil
import socket
import subprocess
import unittest
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import mock

from tools import house

ROOT = Path(__file__).parents[2]


def run(*arguments, **env):
    """Run ./gurvo and return its exit code and what it said."""
    done = subprocess.run([str(ROOT / "gurvo"), *arguments], capture_output=True, text=True, env={**os.environ, **env}, check=False)
    return done.returncode, done.stdout + done.stderr


class OneSentenceTests(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(TemporaryDirectory()))

    def path_with(self, *programs):
        """A PATH that has these programs only."""
        for name in ("dirname", "sh", *programs):
            (self.folder / name).symlink_to(shutil.which(name))
        return str(self.folder)

    def test_no_python(self):
        code, said = run("demo", PATH=self.path_with())
        self.assertEqual((code, said.count("\n")), (1, 1))
        self.assertIn("Python 3.11 or newer is not on this machine", said)

    def test_no_node(self):
        with mock.patch.object(house.shutil, "which", return_value=None), self.assertRaisesRegex(house.CannotError, "install Node 20"):
            house.ensure_node()

    def test_an_old_node(self):
        old = mock.Mock(stdout="v18.19.0\n")
        with (
            mock.patch.object(house.subprocess, "run", return_value=old),
            self.assertRaisesRegex(house.CannotError, "Node 18.19.0 is too old"),
        ):
            house.ensure_node()

    def test_a_port_in_use(self):
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            code, said = run("demo", "--port", str(port))
        self.assertEqual(code, 1)
        self.assertIn(f"port {port} is in use", said)

    def test_a_folder_that_cannot_be_written(self):
        blocked = self.folder / "file"
        blocked.touch()
        code, said = run("demo", "--port", "0", GURVO_VAR=str(blocked / "var"))
        self.assertEqual((code, said.count("\n")), (1, 1))
        self.assertIn("cannot be written", said)

    def test_missing_packages_without_the_right_to_install_them(self):
        with mock.patch.object(house.os, "geteuid", return_value=1000), self.assertRaisesRegex(house.CannotError, "apt-get install libx"):
            house.ensure_packages(["libx"], "Printing")

    def test_an_unknown_command_lists_what_there_is(self):
        code, said = run("fly")
        self.assertEqual(code, 2)
        for command in ("demo", "serve", "test", "lint", "benchmark", "screenshots", "backup", "restore", "rehearse", "verify", "torture"):
            self.assertIn(command, said)


class StampTests(unittest.TestCase):
    def test_what_is_up_to_date_is_left_alone(self):
        with TemporaryDirectory(dir=ROOT / "var") as folder, mock.patch.object(house, "VAR", Path(folder)):
            house.ensure_var()
            source = Path(folder) / "source.txt"
            source.write_text("one")
            before = house.digest([source])
            house.stamp("thing", before)
            self.assertTrue(house.is_fresh("thing", house.digest([source]), source))
            source.write_text("two")
            self.assertFalse(house.is_fresh("thing", house.digest([source]), source))
            source.unlink()
            self.assertFalse(house.is_fresh("thing", before, source))

    def test_the_secret_key_is_made_once_and_is_nobody_elses(self):
        with TemporaryDirectory() as folder, mock.patch.object(house, "VAR", Path(folder)):
            first = house.secret_key()
            self.assertEqual(house.secret_key(), first)
            self.assertGreaterEqual(len(first), 64)
            self.assertEqual((Path(folder) / "secret-key").stat().st_mode & 0o077, 0)
