"""Queries that are asked with every entry: Django writes their SQL once, and only what is looked for changes."""

from functools import lru_cache
from typing import Any

from django.db.models import Model, QuerySet

_MARK = "looked for"


@lru_cache(maxsize=16)
def _sql(model: type[Model], how: str) -> str:
    rows: QuerySet[Any] = getattr(model._default_manager, how)() if how else model._default_manager.all()
    sql, looked_for = rows.filter(pk=_MARK).query.sql_with_params()
    if looked_for != (_MARK,):
        raise TypeError(f"{model.__name__} {how}: the key must be all that is looked for")
    return sql


def by_key(model: type[Model], key: str, how: str = "") -> Any:
    """Return one row by its key, or None; ``how`` names a way of the model's manager to read it."""
    return next(iter(model._default_manager.raw(_sql(model, how), [key])), None)
