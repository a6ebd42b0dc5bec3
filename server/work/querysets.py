"""Reads of engines and their ledgers."""

from collections.abc import Iterator
from typing import Any, Self

from django.db import models
from django.db.models import Count, F, Q, Sum

from engine.querysets import AppendOnlyQuerySet
from gurvo_core.work import RULES_VERSION

PIECE = 100  # rows of a ledger that are read at once, where whoever reads may take his time


class EngineQuerySet(models.QuerySet[Any]):
    """Reads of engines."""

    def in_order(self) -> Self:
        """Stands first in their order."""
        return self.order_by(F("stand").asc(nulls_last=True), "serial")

    def at_the_bench(self) -> Self:
        """With what does not fit of their seals."""
        return self.annotate(chain=F("summary__chain"))

    def bench_moment(self, serial: str) -> tuple[object, ...] | None:
        """Figures that change whenever what the bench shows of an engine does; None when there is no such engine."""
        columns = ("last_entry", "revision_id", "newest_revision", "stand", "summary__chain")
        moment: tuple[object, ...] | None = self.filter(pk=serial).values_list(*columns).first()
        return moment

    def stale(self) -> Self:
        """Engines whose summary was never made, or made at another entry, revision or version of the rules."""
        at_last = Q(summed_at=F("last_entry")) | Q(summed_at=None, last_entry=None) | Q(summary__broken__gt="")
        current = self.filter(at_last, summary__revision_id=F("revision_id"), summary__rules=RULES_VERSION)
        return self.exclude(pk__in=current.values("pk"))

    def moment(self) -> tuple[int, int, int]:
        """Figures that change whenever anything on the Floor does, without any clock: how many engines, entries and revisions."""
        sums = self.aggregate(n=Count("last_seq"), entries=Sum("last_seq"), revisions=Sum("revision_id"))
        return sums["n"], sums["entries"] or 0, sums["revisions"] or 0


class EntryQuerySet(AppendOnlyQuerySet):
    """Reads of ledgers."""

    def since(self, seq: int) -> Self:
        """From a place on, oldest first, with who made them."""
        return self.filter(seq__gt=seq - 1).select_related("by").order_by("seq")

    def in_pieces(self, last: int) -> Iterator[Any]:
        """All up to a place, oldest first, so many at a time. Between the pieces nothing is held open: a reader who stays away would keep
        the write-ahead log from being folded back, and every entry made meanwhile would pay for it.
        """
        for first in range(1, last + 1, PIECE):
            yield from list(self.since(first).filter(seq__lte=min(last, first + PIECE - 1)))
