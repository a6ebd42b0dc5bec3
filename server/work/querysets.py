"""Reads of engines and their ledgers."""

from datetime import date
from typing import Any, Self

from django.db import models
from django.db.models import Count, F, Q, Sum

from engine.querysets import AppendOnlyQuerySet
from gurvo_core.work import RULES_VERSION


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

    def counts(self, today: date) -> dict[str, int]:
        """How the whole shop stands."""
        open_ones = Q(summary__signed=False)
        counts: dict[str, int] = self.aggregate(
            engines=Count("pk"),
            on_stands=Count("pk", filter=Q(stand__isnull=False)),
            out=Count("pk", filter=open_ones & Q(summary__verdict="out")),
            to_sign=Count("pk", filter=open_ones & Q(summary__waits_for="the lead to sign")),
            late=Count("pk", filter=open_ones & Q(promised__lt=today)),
        )
        return counts

    def searched(self, words: str) -> Self:
        """Engines in whose serial, family, purpose, builder or what it waits for each word is found."""
        found = self
        for word in words.split()[:5]:
            found = found.filter(
                Q(serial__icontains=word)
                | Q(revision__family__name__icontains=word)
                | Q(purpose__icontains=word)
                | Q(builder__first_name__icontains=word)
                | Q(summary__waits_for__icontains=word)
            )
        return found

    def late(self, today: date) -> Self:
        """Engines that were promised for an earlier day and are not signed."""
        return self.filter(promised__lt=today, summary__signed=False)

    def moment(self) -> tuple[int, int, int]:
        """Figures that change whenever anything on the Floor does, without any clock: how many engines, entries and revisions."""
        sums = self.aggregate(n=Count("last_seq"), entries=Sum("last_seq"), revisions=Sum("revision_id"))
        return sums["n"], sums["entries"] or 0, sums["revisions"] or 0


class EntryQuerySet(AppendOnlyQuerySet):
    """Reads of ledgers."""

    def since(self, seq: int) -> Self:
        """From a place on, oldest first, with who made them."""
        return self.filter(seq__gt=seq - 1).select_related("by").order_by("seq")
