"""Gates before what takes long: so many at once, a few waiting, and whoever comes then is told so at once instead of holding a worker."""

__all__ = ["Gate", "waiting"]

from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore, Lock

from shop.errors import TooBusy

WAITS_S = 20.0  # then whoever waits is told, and may come again
# whoever waits holds a worker of the server; together they hold no more than this, so that most are free for what is quick
MOST_WAIT = 8
_waiting = BoundedSemaphore(MOST_WAIT)


@contextmanager
def waiting(what: str) -> Iterator[None]:
    """Wait for something, while not too many wait for anything. Raises TooBusy."""
    if not _waiting.acquire(blocking=False):
        raise TooBusy(what)
    try:
        yield
    finally:
        _waiting.release()


class Gate:
    """Lets so many through at once, and so many wait."""

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
            if not self._through.acquire(blocking=False):
                with waiting(self._what):
                    if not self._through.acquire(timeout=WAITS_S):
                        raise TooBusy(self._what)
            try:
                yield
            finally:
                self._through.release()
        finally:
            with self._lock:
                self._inside -= 1
