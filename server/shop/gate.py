"""Gates before what takes long, and lines before what takes longer: nobody is kept waiting who would hold a worker of the server for it."""

__all__ = ["Gate", "Line"]

from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore, Lock
from time import monotonic

from shop.errors import TooBusy

WAITS_S = 20.0  # then whoever waits is told, and may come again
COMES_AGAIN_S = 3.0  # whoever has not come again by then has given up
PLACES = 64


class Line:
    """Lets one through at a time; whoever comes meanwhile is told so at once, and has his turn if he comes again and again.

    A place is kept by name in the order of first coming, so the server holds nothing for those who wait but their names.
    """

    def __init__(self, what: str) -> None:
        self._what, self._lock = what, Lock()
        self._is_taken = False
        self._seen: dict[str, float] = {}  # who waits, first come first, and when he came last

    @contextmanager
    def passed(self, who: str) -> Iterator[None]:
        """Go through. Raises TooBusy while somebody else does, or waits longer."""
        with self._lock:
            self._come(who, monotonic())
        try:
            yield
        finally:
            with self._lock:
                self._is_taken = False

    def _come(self, who: str, now: float) -> None:
        self._seen = {one: at for one, at in self._seen.items() if now - at < COMES_AGAIN_S}
        first = next(iter(self._seen), who)
        if self._is_taken or first != who:
            if who in self._seen or len(self._seen) < PLACES:
                self._seen[who] = now
            raise TooBusy(self._what)
        self._seen.pop(who, None)
        self._is_taken = True


class Gate:
    """Lets so many through at once, and so many wait: for what takes less than coming again would."""

    def __init__(self, what: str, *, at_once: int, waiting: int) -> None:
        self._what, self._room = what, at_once + waiting
        self._through, self._lock, self._inside = BoundedSemaphore(at_once), Lock(), 0

    @contextmanager
    def passed(self) -> Iterator[None]:
        """Go through, perhaps after some waiting. Raises TooBusy where too many wait already."""
        with self._lock:
            if self._inside >= self._room:
                raise TooBusy(self._what)
            self._inside += 1
        try:
            if not self._through.acquire(timeout=WAITS_S):
                raise TooBusy(self._what)
            try:
                yield
            finally:
                self._through.release()
        finally:
            with self._lock:
                self._inside -= 1
