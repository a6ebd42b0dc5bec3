"""The Floor: engines found, a page at a time, from the roll of the shop."""

from functools import lru_cache

from django.core.paginator import Paginator
from django.http import Http404
from django.utils import timezone
from pydantic import ValidationError

from engine.bridge import document_of
from gurvo_core.scene import Scene, scene_of
from gurvo_core.work import RULES_VERSION
from shop.models import misfit_of_shop, working_hours
from work import services
from work.models import Engine, EngineSummary
from work.record.drawing import small_picture
from work.roll import ROLL, Line, Moment, read
from work.schemas import FloorFilter, FloorPage, FloorRow

ROWS_A_PAGE = 50
MOST_WORDS = 5


def floor_moment() -> Moment:
    """Return what changes with everything the Floor shows, the hour included: by it goes when an engine will be done."""
    misfits = EngineSummary.objects.filter(chain__gt="").values_list("pk", "chain")  # a walk of the seals changes no ledger
    return Moment(Engine.objects.moment(), tuple(misfits), f"{timezone.localtime():%Y-%m-%d %H}", working_hours(), misfit_of_shop())


def floor_tag(wanted: FloorFilter, moment: Moment) -> str:
    """Return the name of what is answered to a wish at a moment."""
    return f"{moment}-{RULES_VERSION}-{wanted.model_dump_json()}"


def floor_row(serial: str) -> FloorRow:
    """Return one engine as the Floor shows it."""
    return _rows(read([serial]), floor_moment())[0]


@lru_cache(maxsize=32)
def floor_json(wanted: FloorFilter, moment: Moment) -> str:
    """Return the engines that are looked for, and how the whole shop stands, as it is sent; it is the same as long as the moment is."""
    lines, _ = ROLL.at(moment, archived=wanted.archived)
    page = Paginator(_found(lines, wanted), ROWS_A_PAGE).get_page(wanted.page)
    rows = _rows(list(page), moment)
    _, tally = ROLL.at(moment, archived=wanted.archived)  # again: showing may have brought some up to date
    return FloorPage(
        rows=rows,
        found=page.paginator.count,
        page=page.number,
        pages=page.paginator.num_pages,
        engines=tally.engines,
        on_stands=len(tally.taken_stands),
        taken_stands=tally.taken_stands,
        out=tally.out,
        to_sign=tally.to_sign,
        late=tally.late(timezone.localdate()),
        misfit=moment.misfit,
    ).model_dump_json()


def _rows(lines: list[Line], moment: Moment) -> list[FloorRow]:
    """Lines as they are shown; what was worked out at another entry, document or by other rules is so anew."""
    stale = [line.serial for line in lines if line.is_stale]
    if stale:
        services.refresh_summaries(Engine.objects.filter(pk__in=stale))
        floor_json.cache_clear()
        anew = dict(zip(stale, ROLL.read_again(stale), strict=True))
        lines = [anew.get(line.serial, line) for line in lines]
    return [_row(line, moment) for line in lines]


def _row(line: Line, moment: Moment) -> FloorRow:
    """One line as it is shown; where what was kept of it cannot be, it is worked out anew."""
    today = timezone.localdate()
    try:
        return line.row(today, moment.hours, moment.hour)
    except (ValidationError, TypeError):
        services.refresh_summaries(Engine.objects.filter(pk=line.serial))
        return ROLL.read_again([line.serial])[0].row(today, moment.hours, moment.hour)


def _found(lines: list[Line], wanted: FloorFilter) -> list[Line]:
    found = lines
    for word in wanted.search.casefold().split()[:MOST_WORDS]:
        found = [line for line in found if word in line.words]
    if wanted.builder:
        found = [line for line in found if line.builder == wanted.builder]
    if wanted.family:
        found = [line for line in found if line.family == wanted.family]
    if wanted.late:
        today = timezone.localdate()
        found = [line for line in found if line.late_days(today)]
    if wanted.loose_ends:
        found = [line for line in found if line.loose_ends]
    if wanted.free_to_turn is not None:
        found = [line for line in found if line["free_to_turn"] is wanted.free_to_turn]
    if wanted.waits_on is not None:
        found = [line for line in found if line.waits_on == wanted.waits_on]
    if wanted.open_only:
        found = [line for line in found if line.is_open]
    return found


def drawn_tag(serial: str) -> str:
    """Return the name of how an engine is drawn now."""
    at = Engine.objects.filter(pk=serial).values_list("summed_at", "revision_id").first()
    if at is None:
        raise Http404
    return f"drawn-{serial}-{at}-{RULES_VERSION}"


def drawn_small(serial: str) -> str:
    """Return an engine as it stands, small: by what was kept of it, for a Floor shows many."""
    found = EngineSummary.objects.filter(pk=serial).values_list("drawn", "engine__revision_id").first()
    drawn, revision_id = found if found is not None and isinstance(found[0], dict) else ({}, None)
    if revision_id is None:
        raise Http404
    return str(small_picture(_scene(revision_id), drawn.get("step"), drawn.get("stands") or {}))


@lru_cache(maxsize=32)
def _scene(revision_id: int) -> Scene:
    return scene_of(document_of(revision_id))


def forget() -> None:
    """Look anew, whatever was kept."""
    floor_json.cache_clear()
    ROLL.forget()
