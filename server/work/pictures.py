"""Photographs of engines, kept as files beside the database, each under the SHA-256 of its bytes; entries name them by it.

A picture comes in pieces, so that a dropped connection costs one of them; when it is whole it is brought to a bounded size and kept.
"""

__all__ = ["MOST_BYTES", "Came", "check_there", "faults_of", "kept", "picture_file", "pictures_folder", "piece", "small_file"]

import hashlib
import os
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from time import time
from uuid import UUID

from django.contrib.auth.models import User
from django.db import connection
from django.http import Http404

from gurvo_core.ledger import Body
from gurvo_core.pictures.job.entries import PictureTaken
from press.pictures import bounded
from shop.errors import Forbidden, Refusal
from shop.gate import Gate
from shop.roles import may_record, role_of
from work.models import Entry

MOST_BYTES = 40 * 1024 * 1024
STALE_S = 2 * 24 * 3600  # whoever was away for longer begins anew
FEW = 40  # pictures of one person on their way
BRINGING = Gate("Pictures of others are being brought to size", at_once=1, waiting=8)


class Came(Refusal):
    """A picture that cannot be taken."""

    code = "picture"


def pictures_folder() -> Path:
    """Return where the pictures of the database in use are."""
    database = Path(str(connection.settings_dict["NAME"]))
    return database.with_name(f"{database.stem}-pictures")


def picture_file(digest: str) -> Path:
    """Return where a picture is kept, or would be."""
    return pictures_folder() / digest[:2] / f"{digest}.jpg"


def small_file(digest: str) -> Path:
    """Return where the same is kept small; 404 where there is none."""
    small = picture_file(digest).with_suffix(".small.jpg")
    if not small.exists():
        raise Http404
    return small


def _coming(by: User, name: UUID) -> Path:
    return pictures_folder() / "coming" / f"{by.pk}-{name}"


def piece(name: UUID, *, at: int, content: bytes, by: User) -> int:
    """Keep one more piece of a picture on its way; return how much of it is here, which is where the next piece begins."""
    _check_role(by)
    file = _coming(by, name)
    file.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    has = file.stat().st_size if file.exists() else 0
    if not has:
        _clear_stale(file.parent, by)
    if at != has or not content:
        return has
    if has + len(content) > MOST_BYTES:
        file.unlink(missing_ok=True)
        raise Came("A picture has 40 MB at most; take it smaller.")
    with file.open("ab") as stream:
        stream.write(content)
    return has + len(content)


def _clear_stale(folder: Path, by: User) -> None:
    """Let go of what nobody goes on sending, and of too much of one person."""
    for old in folder.iterdir():
        if time() - old.stat().st_mtime > STALE_S:
            old.unlink(missing_ok=True)
    if sum(1 for _ in folder.glob(f"{by.pk}-*")) >= FEW:
        raise Came(f"{FEW} pictures are on their way already; let them come in first.")


def kept(name: UUID, *, by: User) -> tuple[str, int, int]:
    """Bring a picture that is whole to its size and keep it; return its digest, width and height. Done twice it is kept once."""
    _check_role(by)
    file = _coming(by, name)
    if not file.exists():
        raise Came("Nothing of this picture is here; send it from its beginning.")
    with BRINGING.passed():
        found = bounded(file)
    if isinstance(found, str):
        file.unlink(missing_ok=True)
        raise Came(found)
    digest = hashlib.sha256(found.whole).hexdigest()
    target = picture_file(digest)
    target.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    _write(target.with_suffix(".small.jpg"), found.small)
    _write(target, found.whole)
    file.unlink(missing_ok=True)
    return digest, found.width, found.height


def _write(target: Path, content: bytes) -> None:
    """Whole or not at all, and on the disk before anything names it."""
    part = target.with_name(f"{target.name}.{os.getpid()}.part")
    try:
        with part.open("wb") as stream:
            stream.write(content)
            stream.flush()
            os.fsync(stream.fileno())
        part.replace(target)
    finally:
        with suppress(OSError):
            part.unlink(missing_ok=True)


def _check_role(by: User) -> None:
    if not may_record(role_of(by)):
        raise Forbidden("A viewer may look but not record; ask a builder or the lead.")


def check_there(body: Body) -> None:
    """Refuse an entry that names a picture that is not here."""
    if isinstance(body, PictureTaken) and not picture_file(body.digest).exists():
        raise Came("The picture itself is not here yet: send it first, then its entry.", "entry.digest")


def faults_of(serial: str) -> Iterator[str]:
    """Return each picture of an engine, struck ones too, that is missing or is not what its entry says; no ledger is folded for it."""
    for seq, body in Entry.objects.filter(engine=serial, kind="picture").order_by("seq").values_list("seq", "body"):
        file, called = picture_file(body["digest"]), f"the picture of entry {seq} ({body['digest'][:12]})"
        if not file.exists():
            yield f"{called} is missing"
            continue
        with file.open("rb") as stream:
            if hashlib.file_digest(stream, "sha256").hexdigest() != body["digest"]:
                yield f"{called} is not the one that was taken"
