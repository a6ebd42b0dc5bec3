"""One record on paper at a time for each person: whoever presses again and again does not fill the press."""

from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

from shop.errors import Conflict

_printing: set[str] = set()
_lock = Lock()


@contextmanager
def one_at_a_time(person: str) -> Iterator[None]:
    """Let a person have one record printed; a second asked for meanwhile is refused."""
    with _lock:
        if person in _printing:
            raise Conflict("A record of yours is still being printed; wait for it, then ask again.")
        _printing.add(person)
    try:
        yield
    finally:
        with _lock:
            _printing.discard(person)
