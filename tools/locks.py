"""One at a time: a running server and a restore never meet on one database."""

import fcntl
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from tools.house import CannotError


@contextmanager
def held(database: Path, otherwise: str) -> Iterator[None]:
    """Hold a database for oneself; the system lets go of it by itself when the process ends, however it ends."""
    with database.with_name(f"{database.name}.lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise CannotError(f"{database.name} is in use: {otherwise}") from None
        yield
