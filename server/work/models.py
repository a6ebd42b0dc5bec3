"""Engines, and the ledger of each: entries are added and never changed."""

import uuid

from django.conf import settings
from django.db import models

from engine.models import AppendOnly, Revision
from work.querysets import EngineQuerySet, EntryQuerySet


class Engine(models.Model):
    """One engine that is being built."""

    serial = models.SlugField(primary_key=True, max_length=40)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="engines")
    purpose = models.CharField(max_length=80, blank=True)
    stand = models.PositiveSmallIntegerField(null=True, blank=True)
    builder = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, blank=True, on_delete=models.PROTECT, related_name="engines")
    promised = models.DateField(null=True, blank=True)
    begun = models.DateTimeField(auto_now_add=True)

    objects = EngineQuerySet.as_manager()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["stand"], name="one_engine_a_stand")]

    def __str__(self) -> str:
        """Name it by its serial."""
        return self.serial


class Entry(AppendOnly):
    """One entry of an engine's ledger: as typed, with its figures in mm and degrees and the gauges as they were."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    engine = models.ForeignKey(Engine, on_delete=models.PROTECT, related_name="entries")
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    body = models.JSONField()
    inside = models.JSONField(default=dict)
    gauges = models.JSONField(default=list)
    at = models.DateTimeField()
    typed_at = models.DateTimeField(null=True, help_text="By the clock of the machine it was typed on")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="entries")

    objects = EntryQuerySet.as_manager()

    class Meta:
        verbose_name = "ledger entry"
        ordering = ["engine", "seq"]
        constraints = [models.UniqueConstraint(fields=["engine", "seq"], name="one_entry_a_place")]

    def __str__(self) -> str:
        """Engine, place and kind."""
        return f"{self.engine_id} #{self.seq} {self.kind}"
