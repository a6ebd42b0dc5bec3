"""Work that takes long, in processes of its own, one at a time of a sort and behind everything else: no bench waits for it.

What is done there is a pure function of a module that needs no Django.
"""

import os
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from functools import cache
from multiprocessing import get_context, parent_process
from multiprocessing.process import BaseProcess
from threading import Thread
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
NICE = 10


@cache
def _process(_sort: str) -> ProcessPoolExecutor:
    # spawned, not forked: a fork of a server with threads may hang
    return ProcessPoolExecutor(max_workers=1, mp_context=get_context("spawn"), initializer=_begin)


def _begin() -> None:
    """Stand back behind the server, and go when it is gone, however it went."""
    os.nice(NICE)
    server = parent_process()
    assert server is not None  # a process of a pool has one
    Thread(target=_go_with, args=(server,), daemon=True).start()


def _go_with(server: BaseProcess) -> None:
    server.join()
    os._exit(0)


def aside(sort: str, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
    """Return what some work comes to, done aside; what it raises is raised here."""
    try:
        return _process(sort).submit(work, *args, **kwargs).result()
    except BrokenProcessPool:  # it was killed; another takes its place
        _process.cache_clear()
        return _process(sort).submit(work, *args, **kwargs).result()
