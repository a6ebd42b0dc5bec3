"""Work that takes long, in processes of its own, one at a time of a sort and behind everything else: no bench waits for it.

What is done there is a pure function of a module that needs no Django. It may tell how far it is, and can be stopped.
"""

import os
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from multiprocessing import get_context, parent_process
from multiprocessing.process import BaseProcess
from signal import SIGKILL
from threading import Lock, Thread
from typing import Any, ParamSpec, TypeVar

from cachetools import cached

P = ParamSpec("P")
T = TypeVar("T")
NICE = 10
_PID, _FAR, _STOP = 0, 1, 2
_told: Any = None  # within the process aside: where it tells its number, and how far it is


class Stopped(Exception):  # noqa: N818 - said as it happens
    """The work was stopped before it was done."""


class _Press:
    """A process for one sort of work, and what it tells."""

    def __init__(self) -> None:
        # spawned, not forked: a fork of a server with threads may hang
        context = get_context("spawn")
        self.told = context.Array("q", 3)
        self.pool = ProcessPoolExecutor(max_workers=1, mp_context=context, initializer=_begin, initargs=(self.told,))


@cached({}, key=lambda sort: sort, lock=Lock())  # two who come first at once have the same
def _press(_sort: str) -> _Press:
    return _Press()


def _begin(told: Any) -> None:
    """Stand back behind the server, and go when it is gone, however it went."""
    global _told  # noqa: PLW0603 - one a process
    _told = told
    told[_PID] = os.getpid()
    if told[_STOP]:  # while this process was being made, when nobody knew its number
        os._exit(0)
    os.nice(NICE)
    server = parent_process()
    assert server is not None  # a process of a pool has one
    Thread(target=_go_with, args=(server,), daemon=True).start()


def _go_with(server: BaseProcess) -> None:
    server.join()
    os._exit(0)


def aside(sort: str, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
    """Return what some work comes to, done aside; what it raises is raised here. Raises Stopped when somebody stopped it."""
    press = _press(sort)
    try:
        return press.pool.submit(work, *args, **kwargs).result()
    except BrokenProcessPool:  # it was killed; another takes its place
        _press.cache_clear()
        if press.told[_STOP]:
            raise Stopped from None
        return _press(sort).pool.submit(work, *args, **kwargs).result()


def begin(sort: str) -> None:
    """Forget how far the work of a sort was that was done last, and that it was stopped."""
    told = _press(sort).told
    told[_FAR] = told[_STOP] = 0


def tell(how_far: int) -> None:
    """Tell from within the work how far it is; nobody listens where it is done here and now."""
    if _told is not None:
        _told[_FAR] = how_far


def how_far(sort: str) -> int:
    """Return what the work of a sort that is being done has told last."""
    return int(_press(sort).told[_FAR])


def stop(sort: str) -> None:
    """Stop what is being done of a sort."""
    told = _press(sort).told
    told[_STOP] = 1
    if told[_PID]:
        with suppress(ProcessLookupError):  # it is gone already
            os.kill(told[_PID], SIGKILL)
