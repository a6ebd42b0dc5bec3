"""Backup and restore of the shop's database, by SQLite's own online backup; both ends are checked."""

import sqlite3
from contextlib import closing
from pathlib import Path

from tools.house import CannotError, ensure_var
from tools.serving import SHOP_DB


def _fault(file: Path) -> str:
    """What is wrong with a database file; empty when nothing is."""
    try:
        with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True)) as database:
            answer = database.execute("PRAGMA integrity_check").fetchone()[0]
            ledger = database.execute("SELECT count(*) FROM sqlite_master WHERE name = 'work_entry'").fetchone()[0]
    except sqlite3.DatabaseError as error:
        return str(error)
    if answer != "ok":
        return str(answer)
    return "" if ledger else "it holds no ledger of Gurvo"


def _copy(source: Path, target: Path) -> None:
    with closing(sqlite3.connect(source)) as here, closing(sqlite3.connect(target)) as there:
        here.backup(there)


def backup(file: Path, database: Path = SHOP_DB) -> int:
    """Copy the shop's database while it may be in use, and check the copy."""
    if not database.exists():
        raise CannotError("there is no shop database yet; start it once with ./gurvo serve.")
    if file.exists():
        raise CannotError(f"{file} is there already; choose another name, nothing is overwritten.")
    if not file.resolve().parent.is_dir():
        raise CannotError(f"there is no folder {file.parent}; make it first.")
    _copy(database, file)
    fault = _fault(file)
    if fault:
        file.unlink()
        raise CannotError(f"the copy is not sound ({fault}); nothing was kept.")
    print(f"{file}: backed up and checked.")
    return 0


def restore(file: Path, database: Path = SHOP_DB) -> int:
    """Put a checked backup in place of the shop's database; what stood there is kept beside it."""
    if not file.exists():
        raise CannotError(f"there is no file {file}.")
    fault = _fault(file)
    if fault:
        raise CannotError(f"{file} is not a sound backup ({fault}); nothing was changed.")
    ensure_var()
    kept = database.with_name("shop-before-restore.sqlite3")
    if database.exists():
        _copy(database, kept)
        print(f"What stood there is kept as {kept.name}.")
    _copy(file, database)
    print(f"{file}: restored and checked.")
    return 0
