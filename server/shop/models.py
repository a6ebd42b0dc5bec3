"""Gauges, and how each person likes to see things. People are Django's own users, their role is a group."""

import uuid
from datetime import time

from django.conf import settings
from django.db import models

from gurvo_core.run.ready import WorkingHours


class Shop(models.Model):
    """Which shop this database is of; made once with the database, and in every backup of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    is_demo = models.BooleanField(default=False)
    alone_minutes = models.PositiveSmallIntegerField(
        default=15, help_text="After how long a bench left alone asks who is there [min]; 0 for never"
    )

    day_begins = models.TimeField(default=time(7, 30))
    day_ends = models.TimeField(default=time(16, 0))
    works_saturdays = models.BooleanField(default=False)

    def __str__(self) -> str:
        """By its id."""
        return f"{'demo' if self.is_demo else 'shop'} {self.id}"


def working_hours() -> WorkingHours:
    """When this shop works."""
    shop = Shop.objects.first() or Shop()
    return WorkingHours(begins=shop.day_begins, ends=shop.day_ends, days=tuple(range(6 if shop.works_saturdays else 5)))


class Pin(models.Model):
    """Digits by which somebody shows who he is at a bench that is signed in."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="pin")
    hashed = models.CharField(max_length=128)

    def __str__(self) -> str:
        """Whose it is; never what it is."""
        return f"PIN of {self.user}"


class Gauge(models.Model):
    """A degree wheel or dial with what its calibration says."""

    class Kind(models.TextChoices):
        """What it measures."""

        WHEEL = "wheel"
        DIAL = "dial"

    code = models.SlugField(primary_key=True, max_length=40)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=10, choices=Kind)
    resolution = models.FloatField(help_text="Smallest step read [deg or mm]")
    expanded_uncertainty = models.FloatField(help_text="U (k = 2) of its calibration [deg or mm]")
    due = models.DateField(null=True, blank=True)

    def __str__(self) -> str:
        """Name it as the shop does."""
        return f"{self.code} {self.name}"


class Preference(models.Model):
    """How one person likes to see things."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="preference")
    length_unit = models.CharField(max_length=4, default="mm", choices=[("mm", "mm"), ("in", "in"), ("thou", "thou")])
    seen_from = models.CharField(max_length=10, default="front", choices=[("front", "front"), ("flywheel", "flywheel")])

    def __str__(self) -> str:
        """Whose it is."""
        return f"{self.user}: {self.length_unit}, from the {self.seen_from}"
