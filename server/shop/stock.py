"""The stock of parts that come in sizes: what came in, what engines have taken, what is free."""

from collections import defaultdict
from collections.abc import Mapping
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Sum

from shop.errors import Forbidden, Refusal
from shop.models import StockItem, StockTaken
from shop.roles import may_record, role_of

Pieces = Mapping[tuple[str, str], int]


def free_stock(serial: str = "") -> dict[str, dict[str, int]]:
    """Return pieces by part and size that no other engine has taken; what this one takes itself is free to it."""
    free: dict[str, dict[str, int]] = defaultdict(dict)
    for part, size, count in StockItem.objects.values_list("part", "size").annotate(Sum("count")):
        free[part][size] = count
    others = StockTaken.objects.exclude(serial=serial) if serial else StockTaken.objects.all()
    for part, size, pieces in others.values_list("part", "size").annotate(Sum("pieces")):
        free[part][size] = free[part].get(size, 0) - pieces
    return {part: {size: max(count, 0) for size, count in sizes.items()} for part, sizes in free.items()}


def all_stock() -> list[dict[str, Any]]:
    """Every part and size: what came in by lot, what is taken and for which engines, what is free."""
    rows: dict[tuple[str, str], dict[str, Any]] = {}
    for item in StockItem.objects.all():
        row = rows.setdefault((item.part, item.size), {"part": item.part, "size": item.size, "lots": [], "count": 0, "taken": {}})
        row["lots"] += [item.lot] if item.lot else []
        row["count"] += item.count
    for taken in StockTaken.objects.order_by("serial"):
        row = rows.setdefault((taken.part, taken.size), {"part": taken.part, "size": taken.size, "lots": [], "count": 0, "taken": {}})
        row["taken"][taken.serial] = taken.pieces
    for row in rows.values():
        row["free"] = row["count"] - sum(row["taken"].values())
        row["taken"] = [{"serial": serial, "pieces": pieces} for serial, pieces in row["taken"].items()]
    return [rows[key] for key in sorted(rows)]


@transaction.atomic
def set_stock(by: User, *, part: str, size: str, lot: str, free: int) -> None:
    """Keep how many pieces of a lot lie free on the shelf, as somebody counted them; what engines have taken is added."""
    if not may_record(role_of(by)):
        raise Forbidden("Only who works here counts the stock.")
    others = StockItem.objects.filter(part=part, size=size).exclude(lot=lot).aggregate(Sum("count"))["count__sum"] or 0
    taken = StockTaken.objects.filter(part=part, size=size).aggregate(Sum("pieces"))["pieces__sum"] or 0
    count = free + max(taken - others, 0)
    if not part.strip() or not size.strip():
        raise Refusal("Say which part it is, and its size.", "part" if not part.strip() else "size")
    if count == 0 and free == 0:
        StockItem.objects.filter(part=part, size=size, lot=lot).delete()
        return
    StockItem.objects.update_or_create(part=part, size=size, lot=lot, defaults={"count": count})


def take_stock(serial: str, pieces: Pieces) -> None:
    """Keep what an engine takes, instead of what it took before."""
    StockTaken.objects.filter(serial=serial).delete()
    rows = [StockTaken(serial=serial, part=part, size=size, pieces=count) for (part, size), count in pieces.items() if count]
    StockTaken.objects.bulk_create(rows)
