"""What the shop is called on papers that are handed over, and by whose clock they are dated."""

__all__ = ["in_shops_time", "letterhead", "on_shops_paper", "set_letterhead"]

from collections.abc import Iterator
from contextlib import contextmanager
from zoneinfo import available_timezones

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from shop.errors import Forbidden, Refusal
from shop.models import Letterhead
from shop.roles import may_write_documents, role_of


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


def on_shops_paper(page: str) -> str:
    """A page as it is laid out on the paper that the shop has."""
    return page.replace("size: A4", f"size: {letterhead().paper}")


@contextmanager
def in_shops_time() -> Iterator[None]:
    """Tell times by the shop's clock."""
    zone = letterhead().zone
    with timezone.override(zone or timezone.get_default_timezone()):
        yield
