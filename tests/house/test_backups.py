"""Backups come back whole or not at all, and only where they belong."""

import hashlib
import io
import json
import os
import random
import shutil
import sqlite3
import subprocess
import unittest
from contextlib import closing, redirect_stdout
from datetime import datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import mock

from tools import backups, house, pictures
from tools.locks import held

FLIPS, SEED = 200, 20261125


class BackupTests(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(TemporaryDirectory()))
        self.shop = self.make("shop.sqlite3", "cold shop")
        self.copy = self.folder / "copy"
        self.enterContext(redirect_stdout(io.StringIO()))
        self.enterContext(mock.patch.object(house, "VAR", self.folder))
        self.enterContext(mock.patch.object(backups, "BACKUPS", self.folder / "backups"))
        self.enterContext(mock.patch.object(backups, "bring_up"))  # tried on a whole database in test_real_server

    def make(self, name, text, shop="one", *, demo=False):
        """A small database that looks like Gurvo's."""
        with closing(sqlite3.connect(self.folder / name)) as database:
            for table in backups.TABLES - {"work_entry", "shop_shop"}:
                database.execute(f"CREATE TABLE {table} (x)")
            database.execute("CREATE TABLE work_entry (body TEXT)")
            database.execute("INSERT INTO work_entry VALUES (?)", (text,))
            database.execute("CREATE TABLE shop_shop (id, is_demo)")
            database.execute("INSERT INTO shop_shop VALUES (?, ?)", (shop, demo))
            database.commit()
        return self.folder / name

    def spoil(self, text="spoiled"):
        with closing(sqlite3.connect(self.shop)) as database:
            database.execute("UPDATE work_entry SET body = ?", (text,))
            database.commit()

    def text_in(self, file):
        with closing(sqlite3.connect(file)) as database:
            return database.execute("SELECT body FROM work_entry").fetchone()[0]

    def refused(self, words, file, **how):
        with self.assertRaisesRegex(house.CannotError, words):
            backups.restore(file, self.shop, **how)

    def test_a_backup_comes_back_and_each_restore_keeps_what_stood_there(self):
        backups.backup(self.copy, self.shop)
        for text in ("spoiled", "spoiled again"):
            self.spoil(text)
            backups.restore(self.copy, self.shop)
            self.assertEqual(self.text_in(self.shop), "cold shop")
        kept = sorted(self.folder.glob("shop-before-restore-*.sqlite3"))
        self.assertEqual([self.text_in(file) for file in kept], ["spoiled", "spoiled again"])
        for file in (self.copy, self.shop, *kept):
            self.assertEqual(file.stat().st_mode & 0o077, 0, file.name)

    def picture(self, content=b"a picture"):
        """A picture in the shop, and an entry that names it."""
        digest = hashlib.sha256(content).hexdigest()
        file = pictures.pictures_of(self.shop) / digest[:2] / f"{digest}.jpg"
        file.parent.mkdir(parents=True, exist_ok=True)
        for name in (file, file.with_suffix(".small.jpg")):
            name.write_bytes(content)
        with closing(sqlite3.connect(self.shop)) as database:
            database.execute("INSERT INTO work_entry VALUES (?)", (json.dumps({"kind": "picture", "digest": digest}),))
            database.commit()
        return file

    def test_pictures_go_with_it_and_come_back_each_once(self):
        files = [self.picture(), self.picture(b"another")]
        self.assertEqual((backups.backup(self.copy, self.shop), backups.backup(self.folder / "later", self.shop)), (0, 0))
        self.assertEqual(len(list(pictures.beside(self.copy).rglob("*.jpg"))), 4)
        shutil.rmtree(pictures.pictures_of(self.shop))
        self.assertEqual(backups.restore(self.copy, self.shop), 0)
        self.assertEqual([file.read_bytes() for file in files], [b"a picture", b"another"])

    def test_one_that_is_missing_or_altered_is_named_and_all_else_is_kept(self):
        for spoil in (lambda file: file.write_bytes(b"altered"), Path.unlink):
            file = self.picture()
            spoil(file)
            self.copy.unlink(missing_ok=True)
            with redirect_stdout(io.StringIO()) as said:
                self.assertEqual(backups.backup(self.copy, self.shop), 1)
            self.assertIn(file.stem[:12], said.getvalue())
            self.assertTrue(self.copy.exists())

    def test_it_is_checked_by_a_tool_that_knows_nothing_of_gurvo(self):
        backups.backup(self.copy, self.shop)
        if shutil.which("sha256sum") is None:
            self.skipTest("sha256sum is not on this machine")
        subprocess.run(["sha256sum", "--check", "--quiet", "copy.sha256"], cwd=self.folder, check=True)

    def test_a_backup_is_taken_while_somebody_writes(self):
        with closing(sqlite3.connect(self.shop)) as writer:
            writer.execute("PRAGMA journal_mode=WAL")
            writer.execute("INSERT INTO work_entry VALUES ('not committed')")
            backups.backup(self.copy, self.shop)
        with closing(sqlite3.connect(self.copy)) as copy:
            self.assertEqual(copy.execute("SELECT count(*) FROM work_entry").fetchone()[0], 1)

    def test_what_stands_in_the_way_is_said(self):
        self.copy.touch()
        with self.assertRaisesRegex(house.CannotError, "nothing is overwritten"):
            backups.backup(self.copy, self.shop)
        with self.assertRaisesRegex(house.CannotError, "no shop database yet"):
            backups.backup(self.copy, self.folder / "none.sqlite3")
        with self.assertRaisesRegex(house.CannotError, "no folder"):
            backups.backup(self.folder / "none" / "copy", self.shop)
        self.refused("no file", self.folder / "none")

    def test_one_altered_bit_is_refused_wherever_it_is(self):
        backups.backup(self.copy, self.shop)
        whole, chance = self.copy.read_bytes(), random.Random(SEED)
        self.spoil()
        for bit in chance.sample(range(len(whole) * 8), FLIPS):
            flipped = bytearray(whole)
            flipped[bit // 8] ^= 1 << bit % 8
            self.copy.write_bytes(flipped)
            self.refused("not a sound backup", self.copy)
        self.assertEqual(self.text_in(self.shop), "spoiled")

    def test_no_seal_and_missing_tables_are_refused(self):
        garbage, bare = self.folder / "garbage", self.folder / "bare"
        garbage.write_bytes(b"not a database at all" * 100)
        with closing(sqlite3.connect(bare)) as database:
            database.execute("CREATE TABLE work_entry (x)")
            database.commit()
        self.refused("garbage.sha256 is not beside it", garbage)
        for file, words in ((garbage, "not a database"), (bare, "it holds no auth_user, engine_revision")):
            backups._seal(file)
            self.refused(words, file)

    def test_another_shops_and_the_demos_are_taken_only_when_somebody_says_so(self):
        for name, shop, demo, words in (("other", "two", False, "of another shop"), ("demo", "one", True, "of the demo")):
            backups.backup(self.folder / f"{name}.copy", self.make(name, name, shop, demo=demo))
            self.refused(words, self.folder / f"{name}.copy")
            self.assertNotEqual(self.text_in(self.shop), name)
            backups.restore(self.folder / f"{name}.copy", self.shop, adopt=True)
            self.assertEqual(self.text_in(self.shop), name)

    def test_a_restore_waits_for_the_server_to_be_stopped(self):
        backups.backup(self.copy, self.shop)
        with held(self.shop, "it is at work"):
            self.refused("in use: stop the server first", self.copy)
        backups.restore(self.copy, self.shop)

    def test_a_restore_waits_for_whoever_has_the_database_open_lock_or_no_lock(self):
        backups.backup(self.copy, self.shop)
        with self.shop.open() as file:
            opened = subprocess.Popen(["sleep", "600"], stdin=file)
        self.addCleanup(opened.wait)
        self.addCleanup(opened.kill)
        self.refused(f"open in process {opened.pid}: stop that first", self.copy)

    def test_cut_off_between_any_two_steps_the_database_is_whole(self):
        """The old one with what was only in its log, or the new one; restored again it is the new one."""
        backups.backup(self.copy, self.shop)
        steps = len(backups.restore_steps(self.copy, self.shop))
        for done in range(steps + 1):
            with self.subTest(done=done):
                self.stand_with_a_log(f"only in the log {done}")
                for step in backups.restore_steps(self.copy, self.shop)[:done]:
                    step()
                self.assertEqual(self.text_in(self.shop), "cold shop" if done >= steps - 1 else f"only in the log {done}")
                backups.restore(self.copy, self.shop)
                self.assertEqual(self.text_in(self.shop), "cold shop")
                self.assertEqual([one.name for one in self.folder.glob("shop.sqlite3.restor*")], [])

    def stand_with_a_log(self, text):
        """A database as a power cut leaves it: its last words only in the log beside it."""
        self.shop.unlink()
        was = self.make("was.sqlite3", "before")
        with closing(sqlite3.connect(was)) as database:
            database.execute("PRAGMA journal_mode=WAL")
            database.execute("UPDATE work_entry SET body = ?", (text,))
            database.commit()
            for end in ("", "-wal"):
                shutil.copy(f"{was}{end}", f"{self.shop}{end}")
        was.unlink()

    def test_what_cannot_be_read_any_more_is_kept_byte_for_byte(self):
        backups.backup(self.copy, self.shop)
        self.shop.write_bytes(b"torn" * 3000)
        backups.restore(self.copy, self.shop, adopt=True)
        self.assertEqual(self.text_in(self.shop), "cold shop")
        self.assertEqual([file.read_bytes()[:8] for file in self.folder.glob("shop-before-restore-*")], [b"torntorn"])

    def test_the_shops_own_folder_is_thinned_to_the_newest(self):
        for n in range(4):
            with mock.patch.object(backups, "datetime") as clock:
                clock.now.return_value = datetime(2026, 11, 20 + n)  # noqa: DTZ001 - as on the wall
                backups.backup_and_thin(2, self.shop)
        kept = sorted(file.name for file in (self.folder / "backups").iterdir())
        self.assertEqual(kept, [f"shop-202611{day}T000000.sqlite3{end}" for day in (22, 23) for end in ("", ".sha256")])

    @unittest.skipIf(os.geteuid() != 0, "only root mounts a small disk")
    def test_a_full_disk_leaves_nothing_under_the_final_name(self):
        small = self.folder / "small"
        small.mkdir()
        if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=16k", "none", small], check=False, capture_output=True).returncode:
            self.skipTest("this machine mounts nothing")
        self.addCleanup(subprocess.run, ["umount", small], check=False)
        with self.assertRaisesRegex(house.CannotError, "copy cannot be written .*; make room"):
            backups.backup(small / "copy", self.shop)
        self.assertEqual(list(small.iterdir()), [])
