"""Runs the stand-ins: python -m standins.serve. It takes ports that nobody uses, says the first of them, and ends when its standard
input closes, so that it never outlives its parent.
"""

import sys
import threading
from socketserver import StreamRequestHandler, ThreadingTCPServer
from time import sleep

from standins.instruments import Instrument, all_instruments

MOST_HERTZ = 200.0
NAMES = ("wrench", "dial", "encoder", "bore")
FIRST_PORT, TRIED_PORTS = 7610, 400


class _Server(ThreadingTCPServer):
    daemon_threads = True

    def __init__(self, port: int, instrument: Instrument) -> None:
        self.instrument = instrument
        super().__init__(("127.0.0.1", port), _Talk)


class _Talk(StreamRequestHandler):
    """One line in, one line out; a stream runs beside until it is stopped."""

    server: _Server

    def handle(self) -> None:
        """Answer lines until the other side is gone."""
        self.lock, self.streams = threading.Lock(), threading.Event()
        try:
            for raw in self.rfile:
                self._say(self._answer(raw.decode("ascii", "replace").split()))
        except OSError:
            pass
        finally:
            self.streams.clear()

    def _say(self, line: str) -> None:
        with self.lock:
            self.wfile.write(f"{line}\n".encode("ascii"))

    def _answer(self, words: list[str]) -> str:
        own = self.server.instrument
        if not words:
            return "ERR nothing was asked"
        if words == ["*IDN?"]:
            return f"GURVO,STANDIN,{own.name},1"
        if words == ["UNIT?"]:
            return own.unit
        if words == ["READ?"]:
            return own.reading()
        if words == ["STOP"]:
            self.streams.clear()
            return "OK"
        try:
            if words[0] == "STREAM":
                self._begin(min(MOST_HERTZ, max(1.0, float(words[1]))))
                return "OK"
            return own.command(words)
        except (ValueError, IndexError):
            return f"ERR {words[0][:20]} is not known here"

    def _begin(self, hertz: float) -> None:
        if not self.streams.is_set():
            self.streams.set()
            threading.Thread(target=self._stream, args=(1 / hertz,), daemon=True).start()

    def _stream(self, pause: float) -> None:
        try:
            while self.streams.is_set():
                self._say(f"R {self.server.instrument.reading()}")
                sleep(pause)
        except OSError:
            self.streams.clear()


def serve() -> tuple[int, list[_Server]]:
    """Open a port for each, all in a row, and answer there; return the first. Taken as they are looked for: two demos never meet."""
    for base in range(FIRST_PORT, FIRST_PORT + TRIED_PORTS, len(NAMES)):
        servers = _opened(base)
        if servers:
            for server in servers:
                threading.Thread(target=server.serve_forever, daemon=True).start()
            return base, servers
    sys.exit(f"gurvo: no free ports for the simulated instruments; stop what uses those from {FIRST_PORT} on.")


def _opened(base: int) -> list[_Server]:
    """A server for each instrument from a port on; none where another uses one of the ports."""
    found, servers = all_instruments(), list[_Server]()
    try:
        for n, name in enumerate(NAMES):
            servers.append(_Server(base + n, found[name]))
    except OSError:
        for server in servers:
            server.server_close()
        return []
    return servers


if __name__ == "__main__":
    sys.stdout.write(f"{serve()[0]}\n")
    sys.stdout.flush()
    sys.stdin.read()  # closes with the parent
