"""Tablets and telephones that stand at a bench: paired once by a lead, they ask for a name and a PIN and no password.

What is kept of one is a digest of a secret that the device alone has, in a cookie that no script reads. A PIN alone still opens nothing.
"""

__all__ = ["COOKIE", "all_benches", "begin_pairing", "bench_of", "keep_secret", "pair", "unpair"]

import secrets
from threading import Lock

import segno
from cachetools import TTLCache
from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from shop.errors import Forbidden
from shop.guesses import guessing
from shop.models import BenchDevice
from shop.roles import shown_name
from shop.secret_digest import digest_of_secret

COOKIE = "bench"
KEPT_S = 5 * 366 * 24 * 3600
GOOD_FOR_S = 600
LETTERS = "ABCDEFGHJKMNPQRSTUVWXYZ23456789"  # none that is taken for another
LENGTH = 8
_codes: TTLCache[str, tuple[str, str]] = TTLCache(64, ttl=GOOD_FOR_S)  # what the device will be called, and who pairs it
_lock = Lock()


def begin_pairing(name: str, by: User) -> str:
    """Return a code by which one device may be paired within ten minutes."""
    code = "".join(secrets.choice(LETTERS) for _ in range(LENGTH))
    with _lock:
        _codes[code] = (name.strip(), shown_name(by))
    return code


def square_of(address: str) -> str:
    """An address as a square code, as a picture's own address."""
    return segno.make(address, error="m", micro=False).svg_data_uri(scale=5, border=4, dark="#1C2226", light="#fff")


def pair(request: HttpRequest, code: str) -> tuple[BenchDevice, str]:
    """Pair whoever sends the code; return the device and its secret. A code holds once."""
    with guessing(request) as guess:
        with _lock:
            found = _codes.pop(code.strip().upper(), None)
        guess.was_right = found is not None
    if found is None:
        raise Forbidden("This code does not hold, or not any more; let the lead show a new one.", "code")
    secret = secrets.token_urlsafe(32)
    name, by_name = found
    return BenchDevice.objects.create(name=name, secret=digest_of_secret(secret), by_name=by_name, paired_at=timezone.now()), secret


def keep_secret(answer: HttpResponse, secret: str) -> None:
    """Let the device keep its secret, out of reach of scripts; over TLS alone where the shop is served so."""
    answer.set_cookie(COOKIE, secret, max_age=KEPT_S, httponly=True, samesite="Strict", secure=settings.SESSION_COOKIE_SECURE)


def bench_of(request: HttpRequest) -> BenchDevice | None:
    """Return which paired device asks; None for any other."""
    secret = request.COOKIES.get(COOKIE)
    return BenchDevice.objects.filter(secret=digest_of_secret(secret)).first() if secret else None


def all_benches() -> list[BenchDevice]:
    """Return every device that is paired, the newest first."""
    return list(BenchDevice.objects.order_by("-paired_at"))


@transaction.atomic
def unpair(bench: BenchDevice) -> None:
    """From now on it asks for a password like any other."""
    bench.delete()
