"""PINs: a few digits, set by the lead, for a bench where somebody signed in with his password, or for a device that a lead has paired.
They open no door by themselves.
"""

from datetime import timedelta

from django.contrib.auth.hashers import check_password, make_password
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from shop.errors import Refusal
from shop.models import Pin, PinTry

SHORTEST, LONGEST = 4, 8
TRIES_A_DAY = 15
_ROW = "01234567890"


def looks_like_pin(text: str) -> bool:
    """Whether somebody typed a PIN: no password is of digits alone."""
    return text.isascii() and text.isdigit() and SHORTEST <= len(text) <= LONGEST


def set_pin(user: User, pin: str) -> None:
    """Give somebody a PIN; an empty one takes it away. Raises Refusal when it is none, or one that everybody tries first."""
    if not pin:
        Pin.objects.filter(user=user).delete()
        return
    if not looks_like_pin(pin):
        raise Refusal(f"A PIN has {SHORTEST} to {LONGEST} digits and nothing else.", "pin")
    if len(set(pin)) == 1 or pin in _ROW or pin in _ROW[::-1]:
        raise Refusal("One digit again and again, or digits in a row, are tried first; choose another PIN.", "pin")
    Pin.objects.update_or_create(user=user, defaults={"hashed": make_password(pin)})


def with_pin(username: str, pin: str, by: str) -> User | None:
    """Return whose PIN it is. After too many wrong tries within a day in somebody's sessions, it holds no longer there: the password does.

    Each try is counted before it is looked at, so that many at once are no more than one after the other.
    """
    kept = Pin.objects.select_related("user").filter(user__username=username).first()
    if kept is None or not _may_try(username, by):
        return None
    if not check_password(pin, kept.hashed):
        return None
    PinTry.objects.filter(username=username, by=by).delete()
    return kept.user


@transaction.atomic
def _may_try(username: str, by: str) -> bool:
    tries, now = PinTry.objects.filter(username=username, by=by), timezone.now()
    tries.filter(at__lt=now - timedelta(days=1)).delete()
    if tries.count() >= TRIES_A_DAY:
        return False
    PinTry.objects.create(username=username, by=by, at=now)
    return True


def forget_tries(username: str) -> None:
    """Let somebody's PIN be tried again everywhere."""
    PinTry.objects.filter(username=username).delete()
