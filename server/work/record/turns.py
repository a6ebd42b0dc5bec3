"""Turns at the press: one record at a time, one a person; a person sees how far his is, and may stop it."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from threading import Lock

from press.aside import begin, how_far, stop
from press.layout import PAPER
from shop.errors import Conflict

LOOKS_EVERY_S = 0.2
STOPPED = "The printing was stopped."
_turns: dict[str, "_Turn"] = {}
_lock = Lock()
_press = Lock()


@dataclass
class _Turn:
    """One person's turn."""

    serial: str
    has_begun: bool = False
    is_stopped: bool = False


@contextmanager
def one_at_a_time(person: str, serial: str) -> Iterator[None]:
    """Wait for the press and have it. Raises Conflict for a second record of one person, and when he stops it."""
    turn = _Turn(serial)
    with _lock:
        if person in _turns:
            raise Conflict("A record of yours is still being printed; wait for it or stop it, then ask again.")
        _turns[person] = turn
    try:
        _wait(turn)
        try:
            yield
        finally:
            _press.release()
    finally:
        del _turns[person]


def _wait(turn: _Turn) -> None:
    while not _press.acquire(timeout=LOOKS_EVERY_S):
        if turn.is_stopped:
            raise Conflict(STOPPED)
    begin(PAPER)
    turn.has_begun = True


def printing(person: str) -> dict[str, object] | None:
    """What is being printed for a person, and how far it is; None when nothing is."""
    turn = _turns.get(person)
    if turn is None:
        return None
    return {"serial": turn.serial, "waits": not turn.has_begun, "pages": how_far(PAPER) if turn.has_begun else 0}


def stop_printing(person: str) -> None:
    """Stop what is being printed for a person, if anything is."""
    turn = _turns.get(person)
    if turn is None:
        return
    turn.is_stopped = True
    if turn.has_begun:
        stop(PAPER)
