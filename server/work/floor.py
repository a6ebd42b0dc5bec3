"""The Floor: engines found, a page at a time, from the summaries kept beside them."""

from collections.abc import Sequence
from datetime import date
from functools import lru_cache
from typing import Any

from django.core.paginator import Paginator
from django.utils import timezone

from gurvo_core.run.ready import WorkingHours, ready_at
from gurvo_core.work import RULES_VERSION
from shop.models import working_hours
from shop.roles import called
from work import services
from work.models import Engine, EngineSummary
from work.querysets import EngineQuerySet
from work.schemas import FloorFilter, FloorPage, FloorRow

ROWS_A_PAGE = 50
OWN = ("serial", "purpose", "stand", "promised", "whereabouts", "aside_because")
WORKED_OUT_AT = ("last_entry", "revision_id", "summed_at", "summary__revision_id", "summary__rules")
SHOWN = (
    "step",
    "waits_for",
    "free_to_turn",
    "careful",
    "left_minutes",
    "loose_ends",
    "clock",
    "clock_at",
    "clock_clears",
    "after",
    "after_at",
    "signed",
    "broken",
    "chain",
    "beads",
    "verdict",
)
NAMES = ("revision__family__name", "builder__first_name", "builder__username")
COLUMNS = (*OWN, *NAMES, *WORKED_OUT_AT, *(f"summary__{name}" for name in SHOWN))


def floor_moment() -> str:
    """Changes with everything the Floor shows, the hour included: by it goes when an engine will be done."""
    misfits = list(EngineSummary.objects.filter(chain__gt="").values_list("pk", "chain"))  # a walk of the seals changes no ledger
    now = f"{timezone.localtime():%Y-%m-%d %H}"
    return "-".join(map(str, (*Engine.objects.moment(), misfits, now, working_hours(), RULES_VERSION)))


def floor_rows(serials: Sequence[str]) -> list[FloorRow]:
    """Return some engines as the Floor shows them; what was worked out at another entry, document or by other rules is so anew."""
    today, named = timezone.localdate(), Engine.objects.filter(pk__in=serials)
    plain = list(named.in_order().values(*COLUMNS))
    stale = [row["serial"] for row in plain if _is_stale(row)]
    if stale:
        services.refresh_summaries(Engine.objects.filter(pk__in=stale))
        forget()
        plain = list(named.in_order().values(*COLUMNS))
    hours = working_hours()
    return [_row(row, today, hours) for row in plain]


def _is_stale(row: dict[str, Any]) -> bool:
    if (row["summary__revision_id"], row["summary__rules"]) != (row["revision_id"], RULES_VERSION):
        return True
    return bool(row["summed_at"] != row["last_entry"] and not row["summary__broken"])


def _row(plain: dict[str, Any], today: date, hours: WorkingHours) -> FloorRow:
    summary = {name: plain[f"summary__{name}"] for name in SHOWN}
    promised = None if summary["signed"] else plain["promised"]
    shown = {name: plain[name] for name in OWN} | summary
    shown["family"] = plain["revision__family__name"]
    shown["builder"] = called(plain["builder__first_name"], plain["builder__username"])
    shown["expected"] = None if summary["signed"] else _expected(summary["left_minutes"], hours)
    shown["late_days"] = max(0, (today - promised).days) if promised else 0
    shown["verdict"] = summary["verdict"] or None
    return FloorRow.model_validate(shown)


def _expected(left_minutes: float, hours: WorkingHours) -> date | None:
    """The day on which so much work will be done; None where the document says nothing of it."""
    at = ready_at(timezone.localtime(), left_minutes, hours) if left_minutes else None
    return at.date() if at else None


def floor_page(wanted: FloorFilter, moment: str) -> FloorPage:
    """Return the engines that are looked for, and how the whole shop stands."""
    today = timezone.localdate()
    page = Paginator(_found(moment, wanted.model_copy(update={"page": 1}), today), ROWS_A_PAGE).get_page(wanted.page)
    return FloorPage.model_construct(
        rows=floor_rows(list(page)),
        found=page.paginator.count,
        page=page.number,
        pages=page.paginator.num_pages,
        **_whole_shop(moment, today),
    )


@lru_cache(maxsize=32)
def floor_json(wanted: FloorFilter, moment: str) -> str:
    """Return the same as it is sent; it stays the same as long as the moment does, whoever looks."""
    return floor_page(wanted, moment).model_dump_json()


@lru_cache(maxsize=32)
def _found(_moment: str, wanted: FloorFilter, today: date) -> list[str]:
    """The serials of the engines that are looked for, in order; they stay the same as long as the moment does."""
    found: EngineQuerySet = Engine.objects.searched(wanted.search)
    exact = {"builder__username": wanted.builder, "revision__family": wanted.family}
    found = found.filter(**{field: value for field, value in exact.items() if value})
    found = found.filter(whereabouts="archived") if wanted.archived else found.exclude(whereabouts="archived")
    if wanted.late:
        found = found.late(today)
    if wanted.loose_ends:
        found = found.filter(summary__loose_ends__gt=0)
    if wanted.free_to_turn is not None:
        found = found.filter(summary__free_to_turn=wanted.free_to_turn)
    if wanted.open_only:
        found = found.filter(summary__signed=False)
    return list(found.in_order().values_list("pk", flat=True))


def forget() -> None:
    """Look anew: a summary has changed though no entry has."""
    floor_json.cache_clear()
    _found.cache_clear()
    _whole_shop.cache_clear()


@lru_cache(maxsize=4)
def _whole_shop(_moment: str, today: date) -> dict[str, Any]:
    """Counts over all engines; they stay the same as long as the moment does."""
    taken = Engine.objects.exclude(stand=None).order_by("stand").values_list("stand", flat=True)
    return {**Engine.objects.counts(today), "taken_stands": list(taken)}
