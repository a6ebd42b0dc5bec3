"""Whole requests against a real server: an accepted entry on a ledger of 2,000, as a ratio to a bare signed-in view."""

import http.client
import itertools
import json
import os
import socket
import subprocess
import time
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from copy import copy
from pathlib import Path

from benchmarks.long_ledger import EVENTS
from benchmarks.timing import p50_p95, times_ms
from tools.house import PYTHON, ROOT

AIM_RATIO = 2.0
AIM_LOOK = 1.2


@contextmanager
def running_server(database: Path) -> Iterator[int]:
    """A server like the demo's, on a port of its own."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    command = [str(PYTHON), "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "8", "--keep-alive", "30"]
    env = {**os.environ, "GURVO_DB": str(database)}
    server = subprocess.Popen(command, cwd=ROOT / "server", env=env, stderr=subprocess.DEVNULL)
    try:
        for _ in range(100):
            with socket.socket() as door:
                if door.connect_ex(("127.0.0.1", port)) == 0:
                    break
            time.sleep(0.1)
        yield port
    finally:
        server.terminate()
        server.wait()


class Person:
    """Somebody signed in, on one kept connection."""

    def __init__(self, port: int, username: str, password: str) -> None:
        self.line = http.client.HTTPConnection("127.0.0.1", port)
        self.cookies: dict[str, str] = {}
        self.tag = ""
        self.call("GET", "/api/session")
        self.call("POST", "/api/session", {"username": username, "password": password})

    def again(self, port: int) -> "Person":
        """The same session on a line of its own."""
        twin = copy(self)
        twin.line, twin.cookies = http.client.HTTPConnection("127.0.0.1", port), dict(self.cookies)
        return twin

    def call(self, method: str, path: str, body: object = None, tag: str = "") -> bytes:
        """One request; anything but success, or nothing new under a tag, stops the benchmark."""
        headers = {"Content-Type": "application/json", "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        if tag:
            headers["If-None-Match"] = tag
        self.line.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.line.getresponse()
        content = answer.read()
        assert answer.status == (304 if tag else 200), content
        self.tag = answer.getheader("ETag", "")
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return content


def measure(port: int, serial: str, count: int) -> None:
    """Print p50 and p95 of both, and their ratio."""
    builder = Person(port, "della", "hillside-builder")
    events = itertools.cycle(EVENTS)

    def record() -> None:
        valve, flank, figure, side = next(events)
        body = {"kind": "lift_reading", "camshaft": "cam", "cylinder": 1, "valve": valve, "flank": flank}
        body |= {"lift": {"text": "1.00", "unit": "mm"}, "wheel": {"text": str(figure), "side": side}}
        builder.call("POST", f"/api/engines/{serial}/entries", {"id": str(uuid.uuid4()), "entry": body})

    # turn about, so that whatever else the machine does falls on both alike
    builder.call("GET", "/api/engines/Q4-0170")
    tag = builder.tag
    calls = {
        "bare": lambda: builder.call("GET", "/api/gauges"),
        "entry": record,
        "look": lambda: builder.call("GET", "/api/engines/Q4-0170", tag=tag),
    }
    taken: dict[str, list[float]] = {name: [] for name in calls}
    for _ in range(count):
        for name, call in calls.items():
            taken[name] += times_ms(call, 1, warm_up=0 if taken[name] else 5)
    bare, entry = p50_p95(taken["bare"]), p50_p95(taken["entry"])
    print(f"bare signed-in view             {bare[0]:8.2f}   p95 {bare[1]:.2f}")
    print(f"accepted entry, ledger of 2,000 {entry[0]:8.2f}   p95 {entry[1]:.2f}")
    look = p50_p95(taken["look"])
    print(f"a look at an unchanged bench    {look[0]:8.2f}   {look[0] / bare[0]:.2f} times the bare view, aim: within {AIM_LOOK:g}")
    ratios = entry[0] / bare[0], entry[1] / bare[1]
    print(f"entry / bare                    {ratios[0]:8.2f}   p95 {ratios[1]:.2f}, aim: within {AIM_RATIO:g}")
