"""Turns at the press: one record at a time, one a person; a person sees how far his is, and may stop it."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from threading import Condition, Lock

from cachetools import TTLCache

from press.aside import begin, how_far, stop
from press.pdf import PAPER
from shop.errors import Conflict, TooBusy
from shop.gate import waiting

LOOKS_EVERY_S = 0.2
ENDS_WITHIN_S = 5.0
MOST_WAIT = 4
BUSY = "Records of others are being printed"
STOPPED = "The printing was stopped."
_turns: dict[str, "_Turn"] = {}
# turns stopped before they had begun: the stop overtook what it stops
_not_wanted: TTLCache[tuple[str, str], bool] = TTLCache(maxsize=256, ttl=60)
_changed = Condition()
_press = Lock()


@dataclass
class _Turn:
    """One person's turn."""

    serial: str
    name: str = ""
    has_begun: bool = False
    is_stopped: bool = False


@contextmanager
def one_at_a_time(person: str, serial: str, name: str = "") -> Iterator[None]:
    """Wait for the press and have it, under a name by which it can be stopped.

    Raises Conflict for a second record of one person, and when he stops it, or has stopped it by its name before.
    """
    turn = _registered(person, _Turn(serial, name))
    try:
        _wait(turn)
        try:
            yield
        finally:
            _press.release()
    finally:
        with _changed:
            del _turns[person]
            _changed.notify_all()


def _registered(person: str, turn: _Turn) -> _Turn:
    with _changed:
        _changed.wait_for(lambda: not _is_ending(person), timeout=ENDS_WITHIN_S)
        if _not_wanted.pop((person, turn.name), False):
            raise Conflict(STOPPED)
        if person in _turns:
            raise Conflict("A record of yours is still being printed; wait for it or stop it, then ask again.")
        if len(_turns) >= MOST_WAIT:
            raise TooBusy(BUSY)
        _turns[person] = turn
    return turn


def _is_ending(person: str) -> bool:
    return person in _turns and _turns[person].is_stopped


def _wait(turn: _Turn) -> None:
    if not _press.acquire(blocking=False):
        with waiting(BUSY):
            while not _press.acquire(timeout=LOOKS_EVERY_S):
                if turn.is_stopped:
                    raise Conflict(STOPPED)
    begin(PAPER)
    turn.has_begun = True
    if turn.is_stopped:  # since it was looked at last
        stop(PAPER)


def printing(person: str) -> dict[str, object] | None:
    """What is being printed for a person, and how far it is; None when nothing is."""
    turn = _turns.get(person)
    if turn is None:
        return None
    return {"serial": turn.serial, "waits": not turn.has_begun, "pages": how_far(PAPER) if turn.has_begun else 0}


def stop_printing(person: str, name: str = "") -> None:
    """Stop what is being printed for a person: what has this name, though it has not begun yet; without one whatever it is."""
    with _changed:
        turn = _turns.get(person)
        if turn is None or name not in ("", turn.name):
            if name:
                _not_wanted[person, name] = True
            return
        turn.is_stopped = True
    if turn.has_begun:
        stop(PAPER)
