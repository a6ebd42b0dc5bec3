"""Keys for programs: each is a person's own, does what he may, and is taken back by him at any time.

What is kept of one is a digest. A key signs nothing and changes no people: what asks for a password once more asks in vain.
"""

__all__ = ["ByScriptKey", "check_nobody_but_people", "key_of", "keys_of", "make_key", "take_back"]

import secrets

from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja.security import HttpBearer

from shop.errors import Conflict, Forbidden
from shop.models import ScriptKey
from shop.secret_digest import digest_of_secret

BEGINS = "gurvo_"
MOST = 20  # a person
BY_KEY = "script key"


class ByScriptKey(HttpBearer):
    """Takes ``Authorization: Bearer`` and a key for whoever made it, as long as he is of the shop."""

    openapi_description = "A key for programs, made by a person for himself"

    def authenticate(self, request: HttpRequest, token: str) -> User | None:
        """Return whose key it is; None for one that is nobody's."""
        key = ScriptKey.objects.select_related("owner").filter(secret=digest_of_secret(token), owner__is_active=True).first()
        if key is None:
            return None
        today = timezone.localdate()
        if key.used_on != today:  # a day is enough to see which are in use
            ScriptKey.objects.filter(pk=key.pk).update(used_on=today)
        request.user = key.owner
        vars(request)[BY_KEY] = key.name
        return key.owner


def key_of(request: HttpRequest) -> str:
    """Return what the key is for by which a request came; empty where somebody is signed in."""
    return str(vars(request).get(BY_KEY, ""))


def check_nobody_but_people(request: HttpRequest) -> None:
    """Whoever shows who he is is there himself. Raises Forbidden for a program."""
    if key_of(request):
        raise Forbidden("A key for programs signs nothing; sign in for that.")


def keys_of(person: User) -> list[ScriptKey]:
    """Return a person's keys, the newest first."""
    return list(ScriptKey.objects.filter(owner=person).order_by("-made_at", "-pk"))


@transaction.atomic
def make_key(person: User, name: str) -> tuple[ScriptKey, str]:
    """Make one; what it is, is told once. Raises Conflict where he has very many."""
    if ScriptKey.objects.filter(owner=person).count() >= MOST:
        raise Conflict(f"You have {MOST} keys already; take back those that are not used.", "name")
    secret = f"{BEGINS}{secrets.token_urlsafe(32)}"
    return ScriptKey.objects.create(owner=person, name=name.strip(), secret=digest_of_secret(secret), made_at=timezone.now()), secret


@transaction.atomic
def take_back(key: ScriptKey) -> None:
    """From now on it opens nothing."""
    key.delete()
