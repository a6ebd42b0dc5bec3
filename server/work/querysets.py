"""Reads of engines and their ledgers."""

from typing import Any, Self

from django.db import models

from engine.querysets import AppendOnlyQuerySet


class EngineQuerySet(models.QuerySet[Any]):
    """Reads of engines."""

    def on_the_floor(self) -> Self:
        """All engines with what the Floor shows, stands first in their order."""
        return self.select_related("revision__family", "builder").order_by(models.F("stand").asc(nulls_last=True), "serial")


class EntryQuerySet(AppendOnlyQuerySet):
    """Reads of ledgers."""

    def since(self, seq: int) -> Self:
        """From a place on, oldest first, with who made them."""
        return self.filter(seq__gt=seq - 1).select_related("by").order_by("seq")
