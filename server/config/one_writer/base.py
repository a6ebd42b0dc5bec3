"""SQLite has one writer at a time. Whoever else wants to write asks it again after a sleep that grows to a tenth of a second, and of many
that do the unlucky wait for seconds while nobody writes. Within this process they stand in line here, and the next begins at once.
"""

__all__ = ["DatabaseWrapper"]

from threading import Lock
from typing import Any

from django.db import OperationalError
from django.db.backends.sqlite3 import base

_writing = Lock()


class DatabaseWrapper(base.DatabaseWrapper):
    """A connection that begins a transaction when its turn has come."""

    def __init__(self, *args: Any, **named: Any) -> None:
        super().__init__(*args, **named)
        self._has_turn = False

    def _start_transaction_under_autocommit(self) -> None:
        if not _writing.acquire(timeout=self.settings_dict["OPTIONS"]["timeout"]):
            raise OperationalError("database is locked: too many wait to write")
        self._has_turn = True
        try:
            super()._start_transaction_under_autocommit()  # type: ignore[misc]  # what Django itself calls, the stubs leave out
        except BaseException:
            self._let_next()
            raise

    def _commit(self) -> None:
        super()._commit()  # type: ignore[misc]  # where that fails Django rolls back, and the next comes then
        self._let_next()

    def _rollback(self) -> None:
        try:
            super()._rollback()  # type: ignore[misc]
        finally:
            self._let_next()

    def _close(self) -> None:
        try:
            super()._close()  # type: ignore[misc]
        finally:
            self._let_next()

    def _let_next(self) -> None:
        if self._has_turn:
            self._has_turn = False
            _writing.release()
