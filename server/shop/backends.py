"""Whom a session belongs to, read with his role in one query; and who it is by password, or by PIN where that is enough."""

from typing import Any

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User
from django.http import HttpRequest

from shop.pins import looks_like_pin, with_pin
from shop.roles import with_role

TAKES_PIN = "takes_pin"  # in whose session, or at which paired device


class PeopleBackend(ModelBackend):
    """Django's own, but that a person comes with his role, and may show a PIN within a session or at a paired device."""

    def get_user(self, user_id: int) -> User | None:
        """Return who is signed in, if he still may be."""
        user = with_role(User.objects.filter(pk=user_id)).first()
        return user if user is not None and self.user_can_authenticate(user) else None

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **kwargs: Any
    ) -> User | None:
        """Return whose password it is; within a session, whose PIN."""
        if request is not None and username and password and TAKES_PIN in vars(request) and looks_like_pin(password):
            user = with_pin(username, password, by=vars(request)[TAKES_PIN])
            return user if user is not None and self.user_can_authenticate(user) else None
        found = super().authenticate(request, username, password, **kwargs)
        return found if isinstance(found, User) else None
