"""A server as a shop runs it, on a port and a database of its own, and people who talk to it: for benchmarks, pictures and tests."""

import http.client
import json
import os
import socket
import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager
from copy import copy
from pathlib import Path

from tools.house import ROOT, python_env
from tools.serving import server_command


def free_port() -> int:
    """A port that nobody uses."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port: int = free.getsockname()[1]
    return port


def start(database: Path, port: int) -> subprocess.Popen[bytes]:
    """Start a server and wait until it listens."""
    env = {**os.environ, **python_env("shop", database)}
    server = subprocess.Popen(server_command(port), cwd=ROOT / "server", env=env, stderr=subprocess.DEVNULL)
    wait_until_it_listens(port)
    return server


def wait_until_it_listens(port: int) -> None:
    """Wait, for a minute at most."""
    for _ in range(1200):
        with socket.socket() as door:
            if door.connect_ex(("127.0.0.1", port)) == 0:
                return
        time.sleep(0.05)


@contextmanager
def running_server(database: Path) -> Iterator[int]:
    """A server like the demo's, on a port of its own."""
    port = free_port()
    server = start(database, port)
    try:
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
        """One request; anything but success, or nothing new under a tag, is an error."""
        headers = {"Content-Type": "application/json", "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        if tag:
            headers["If-None-Match"] = tag
        self.line.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.line.getresponse()
        content = answer.read()
        if answer.status not in ((304,) if tag else (200, 201, 204)):
            raise AssertionError(content)
        self.tag = answer.getheader("ETag", "")
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return content
