"""What follows from an engine's ledger and is kept beside it: the engine's own row, what the Floor shows, figures of fits, stock taken,
uses of gauges, times of steps. Each is worked out anew, held against what is kept, and put right where it differs.
"""

__all__ = ["KEPT", "Kept", "engine_faults", "engine_says", "seal_faults"]

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import partial
from itertools import pairwise
from typing import Any

from django.db import models, transaction

from engine.models import Revision
from gurvo_core.work import RULES_VERSION
from shop.daybook import last_said
from shop.models import GaugeScatter, GaugeUse, StockTaken
from work import bridge
from work.errors import BrokenLedger
from work.fits import figures_of, scatter_of, taken_of
from work.models import Engine, EngineSummary, Entry, FitFigure, StepTime
from work.pictures import faults_of
from work.roll import ROLL
from work.seals import document_digest, engine_misfit
from work.services import keep_summary
from work.times import minutes_taken

BY_THE_SHOP = {"left_minutes", "chain"}  # goes with the shop's own medians; is written by whoever looks
Rows = list[tuple[Any, ...]]


@dataclass(frozen=True)
class Kept:
    """One table that follows from the ledgers: which rows of it are an engine's, what stands in them, and what should."""

    name: str
    model: type[models.Model]
    own: Callable[[Engine], dict[str, Any]]
    columns: tuple[str, ...]
    right: Callable[[Engine, bridge.Ledger], Rows]

    def differs(self, engine: Engine, ledger: bridge.Ledger, *, put_right: bool) -> bool:
        """Whether it is not as the ledger has it."""
        rows, right = self.model._default_manager.filter(**self.own(engine)), sorted(self.right(engine, ledger), key=repr)
        if sorted(rows.values_list(*self.columns), key=repr) == right:
            return False
        if put_right:
            rows.delete()
            self.model._default_manager.bulk_create(
                self.model(**self.own(engine), **dict(zip(self.columns, row, strict=True))) for row in right
            )
        return True


def _uses(_engine: Engine, ledger: bridge.Ledger) -> Rows:
    return [(gauge.id, entry.seq, entry.body.kind, entry.at, entry.by) for entry in ledger.entries for gauge in entry.gauges]


def _times(engine: Engine, ledger: bridge.Ledger) -> Rows:
    taken = [minutes_taken(after.body, before, after) for before, after in pairwise(ledger.entries)]
    return [(engine.about.family, *one) for one in taken if one is not None]


KEPT = (
    Kept("figures of fits", FitFigure, lambda engine: {"engine": engine}, ("family", "fit", "place", "value_mm"), figures_of),
    Kept("stock taken", StockTaken, lambda engine: {"serial": engine.serial}, ("part", "size", "pieces"), taken_of),
    Kept("repeats with gauges", GaugeScatter, lambda engine: {"serial": engine.serial}, ("gauge_id", "squares", "freedom"), scatter_of),
    Kept("uses of gauges", GaugeUse, lambda engine: {"serial": engine.serial}, ("gauge_id", "seq", "kind", "at", "by_name"), _uses),
    Kept("times of steps", StepTime, lambda engine: {"engine": engine}, ("family", "step", "minutes"), _times),
)


def seal_faults(engine: Engine) -> str:
    """Return the first thing that does not fit of an engine's seals, or of its row; looked at often, so nothing is folded."""
    return engine_misfit(engine) or next(_row_faults(engine), "")


def engine_faults(serial: str) -> list[str]:
    """Return what does not fit of an engine: its seals, its row, what is kept beside; only that is put right."""
    words = seal_faults(_engine(serial))
    if words:
        return [words]
    try:
        lost = list(faults_of(serial))
        if not _beside(serial, put_right=False):  # nobody waits while it is looked at
            return lost
        with transaction.atomic():
            return [*lost, *_beside(serial, put_right=True)]
    except BrokenLedger as error:
        return [error.sentence]


def _engine(serial: str) -> Engine:
    engine: Engine = Engine.objects.at_the_bench().select_related("builder").get(pk=serial)
    return engine


def _row_faults(engine: Engine) -> Iterator[str]:
    """What of an engine's row does not follow from what it was begun with and its ledger."""
    said = last_said("engine", engine.serial)
    if said is None or said[0] is None:
        yield "it stands in no line of the daybook"
        return
    begun = said[0]
    right = {**begun, "whereabouts": "at work", "aside_because": ""}
    entries = Entry.objects.filter(engine=engine).order_by("-seq").values_list("body", flat=True)
    last, onto = entries.filter(kind="engine_moved").first(), entries.filter(kind="revision").first()
    if last is not None:
        because = last["reason"] if last["whereabouts"] == "set aside" else ""
        right |= {**{name: last[name] for name in ("stand", "builder", "whereabouts")}, "aside_because": because}
    if onto is not None:
        right["document"] = _digest_of(begun["family"], onto["number"])
    is_so = engine_says(engine)
    yield from (f"its {name} is not as its ledger has it" for name, value in right.items() if is_so[name] != value)


def _digest_of(family: str, number: int) -> str:
    revision = Revision.objects.filter(family=family, number=number).values_list("pk", flat=True).first()
    return document_digest(revision) if revision is not None else ""


def engine_says(engine: Engine) -> dict[str, Any]:
    """Return what of an engine's row is booked when it is begun, and held against its ledger later."""
    return {
        "family": engine.about.family,
        "document": document_digest(engine.revision_id),
        "purpose": engine.purpose,
        "promised": engine.promised.isoformat() if engine.promised else None,
        "begun": engine.begun.isoformat(),
        "stand": engine.stand,
        "builder": engine.builder.username if engine.builder else None,
        "whereabouts": engine.whereabouts,
        "aside_because": engine.aside_because,
    }


def _beside(serial: str, *, put_right: bool) -> list[str]:
    """What of what is kept beside is not as the ledger has it."""
    engine = _engine(serial)
    ledger = bridge.read_anew(engine)
    faults = [
        f"its {one.name} were not as its ledger has them; put right" for one in KEPT if one.differs(engine, ledger, put_right=put_right)
    ]
    kept = EngineSummary.objects.filter(engine=engine).values().first()
    if (
        kept is not None
        and kept["rules"] == RULES_VERSION
        and engine.summed_at == engine.last_entry
        and _summary_differs(dict(kept), ledger)
    ):
        if put_right:
            keep_summary(engine, ledger)
            transaction.on_commit(partial(ROLL.touch, serial))
        faults.append("what the Floor showed of it was not as its ledger has it; put right")
    return faults


def _summary_differs(kept: dict[str, Any], ledger: bridge.Ledger) -> bool:
    right = {name: value for name, value in ledger.summed.items() if name not in BY_THE_SHOP}
    return any(kept[name] != value for name, value in right.items())
