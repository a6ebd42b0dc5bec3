"""Wrong names and passwords by the place they come from, whatever the names: counted before a password is looked at, which is costly."""

__all__ = ["forget_guesses", "guessing"]

from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock
from time import monotonic

from axes.helpers import get_client_ip_address
from cachetools import LRUCache
from django.http import HttpRequest

from shop.errors import TooBusy
from shop.gate import Gate

WITHIN_S, MOST = 60.0, 30
PLACES = 4096
HASHING = Gate("Many people sign in just now", at_once=1, waiting=6)  # a password takes a hundred MB while it is looked at
_guesses: LRUCache[str, deque[float]] = LRUCache(PLACES)
_lock = Lock()


@contextmanager
def guessing(request: HttpRequest) -> Iterator["Guess"]:
    """Let a password from some place be looked at; what turns out right is no guess. Raises TooBusy after many wrong ones."""
    place, now = get_client_ip_address(request) or "", monotonic()
    with _lock:
        own = _guesses.setdefault(place, deque(maxlen=MOST))
        while own and now - own[0] > WITHIN_S:
            own.popleft()
        if len(own) >= MOST:
            raise TooBusy("Too many wrong tries from this place")
        own.append(now)
    guess = Guess()
    with HASHING.passed():
        yield guess
    if guess.was_right:
        with _lock:
            own.remove(now)


class Guess:
    """One try."""

    was_right = False


def forget_guesses() -> None:
    """Begin to count anew."""
    with _lock:
        _guesses.clear()
