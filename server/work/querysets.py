"""Reads of engines and their ledgers."""

from datetime import date
from typing import Any, Self

from django.db import models
from django.db.models import F, Q

from engine.querysets import AppendOnlyQuerySet
from gurvo_core.work import RULES_VERSION


class EngineQuerySet(models.QuerySet[Any]):
    """Reads of engines."""

    def on_the_floor(self) -> Self:
        """All engines with what the Floor shows, stands first in their order."""
        return self.select_related("revision__family", "builder", "summary").order_by(F("stand").asc(nulls_last=True), "serial")

    def stale(self) -> Self:
        """Engines whose summary was never made, or made at another entry, revision or version of the rules."""
        current = Q(summary__revision_id=F("revision_id"), summary__rules=RULES_VERSION) & (
            Q(summary__at_entry=F("last_entry")) | Q(summary__at_entry=None, last_entry=None)
        )
        return self.exclude(pk__in=self.model.objects.filter(current).values("pk"))

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
        sums = self.aggregate(n=models.Count("pk"), entries=models.Sum("last_seq"), revisions=models.Sum("revision_id"))
        return sums["n"], sums["entries"] or 0, sums["revisions"] or 0


class EntryQuerySet(AppendOnlyQuerySet):
    """Reads of ledgers."""

    def since(self, seq: int) -> Self:
        """From a place on, oldest first, with who made them."""
        return self.filter(seq__gt=seq - 1).select_related("by").order_by("seq")
