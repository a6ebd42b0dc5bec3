"""The pictures of a shop in backup and restore: files named by the SHA-256 of their bytes, kept once for however many backups name them."""

import hashlib
import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

IS_ONE = "CASE WHEN json_valid(body) THEN json_extract(body, '$.kind') END = 'picture'"
NAMED = f"SELECT DISTINCT json_extract(body, '$.digest') FROM work_entry WHERE {IS_ONE}"  # noqa: S608 - of our own making


def pictures_of(database: Path) -> Path:
    """Where the pictures of a database are."""
    return database.with_name(f"{database.stem}-pictures")


def beside(backup: Path) -> Path:
    """Where a backup has its pictures, with all others of its folder."""
    return backup.parent / "pictures"


def named_in(database: Path) -> list[str]:
    """The digests that entries of a database name."""
    with closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as opened:
        return sorted(digest for (digest,) in opened.execute(NAMED) if isinstance(digest, str))


def bring(digests: list[str], source: Path, target: Path, *, link: bool = False) -> list[str]:
    """Have pictures in a folder too; return those that are nowhere, or are not what they are called."""
    return [digest for digest in digests if not _is_brought(digest, source, target, link=link)]


def _is_brought(digest: str, source: Path, target: Path, *, link: bool) -> bool:
    there = target / digest[:2] / f"{digest}.jpg"
    if there.exists():
        return True
    whole, *small = _files(source, digest)
    if not whole.exists() or _digest(whole) != digest:
        return False
    there.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    for file in (*small, whole):  # the one that is asked for last, so that it is never without the other
        if file.exists():
            _place(file, there.parent / file.name, link=link)
    return True


def _files(folder: Path, digest: str) -> Iterator[Path]:
    yield folder / digest[:2] / f"{digest}.jpg"
    yield folder / digest[:2] / f"{digest}.small.jpg"


def _place(file: Path, target: Path, *, link: bool) -> None:
    if link:
        try:
            os.link(file, target)
        except FileExistsError:
            pass
        except OSError:  # another disk
            shutil.copy(file, target)
        return
    part = target.with_name(f"{target.name}.part")
    shutil.copy(file, part)
    part.replace(target)


def _digest(file: Path) -> str:
    with file.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()
