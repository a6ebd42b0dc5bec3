"""Who may do what. A role is a group; a lead may all that a builder may.

| role | may |
| --- | --- |
| viewer | look |
| builder | look, put engines on stands, make entries |
| lead | all that, sign the record, strike a signature, take engine documents in, move an engine to a newer revision |
"""

__all__ = ["ROLES", "Role", "called", "may_record", "may_sign", "may_write_documents", "person_of", "role_of", "shown_name", "with_role"]

from functools import cache
from typing import Any, Literal

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User
from django.db.models import Case, Exists, OuterRef, QuerySet, Value, When
from django.http import HttpRequest

Role = Literal["viewer", "builder", "lead"]
ROLES: tuple[Role, ...] = ("viewer", "builder", "lead")


@cache
def _strongest_role() -> Case:
    groups = User.groups.through.objects.filter(user=OuterRef("pk"))
    held = [When(Exists(groups.filter(group__name=role)), then=Value(role)) for role in reversed(ROLES[1:])]
    return Case(*held, default=Value(ROLES[0]))


def with_role(people: QuerySet[Any]) -> QuerySet[Any]:
    """Return people with the strongest role of each beside him."""
    named: QuerySet[Any] = people.annotate(role=_strongest_role())
    return named


def role_of(user: AbstractBaseUser | AnonymousUser) -> Role:
    """Return the strongest role of a person; somebody without a group may only look. Whoever is signed in comes with his role."""
    if not isinstance(user, User):
        return "viewer"
    person: Any = user
    if not hasattr(person, "role"):
        person.role = with_role(User.objects.filter(pk=person.pk)).get().role
    role: Role = person.role
    return role


def person_of(request: HttpRequest) -> User:
    """Return who is signed in, at a door that nobody else passes."""
    assert isinstance(request.user, User)
    return request.user


def may_record(role: Role) -> bool:
    """Whether entries may be made."""
    return role in ("builder", "lead")


def may_sign(role: Role) -> bool:
    """Whether the record may be signed."""
    return role == "lead"


def may_write_documents(role: Role) -> bool:
    """Whether engine documents may be taken in, and engines moved to a newer one."""
    return role == "lead"


def shown_name(user: User | None) -> str:
    """What a person is called on screen and on paper; nothing for nobody."""
    return called(user.first_name, user.username) if user else ""


def called(name: str | None, username: str | None) -> str:
    """What somebody of this name and sign-in name is called; nothing for nobody."""
    return name or username or ""
