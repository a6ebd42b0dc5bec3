"""Looking back over the engines of a family: drawn up from the ledgers when somebody looks, a few engines at a time, and kept until one
of them has another entry.
"""

__all__ = ["back_of", "bring", "figures_table", "happenings_table", "minutes_table"]

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator
from time import monotonic
from typing import Any, cast

from django.db import transaction
from django.db.models import F, Q
from django.utils import timezone

from engine.bridge import document_of
from engine.models import Revision
from gurvo_core.ledger.came_to import spread_of
from gurvo_core.units import Unit
from gurvo_core.work import HOUSE, RULES_VERSION
from gurvo_core.work.looking_back import came_to, happened
from work import bridge
from work.errors import BrokenLedger
from work.models import Engine, FigureSeen, Happening, LookedBack, StepTime
from work.schemas import BackGroup, BackHappening, BackMinutes, BackOut, BackPoint, BackSeries, BackSpread

LONGEST_S = 1.5  # of drawing up at one asking; whoever asks comes again until all are
MOST_POINTS = 4000  # of one series, the newest
MOST_MINUTES = 60
NOT_SAID = "not said"


def _stale(family: str) -> Any:
    """Engines of a family whose figures were drawn up at another entry, document or version, or never."""
    now = Q(looked_back__rules=RULES_VERSION, looked_back__revision_id=F("revision_id"))
    same = Q(looked_back__at_entry=F("last_entry")) | Q(looked_back__at_entry=None, last_entry=None)
    return Engine.objects.filter(revision__family=family).exclude(Q(looked_back__isnull=False) & now & same)


def bring(family: str) -> int:
    """Draw up what is stale, for a while; return how many engines are left to do."""
    until = monotonic() + LONGEST_S
    serials = list(_stale(family).order_by("-begun").values_list("pk", flat=True))
    for done, serial in enumerate(serials):
        if monotonic() > until:
            return len(serials) - done
        _draw_up(Engine.objects.at_the_bench().get(pk=serial))
    return 0


def _draw_up(engine: Engine) -> None:
    own = {"engine": engine, "family": engine.about.family}
    try:
        folded = bridge.ledger_of(engine).folded
        seen, events = list(came_to(HOUSE, folded)), list(happened(HOUSE, folded))
    except BrokenLedger:  # what cannot be read came to nothing; the Floor says why
        seen, events = [], []
    figures = [
        FigureSeen(
            **own,
            at=at,
            sort=one.sort,
            of=one.of[:80],
            name=one.name[:160],
            place=one.place[:160],
            value=one.value,
            unit=one.unit,
            gauge=one.gauge[:120],
            least=one.least,
            most=one.most,
        )
        for one, at in seen
    ]
    happenings = [Happening(**own, sort=one.sort, title=one.title[:200], because=one.because[:600], at=one.at) for one in events]
    with transaction.atomic():
        for model in (FigureSeen, Happening):
            model.objects.filter(engine=engine).delete()
        FigureSeen.objects.bulk_create(figures)
        Happening.objects.bulk_create(happenings)
        at = {"at_entry": engine.last_entry, "revision_id": engine.revision_id, "rules": RULES_VERSION}
        LookedBack.objects.update_or_create(engine=engine, defaults=at)


def back_of(family: str, name: str) -> BackOut:
    """Return how a family's engines came out, with how many are still to be drawn up."""
    left = bring(family)
    engines = Engine.objects.filter(revision__family=family)
    return BackOut(
        family=family,
        name=name,
        engines=engines.count(),
        left=left,
        series=list(_series(family)),
        minutes=_minutes(family),
        happenings=_happenings(family),
    )


def _series(family: str) -> Iterator[BackSeries]:
    rows: dict[tuple[str, str, str, str], list[FigureSeen]] = defaultdict(list)
    for row in FigureSeen.objects.filter(family=family).order_by("sort", "name", "-at"):
        rows[row.sort, row.of, row.name, row.unit].append(row)
    for (sort, of, name, text), own in rows.items():
        unit = cast("Unit", text)  # as the core has it
        limits = {(row.least, row.most) for row in own}
        least, most = limits.pop() if len(limits) == 1 else (None, None)  # documents of the family that differ have none in common
        yield BackSeries(
            sort=sort,
            of=of,
            name=name,
            unit=unit,
            least=least,
            most=most,
            spread=_spread(own),
            by_place=_groups(own, lambda row: row.place),
            by_gauge=_groups(own, lambda row: row.gauge or NOT_SAID),
            by_month=_groups(own, _month),
            points=[_point(row) for row in own[:MOST_POINTS]],
        )


