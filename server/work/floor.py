"""The Floor: engines found, a page at a time, from the roll of the shop."""

from functools import lru_cache
from itertools import takewhile
from typing import Any

from django.core.paginator import Paginator
from django.utils import timezone

from gurvo_core.work import RULES_VERSION
from shop.models import working_hours
from work import services
from work.models import Engine, EngineSummary
from work.roll import ROLL, Line, Moment, read
from work.schemas import FloorFilter, FloorPage, FloorRow

ROWS_A_PAGE = 50
MOST_WORDS = 5


def floor_moment() -> Moment:
    """Return what changes with everything the Floor shows, the hour included: by it goes when an engine will be done."""
    misfits = EngineSummary.objects.filter(chain__gt="").values_list("pk", "chain")  # a walk of the seals changes no ledger
    return Moment(Engine.objects.moment(), tuple(misfits), f"{timezone.localtime():%Y-%m-%d %H}", working_hours())


def floor_tag(wanted: FloorFilter, moment: Moment) -> str:
    """Return the name of what is answered to a wish at a moment."""
    return f"{moment}-{RULES_VERSION}-{wanted.model_dump_json()}"


def floor_row(serial: str) -> FloorRow:
    """Return one engine as the Floor shows it."""
    return _rows(read([serial]), floor_moment())[0]


@lru_cache(maxsize=32)
def floor_json(wanted: FloorFilter, moment: Moment) -> str:
    """Return the engines that are looked for, and how the whole shop stands, as it is sent; it is the same as long as the moment is."""
    page = Paginator(_found(ROLL.lines(moment), wanted), ROWS_A_PAGE).get_page(wanted.page)
    return FloorPage.model_construct(
        rows=_rows(list(page), moment),
        found=page.paginator.count,
        page=page.number,
        pages=page.paginator.num_pages,
        **_whole_shop(ROLL.lines(moment)),  # again: showing may have brought some up to date
    ).model_dump_json()


def _rows(lines: list[Line], moment: Moment) -> list[FloorRow]:
    """Lines as they are shown; what was worked out at another entry, document or by other rules is so anew."""
    stale = [line.plain["serial"] for line in lines if line.is_stale]
    if stale:
        services.refresh_summaries(Engine.objects.filter(pk__in=stale))
        floor_json.cache_clear()
        anew = dict(zip(stale, ROLL.read_again(stale), strict=True))
        lines = [anew.get(line.plain["serial"], line) for line in lines]
    today = timezone.localdate()
    return [line.row(today, moment.hours, moment.hour) for line in lines]


def _found(lines: list[Line], wanted: FloorFilter) -> list[Line]:
    found = [line for line in lines if (line.plain["whereabouts"] == "archived") == wanted.archived]
    for word in wanted.search.casefold().split()[:MOST_WORDS]:
        found = [line for line in found if word in line.words]
    if wanted.builder:
        found = [line for line in found if line.builder == wanted.builder]
    if wanted.family:
        found = [line for line in found if line.family == wanted.family]
    if wanted.late:
        found = _late(found)
    if wanted.loose_ends:
        found = [line for line in found if line.loose_ends]
    if wanted.free_to_turn is not None:
        found = [line for line in found if line["free_to_turn"] is wanted.free_to_turn]
    if wanted.open_only:
        found = [line for line in found if line.is_open]
    return found


def _late(lines: list[Line]) -> list[Line]:
    today = timezone.localdate()
    return [line for line in lines if line.promised and line.promised < today]


def _whole_shop(lines: list[Line]) -> dict[str, Any]:
    taken = [line.stand for line in takewhile(lambda line: line.stand is not None, lines)]
    return {
        "engines": len(lines),
        "on_stands": len(taken),
        "taken_stands": taken,
        "out": sum(line.is_out for line in lines),
        "to_sign": sum(line.is_to_sign for line in lines),
        "late": len(_late(lines)),
    }


def forget() -> None:
    """Look anew, whatever was kept."""
    floor_json.cache_clear()
    ROLL.forget()
