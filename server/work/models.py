"""Engines, the ledger of each, and what the Floor shows of each: entries are added and never changed."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from engine.bridge import About, about_of
from engine.models import AppendOnly, Revision
from gurvo_core.ledger.chain import START
from gurvo_core.ledger.versions import ENTRY_VERSION
from work.querysets import EngineQuerySet, EntryQuerySet


class Engine(models.Model):
    """One engine that is being built."""

    serial = models.SlugField(primary_key=True, max_length=40)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="engines")
    purpose = models.CharField(max_length=80, blank=True)
    stand = models.PositiveSmallIntegerField(null=True, blank=True)
    builder = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, blank=True, on_delete=models.PROTECT, related_name="engines")
    promised = models.DateField(null=True, blank=True)
    whereabouts = models.CharField(max_length=10, default="at work", help_text="At work, set aside or archived; as its last move has it")
    aside_because = models.CharField(max_length=500, blank=True)
    begun = models.DateTimeField(auto_now_add=True)
    last_seq = models.PositiveIntegerField(default=0, help_text="Place of the ledger's last entry")
    last_entry = models.UUIDField(null=True, help_text="The ledger's last entry")
    summed_at = models.UUIDField(null=True, help_text="The entry at which its summary was worked out")
    head = models.CharField(max_length=64, default=START, help_text="Seal of the ledger's last entry")
    newest_revision = models.PositiveIntegerField(default=0, help_text="Number of its family's newest document")
    chain: str | None  # only of engines read ``at_the_bench``

    objects = EngineQuerySet.as_manager()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["stand"], name="one_engine_a_stand")]
        indexes = [models.Index(fields=["last_seq", "revision"], name="floor_moment")]  # asked every other second by every Floor

    def __str__(self) -> str:
        """Name it by its serial."""
        return self.serial

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Write it; a new one learns which document of its family is the newest."""
        if self._state.adding and not self.newest_revision:
            self.newest_revision = Revision.objects.newest_of(self.revision.family_id).number
        super().save(*args, **kwargs)

    @property
    def about(self) -> About:
        """Which revision of which family it is on."""
        return about_of(self.revision_id)

    @property
    def bench_moment(self) -> tuple[object, ...]:
        """The same as the query set's, of one that was read ``at_the_bench``."""
        return self.last_entry, self.revision_id, self.newest_revision, self.stand, self.chain


class Entry(AppendOnly):
    """One entry of an engine's ledger: as typed, with its figures in mm and degrees and the gauges as they were."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    engine = models.ForeignKey(Engine, on_delete=models.PROTECT, related_name="entries")
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    version = models.PositiveSmallIntegerField(default=ENTRY_VERSION, help_text="Of the body's shape")
    body = models.JSONField()
    because = models.CharField(max_length=500, blank=True, help_text="Why it was taken although the core objected")
    si_values = models.JSONField(default=dict)
    gauges = models.JSONField(default=list)
    at = models.DateTimeField()
    typed_at = models.DateTimeField(null=True, help_text="By the clock of the machine it was typed on")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="entries")
    by_name = models.CharField(max_length=150, help_text="What the maker was called then")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+", help_text="The engine document it was judged on")
    digest = models.CharField(max_length=64, help_text="Its seal, over all of this and the row before it")

    objects = EntryQuerySet.as_manager()

    class Meta:
        verbose_name = "ledger entry"
        ordering = ["engine", "seq"]
        constraints = [models.UniqueConstraint(fields=["engine", "seq"], name="one_entry_a_place")]

    def __str__(self) -> str:
        """Engine, place and kind."""
        return f"{self.engine_id} #{self.seq} {self.kind}"


class EngineSummary(models.Model):
    """What the Floor shows of an engine, as worked out on one revision by one version of the rules; its engine knows at which entry."""

    engine = models.OneToOneField(Engine, primary_key=True, on_delete=models.CASCADE, related_name="summary")
    revision_id = models.IntegerField()
    rules = models.PositiveIntegerField()
    beads = models.JSONField(default=list)
    step = models.CharField(max_length=120, blank=True)
    waits_for = models.CharField(max_length=200, blank=True)
    waits_on = models.CharField(max_length=8, blank=True, default="", help_text="A builder, a lead, or the clock")
    free_to_turn = models.BooleanField(default=False)
    careful = models.BooleanField(default=False)
    left_minutes = models.FloatField(default=0, help_text="Work that is left, as far as it is known [min]")
    loose_ends = models.PositiveIntegerField(default=0)
    verdict = models.CharField(max_length=16, blank=True)
    proof = models.CharField(max_length=80, blank=True, default="")
    signed = models.BooleanField(default=False)
    clock = models.CharField(max_length=200, blank=True, help_text="What runs by the clock and ends first")
    clock_at = models.DateTimeField(null=True)
    clock_clears = models.BooleanField(default=False)
    after = models.CharField(max_length=120, blank=True, help_text="What is still due after hand-over")
    after_at = models.DateTimeField(null=True)
    drawn = models.JSONField(default=dict, help_text="By what it is drawn: the step that is asked, and how each part stands")
    chain = models.CharField(max_length=300, blank=True, help_text="The first thing in its ledger that does not fit")
    broken = models.CharField(max_length=600, blank=True, help_text="Why it cannot be shown")

    class Meta:
        indexes = [models.Index(fields=["chain"], name="misfits", condition=models.Q(chain__gt=""))]  # counted by every Floor

    def __str__(self) -> str:
        """Whose it is."""
        return f"{self.engine_id}: {self.waits_for}"


class StepTime(models.Model):
    """How long one step took on one engine; many of them make the shop's own median. Not part of any record."""

    engine = models.ForeignKey(Engine, on_delete=models.CASCADE, related_name="step_times")
    family = models.CharField(max_length=40)
    step = models.CharField(max_length=40)
    minutes = models.FloatField()

    class Meta:
        indexes = [models.Index(fields=["family", "-id"], name="family_times")]

    def __str__(self) -> str:
        """Which step, and how long."""
        return f"{self.family} {self.step}: {self.minutes:.0f} min"


