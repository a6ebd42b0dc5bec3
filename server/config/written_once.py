"""Queries that go with every entry: their SQL is written once from the models, and only what is looked for or kept changes."""

from collections.abc import Iterable
from functools import lru_cache
from typing import Any

from django.db import connections, router
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


def insert_one(row: Model) -> None:
    """Keep one new row as ``save(force_insert=True)`` does, without signals; an id of the database's own is not read back."""
    model = type(row)
    database = router.db_for_write(model)
    connection = connections[database]
    fields = _insert_fields(model, row.pk is not None)
    # the value of the attribute itself: a related row need not be fetched for its key
    values = [field.get_db_prep_save(getattr(row, field.attname), connection) for field in fields]
    with connection.cursor() as cursor:
        cursor.execute(_insert_sql(model, row.pk is not None), values)
    row._state.adding, row._state.db = False, database


def update_one(row: Model, changes: dict[str, Any]) -> None:
    """Set some fields of a row by its key, in the database and in hand."""
    for name, value in changes.items():
        setattr(row, name, value)
    key = type(row)._meta.pk.name
    update_rows(type(row), {key: row.pk}, {name: getattr(row, _fields(type(row), (name,))[0].attname) for name in changes})


def update_rows(model: type[Model], where: dict[str, Any], changes: dict[str, Any]) -> int:
    """Set some fields of the rows whose fields are so, keys of other rows by their own; return how many there were."""
    connection = connections[router.db_for_write(model)]
    fields = (*_fields(model, tuple(changes)), *_fields(model, tuple(where)))
    said = (*changes.values(), *where.values())
    values = [field.get_db_prep_save(value, connection) for field, value in zip(fields, said, strict=True)]
    with connection.cursor() as cursor:
        cursor.execute(_update_sql(model, tuple(changes), tuple(where)), values)
        return int(cursor.rowcount)


@lru_cache(maxsize=256)
def _fields(model: type[Model], names: tuple[str, ...]) -> tuple[Any, ...]:
    return tuple(model._meta.get_field(name) for name in names)


@lru_cache(maxsize=32)
def _insert_fields(model: type[Model], with_key: bool) -> tuple[Any, ...]:
    return tuple(field for field in model._meta.concrete_fields if with_key or not field.primary_key)


def _quoted(model: type[Model], names: Iterable[str]) -> tuple[str, list[str]]:
    quote = connections[router.db_for_write(model)].ops.quote_name
    return quote(model._meta.db_table), [quote(name) for name in names]


@lru_cache(maxsize=32)
def _insert_sql(model: type[Model], with_key: bool) -> str:
    table, columns = _quoted(model, (field.column for field in _insert_fields(model, with_key)))
    return f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({', '.join(['%s'] * len(columns))})"  # noqa: S608 - names of our own


@lru_cache(maxsize=256)
def _update_sql(model: type[Model], names: tuple[str, ...], where: tuple[str, ...]) -> str:
    table, changed = _quoted(model, [field.column for field in _fields(model, names)])
    _, keys = _quoted(model, [field.column for field in _fields(model, where)])
    said, held = (joiner.join(f"{name} = %s" for name in columns) for joiner, columns in ((", ", changed), (" AND ", keys)))
    return f"UPDATE {table} SET {said} WHERE {held}"  # noqa: S608 - names of our own