def _month(row: FigureSeen) -> str:
    return f"{timezone.localtime(row.at):%Y-%m}"


def _point(row: FigureSeen) -> BackPoint:
    return BackPoint(serial=row.engine_id, place=row.place, value=row.value, gauge=row.gauge or NOT_SAID, month=_month(row), at=row.at)


def _spread(rows: Iterable[FigureSeen]) -> BackSpread:
    return BackSpread.model_validate(spread_of([row.value for row in rows])._asdict())


def _groups(rows: Iterable[FigureSeen], by: Any) -> list[BackGroup]:
    own: dict[str, list[FigureSeen]] = defaultdict(list)
    for row in rows:
        own[by(row)].append(row)
    return [BackGroup(name=name, spread=_spread(group)) for name, group in sorted(own.items(), key=lambda pair: _in_order(pair[0]))]


def _in_order(name: str) -> tuple[Any, ...]:
    """Bolt 2 before bolt 10."""
    return tuple((0, int(part), "") if part.isdigit() else (1, 0, part) for part in name.replace(",", " ").split())


def _minutes(family: str) -> list[BackMinutes]:
    taken: dict[str, list[float]] = defaultdict(list)
    titles = _titles(family)
    for step, minutes in StepTime.objects.filter(family=family).order_by("-pk").values_list("step", "minutes"):
        if len(taken[step]) < MOST_MINUTES:
            taken[step].append(minutes)
    return [
        BackMinutes(step=titles.get(step, step), spread=BackSpread.model_validate(spread_of(values)._asdict()), minutes=values)
        for step, values in sorted(taken.items())
    ]


def _titles(family: str) -> dict[str, str]:
    """What steps are called, by the family's newest document that has them."""
    newest = Revision.objects.newest_of(family)
    return {step.id: step.says for step in document_of(newest.pk).work_steps} if newest is not None else {}


def _happenings(family: str) -> list[BackHappening]:
    rows = Happening.objects.filter(family=family).order_by("-at")
    counted = Counter((row.sort, row.title) for row in rows)
    why: dict[tuple[str, str], list[str]] = defaultdict(list)
    where: dict[tuple[str, str], list[str]] = defaultdict(list)
    for row in rows:
        if row.because and row.because not in why[row.sort, row.title]:
            why[row.sort, row.title].append(row.because)
        if row.engine_id not in where[row.sort, row.title]:
            where[row.sort, row.title].append(row.engine_id)
    return [
        BackHappening(sort=sort, title=title, count=count, because=why[sort, title][:5], engines=where[sort, title][:20])
        for (sort, title), count in counted.most_common()
    ]


def happenings_table(family: str) -> Iterator[tuple[Any, ...]]:
    """Everything that was counted as happening on a family's engines, as rows under their heads."""
    columns = ("serial", "sort", "title", "because", "at")
    yield columns
    for row in Happening.objects.filter(family=family).order_by("engine", "at").iterator():
        yield row.engine_id, row.sort, row.title, row.because, row.at.isoformat()


def minutes_table(family: str) -> Iterator[tuple[Any, ...]]:
    """How long each step of each engine took, as rows under their heads."""
    yield "serial", "step", "minutes"
    yield from StepTime.objects.filter(family=family).order_by("engine", "pk").values_list("engine_id", "step", "minutes").iterator()


COLUMNS = ("serial", "sort", "of", "name", "place", "value", "unit", "least", "most", "gauge", "at")


def figures_table(family: str) -> Iterator[tuple[Any, ...]]:
    """Every figure of a family as rows under their heads."""
    yield COLUMNS
    rows = FigureSeen.objects.filter(family=family).order_by("engine", "sort", "name", "place")
    for row in rows.iterator():
        own = (row.engine_id, row.sort, row.of, row.name, row.place, row.value, row.unit, row.least, row.most, row.gauge)
        yield (*own, row.at.isoformat())
