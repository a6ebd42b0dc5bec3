"""Reads one instrument for all who look at it: opened with the first, let go some seconds after the last, opened again when it was lost."""

from collections import deque
from collections.abc import Iterator
from itertools import pairwise
from queue import Empty, Full, Queue
from threading import Lock, Thread
from time import monotonic, sleep

from instruments.live import UNITS, LiveReading, Understood
from instruments.ports import Port, open_port

HERTZ = 60
LINGERS_S = 8.0
AGAIN_S = 1.5
QUIET_S = 2.5
HISTORY = 16
WAITS_FOR_IT_S = 0.08
KEPT = 240  # readings that a slow listener may fall behind
NOT_OPEN = "The instrument does not answer at {address}; type the figure, or look at its cable."
WRONG_UNIT = "It speaks in {said} and {unit} is wanted; set it to {unit}, or type the figure."
NONSENSE = "It sends what is no reading; type the figure."
LOST = "The stream broke off; type the figure, it is being opened again."


class Reader:
    """One instrument, read in a thread of its own."""

    def __init__(self, address: str, unit: str, resolution: float) -> None:
        self.address, self.unit, self.resolution = address, unit, resolution
        self.last = LiveReading()
        self.history: deque[tuple[float, float]] = deque(maxlen=HISTORY)  # when, and what it showed
        self._listeners: list[Queue[LiveReading]] = []
        self._port: Port | None = None
        self._lock = Lock()
        self._left = monotonic()
        self._thread: Thread | None = None

    def listen(self) -> Iterator[LiveReading]:
        """Readings as they come; one a second at least, so that a page that has gone is noticed."""
        queue: Queue[LiveReading] = Queue(KEPT)
        with self._lock:
            self._listeners.append(queue)
            if self._thread is None:
                self._thread = Thread(target=self._run, daemon=True, name=f"reads {self.address}")
                self._thread.start()
        try:
            while True:
                try:
                    yield queue.get(timeout=1.0)
                except Empty:
                    yield self.last
        finally:
            with self._lock:
                self._listeners.remove(queue)
                self._left = monotonic()

    def at(self, moment: float) -> float | None:
        """What it showed at a moment, between the readings either side of it; None where it was not read. Waits a little for the later."""
        until = monotonic() + WAITS_FOR_IT_S
        while monotonic() < until and not (self.history and self.history[-1][0] >= moment):
            sleep(0.004)
        known = list(self.history)
        for (before, value), (after, later) in pairwise(known):
            if before <= moment <= after:
                return value + (later - value) * (moment - before) / ((after - before) or 1.0)
        return None

    def send(self, line: str) -> bool:
        """Send it a command; whether it is there to take it."""
        port = self._port
        if port is None:
            return False
        try:
            port.write(f"{line}\n".encode("ascii"))
        except OSError:
            return False
        return True

    def _tell(self, reading: LiveReading) -> None:
        self.last = reading
        with self._lock:
            listeners = list(self._listeners)
        for queue in listeners:
            try:
                queue.put_nowait(reading)
            except Full:
                continue  # whoever is so slow misses a few

    def _is_wanted(self) -> bool:
        with self._lock:
            wanted = bool(self._listeners) or monotonic() - self._left < LINGERS_S
            if not wanted:
                self._thread = None
            return wanted

    def _run(self) -> None:
        while self._is_wanted():
            try:
                self._port = open_port(self.address)
                self._read(self._port)
            except (OSError, ValueError):
                self._tell(LiveReading(trouble=NOT_OPEN.format(address=self.address)))
            finally:
                self._close()
            sleep(AGAIN_S)

    def _close(self) -> None:
        port, self._port = self._port, None
        if port is not None:
            try:
                port.close()
            except OSError:
                return

    def _read(self, port: Port) -> None:
        port.write(b"UNIT?\n")
        said = port.readline().decode("ascii", "replace").strip()
        if UNITS.get(said) != self.unit:
            spoken = UNITS.get(said, "something else" if said else "nothing")  # what it says is shown only where it means something
            self._tell(LiveReading(trouble=WRONG_UNIT.format(said=spoken, unit=self.unit)))
            return
        port.write(f"STREAM {HERTZ}\n".encode("ascii"))
        understood, heard, bad = Understood(self.unit, self.resolution), monotonic(), 0
        while self._is_wanted():
            line = port.readline().decode("ascii", "replace").strip()
            if not line:
                if monotonic() - heard > QUIET_S:
                    self._tell(LiveReading(trouble=LOST))
                    return
                continue
            try:
                reading = understood.line(line)
            except ValueError:
                bad += 1
                if bad > HERTZ:
                    self._tell(LiveReading(trouble=NONSENSE))
                    return
                continue
            if reading is not None:
                heard, bad = monotonic(), 0
                if reading.value is not None:
                    self.history.append((heard, reading.value))
                self._tell(reading.model_copy(update={"at_s": heard}))


_readers: dict[tuple[str, str, float], Reader] = {}
_lock = Lock()


def reader_of(address: str, unit: str, resolution: float) -> Reader:
    """The reader of an instrument, one for all benches."""
    with _lock:
        return _readers.setdefault((address, unit, resolution), Reader(address, unit, resolution))
