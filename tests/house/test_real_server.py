"""A real server on a database of its own: killed, stalled and asked for large things."""

import io
import json
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import tempfile
import threading
import time
import unittest
import uuid
from contextlib import ExitStack, closing, contextmanager, redirect_stderr, redirect_stdout, suppress
from pathlib import Path
from unittest import mock

from tools import backups
from tools.house import PYTHON, ROOT, CannotError
from tools.real_server import Person, free_port, running_server, wait_until_it_listens
from tools.serving import MANAGE, load_demo
from tools.torture import kill_rounds

ROUNDS = 20
STALLED, BENCHES, LOOKS = 200, 32, 4
PATIENCE_S = 120
SERVE = """
import sys
from pathlib import Path
from tools import serving
serving.SHOP_DB, serving.ensure_all, serving._daily = Path(sys.argv[1]), lambda: None, lambda env: None
sys.exit(serving.serve(int(sys.argv[2])))
"""


def wait_until(it_is_so):
    """Wait for what happens, two minutes at most."""
    for _ in range(PATIENCE_S * 20):
        if it_is_so():
            return
        time.sleep(0.05)
    raise AssertionError("it never came to that")


def is_there(process):
    """Whether a process is still there; one that has ended and that nobody has asked for is not."""
    with suppress(OSError):
        return Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    return False


def resume(process):
    """Let a stopped process go on, if it is still there."""
    with suppress(ProcessLookupError):
        os.kill(process, signal.SIGCONT)


class RealServerTests(unittest.TestCase):
    runs_long = True

    @classmethod
    def setUpClass(cls):
        folder = cls.enterClassContext(tempfile.TemporaryDirectory())
        cls.database = Path(folder) / "demo.sqlite3"
        cls.env = load_demo(cls.database, whole=False)
        cls.backed_up = Path(folder) / "backed-up.sqlite3"
        with redirect_stdout(io.StringIO()):
            backups.backup(cls.backed_up, cls.database)

    def test_what_was_acknowledged_is_there_once_after_every_kill(self):
        acknowledged, kept = kill_rounds(self.env, ROUNDS)
        self.assertGreaterEqual(len(acknowledged), ROUNDS // 2)
        self.assertEqual(set(acknowledged) - set(kept), set())
        self.assertEqual(len(kept), len(set(kept)))
        subprocess.run([str(PYTHON), str(MANAGE), "verify"], env={**os.environ, **self.env}, check=True, stdout=subprocess.DEVNULL)

    def test_the_server_ends_with_whoever_started_it(self):
        """A signal ends both; killed without warning, the starter is missed. As long as the server lives nobody restores."""
        for number in (signal.SIGTERM, signal.SIGHUP, signal.SIGKILL):
            with self.subTest(number=number.name), self.serving() as (starter, server):
                os.kill(server, signal.SIGSTOP)  # an orphan that has not noticed yet
                self.addCleanup(resume, server)
                starter.send_signal(number)
                if number == signal.SIGKILL:
                    starter.wait()
                    with self.assertRaisesRegex(CannotError, "in use: stop the server first"):
                        backups.restore(self.backed_up, self.database, adopt=True)
                os.kill(server, signal.SIGCONT)
                starter.wait()
                wait_until(lambda: not is_there(server))
        with redirect_stdout(io.StringIO()):
            self.assertEqual(backups.restore(self.backed_up, self.database, adopt=True), 0)

    def test_a_copy_without_a_table_or_column_of_ours_is_refused(self):
        for number, words in enumerate(("DROP TABLE shop_gaugescatter", "ALTER TABLE work_engine DROP COLUMN purpose")):
            short = self.database.with_name(f"short{number}.sqlite3")
            shutil.copy(self.backed_up, short)
            with closing(sqlite3.connect(short)) as database:
                for (view,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'view'").fetchall():
                    database.execute(f"DROP VIEW {view}")  # one that asks for the column would keep it
                database.execute(words)
                database.commit()
            backups._seal(short)
            before = self.database.read_bytes()
            with self.subTest(words), self.assertRaisesRegex(CannotError, "today's shape"), redirect_stderr(io.StringIO()) as said:
                backups.restore(short, self.database, adopt=True)
            self.assertRegex(said.getvalue(), "it has no (table shop_gaugescatter|column work_engine.purpose)")
            self.assertEqual(self.database.read_bytes(), before)

    def test_an_edit_by_other_hands_is_seen_while_the_server_runs(self):
        words = "UPDATE work_entry SET by_name=? WHERE engine_id='Q4-0170' AND seq=1"
        with mock.patch.dict(os.environ, GURVO_WATCH_S="0.5"), running_server(self.database) as port:
            builder = Person(port, "della", "hillside-builder")

            def misfit():
                return json.loads(builder.call("GET", "/api/engines/Q4-0170"))["engine"]["misfit"]

            self.assertEqual(misfit(), "")
            with closing(sqlite3.connect(self.database, timeout=20)) as database:
                name = database.execute("SELECT by_name FROM work_entry WHERE engine_id='Q4-0170' AND seq=1").fetchone()
                for by, seen in (("Somebody", "entry 1 is not as it was sealed"), (*name, "")):
                    database.execute(words, (by,))
                    database.commit()
                    wait_until(lambda seen=seen: misfit() == seen)

    @contextmanager
    def serving(self):
        """A shop's own server on this database: who started it, and the process that answers."""
        port = free_port()
        starter = subprocess.Popen(
            [str(PYTHON), "-c", SERVE, str(self.database), str(port)], env={**os.environ, **self.env, "PYTHONPATH": str(ROOT)}
        )
        try:
            wait_until_it_listens(port)
            yield starter, int(Path(f"/proc/{starter.pid}/task/{starter.pid}/children").read_text().split()[-1])
        finally:
            starter.kill()
            starter.wait()

    def test_benches_go_on_while_one_client_stalls_hundreds_of_sockets(self):
        """Half-sent headers and half-sent bodies; a worker is bound to none of them."""
        halves = (
            b"GET /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ",
            b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 900\r\n\r\n{",
        )
        with running_server(self.database) as port, ExitStack() as stack:
            builder = Person(port, "della", "hillside-builder")
            for n in range(STALLED):
                stalled = stack.enter_context(closing(socket.create_connection(("127.0.0.1", port))))
                stalled.sendall(halves[n % 2])
            failed = []

            def bench():
                own = builder.again(port)
                own.line.timeout = PATIENCE_S
                try:
                    for _ in range(LOOKS):
                        own.call("GET", "/api/engines/Q4-0170")
                except (OSError, AssertionError) as error:
                    failed.append(error)

            benches = [threading.Thread(target=bench) for _ in range(BENCHES)]
            for one in benches:
                one.start()
            builder.call("POST", "/api/engines/Q4-0172/entries", {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "goes on"}})
            for one in benches:
                one.join(PATIENCE_S)
            self.assertEqual(failed, [])
            self.assertFalse(any(one.is_alive() for one in benches))

    def test_what_is_too_large_is_cut_short(self):
        with running_server(self.database) as port:
            for request in (
                b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Long: " + b"x" * 40_000 + b"\r\n\r\n",
                b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 50000000\r\n\r\n",
            ):
                with closing(socket.create_connection(("127.0.0.1", port), timeout=PATIENCE_S)) as door:
                    door.sendall(request)
                    self.assertRegex(door.recv(100), rb"^HTTP/1\.\d 4(13|31)")
