"""Families and their revisions. A revision is never changed: engines stay on the one they were begun with."""

from typing import Any

from django.conf import settings
from django.db import models

from engine.querysets import RevisionQuerySet


class AppendOnly(models.Model):
    """A row that is written once: saving it again or deleting it is refused."""

    class Meta:
        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Write a new row; refuse to change one."""
        if not self._state.adding:
            raise TypeError(f"A {self._meta.verbose_name} is never changed.")
        super().save(*args, **kwargs)

    def delete(self, *_args: Any, **_kwargs: Any) -> tuple[int, dict[str, int]]:
        """Refuse."""
        raise TypeError(f"A {self._meta.verbose_name} is never deleted.")


class Family(models.Model):
    """A family of engines; what is known of it is in its revisions."""

    code = models.SlugField(primary_key=True, max_length=40)
    name = models.CharField(max_length=120)

    def __str__(self) -> str:
        """Name it as the shop does."""
        return self.name


class Revision(AppendOnly):
    """One engine document, as it was accepted."""

    family = models.ForeignKey(Family, on_delete=models.PROTECT, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    remark = models.CharField(max_length=300, blank=True, help_text="Why it was taken in")
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)

    objects = RevisionQuerySet.as_manager()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["family", "number"], name="one_revision_a_number")]

    def __str__(self) -> str:
        """Family and number."""
        return f"{self.family_id} revision {self.number}"
