"""A real server on a database of its own: killed, stalled and asked for large things."""

import os
import socket
import subprocess
import tempfile
import threading
import unittest
import uuid
from contextlib import ExitStack, closing
from pathlib import Path

from tools.house import PYTHON
from tools.real_server import Person, running_server
from tools.serving import MANAGE, load_demo
from tools.torture import kill_rounds

ROUNDS = 20
STALLED, BENCHES, LOOKS = 200, 32, 4
PATIENCE_S = 120


class RealServerTests(unittest.TestCase):
    runs_long = True

    @classmethod
    def setUpClass(cls):
        folder = cls.enterClassContext(tempfile.TemporaryDirectory())
        cls.database = Path(folder) / "demo.sqlite3"
        cls.env = load_demo(cls.database, whole=False)

    def test_what_was_acknowledged_is_there_once_after_every_kill(self):
        acknowledged, kept = kill_rounds(self.env, ROUNDS)
        self.assertGreaterEqual(len(acknowledged), ROUNDS // 2)
        self.assertEqual(set(acknowledged) - set(kept), set())
        self.assertEqual(len(kept), len(set(kept)))
        subprocess.run([str(PYTHON), str(MANAGE), "verify"], env={**os.environ, **self.env}, check=True, stdout=subprocess.DEVNULL)

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
