"""32 benches that work, first alone, then beside one client that stalls 200 sockets, one that sends the worst document over and over,
and one that prints the longest record.
"""

import http.client
import itertools
import socket
import threading
import time
import uuid
from collections.abc import Callable
from contextlib import ExitStack, closing, suppress

from benchmarks.timing import p50_p95
from tools.real_server import Person

BENCHES, ENTRIES_EACH, EVERY_S = 32, 12, 1.5
STALLED = 200
AIM = 3.0
LONGEST = "Q4-0172"
WORKED_ON = ("Q4-0170", "Q4-0171", "Q4-0173", "C6-0031")
# many keys, none of them known: every one is a fault to be said
WORST = "{" + ",".join(f'"k{n}": 1' for n in range(60_000)) + "}"
GONE = (OSError, AssertionError, http.client.HTTPException)


def measure(port: int) -> None:
    """Print p50 and p95 of an entry, alone and beside the three, and their ratio."""
    builder, lead = Person(port, "della", "hillside-builder"), Person(port, "oren", "hillside-lead")
    alone = p50_p95(_work(port, builder))
    done = threading.Event()
    with ExitStack() as stack:
        for _ in range(STALLED):
            stalled = stack.enter_context(closing(socket.create_connection(("127.0.0.1", port))))
            stalled.sendall(b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900\r\n\r\n{")
        uploads, prints = lead.again(port), lead.again(port)
        others = [
            _over_and_over(done, lambda: uploads.call("POST", "/api/families/check", {"text": WORST})),
            _over_and_over(done, lambda: prints.call("GET", f"/api/engines/{LONGEST}/record.pdf")),
        ]
        beside = p50_p95(_work(port, builder))
        done.set()
        for other in others:
            other.join()
    print(f"{BENCHES} benches, an entry, alone      {alone[0]:8.2f}   p95 {alone[1]:.2f}")
    ratio = beside[1] / alone[1]
    print(f"the same beside hostile clients {beside[0]:8.2f}   p95 {beside[1]:.2f}, {ratio:.2f} times alone, aim: within {AIM:g}")


def _over_and_over(done: threading.Event, ask: Callable[[], object]) -> threading.Thread:
    def go_on() -> None:
        while not done.is_set():
            with suppress(*GONE):
                ask()

    thread = threading.Thread(target=go_on)
    thread.start()
    return thread


def _work(port: int, builder: Person) -> list[float]:
    times: list[float] = []

    def bench(n: int, serial: str) -> None:
        own = builder.again(port)
        time.sleep(EVERY_S * n / BENCHES)
        for _ in range(ENTRIES_EACH):
            begun = time.perf_counter()
            body = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "goes on"}}
            own.call("POST", f"/api/engines/{serial}/entries", body)
            took_s = time.perf_counter() - begun
            times.append(1000 * took_s)
            time.sleep(max(0.0, EVERY_S - took_s))

    benches = [threading.Thread(target=bench, args=pair) for pair in zip(range(BENCHES), itertools.cycle(WORKED_ON))]
    for one in benches:
        one.start()
    for one in benches:
        one.join()
    return times
