"""Changes to the shop: signing in and out, preferences."""

from django.contrib.auth import authenticate, login
from django.contrib.auth.models import Group, User
from django.contrib.auth.password_validation import validate_password
from django.db import transaction
from django.http import HttpRequest

from shop.errors import SignInFailed
from shop.models import Preference
from shop.roles import Role


def sign_in(request: HttpRequest, username: str, password: str) -> None:
    """Sign somebody in, or say why not; five wrong tries lock that name out for a quarter of an hour."""
    user = authenticate(request, username=username, password=password)
    if user is None:
        raise SignInFailed("Name and password do not belong together; try again.", "password")
    login(request, user)


def set_preference(user: User, *, length_unit: str, seen_from: str) -> None:
    """Keep how a person likes to see things."""
    Preference.objects.update_or_create(user=user, defaults={"length_unit": length_unit, "seen_from": seen_from})


@transaction.atomic
def add_person(*, username: str, name: str, role: Role, password: str) -> User:
    """Add a person with a role; the password must be a sound one."""
    user = User(username=username, first_name=name)
    validate_password(password, user)
    user.set_password(password)
    user.save()
    user.groups.add(Group.objects.get_or_create(name=role)[0])
    return user
