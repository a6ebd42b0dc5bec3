"""The people of the shop: who is there, in which role, and who has left. A lead decides; what somebody entered stays his for ever."""

import unicodedata
from datetime import datetime, time
from functools import cache
from itertools import chain
from typing import Any, Literal, NamedTuple

from axes.models import AccessAttempt, AccessFailureLog, AccessLog
from confusable_homoglyphs.confusables import is_confusable
from django.contrib.auth import SESSION_KEY
from django.contrib.auth.models import Group, User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest

from shop.errors import Conflict, Forbidden, Refusal
from shop.models import Pin, Shop, working_hours
from shop.pins import forget_tries, set_pin
from shop.roles import ROLES, Role, role_of, shown_name, with_role

LOG_SHOWN = 100


class SignInLine(NamedTuple):
    """One line of the sign-in log."""

    at: datetime
    username: str
    place: str
    what: Literal["signed in", "wrong password"]


def check_lead(request: HttpRequest) -> None:
    """Only a lead has to do with people."""
    if role_of(request.user) != "lead":
        raise Forbidden("Only the lead has to do with people; ask the lead.")


def everybody() -> list[dict[str, Any]]:
    """Everybody, those who have left last, with who is paused for wrong tries."""
    paused = set(AccessAttempt.objects.values_list("username", flat=True))
    with_pin = set(Pin.objects.values_list("user_id", flat=True))
    people = with_role(User.objects.all()).order_by("-is_active", "username")
    return [
        {
            "username": user.username,
            "name": shown_name(user),
            "role": user.role,
            "has_left": not user.is_active,
            "has_pin": user.pk in with_pin,
            "wrong_tries": user.username in paused,
            "last_signed_in": user.last_login,
        }
        for user in people
    ]


def _alike(name: str) -> set[str]:
    """What two names share that people would take for one: case, blanks, ways of writing a letter and letters that look alike (by
    Unicode's own table) do not tell them apart. Capitals look like other letters than small ones, so it is asked of both.
    """
    written = "".join(unicodedata.normalize("NFKC", name).split())
    return {_drawn(_drawn(written).casefold()), _drawn(written.casefold())}


def _drawn(letters: str) -> str:
    return "".join(map(_looks_like, letters))


@cache
def _looks_like(letter: str) -> str:
    """The one by which all that look like a letter go."""
    alike = _confused_with(letter)
    if len(alike) != 1:
        return letter
    other = alike[0]
    return other if len(_confused_with(other)) > 1 else min(letter, other)


def _confused_with(letter: str) -> list[str]:
    found = is_confusable(letter, greedy=True) or []
    return [other["c"] for one in found for other in one["homoglyphs"]]


def _check_name(field: str, name: str) -> None:
    if not name.strip() or name != name.strip() or any(unicodedata.category(letter) in ("Cc", "Cf") for letter in name):
        raise Refusal("A name has letters one can see, and no blank at either end.", field)
    taken = chain.from_iterable(User.objects.values_list("username", "first_name"))
    if any(_alike(name) & _alike(other) for other in taken if other):
        raise Conflict(f"“{name}” would be taken for somebody who is there already; choose a name that differs in letters.", field)


def _set_password(user: User, password: str) -> None:
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refusal(" ".join(error.messages), "password") from None
    user.set_password(password)


@transaction.atomic
def add_person(*, username: str, name: str, role: Role, password: str) -> User:
    """Add a person with a role; names and password must be sound ones."""
    _check_name("username", username)
    if name != username:
        _check_name("name", name)
    user = User(username=username, first_name=name)
    _set_password(user, password)
    user.save()
    user.groups.add(_group(role))
    return user


def _group(role: Role) -> Group:
    return Group.objects.get_or_create(name=role)[0]


@transaction.atomic
def change_person(
    user: User, *, role: Role | None = None, password: str | None = None, pin: str | None = None, has_left: bool | None = None
) -> None:
    """Change a role, give a new password or PIN, let somebody leave or come back. A shop is never left without a lead."""
    if (role not in (None, "lead") or has_left) and role_of(user) == "lead" and _leads() <= 1:
        raise Refusal("This is the only lead; make somebody else a lead first.", "role" if role else "has_left")
    if role is not None:
        user.groups.remove(*Group.objects.filter(name__in=ROLES))
        user.groups.add(_group(role))
    if password is not None:
        _set_password(user, password)  # which ends every session of his
    if pin is not None:
        set_pin(user, pin)
    if has_left is not None:
        user.is_active = not has_left
    user.save()
    if has_left:  # for good, should he ever come back
        set_pin(user, "")
        _end_sessions(user)


def _end_sessions(user: User) -> None:
    for session in Session.objects.iterator():
        if session.get_decoded().get(SESSION_KEY) == str(user.pk):
            session.delete()


def _leads() -> int:
    return User.objects.filter(groups__name="lead", is_active=True).count()


def at_this_bench() -> list[dict[str, str]]:
    """Who may take over a bench that is signed in."""
    users = User.objects.filter(is_active=True).order_by("first_name", "username")
    return [{"username": user.username, "name": shown_name(user)} for user in users]


def choose(*, day_begins: time, day_ends: time, **others: Any) -> None:
    """Keep what the shop has chosen: when a bench left alone asks who is there, when the shop works, where instruments may be."""
    if not day_begins < day_ends:
        raise Refusal(f"The day would end at {day_ends:%H:%M}, before it begins; give a later end.", "day_ends")
    Shop.objects.update_or_create(defaults={"day_begins": day_begins, "day_ends": day_ends, **others})
    working_hours.cache_clear()


def unlock(user: User) -> None:
    """Take the pause after wrong tries off, at every place."""
    AccessAttempt.objects.filter(username=user.username).delete()
    AccessFailureLog.objects.filter(username=user.username).delete()
    forget_tries(user.username)


def sign_in_log() -> list[SignInLine]:
    """Who signed in and who tried, newest first."""
    came = AccessLog.objects.order_by("-attempt_time")[:LOG_SHOWN]
    wrong = AccessFailureLog.objects.order_by("-attempt_time")[:LOG_SHOWN]
    lines = [SignInLine(row.attempt_time, row.username, row.ip_address or "", "signed in") for row in came]
    lines += [SignInLine(row.attempt_time, row.username, row.ip_address or "", "wrong password") for row in wrong]
    return sorted(lines, key=lambda line: line.at, reverse=True)[:LOG_SHOWN]
