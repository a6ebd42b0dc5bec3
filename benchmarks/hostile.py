"""One bench that works, 32 of them, and these beside one client that stalls 200 sockets, one that sends the worst document over and over,
and one that prints the longest record; and beside each of three ways to silence a server: downloads that nobody reads, guesses at ever new
names, many document checks at once.
"""

import http.client
import itertools
import json
import re
import socket
import subprocess
import threading
import time
import uuid
from collections.abc import Callable
from contextlib import ExitStack, closing
from functools import partial
from pathlib import Path

from benchmarks.timing import p50_p95
from demo.documents import family_data
from tools.real_server import Person

BENCHES, ENTRIES_EACH, EVERY_S = 32, 12, 1.5
ONE_EVERY_S = 0.2
STALLED = 200
AIM = 3.0
AGAIN_S = 0.25
UNREAD, RECORDS_ASKED, UNREAD_S = 14, 30, 10.0
GUESSING, CHECKING = 24, 16
LONGEST = "Q4-0172"
WORKED_ON = ("Q4-0170", "Q4-0171", "Q4-0173", "C6-0031")
# many keys, none of them known: every one is a fault to be said
WORST = "{" + ",".join(f'"k{n}": 1' for n in range(60_000)) + "}"
# a sound document, as long as a document is
HEAVY = json.dumps(family_data("brae-v8"))
GONE = (OSError, AssertionError, http.client.HTTPException)


def measure(port: int) -> None:
    """Print p50 and p95 of an entry at one bench, at 32, at these beside the three above at once, and beside each way to silence a server;
    with their ratios. The 32 alone are measured before each way anew, and taken together: what else the machine does falls on both alike.
    """
    builder, lead = Person(port, "della", "hillside-builder"), Person(port, "oren", "hillside-lead")
    one = p50_p95(_work(port, builder, 1, 2 * BENCHES, ONE_EVERY_S))
    print(f"one bench, an entry                    {one[0]:8.2f}   p95 {one[1]:.2f}")
    alone: list[float] = []
    beside: dict[str, list[float]] = {}
    ways = {
        "hostile clients": _hostile(port, lead),
        f"{UNREAD} unread downloads": [lambda: _unread(port, lead)] * UNREAD,
        f"{GUESSING} that guess new names": [lambda: _guess(port)] * GUESSING,
        f"{CHECKING} document checks": [partial(_check, lead.again(port)) for _ in range(CHECKING)],
    }
    for what, clients in ways.items():
        alone += _work(port, builder)
        done = threading.Event()
        with ExitStack() as stack:
            if what == "hostile clients":
                _stall(port, stack)
            others = [_over_and_over(done, client) for client in clients]
            beside[what] = _work(port, builder)
            done.set()
            for other in others:
                other.join()
    all_alone = p50_p95(alone)
    _say(f"{BENCHES} benches, an entry", all_alone, one, "one bench")
    for what, taken in beside.items():
        _say(f"the same beside {what}", p50_p95(taken), all_alone, "alone")
    print(f"the most memory that the server had in all this {_most_memory_mb(port):8.0f} MB")


def _say(what: str, took: tuple[float, float], of: tuple[float, float], whose: str) -> None:
    print(f"{what:42} {took[0]:8.2f}   p95 {took[1]:.2f}, {took[1] / of[1]:.2f} times {whose}, aim: within {AIM:g}")


def _hostile(port: int, lead: Person) -> list[Callable[[], object]]:
    uploads, prints = lead.again(port), lead.again(port)
    return [
        lambda: uploads.call("POST", "/api/families/check", {"text": WORST}),
        lambda: prints.call("GET", f"/api/engines/{LONGEST}/record.pdf"),
    ]


def _stall(port: int, stack: ExitStack) -> None:
    for _ in range(STALLED):
        stalled = stack.enter_context(closing(socket.create_connection(("127.0.0.1", port))))
        stalled.sendall(b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900\r\n\r\n{")


def _unread(port: int, by: Person) -> None:
    """Ask for the longest record over and over on one line, and read nothing of it."""
    cookies = "; ".join(f"{key}={value}" for key, value in by.cookies.items())
    ask = f"GET /api/engines/{LONGEST}/record.json HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookies}\r\n\r\n".encode()
    with closing(socket.create_connection(("127.0.0.1", port))) as line:
        line.sendall(ask * RECORDS_ASKED)
        time.sleep(UNREAD_S)


def _check(by: Person) -> None:
    by.call("POST", "/api/families/check", {"text": HEAVY})


def _guess(port: int) -> None:
    Person(port, f"nobody-{uuid.uuid4().hex[:12]}", "a guess of some length")


def _most_memory_mb(port: int) -> float:
    """Of the process that listens on a port; nothing where the system does not tell."""
    found = subprocess.run(["pgrep", "-f", f"listen=127.0.0.1:{port}"], capture_output=True, text=True, check=False).stdout.split()
    sizes = [re.search(r"VmHWM:\s+(\d+)", Path(f"/proc/{pid}/status").read_text()) for pid in found]
    return max((int(size[1]) / 1024 for size in sizes if size), default=float("nan"))


def _over_and_over(done: threading.Event, ask: Callable[[], object]) -> threading.Thread:
    def go_on() -> None:
        while not done.is_set():
            try:
                ask()
            except GONE:  # told that others are ahead, or nobody is there: it comes again soon
                time.sleep(AGAIN_S)

    thread = threading.Thread(target=go_on)
    thread.start()
    return thread


def _work(port: int, builder: Person, benches: int = BENCHES, entries: int = ENTRIES_EACH, every_s: float = EVERY_S) -> list[float]:
    times: list[float] = []

    def bench(n: int, serial: str) -> None:
        own = builder.again(port)
        time.sleep(every_s * n / benches)
        for _ in range(entries):
            begun = time.perf_counter()
            body = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "goes on"}}
            own.call("POST", f"/api/engines/{serial}/entries", body)
            took_s = time.perf_counter() - begun
            times.append(1000 * took_s)
            time.sleep(max(0.0, every_s - took_s))

    all_benches = [threading.Thread(target=bench, args=pair) for pair in zip(range(benches), itertools.cycle(WORKED_ON))]
    for one in all_benches:
        one.start()
    for one in all_benches:
        one.join()
    return times
