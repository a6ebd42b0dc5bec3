"""Who may do what. A role is a group; a lead may all that a builder may.

| role | may |
| --- | --- |
| viewer | look |
| builder | look, put engines on stands, make entries |
| lead | all that, sign the record, strike a signature, take engine documents in, move an engine to a newer revision |
"""

__all__ = ["ROLES", "Role", "may_record", "may_sign", "may_write_documents", "role_of", "shown_name"]

from typing import Literal

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User

Role = Literal["viewer", "builder", "lead"]
ROLES: tuple[Role, ...] = ("viewer", "builder", "lead")


def role_of(user: AbstractBaseUser | AnonymousUser) -> Role:
    """Return the strongest role of a person; somebody without a group may only look. Asked once for each request's user."""
    if not isinstance(user, User):
        return "viewer"
    if "gurvo_role" not in user.__dict__:
        names = set(user.groups.values_list("name", flat=True))
        user.__dict__["gurvo_role"] = next((role for role in reversed(ROLES) if role in names), "viewer")
    role: Role = user.__dict__["gurvo_role"]
    return role


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
    return (user.first_name or user.username) if user else ""
