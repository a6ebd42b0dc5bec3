"""Which of the shop's own tables are in the daybook, and what their lines say: of passwords and PINs only a digest of what is kept."""

__all__ = ["begin"]

from typing import Any

from axes.models import AccessLog
from django.contrib.auth.models import User
from django.db.models import Model
from django.db.models.signals import m2m_changed, post_delete, post_save

from gurvo_core.ledger.chain import digest_of
from shop.daybook import BOOKED, book, booked, fields_of
from shop.models import BenchDevice, Gauge, GaugeCheck, Letterhead, Pin, ScriptKey, Shop, StockItem


def _person(user: User) -> dict[str, Any]:
    plain = {
        name: getattr(user, name) for name in ("username", "first_name", "last_name", "email", "is_active", "is_staff", "is_superuser")
    }
    return {**plain, "password": digest_of(user.password), "roles": sorted(user.groups.values_list("name", flat=True))}


def _pin(pin: Pin) -> dict[str, Any]:
    return {"user": pin.user_id, "hashed": digest_of(pin.hashed)}


def _letterhead(said: Letterhead) -> dict[str, Any]:
    return {**fields_of("mark")(said), "mark": digest_of(said.mark) if said.mark else ""}


def _saved(sender: type[Model], instance: Model, *, created: bool, raw: bool = False, **_: Any) -> None:
    own = BOOKED.get(sender)
    if own is not None and not raw and (created or not own.once):
        book(instance)


def _deleted(sender: type[Model], instance: Model, **_: Any) -> None:
    if sender in BOOKED:
        book(instance, gone=True)


def _in_roles(instance: Model, action: str, **_: Any) -> None:
    if action.startswith("post_") and isinstance(instance, User):
        book(instance)


def begin() -> None:
    """Keep the shop's own tables in the daybook; other rooms add theirs."""
    booked("shop", Shop, fields_of("misfit"))
    booked("person", User, _person)
    booked("pin", Pin, _pin)
    booked("sign-in", AccessLog, fields_of("logout_time", "session_hash"))
    booked("gauge", Gauge, fields_of())
    booked("check", GaugeCheck, fields_of())
    booked("stock", StockItem, fields_of())
    booked("bench device", BenchDevice, fields_of("used_at"))
    booked("script key", ScriptKey, fields_of("used_on"))
    booked("letterhead", Letterhead, _letterhead)
    post_save.connect(_saved, dispatch_uid="booked")
    post_delete.connect(_deleted, dispatch_uid="booked")
    m2m_changed.connect(_in_roles, sender=User.groups.through, dispatch_uid="booked")
