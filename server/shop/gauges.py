"""Gauges: as they are now, as the lead enters them, tried against each other, and what each was used on."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from datetime import date, datetime, time
from math import sqrt
from typing import Any

from django.contrib.auth.models import User
from django.db.models import Count, F, Max, Q, Sum
from django.db.models.functions import TruncDate
from django.shortcuts import get_object_or_404
from django.utils import timezone

from config.written_once import by_key, insert_one, update_rows
from gurvo_core.fits.job.kept import Scatter
from gurvo_core.joints.wrench import DUE_PULLS
from gurvo_core.ledger import GAUGE_UNIT, Gauge
from shop.addresses import why_not
from shop.errors import Forbidden, Refusal
from shop.models import Gauge as GaugeRow
from shop.models import GaugeCheck, GaugeScatter, GaugeUse, instrument_hosts
from shop.roles import may_record, may_write_documents, role_of, shown_name

USES_SHOWN = 200
PULL = "pull"
# what pyserial opens and that does nothing but read and write there; a simulated one of the demo is named
ADDRESS = re.compile(r"/dev/[A-Za-z0-9/_.-]+|COM\d{1,3}|(socket|rfc2217)://[A-Za-z0-9.-]+:\d{1,5}|standin:[a-z]+")


def _counted(rows: Any) -> Any:
    """Gauges with their pulls since the last calibration, and the day of their last check."""
    since = Q(uses__kind=PULL) & (Q(calibrated__isnull=True) | Q(uses__at__date__gt=F("calibrated")))
    return rows.annotate(
        pulls=Count("uses", filter=since, distinct=True), checked=Max(TruncDate("checks__at", tzinfo=timezone.get_current_timezone()))
    )


def gauges_named(codes: Sequence[str]) -> tuple[Gauge, ...]:
    """Return gauges as they are now, for an entry that names them; asked for with every pull, so only what its kind needs is counted."""
    rows = [by_key(GaugeRow, code) for code in sorted(set(codes))]
    return tuple(_as_it_is(row) for row in rows if row is not None)


def shelf() -> list[Gauge]:
    """Return every gauge for lengths whose calibration holds, as it is now."""
    lengths = [kind for kind, unit in GAUGE_UNIT.items() if unit == GAUGE_UNIT["dial"]]
    return [_as_it_is(row) for row in GaugeRow.objects.filter(kind__in=lengths).exclude(due__lt=timezone.localdate())]


def _as_it_is(row: GaugeRow) -> Gauge:
    plain = ("name", "resolution", "expanded_uncertainty", "due", "least", "most", "certificate", "expansion_um_m_k")
    check = row.checks.first() if row.kind == GaugeRow.Kind.BAR else None
    scatter, repeats = _scatter_of(row) if GAUGE_UNIT[row.kind] == GAUGE_UNIT["dial"] else (0.0, 0)
    return Gauge(
        id=row.code,
        kind=GaugeRow.Kind(row.kind).value,
        pulls=_pulls_of(row) if GAUGE_UNIT[row.kind] == GAUGE_UNIT["wrench"] else 0,
        checked=timezone.localdate(check.at) if check else None,
        scatter=scatter,
        scatter_of=repeats,
        **{key: getattr(row, key) for key in plain},
    )


def _scatter_of(row: GaugeRow) -> tuple[float, int]:
    """Standard deviation of the shop's repeats with a gauge, over all its engines, and of how many."""
    whole = row.scatter.aggregate(squares=Sum("squares"), freedom=Sum("freedom"))
    freedom = whole["freedom"] or 0
    return (sqrt(whole["squares"] / freedom), freedom) if freedom else (0.0, 0)


def keep_scatter(serial: str, before: Mapping[str, Scatter], after: Mapping[str, Scatter]) -> None:
    """Keep what an entry changed of how repeats scattered on one engine: one query for a reading taken again."""
    gone = before.keys() - after.keys()
    if gone:
        GaugeScatter.objects.filter(serial=serial, gauge__in=gone).delete()
    for code, own in after.items():
        figures = {"squares": own.squares, "freedom": own.freedom}
        if before.get(code) == own or update_rows(GaugeScatter, {"gauge": code, "serial": serial}, figures):
            continue
        if GaugeRow.objects.filter(pk=code).exists():
            GaugeScatter.objects.create(gauge_id=code, serial=serial, **figures)


# a wrench's pulls since a calibration: asked with every pull of it, so counted once and counted on
_counted_pulls: dict[str, tuple[date | None, int]] = {}


