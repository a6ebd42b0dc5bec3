"""Gates before what takes long: so many at once, a few waiting, and whoever comes then is told so at once instead of holding a worker."""

__all__ = ["Gate"]

from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore, Lock

from shop.errors import TooBusy

WAITS_S = 20.0  # then whoever waits is told, and may come again


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
            if not self._through.acquire(timeout=WAITS_S):
                raise TooBusy(self._what)
            try:
                yield
            finally:
                self._through.release()
        finally:
            with self._lock:
                self._inside -= 1
