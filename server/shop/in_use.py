"""Whoever opens a database shares its lock as long as the process lives: a restore, which wants it alone, waits for all of them."""

__all__ = ["share"]

import fcntl
from pathlib import Path
from typing import Any, TextIO

from django.db import OperationalError
from django.db.backends.base.base import BaseDatabaseWrapper

_SHARED: dict[str, TextIO] = {}  # by path; never closed: the system does so when the process ends, however it ends


def share(connection: BaseDatabaseWrapper, **_how: Any) -> None:
    """Share the lock of the database that was just opened; while a restore has it alone, opening fails."""
    name = str(connection.settings_dict["NAME"])
    if name in _SHARED or "mode=memory" in name or name == ":memory:":
        return
    lock = Path(f"{name}.lock").open("w")  # noqa: SIM115 - kept open
    try:
        fcntl.flock(lock, fcntl.LOCK_SH | fcntl.LOCK_NB)
    except BlockingIOError:
        lock.close()
        connection.close()
        raise OperationalError("a restore is at work on this database; try again when it is done") from None
    _SHARED[name] = lock
