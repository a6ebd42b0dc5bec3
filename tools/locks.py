"""Who uses a database: everybody shares its lock, and a restore has it alone."""

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TextIO

from tools.house import CannotError

PROCESSES = Path("/proc")


@contextmanager
def held(database: Path, otherwise: str, *, shared: bool = False) -> Iterator[TextIO]:
    """Hold a database's lock, alone or with others; the system lets go of it by itself when all that hold it have ended."""
    with database.with_name(f"{database.name}.lock").open("w") as lock:
        try:
            fcntl.flock(lock, (fcntl.LOCK_SH if shared else fcntl.LOCK_EX) | fcntl.LOCK_NB)
        except BlockingIOError:
            raise CannotError(f"{database.name} is in use: {otherwise}") from None
        yield lock


def users_of(database: Path) -> list[int]:
    """Process ids of others that have a database open, lock or no lock; where the system does not tell, none."""
    files = {str(database.resolve()) + end for end in ("", "-wal", "-shm")}
    return [pid for pid in _others() if files & _open_in(pid)]


def _others() -> list[int]:
    names = [folder.name for folder in PROCESSES.iterdir()] if PROCESSES.is_dir() else []
    return [int(name) for name in names if name.isdigit() and int(name) != os.getpid()]


def _open_in(pid: int) -> set[str]:
    """What a process has open; nothing where it has ended, or belongs to somebody else."""
    found = set()
    try:
        for one in (PROCESSES / str(pid) / "fd").iterdir():
            found.add(str(one.readlink()))
    except OSError:
        return found
    return found