class Example(models.Model):
    """How one step of a family should look: a picture that the lead has named. No verdict rests on it."""

    family = models.CharField(max_length=40)
    step = models.CharField(max_length=40)
    digest = models.CharField(max_length=64, help_text="SHA-256 of the picture")
    serial = models.CharField(max_length=40, help_text="Of the engine it was taken of")
    by_name = models.CharField(max_length=150)
    at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["family", "step"], name="one_example_a_step")]

    def __str__(self) -> str:
        """Of which step."""
        return f"{self.family} {self.step}: {self.digest[:12]}"


class FitFigure(models.Model):
    """How one place of a fit came out on one engine, to compare others of its family with. Follows its ledger, and is no part of it."""

    engine = models.ForeignKey(Engine, on_delete=models.CASCADE, related_name="fit_figures")
    family = models.CharField(max_length=40)
    fit = models.CharField(max_length=40)
    place = models.CharField(max_length=80)
    value_mm = models.FloatField()

    class Meta:
        indexes = [models.Index(fields=["family", "fit"], name="family_fits")]

    def __str__(self) -> str:
        """Which, and how it came out."""
        return f"{self.family} {self.fit} {self.place}: {self.value_mm:.3f} mm"


class LookedBack(models.Model):
    """At which entry, document and version of the rules an engine's figures were drawn up for looking back. A cache, like all beside it."""

    engine = models.OneToOneField(Engine, primary_key=True, on_delete=models.CASCADE, related_name="looked_back")
    at_entry = models.UUIDField(null=True)
    revision_id = models.IntegerField()
    rules = models.PositiveIntegerField()

    def __str__(self) -> str:
        """Whose."""
        return f"{self.engine_id} looked back at"


class FigureSeen(models.Model):
    """One figure that an engine came to: a clearance, a valve gap, a cam, a pull. Follows its ledger, and is no part of it."""

    engine = models.ForeignKey(Engine, on_delete=models.CASCADE, related_name="figures_seen")
    family = models.CharField(max_length=40)
    sort = models.CharField(max_length=12)
    of = models.CharField(max_length=80)
    name = models.CharField(max_length=160)
    place = models.CharField(max_length=160)
    value = models.FloatField()
    unit = models.CharField(max_length=4)
    least = models.FloatField(null=True)
    most = models.FloatField(null=True)
    gauge = models.CharField(max_length=120, blank=True)
    at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["family", "sort", "of"], name="figures_of_family")]

    def __str__(self) -> str:
        """Which, and what."""
        return f"{self.engine_id} {self.name} {self.place}: {self.value} {self.unit}"


class Happening(models.Model):
    """Something worth counting that happened on an engine: opened again, moved, decided. Follows its ledger, and is no part of it."""

    engine = models.ForeignKey(Engine, on_delete=models.CASCADE, related_name="happenings")
    family = models.CharField(max_length=40)
    sort = models.CharField(max_length=40)
    title = models.CharField(max_length=200)
    because = models.CharField(max_length=600, blank=True)
    at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["family", "sort"], name="happenings_of_family")]

    def __str__(self) -> str:
        """What, on which engine."""
        return f"{self.engine_id} {self.sort}: {self.title}"
