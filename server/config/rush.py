"""The outermost door: whoever is not signed in, or signs in, comes so often a second from one place and no more; and in one session what
takes long is asked so often. What comes beyond that is turned away before anything else is asked, so that a rush costs next to nothing.
"""

__all__ = ["Rush"]

import re
from collections.abc import Callable, Iterable
from threading import Lock
from time import monotonic
from typing import Any

from cachetools import LRUCache

from config.problems import AGAIN_S, PROBLEM_JSON, said

STRANGERS = (5.0, 30.0)  # a second, and at once
SIGN_INS = (1.0, 12.0)  # a password takes a processor for a while: a whole shop in the morning, and no more
HEAVY = (2.0, 6.0)
# documents that are checked, recordings, records and papers
_HEAVY = re.compile(r"/api/(families(/check|/walk|/lift-table)?|workings/pluck|engines/[^/]+/[^/]+\.(json|pdf|csv|html|zip))")
PLACES = 4096
SESSION = "sessionid="
SIGN_IN = "/api/session"
SIGN_INS_AT = (SIGN_IN, f"{SIGN_IN}/first", f"{SIGN_IN}/pair", f"{SIGN_IN}/at-bench")
# made once: whoever sends hundreds at a time is to cost as little as can be
TURNED_AWAY = said(429, "busy", "Too many come from this place at once; try again in a moment.").model_dump_json().encode()
TURNED_HEADERS = [("Content-Type", PROBLEM_JSON), ("Retry-After", AGAIN_S)]
Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]


class Rush:
    """A WSGI application before another."""

    def __init__(self, application: Wsgi, clock: Callable[[], float] = monotonic) -> None:
        self._application, self._clock, self._lock = application, clock, Lock()
        self._left: LRUCache[str, tuple[float, float]] = LRUCache(PLACES)  # by place: how many may come now, and when that was so

    def __call__(self, environ: dict[str, Any], start_response: Callable[..., Any]) -> Iterable[bytes]:
        """Pass it on, or turn it away."""
        place, cookies = str(environ.get("REMOTE_ADDR", "")), environ.get("HTTP_COOKIE", "")
        if _is_stranger(environ) and not self._may_come(place, *STRANGERS):
            return _turned_away(start_response)
        if _signs_in(environ) and not self._may_come(f"{place} {SIGN_IN}", *SIGN_INS):
            return _turned_away(start_response)
        if _is_heavy(environ) and not self._may_come(f"{place} {cookies[-200:]}", *HEAVY):
            return _turned_away(start_response)
        return self._application(environ, start_response)

    def _may_come(self, place: str, a_second: float, at_once: float) -> bool:
        now = self._clock()
        with self._lock:
            left, at = self._left.get(place, (at_once, now))
            left = min(at_once, left + a_second * (now - at))
            self._left[place] = (max(0.0, left - 1), now)
        return left >= 1


def _is_stranger(environ: dict[str, Any]) -> bool:
    """Whether somebody comes to the API without a session, or signs in."""
    path = environ.get("PATH_INFO", "")
    return _signs_in(environ) or (path.startswith("/api/") and SESSION not in environ.get("HTTP_COOKIE", ""))


def _signs_in(environ: dict[str, Any]) -> bool:
    return environ.get("PATH_INFO", "") in SIGN_INS_AT and environ.get("REQUEST_METHOD") == "POST"


def _is_heavy(environ: dict[str, Any]) -> bool:
    """Whether it asks for what takes long: every family is listed by the same path by which one is taken in."""
    path = environ.get("PATH_INFO", "")
    is_list = path == "/api/families" and environ.get("REQUEST_METHOD") == "GET"
    return not is_list and _HEAVY.fullmatch(path) is not None


def _turned_away(start_response: Callable[..., Any]) -> Iterable[bytes]:
    start_response("429 Too Many Requests", list(TURNED_HEADERS))
    return iter((TURNED_AWAY,))  # of no length that is known, so the line is closed after it, and what else was sent on it is dropped
