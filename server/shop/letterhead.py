"""What the shop is called on papers that are handed over, and by whose clock they are dated."""

__all__ = ["in_shops_time", "letterhead", "on_shops_paper", "set_letterhead", "set_mark"]

from base64 import b64encode
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import NamedTemporaryFile
from typing import IO
from zoneinfo import available_timezones

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from press.pictures import bounded
from shop.errors import Forbidden, Refusal
from shop.models import Letterhead
from shop.roles import may_write_documents, role_of

LARGEST_MARK = 1_000_000  # bytes


def letterhead() -> Letterhead:
    """Return what was said; empty as long as nobody has."""
    return Letterhead.objects.first() or Letterhead()


@transaction.atomic
def set_letterhead(*, name: str, address: str, zone: str, paper: str = "A4", by: User) -> Letterhead:
    """Say it from now on; the lead alone."""
    if not may_write_documents(role_of(by)):
        raise Forbidden("The lead says what stands at the head of papers.")
    if zone and zone not in available_timezones():
        raise Refusal(f"There is no time zone {zone}; write such as Europe/Zurich.", "zone")
    said: Letterhead = letterhead()
    said.name, said.address, said.zone, said.paper = name.strip(), address.strip(), zone, paper
    said.save()
    return said


def set_mark(file: IO[bytes] | None, by: User) -> Letterhead:
    """Put the shop's own mark at the head of papers, or take it off; the lead alone. Raises Refusal where it is no picture."""
    if not may_write_documents(role_of(by)):
        raise Forbidden("The lead says what stands at the head of papers.")
    mark = "" if file is None else _small(file)
    with transaction.atomic():
        said: Letterhead = letterhead()
        said.mark = mark
        said.save()
    return said


def _small(file: IO[bytes]) -> str:
    content = file.read(LARGEST_MARK + 1)
    if len(content) > LARGEST_MARK:
        raise Refusal("A mark of the shop is a picture of 1 MB at most; take a smaller one.", "file")
    with NamedTemporaryFile() as kept:
        kept.write(content)
        kept.flush()
        found = bounded(Path(kept.name))
    if isinstance(found, str):
        raise Refusal(found, "file")
    return f"data:image/jpeg;base64,{b64encode(found.small).decode()}"


def on_shops_paper(page: str) -> str:
    """A page as it is laid out on the paper that the shop has."""
    return page.replace("size: A4", f"size: {letterhead().paper}")


@contextmanager
def in_shops_time() -> Iterator[None]:
    """Tell times by the shop's clock."""
    zone = letterhead().zone
    with timezone.override(zone or timezone.get_default_timezone()):
        yield
