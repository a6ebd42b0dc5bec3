"""All that can be verified of a shop from its own file: the daybook with its tables, every ledger, and what follows from them."""

__all__ = ["engine_looked_at", "engine_verified", "faults_of_shop", "shop_verified"]

from collections.abc import Iterator

from shop.daybook import daybook_faults
from shop.models import Shop, misfit_of_shop
from work.follows import engine_faults, seal_faults
from work.models import Engine, EngineSummary

LONGEST = 300


def shop_verified() -> list[str]:
    """What does not fit the daybook; the first of it is shown on the Floor from now on."""
    faults = list(daybook_faults())
    words = (faults[0] if faults else "")[:LONGEST]
    Shop.objects.exclude(misfit=words).update(misfit=words)
    misfit_of_shop.cache_clear()
    return faults


def engine_verified(serial: str) -> list[str]:
    """What does not fit of an engine; the bench and the Floor show the first of it from now on, unless it could be put right."""
    faults = engine_faults(serial)
    _show(serial, next((fault for fault in faults if not fault.endswith("put right")), ""))
    return faults


def engine_looked_at(serial: str) -> None:
    """The same of its seals and its row alone, which is quick."""
    engine = Engine.objects.filter(pk=serial).first()
    if engine is not None:
        _show(serial, seal_faults(engine))


def _show(serial: str, words: str) -> None:
    EngineSummary.objects.filter(engine=serial).exclude(chain=words[:LONGEST]).update(chain=words[:LONGEST])


def faults_of_shop() -> Iterator[str]:
    """Everything, one fault after the other."""
    yield from shop_verified()
    for serial in Engine.objects.order_by("serial").values_list("serial", flat=True):
        yield from (f"{serial}: {fault}" for fault in engine_verified(serial))
