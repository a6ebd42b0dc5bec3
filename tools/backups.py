"""Backup, restore and rehearsal of the shop's database, by SQLite's own online backup.

A backup is the database in one file, and beside it ``FILE.sha256``, as ``sha256sum -c`` reads it. Both are written under another
name and renamed when they are whole. Pictures lie beside it in ``pictures``, each once for all backups of that folder.
"""

import hashlib
import math
import os
import shutil
import sqlite3
import tempfile
import time
from collections.abc import Callable
from contextlib import closing, suppress
from datetime import datetime
from functools import partial
from pathlib import Path

from tools import pictures
from tools.house import CannotError, ensure_var, python_env
from tools.locks import held, users_of
from tools.serving import BACKUPS, MANAGE, PYTHON, SHOP_DB, migrate, run

TABLES = {"work_entry", "work_engine", "engine_revision", "auth_user", "shop_shop"}
KEEP = 14
STAMP = "%Y%m%dT%H%M%S"


class UnreadableError(CannotError):
    """A database that SQLite cannot read."""


def _seal_of(file: Path) -> Path:
    return file.with_name(f"{file.name}.sha256")


def _digest(file: Path) -> str:
    with file.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


def _ask(file: Path, question: str) -> list[tuple[str, ...]]:
    with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as database:
        return database.execute(question).fetchall()


def _fault(file: Path) -> str:
    """What is wrong with a backup; empty when nothing is."""
    seal = _seal_of(file)
    said = seal.read_text("utf-8").split() if seal.exists() else []
    if said[:1] != [_digest(file)]:
        return "it is not as its .sha256 says" if said else f"{seal.name} is not beside it"
    try:
        answer = _ask(file, "PRAGMA integrity_check")[0][0]
        missing = TABLES - {name for (name,) in _ask(file, "SELECT name FROM sqlite_master WHERE type = 'table'")}
    except sqlite3.DatabaseError as error:
        return str(error)
    if answer != "ok":
        return str(answer)
    return f"it holds no {', '.join(sorted(missing))}" if missing else ""


def _shop_in(file: Path) -> tuple[str, ...] | None:
    """Which shop a database is of; None when it cannot say."""
    try:
        return _ask(file, "SELECT id, is_demo FROM shop_shop")[0]
    except (sqlite3.DatabaseError, IndexError):
        return None


def _copy(source: Path, target: Path) -> None:
    """Copy a database whole or not at all; only its owner may read it."""
    part = target.with_name(f"{target.name}.part")
    try:
        part.unlink(missing_ok=True)
        part.touch(mode=0o600)
        with closing(sqlite3.connect(source)) as here, closing(sqlite3.connect(part)) as there:
            here.backup(there)
            there.execute("PRAGMA journal_mode=DELETE")
        _onto_disk(part)
        _rename(part, target)
    except (OSError, sqlite3.Error) as error:
        kind = (
            UnreadableError if isinstance(error, sqlite3.DatabaseError) and not isinstance(error, sqlite3.OperationalError) else CannotError
        )
        raise kind(f"{target.name} cannot be written ({error}); make room or choose another place. Nothing was changed.") from None
    finally:
        part.unlink(missing_ok=True)


def _seal(file: Path) -> None:
    seal = _seal_of(file)
    try:
        seal.write_text(f"{_digest(file)}  {file.name}\n", "utf-8")
    except OSError as error:
        file.unlink(missing_ok=True)
        raise CannotError(f"{seal.name} cannot be written ({error}); nothing was kept.") from None


def backup(file: Path | None, database: Path = SHOP_DB) -> int:
    """Copy the shop's database while it may be in use, and check the copy."""
    if not database.exists():
        raise CannotError("there is no shop database yet; start it once with ./gurvo serve.")
    if file is None:
        file = BACKUPS / f"shop-{datetime.now():{STAMP}}.sqlite3"  # noqa: DTZ005 - as the shop's clock on the wall
        file.parent.mkdir(mode=0o700, exist_ok=True)
    if file.exists():
        raise CannotError(f"{file} is there already; choose another name, nothing is overwritten.")
    if not file.resolve().parent.is_dir():
        raise CannotError(f"there is no folder {file.parent}; make it first.")
    with held(database, "a restore is at work; try again when it is done.", shared=True):
        _copy(database, file)
    _seal(file)
    fault = _fault(file)
    if fault:
        file.unlink()
        _seal_of(file).unlink()
        raise CannotError(f"the copy is not sound ({fault}); nothing was kept.")
    lost = pictures.bring(pictures.named_in(file), pictures.pictures_of(database), pictures.beside(file))
    print(f"{file}: backed up and checked.")
    return _said_lost(lost, "not in the backup")


def _said_lost(lost: list[str], where: str) -> int:
    """Say which pictures are not there, and go on: everything else is whole."""
    for digest in lost:
        print(f"The picture {digest[:12]} is {where}: it is missing, or is not the one that was taken.")
    return 1 if lost else 0


def backup_and_thin(keep: int = KEEP, database: Path = SHOP_DB) -> int:
    """Back up into the shop's own folder and let go of the oldest there."""
    code = backup(None, database)
    for old in _own_backups()[:-keep]:
        old.unlink()
        _seal_of(old).unlink(missing_ok=True)
    return code