def _pulls_of(row: GaugeRow) -> int:
    kept = _counted_pulls.get(row.code)
    if kept is None or kept[0] != row.calibrated:
        pulls = row.uses.filter(kind=PULL)
        if row.calibrated is not None:
            pulls = pulls.filter(at__gt=timezone.make_aware(datetime.combine(row.calibrated, time.max)))
        kept = _counted_pulls[row.code] = (row.calibrated, pulls.count())
    return kept[1]


@contextmanager
def pulls_counted() -> Iterator[None]:
    """While an entry is made: if it is not kept after all, its pulls are counted anew."""
    try:
        yield
    except BaseException:
        forget_pulls()
        raise


def forget_pulls() -> None:
    """Count anew."""
    _counted_pulls.clear()


def all_gauges() -> list[dict[str, Any]]:
    """Every gauge with how it stands today."""
    today = timezone.localdate()
    return [_shown(row, today) for row in _counted(GaugeRow.objects.order_by("kind", "code")).values()]


def _shown(row: dict[str, Any], today: date) -> dict[str, Any]:
    late = row["due"] is not None and row["due"] < today
    return {**row, "unit": GAUGE_UNIT[row["kind"]], "overdue": late or row["pulls"] >= DUE_PULLS}


def set_gauge(code: str, by: User, values: dict[str, Any]) -> None:
    """Add a gauge, or change what is known of it; what it was when entries named it stays with them."""
    if not may_write_documents(role_of(by)):
        raise Forbidden("Only the lead changes gauges; hand it to the lead.")
    least, most = values["least"], values["most"]
    if least is not None and most is not None and least >= most:
        raise Refusal(f"A range goes from less to more; {least:g} to {most:g} does not.", "least")
    if values["address"] and not ADDRESS.fullmatch(values["address"]):
        raise Refusal("A port is such as /dev/ttyUSB0, COM3, socket://host:port or rfc2217://host:port.", "address")
    if values["address"] and (wrong := why_not(values["address"], instrument_hosts())):
        raise Refusal(wrong, "address")
    kept = GaugeRow.objects.filter(pk=code).first()
    if kept is not None and kept.kind != values["kind"] and kept.uses.exists():
        raise Refusal(f"{code} has been used as a {kept.kind}; give another gauge a code of its own.", "kind")
    GaugeRow.objects.update_or_create(code=code, defaults=values)


def check_gauge(code: str, by: User, values: dict[str, Any]) -> None:
    """Keep what a gauge showed when it was tried against another."""
    if not may_record(role_of(by)):
        raise Forbidden("Only who works here checks gauges.")
    gauge = get_object_or_404(GaugeRow, pk=code)
    against = GaugeRow.objects.filter(pk=values.pop("against")).first()
    if against is None or against == gauge or GAUGE_UNIT[against.kind] != GAUGE_UNIT[gauge.kind]:
        raise Refusal("Choose another gauge that measures the same.", "against")
    if against.due is not None and against.due < timezone.localdate():
        raise Refusal(f"The calibration of {against.code} ran out on {against.due:%d %b %Y}; check against another.", "against")
    GaugeCheck.objects.create(gauge=gauge, against=against, at=timezone.now(), by_name=shown_name(by), **values)


def keep_uses(codes: Iterable[str], *, serial: str, seq: int, kind: str, at: datetime, by_name: str) -> None:
    """Keep that an entry named gauges."""
    for code in codes:
        insert_one(GaugeUse(gauge_id=code, serial=serial, seq=seq, kind=kind, at=at, by_name=by_name))
    for code in codes if kind == PULL else ():
        if code in _counted_pulls:
            calibrated, count = _counted_pulls[code]
            _counted_pulls[code] = (calibrated, count + 1)


def _with_off(check: Any) -> dict[str, Any]:
    return {**check, "against": check["against_id"], "off": round(check["shown"] - check["true"], 6)}


def history_of(code: str) -> dict[str, Any]:
    """What a gauge was tried against and used on."""
    gauge = get_object_or_404(GaugeRow, pk=code)
    engines = gauge.uses.order_by("serial").values_list("serial", flat=True).distinct()
    checks = [_with_off(check) for check in gauge.checks.values()[:USES_SHOWN]]
    scatter, repeats = _scatter_of(gauge)
    return {
        "checks": checks,
        "uses": list(gauge.uses.values()[:USES_SHOWN]),
        "engines": list(engines),
        "scatter": scatter,
        "repeats": repeats,
    }
