"""Whom a session belongs to, read with his role in one query."""

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User

from shop.roles import with_role


class PeopleBackend(ModelBackend):
    """Django's own, but that a person comes with his role."""

    def get_user(self, user_id: int) -> User | None:
        """Return who is signed in, if he still may be."""
        user = with_role(User.objects.filter(pk=user_id)).first()
        return user if user is not None and self.user_can_authenticate(user) else None