def last_backup() -> Path | None:
    """The newest in the shop's own folder."""
    own = _own_backups()
    return own[-1] if own else None


def last_backup_s() -> float:
    """How long ago it was made [s]; for ever when there is none."""
    newest = last_backup()
    return time.time() - newest.stat().st_mtime if newest else math.inf


def _own_backups() -> list[Path]:
    """Those in the shop's own folder, oldest first."""
    return sorted(BACKUPS.glob("shop-*.sqlite3"))


def restore(file: Path, database: Path = SHOP_DB, *, adopt: bool = False, link: bool = False) -> int:
    """Put a checked backup in place of the shop's database; what stood there is kept beside it."""
    if not file.exists():
        raise CannotError(f"there is no file {file}.")
    fault = _fault(file)
    if fault:
        raise CannotError(f"{file} is not a sound backup ({fault}); nothing was changed.")
    if not adopt:
        _refuse_foreign(file, database)
    ensure_var()
    with held(database, "stop the server first; nothing was changed."):
        users = users_of(database)
        if users:
            listed = ", ".join(map(str, users))
            raise CannotError(f"{database.name} is open in process {listed}: stop that first; nothing was changed.")
        # before the database that names them: until then nobody asks for them
        lost = pictures.bring(pictures.named_in(file), pictures.beside(file), pictures.pictures_of(database), link=link)
        for step in restore_steps(file, database):
            step()
    print(f"{file}: restored and checked.")
    return _said_lost(lost, "not beside the backup")


def restore_steps(file: Path, database: Path) -> list[Callable[[], object]]:
    """What a restore does, one after the other; cut off between any two, the database is whole, the old one or the new."""
    work, whole = (database.with_name(f"{database.name}.{name}") for name in ("restoring", "restored"))
    steps = [partial(_clear, work, whole), partial(_copy, file, work), partial(bring_up, work), partial(_copy, work, whole)]
    if database.exists():
        steps += [partial(_keep, database), partial(_settle, database)]
    return [*steps, partial(_clear_beside, database), partial(_rename, whole, database), partial(_clear, work, whole)]


def bring_up(copy: Path) -> None:
    """Bring a copy into today's shape, or refuse it: a table or column of ours that is missing is said."""
    if run(PYTHON, MANAGE, "bring_up_to_date", env=python_env("shop", copy), quiet=True):
        raise CannotError("the backup cannot be brought into today's shape; what is wrong stands above. Nothing was changed.")


def _clear(*files: Path) -> None:
    """Take away what a restore that was cut off has left."""
    for file in files:
        file.unlink(missing_ok=True)
        _clear_beside(file)


def _clear_beside(database: Path) -> None:
    for rest in ("-wal", "-shm"):
        database.with_name(database.name + rest).unlink(missing_ok=True)


def _keep(database: Path) -> None:
    """Keep what stands there; byte for byte where SQLite cannot read it any more."""
    kept = database.with_name(f"shop-before-restore-{datetime.now():{STAMP}-%f}.sqlite3")  # noqa: DTZ005 - as the clock on the wall
    try:
        _copy(database, kept)
    except UnreadableError:
        for rest in ("", "-wal", "-shm"):
            beside = database.with_name(database.name + rest)
            if beside.exists():
                shutil.copy(beside, kept.with_name(kept.name + rest))
    print(f"What stood there is kept as {kept.name}.")


def _settle(database: Path) -> None:
    """Write what is still in the log beside a database into it, so that it is whole without."""
    with suppress(sqlite3.DatabaseError), closing(sqlite3.connect(database)) as here:  # what cannot be read is kept as it is
        here.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def _rename(file: Path, target: Path) -> None:
    file.replace(target)
    _onto_disk(target.parent)


def _onto_disk(path: Path) -> None:
    """Have the system write a file, or a folder's names, before it goes on."""
    opened = os.open(path, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)


def _refuse_foreign(file: Path, database: Path) -> None:
    """A backup of another shop, or of the demo, is taken only when somebody says so."""
    theirs, ours = _shop_in(file), _shop_in(database) if database.exists() else None
    if theirs and theirs[1]:
        raise CannotError(f"{file} is of the demo, not of a shop; nothing was changed. --adopt takes it all the same.")
    if ours is not None and theirs != ours:
        raise CannotError(f"{file} is of another shop; nothing was changed. --adopt takes it all the same.")


def rehearse() -> int:
    """Restore the last backup into a scratch place and verify it there."""
    own = _own_backups()
    if not own:
        raise CannotError("there is no backup yet; make one with ./gurvo backup.")
    with tempfile.TemporaryDirectory() as folder:
        scratch = Path(folder) / "shop.sqlite3"
        try:
            shutil.copy(_seal_of(own[-1]), _seal_of(scratch))
            restore(own[-1], scratch, adopt=True, link=True)
        except OSError as error:
            raise CannotError(f"{own[-1].name} cannot be rehearsed ({error}).") from None
        code = run(PYTHON, MANAGE, "verify", env=migrate(scratch))
    print(f"{own[-1].name}: rehearsed, {'sound' if code == 0 else 'NOT sound'}.")
    return code
