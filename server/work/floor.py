"""The Floor: engines found, a page at a time, from the summaries kept beside them."""

from datetime import date
from typing import Any

from django.core.paginator import Paginator
from django.db.models import Count, Q
from django.utils import timezone

from gurvo_core.work import RULES_VERSION
from shop.roles import shown_name
from work import services
from work.models import Engine
from work.schemas import Bead, FloorFilter, FloorPage, FloorRow

ROWS_A_PAGE = 50
SHOWN = ("step", "waits_for", "free_to_turn", "loose_ends", "signed", "broken")
REFRESHED_AT_ONCE = 100  # after an update of the rules; the rest follows with the next looks


def floor_moment() -> str:
    """Changes with everything the Floor shows, the day included."""
    return "-".join(map(str, (*Engine.objects.moment(), timezone.localdate(), RULES_VERSION)))


def floor_row(engine: Engine) -> FloorRow:
    """Return one engine as the Floor shows it."""
    if not hasattr(engine, "summary"):
        services.keep_summary(engine)
    summary = engine.summary
    late = (timezone.localdate() - engine.promised).days if engine.promised and not summary.signed else 0
    plain: dict[str, Any] = {
        name: getattr(summary, name) for name in ("step", "waits_for", "free_to_turn", "loose_ends", "signed", "broken")
    }
    plain["verdict"] = summary.verdict or None
    return FloorRow.model_construct(
        serial=engine.serial,
        family=engine.revision.family.name,
        purpose=engine.purpose,
        stand=engine.stand,
        builder=shown_name(engine.builder),
        promised=engine.promised,
        late_days=max(0, late),
        beads=[Bead.model_construct(**bead) for bead in summary.beads],
        **plain,
    )


def floor_page(wanted: FloorFilter) -> FloorPage:
    """Return the engines that are looked for, and how the whole shop stands."""
    services.refresh_summaries(Engine.objects.stale().on_the_floor()[:REFRESHED_AT_ONCE])
    today = timezone.localdate()
    found = Engine.objects.searched(wanted.search)
    exact = {"builder__username": wanted.builder, "revision__family": wanted.family}
    found = found.filter(**{field: value for field, value in exact.items() if value})
    if wanted.late:
        found = found.late(today)
    if wanted.loose_ends:
        found = found.filter(summary__loose_ends__gt=0)
    if wanted.free_to_turn is not None:
        found = found.filter(summary__free_to_turn=wanted.free_to_turn)
    if wanted.open_only:
        found = found.filter(summary__signed=False)
    page = Paginator(found.on_the_floor(), ROWS_A_PAGE).get_page(wanted.page)
    return FloorPage.model_construct(
        rows=[floor_row(engine) for engine in page],
        found=page.paginator.count,
        page=page.number,
        pages=page.paginator.num_pages,
        taken_stands=list(Engine.objects.exclude(stand=None).values_list("stand", flat=True)),
        **_whole_shop(today),
    )


def _whole_shop(today: date) -> dict[str, Any]:
    open_ones = Q(summary__signed=False)
    counts: dict[str, Any] = Engine.objects.aggregate(
        engines=Count("pk"),
        on_stands=Count("pk", filter=Q(stand__isnull=False)),
        out=Count("pk", filter=open_ones & Q(summary__verdict="out")),
        to_sign=Count("pk", filter=open_ones & Q(summary__waits_for="the lead to sign")),
        late=Count("pk", filter=open_ones & Q(promised__lt=today)),
    )
    return counts
