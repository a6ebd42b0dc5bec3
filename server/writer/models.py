"""Drafts of engine documents: what each began with, and its edits one by one. What is undone stays, and can be done again."""

import uuid

from django.conf import settings
from django.db import models

from engine.models import Revision


class Draft(models.Model):
    """One draft; nothing can be built by it until it is handed in as a revision."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    name = models.CharField(max_length=120, help_text="What whoever began it calls it; the engine's own name once it has one")
    base = models.JSONField(null=True, help_text="The document that it began with; null = from nothing")
    begun_from = models.CharField(max_length=200, help_text="In words")
    changes = models.PositiveIntegerField(default=0, help_text="Grows with every edit, undo and redo")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    handed_in = models.ForeignKey(Revision, null=True, on_delete=models.PROTECT, related_name="+")
    left = models.JSONField(default=list, help_text="Ids of what the bench proposed and the lead left")
    put_away = models.BooleanField(default=False)

    class Meta:
        ordering = ["-changed_at"]

    def __str__(self) -> str:
        """By its name."""
        return self.name


class DraftEdit(models.Model):
    """One edit, as it was made."""

    draft = models.ForeignKey(Draft, on_delete=models.CASCADE, related_name="edits")
    number = models.PositiveIntegerField()
    body = models.JSONField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    is_undone = models.BooleanField(default=False)
    is_passed = models.BooleanField(default=False, help_text="Undone, and something else was written since: it is not done again")

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["draft", "number"], name="one_edit_a_number")]

    def __str__(self) -> str:
        """By its number."""
        return f"{self.draft_id} {self.number}"
