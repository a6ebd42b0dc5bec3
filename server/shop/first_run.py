"""The first start of a shop of its own: whoever reads what the server printed makes himself its first lead, once."""

__all__ = ["begin_shop", "is_new"]

import hmac

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest

from shop import services
from shop.errors import Conflict, Forbidden
from shop.guesses import guessing
from shop.letterhead import set_letterhead
from shop.people import add_person


def is_new() -> bool:
    """Whether nobody is there yet."""
    return not User.objects.exists()


def begin_shop(request: HttpRequest, *, key: str, shop: str, zone: str, username: str, name: str, password: str) -> None:
    """Make the first lead, name the shop, and sign him in. Raises Forbidden for a wrong key, Conflict once somebody is there."""
    if not is_new():
        raise Conflict("This shop has people already; sign in, or ask the lead.", "key")
    with guessing(request) as guess:
        guess.was_right = bool(settings.FIRST_KEY) and hmac.compare_digest(_plain(key), _plain(settings.FIRST_KEY))
    if not guess.was_right:
        raise Forbidden("This is not the key that stands where ./gurvo serve was started; copy it from there.", "key")
    _first_lead(shop, zone, username, name, password)
    services.sign_in(request, username, password)


@transaction.atomic
def _first_lead(shop: str, zone: str, username: str, name: str, password: str) -> None:
    if not is_new():  # asked again where nobody else writes
        raise Conflict("Somebody else was faster; sign in, or ask the lead.", "key")
    lead = add_person(username=username, name=name, role="lead", password=password)
    set_letterhead(name=shop, address="", zone=zone, by=lead)


def _plain(key: str) -> bytes:
    return key.replace("-", "").strip().casefold().encode()
