"""PINs: a few digits, set by the lead, for a bench where somebody signed in with his password before. They open no door by themselves."""

from datetime import timedelta

from axes.models import AccessFailureLog
from django.contrib.auth.hashers import check_password, make_password
from django.contrib.auth.models import User
from django.utils import timezone

from shop.errors import Refusal
from shop.models import Pin

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


def with_pin(username: str, pin: str) -> User | None:
    """Return whose PIN it is. After too many wrong tries within a day, wherever, it holds no longer: the password does."""
    kept = Pin.objects.select_related("user").filter(user__username=username).first()
    if kept is None or _tried_too_often(username):
        return None
    return kept.user if check_password(pin, kept.hashed) else None


def _tried_too_often(username: str) -> bool:
    since = timezone.now() - timedelta(days=1)
    tries: int = AccessFailureLog.objects.filter(username=username, attempt_time__gt=since).count()
    return tries >= TRIES_A_DAY
