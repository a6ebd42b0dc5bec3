"""The daybook: a chain of its own for whatever verdicts and papers rest on beside the ledgers: people and roles, sign-ins, gauges and their
checks, the stock, families and their documents, what engines were begun with.

Every row of such a table has a line that says what it holds, sealed over the line before it. A row that is not as its newest line has it,
that stands in no line, or that a line has and the table has not, was changed by other hands than Gurvo's.
"""

__all__ = ["BOOKED", "book", "book_all", "booked", "daybook_faults", "does", "fields_of", "head_at", "last_said"]

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from django.db import models, transaction
from django.utils import timezone

from gurvo_core.ledger.chain import START, digest_of
from shop.models import DayLine

Says = Callable[[Any], dict[str, Any]]
COMMAND_LINE = "the command line"
Doer = tuple[str, str]  # who, and how he had shown who he is
_who: ContextVar[Callable[[], Doer]] = ContextVar("who", default=lambda: (COMMAND_LINE, ""))


@dataclass(frozen=True)
class Booked:
    """One table that is kept in the daybook."""

    name: str
    model: type[models.Model]
    says: Says
    once: bool = False  # what follows later is in a ledger of its own


BOOKED: dict[type[models.Model], Booked] = {}


def booked(name: str, model: type[models.Model], says: Says, *, once: bool = False) -> None:
    """Keep a table in the daybook from now on."""
    BOOKED[model] = Booked(name, model, says, once)


def fields_of(*left_out: str) -> Says:
    """All columns of a row as plain data, but for some."""

    def says(row: models.Model) -> dict[str, Any]:
        return {field.attname: _plain(getattr(row, field.attname)) for field in row._meta.concrete_fields if field.attname not in left_out}

    return says


def _plain(value: Any) -> Any:
    if isinstance(value, datetime):
        return value.astimezone(UTC).isoformat()
    return value if isinstance(value, int | float | str | None) else str(value)


@contextmanager
def does(who: Callable[[], Doer]) -> Iterator[None]:
    """While this holds, what is written down is somebody's doing."""
    token = _who.set(who)
    try:
        yield
    finally:
        _who.reset(token)


def book(row: models.Model, *, gone: bool = False) -> None:
    """Write a line about a row as it stands, unless its newest line says just that."""
    own, key = BOOKED[type(row)], str(row.pk)
    # as it is kept, whatever it was made from
    says = None if gone else own.says(own.model._base_manager.get(pk=row.pk))
    with transaction.atomic():
        if last_said(own.name, key) == (says,):
            return
        _write(own.name, key, says)


def last_said(name: str, key: str) -> tuple[dict[str, Any] | None] | None:
    """What the newest line about a row says of it, None of one that is gone; None outright where there is no line."""
    line = DayLine.objects.filter(name=name, key=key).order_by("-seq").first()
    return None if line is None else (line.says,)


def _write(name: str, key: str, says: dict[str, Any] | None) -> None:
    before = DayLine.objects.order_by("-seq").values_list("seq", "digest").first() or (0, START)
    by, how = _who.get()()
    line = DayLine(seq=before[0] + 1, at=timezone.now(), by=by, how=how, name=name, key=key, says=says)
    line.digest = digest_of(_sealed(line, before[1]))
    line.save(force_insert=True)


def _sealed(line: DayLine, before: str) -> dict[str, Any]:
    """What the seal of a line covers."""
    plain = {name: getattr(line, name) for name in ("seq", "by", "how", "name", "key", "says")}
    return {**plain, "at": line.at.astimezone(UTC).isoformat(), "before": before}


def book_all() -> None:
    """Write a line about every row that has none: a database from before there was a daybook."""
    for own in BOOKED.values():
        known = set(DayLine.objects.filter(name=own.name).values_list("key", flat=True))
        for row in own.model._default_manager.order_by("pk"):
            if str(row.pk) not in known:
                book(row)


def daybook_faults() -> Iterator[str]:
    """What does not fit: of the lines themselves, then of every table against its newest lines."""
    before, newest = START, dict[tuple[str, str], dict[str, Any] | None]()
    for seq, line in enumerate(DayLine.objects.order_by("seq").iterator(), 1):
        if line.seq != seq or digest_of(_sealed(line, before)) != line.digest:
            yield f"line {seq} of the daybook is not as it was sealed"
            return
        before = line.digest
        newest[line.name, line.key] = line.says
    for own in BOOKED.values():
        said = {key: says for (name, key), says in newest.items() if name == own.name and says is not None}
        for row in own.model._default_manager.order_by("pk").iterator():
            key = str(row.pk)
            if key not in said:
                yield f"{own.name} {key} stands in no line of the daybook"
            elif not own.once and not _fits(own, row, said[key]):
                yield f"{own.name} {key} is not as the daybook has it"
            said.pop(key, None)
        yield from (f"{own.name} {key} is in the daybook and not in the shop" for key in said)


def _fits(own: Booked, row: models.Model, said: dict[str, Any]) -> bool:
    """Whether a row is as its line has it; a column that came with a later version holds what every row was given then."""
    now = own.says(row)
    late = now.keys() - said.keys()
    return {key: value for key, value in now.items() if key not in late} == said and all(
        now[key] == _plain(next(field.get_default() for field in own.model._meta.concrete_fields if field.attname == key)) for key in late
    )


def head_at(moment: datetime) -> str:
    """The seal of the daybook's last line by a moment."""
    first_after = DayLine.objects.filter(at__gt=moment).order_by("seq").values_list("seq", flat=True).first()
    lines = DayLine.objects.order_by("-seq")
    head: str | None = (lines.filter(seq__lt=first_after) if first_after else lines).values_list("digest", flat=True).first()
    return head or START
