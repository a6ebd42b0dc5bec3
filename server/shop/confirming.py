"""Showing once more who one is: a password given just now for what changes the shop, and one confirmation for one signature."""

__all__ = ["CONFIRMED_FOR", "FRESH_FOR", "came_with_password", "check_fresh", "confirm_for", "is_fresh", "used_up"]

from datetime import timedelta
from hashlib import sha256
from time import time

from django.http import HttpRequest
from django.utils import timezone

from shop.errors import PasswordNeeded
from shop.models import Confirmation
from shop.pins import looks_like_pin
from shop.roles import person_of

FRESH_FOR = timedelta(minutes=5)
CONFIRMED_FOR = timedelta(minutes=2)
PASSWORD_AT = "password_at"  # noqa: S105 - a moment


def came_with_password(request: HttpRequest, password: str) -> None:
    """Take note of when a password was given in this session; a PIN is none."""
    if not looks_like_pin(password):
        request.session[PASSWORD_AT] = time()


def is_fresh(request: HttpRequest) -> bool:
    """Whether the password of whoever is signed in was given just now."""
    return time() - float(request.session.get(PASSWORD_AT, 0.0)) < FRESH_FOR.total_seconds()


def check_fresh(request: HttpRequest) -> None:
    """People, roles, passwords and the shop's choices: a PIN is not enough, and an old session neither."""
    if not is_fresh(request):
        raise PasswordNeeded


def confirm_for(request: HttpRequest, about: str) -> None:
    """Keep that whoever is signed in has shown who he is for one thing and no other."""
    own = Confirmation.objects.filter(user=person_of(request))
    own.filter(at__lt=timezone.now() - CONFIRMED_FOR).delete()
    Confirmation.objects.create(user=person_of(request), session=_session(request), about=about, at=timezone.now())


def used_up(request: HttpRequest, about: str) -> bool:
    """Whether that was confirmed in this session just now; it is gone with the transaction in which it is asked."""
    own = Confirmation.objects.filter(user=person_of(request), session=_session(request), about=about)
    count, _ = own.filter(at__gt=timezone.now() - CONFIRMED_FOR).delete()
    return count > 0


def _session(request: HttpRequest) -> str:
    return sha256((request.session.session_key or "").encode()).hexdigest()
