"""./gurvo itself: one clear sentence when something is missing, quick when nothing changed, backups that are checked."""

import io
import os
import shutil
import socket
import sqlite3
import subprocess
import unittest
from contextlib import closing, redirect_stdout
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import mock

from tools import backups, house, serving

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
        code, said = run("demo", GURVO_VAR=str(blocked / "var"))
        self.assertEqual((code, said.count("\n")), (1, 1))
        self.assertIn("cannot be written", said)

    def test_missing_packages_without_the_right_to_install_them(self):
        with mock.patch.object(house.os, "geteuid", return_value=1000), self.assertRaisesRegex(house.CannotError, "apt-get install libx"):
            house.ensure_packages(["libx"], "Printing")

    def test_an_unknown_command_lists_what_there_is(self):
        code, said = run("fly")
        self.assertEqual(code, 2)
        for command in ("demo", "serve", "test", "lint", "benchmark", "screenshots", "backup", "restore"):
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


class BackupTests(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(TemporaryDirectory()))
        self.shop = self.folder / "shop.sqlite3"
        self.make(self.shop, "cold shop")
        self.enterContext(redirect_stdout(io.StringIO()))
        self.enterContext(mock.patch.object(house, "VAR", self.folder))

    def make(self, file, text):
        """A small database that looks like Gurvo's."""
        with closing(sqlite3.connect(file)) as database:
            database.execute("CREATE TABLE work_entry (body TEXT)")
            database.execute("INSERT INTO work_entry VALUES (?)", (text,))
            database.commit()

    def text_in(self, file):
        with closing(sqlite3.connect(file)) as database:
            return database.execute("SELECT body FROM work_entry").fetchone()[0]

    def test_a_backup_comes_back(self):
        backups.backup(self.folder / "copy", self.shop)
        with closing(sqlite3.connect(self.shop)) as database:
            database.execute("UPDATE work_entry SET body = 'spoiled'")
            database.commit()
        backups.restore(self.folder / "copy", self.shop)
        self.assertEqual(self.text_in(self.shop), "cold shop")
        self.assertEqual(self.text_in(self.folder / "shop-before-restore.sqlite3"), "spoiled")

    def test_a_backup_is_taken_while_somebody_writes(self):
        with closing(sqlite3.connect(self.shop)) as writer:
            writer.execute("PRAGMA journal_mode=WAL")
            writer.execute("INSERT INTO work_entry VALUES ('not committed')")
            backups.backup(self.folder / "copy", self.shop)
        with closing(sqlite3.connect(self.folder / "copy")) as copy:
            self.assertEqual(copy.execute("SELECT count(*) FROM work_entry").fetchone()[0], 1)

    def test_nothing_is_overwritten(self):
        (self.folder / "copy").touch()
        with self.assertRaisesRegex(house.CannotError, "nothing is overwritten"):
            backups.backup(self.folder / "copy", self.shop)

    def test_there_is_nothing_to_back_up_yet(self):
        with self.assertRaisesRegex(house.CannotError, "no shop database yet"):
            backups.backup(self.folder / "copy", self.folder / "none.sqlite3")

    def test_what_is_no_sound_backup_changes_nothing(self):
        garbage, foreign = self.folder / "garbage", self.folder / "foreign"
        garbage.write_bytes(b"not a database at all" * 100)
        with closing(sqlite3.connect(foreign)) as database:
            database.execute("CREATE TABLE other (x)")
            database.commit()
        torn = self.folder / "torn"
        backups.backup(torn, self.shop)
        torn.write_bytes(torn.read_bytes()[:4096] + b"\xff" * 4096)
        for file, words in (
            (garbage, "not a sound backup"),
            (foreign, "no ledger"),
            (torn, "not a sound"),
            (self.folder / "none", "no file"),
        ):
            with self.subTest(file=file.name), self.assertRaisesRegex(house.CannotError, words):
                backups.restore(file, self.shop)
        self.assertEqual(self.text_in(self.shop), "cold shop")


class KilledServerTests(unittest.TestCase):
    def test_what_was_acknowledged_is_there_after_a_kill(self):
        """A real server on a database of its own is killed without warning right after it answered."""
        import http.cookiejar
        import json
        import time
        import urllib.request
        import uuid

        with TemporaryDirectory() as folder, mock.patch.object(house, "VAR", Path(folder)):
            database = Path(folder) / "demo.sqlite3"
            env = {**os.environ, **serving.load_demo(database)}
            with socket.socket() as free:
                free.bind(("127.0.0.1", 0))
                port = free.getsockname()[1]
            command = [str(house.PYTHON), "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "4"]
            jar = http.cookiejar.CookieJar()
            opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

            def call(path, body=None):
                token = next((cookie.value for cookie in jar if cookie.name == "csrftoken"), "")
                headers = {"Content-Type": "application/json", "X-CSRFToken": token}
                data = json.dumps(body).encode() if body else None
                request = urllib.request.Request(f"http://127.0.0.1:{port}{path}", data, headers)
                return json.load(opener.open(request, timeout=10))

            def start():
                server = subprocess.Popen(command, cwd=ROOT / "server", env=env, stderr=subprocess.DEVNULL, start_new_session=True)
                for _ in range(100):
                    try:
                        call("/api/session")
                        break
                    except OSError:
                        time.sleep(0.1)
                return server

            server = start()
            call("/api/session", {"username": "della", "password": "hillside-builder"})
            note = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "before the lights went out"}}
            call("/api/engines/Q4-0173/entries", note)
            os.killpg(server.pid, 9)
            server.wait()
            server = start()
            try:
                bench = call("/api/engines/Q4-0173")
            finally:
                os.killpg(server.pid, 9)
                server.wait()
            self.assertEqual([line["detail"] for line in bench["tape"]], ["before the lights went out"])
