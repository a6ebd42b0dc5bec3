"""Turns at the press: one record at a time, one a person; a person sees how far his is, and may stop it."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from threading import Lock

from cachetools import TTLCache

from press.aside import begin, how_far, stop
from press.pdf import PAPER
from shop.errors import Conflict, TooBusy
from shop.gate import Line

BUSY = "Another record is at the press"
STOPPED = "The printing was stopped."
_turns: dict[str, "_Turn"] = {}
# turns stopped before they had begun: the stop overtook what it stops
_not_wanted: TTLCache[tuple[str, str], bool] = TTLCache(maxsize=256, ttl=60)
_lock = Lock()
_press = Line(BUSY)


@dataclass
class _Turn:
    """One person's turn."""

    serial: str
    name: str = ""
    is_stopped: bool = False


@contextmanager
def one_at_a_time(person: str, serial: str, name: str = "") -> Iterator[None]:
    """Have the press, under a name by which it can be stopped.

    Raises TooBusy while somebody else has it, Conflict for a second record of one person, and when he has stopped it by its name before.
    """
    with _lock:
        _ask(person, name)
    with _press.passed(person):
        with _lock:
            _ask(person, name)  # it may have been stopped meanwhile
            begin(PAPER)
            _turns[person] = _Turn(serial, name)
        try:
            yield
        finally:
            with _lock:
                del _turns[person]


def _ask(person: str, name: str) -> None:
    if _not_wanted.pop((person, name), False):
        raise Conflict(STOPPED)
    if person in _turns and _turns[person].is_stopped:  # it leaves the press in a moment
        raise TooBusy(BUSY)
    if person in _turns:
        raise Conflict("A record of yours is still being printed; wait for it or stop it, then ask again.")


def printing(person: str) -> dict[str, object] | None:
    """What is being printed for a person, and how far it is; None when nothing is."""
    turn = _turns.get(person)
    return None if turn is None else {"serial": turn.serial, "pages": how_far(PAPER)}


def stop_printing(person: str, name: str = "") -> None:
    """Stop what is being printed for a person: what has this name, though it has not begun yet; without one whatever it is."""
    with _lock:
        turn = _turns.get(person)
        if turn is None or name not in ("", turn.name):
            if name:
                _not_wanted[person, name] = True
            return
        turn.is_stopped = True
        stop(PAPER)
