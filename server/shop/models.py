"""Gauges with their checks and uses, and how each person likes to see things. People are Django's own users, their role is a group."""

import uuid
from datetime import time
from threading import Lock

from cachetools import TTLCache, cached
from django.conf import settings
from django.db import models

from gurvo_core.run.ready import WorkingHours

HOURS_KEPT_S = 10


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
    instrument_hosts = models.CharField(max_length=300, blank=True, help_text="Hosts at which instruments may be, with a comma between")
    second_lead_looks = models.BooleanField(default=False, help_text="Whether a lead who wrote none of a draft hands it in")
    misfit = models.CharField(max_length=300, blank=True, help_text="The first thing that does not fit the daybook")

    def __str__(self) -> str:
        """By its id."""
        return f"{'demo' if self.is_demo else 'shop'} {self.id}"


class Letterhead(models.Model):
    """What stands at the head of papers that are handed over, and by whose clock; one row, once somebody has said it."""

    name = models.CharField(max_length=120)
    address = models.CharField(max_length=200, blank=True)
    paper = models.CharField(max_length=6, default="A4", choices=[("A4", "A4"), ("Letter", "Letter")])
    mark = models.TextField(blank=True, default="", help_text="The shop's own mark, small, as a data URI")
    zone = models.CharField(max_length=60, blank=True, help_text="The shop's time zone, such as Europe/Zurich; the server's when empty")

    def __str__(self) -> str:
        """By its name."""
        return self.name


@cached(TTLCache(1, ttl=HOURS_KEPT_S), lock=Lock())
def working_hours() -> WorkingHours:
    """When this shop works; asked with every entry, so kept for a while, and forgotten when the lead changes it."""
    shop = Shop.objects.first() or Shop()
    return WorkingHours(begins=shop.day_begins, ends=shop.day_ends, days=tuple(range(6 if shop.works_saturdays else 5)))


def instrument_hosts() -> list[str]:
    """Hosts at which the lead lets instruments be."""
    said = Shop.objects.values_list("instrument_hosts", flat=True).first() or ""
    return [host.strip().lower() for host in said.split(",") if host.strip()]


@cached(TTLCache(1, ttl=HOURS_KEPT_S), lock=Lock())
def misfit_of_shop() -> str:
    """The first thing that does not fit the daybook, as it was last looked at; asked by every Floor, so kept for a while."""
    return Shop.objects.values_list("misfit", flat=True).first() or ""


class Pin(models.Model):
    """Digits by which somebody shows who he is at a bench that is signed in."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="pin")
    hashed = models.CharField(max_length=128)

    def __str__(self) -> str:
        """Whose it is; never what it is."""
        return f"PIN of {self.user}"


class BenchDevice(models.Model):
    """A tablet or telephone that stands at a bench, and asks for a PIN where others ask for a password."""

    name = models.CharField(max_length=60)
    secret = models.CharField(max_length=64, unique=True, help_text="Digest of what the device alone has")
    by_name = models.CharField(max_length=150)
    paired_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True, help_text="When somebody last showed there who he is")

    def __str__(self) -> str:
        """By its name."""
        return self.name


class ScriptKey(models.Model):
    """What a program shows instead of a person, for whom it then does things."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    secret = models.CharField(max_length=64, unique=True, help_text="Digest of what the program alone has")
    made_at = models.DateTimeField()
    used_on = models.DateField(null=True, help_text="The day on which it was used last")

    def __str__(self) -> str:
        """By its name."""
        return self.name


class PinTry(models.Model):
    """A PIN that somebody tries, kept before it is looked at; gone once it was the right one."""

    username = models.CharField(max_length=150, help_text="Whose PIN it would be")
    by = models.CharField(max_length=150, help_text="In whose session it is tried")
    at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["username", "by", "at"], name="pin_tries")]

    def __str__(self) -> str:
        """Whose, and by whom."""
        return f"{self.username} by {self.by}"


class Confirmation(models.Model):
    """That somebody has shown who he is, for one entry on one state of one engine; used up with it."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    session = models.CharField(max_length=64, help_text="Digest of the session in which it was")
    about = models.CharField(max_length=64, help_text="Digest of engine, state and entry")
    at = models.DateTimeField()

    def __str__(self) -> str:
        """Whose."""
        return f"{self.user_id} at {self.at:%H:%M:%S}"


class Gauge(models.Model):
    """Anything that measures, or pulls to a figure, with what its calibration says."""

    class Kind(models.TextChoices):
        """What it is; its figures are in degrees, mm or N·m by this."""

        WHEEL = "wheel"
        DIAL = "dial"
        WRENCH = "wrench"
        BAR = "bar", "torque-limiting bar"
        ANGLE = "angle", "angle gauge"
        ENCODER = "encoder"
        MICROMETER = "micrometer"
        BORE = "bore", "bore gauge"
        CALIPER = "caliper"
        FEELER = "feeler"
        STRIP = "strip", "plastic strip"

    code = models.SlugField(primary_key=True, max_length=40)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=10, choices=Kind)
    resolution = models.FloatField(help_text="Smallest step read, in its own unit")
    expanded_uncertainty = models.FloatField(help_text="U (k = 2) of its calibration, in its own unit")
    least = models.FloatField(null=True, blank=True, help_text="Where its range begins")
    most = models.FloatField(null=True, blank=True, help_text="Where it ends")
    calibrated = models.DateField(null=True, blank=True)
    due = models.DateField(null=True, blank=True)
    certificate = models.CharField(max_length=60, blank=True)
    expansion_um_m_k = models.FloatField(default=11.5, help_text="How it grows with warmth [µm/m/K]; steel unless it says otherwise")
    address = models.CharField(max_length=120, blank=True, help_text="Serial port or URL at which it can be read; empty when it cannot")

    def __str__(self) -> str:
        """Name it as the shop does."""
        return f"{self.code} {self.name}"


class GaugeCheck(models.Model):
    """A gauge tried against another: what that showed, and what it showed itself."""

    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="checks")
    against = models.ForeignKey(Gauge, on_delete=models.PROTECT, related_name="+")
    true = models.FloatField(help_text="As the other showed it")
    shown = models.FloatField(help_text="As this one did")
    note = models.CharField(max_length=200, blank=True, help_text="Such as the air pressure")
    at = models.DateTimeField()
    by_name = models.CharField(max_length=150)

    class Meta:
        ordering = ["-at"]

    def __str__(self) -> str:
        """Which, and when."""
        return f"{self.gauge_id} {self.at:%Y-%m-%d}"


class GaugeScatter(models.Model):
    """How repeats with a gauge scattered on one engine. Follows that engine's ledger, and is no part of it."""

    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="scatter")
    serial = models.CharField(max_length=40)
    squares = models.FloatField()  # of how far each lay from the mean of its spot [mm²]
    freedom = models.PositiveIntegerField()  # repeats beyond the first of each spot

    class Meta:
        constraints = [models.UniqueConstraint(fields=["gauge", "serial"], name="one_scatter_an_engine")]

    def __str__(self) -> str:
        """Which, and by how many."""
        return f"{self.gauge_id} on {self.serial}: {self.freedom} repeats"


class GaugeUse(models.Model):
    """An entry that named a gauge: looked at on the day it is found out of true. Follows the ledgers, and is no part of them."""

    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="uses")
    serial = models.CharField(max_length=40)
    seq = models.PositiveIntegerField()
    kind = models.CharField(max_length=20)
    at = models.DateTimeField()
    by_name = models.CharField(max_length=150)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["gauge", "kind", "at"], name="gauge_uses")]

    def __str__(self) -> str:
        """Which, and on what."""
        return f"{self.gauge_id} on {self.serial} #{self.seq}"


class StockItem(models.Model):
    """Pieces of one size of a part, as they came in; what engines have taken is counted beside."""

    part = models.CharField(max_length=120)
    size = models.CharField(max_length=24)
    lot = models.CharField(max_length=40, blank=True)
    count = models.PositiveIntegerField(help_text="All that came in, taken ones among them")

    class Meta:
        ordering = ["part", "size", "lot"]
        constraints = [models.UniqueConstraint(fields=["part", "size", "lot"], name="one_row_a_lot")]

    def __str__(self) -> str:
        """Which, and how many."""
        return f"{self.part} {self.size}: {self.count}"


class StockTaken(models.Model):
    """Pieces that one engine takes. Follows its ledger, and is no part of it."""

    serial = models.CharField(max_length=40, db_index=True)
    part = models.CharField(max_length=120)
    size = models.CharField(max_length=24)
    pieces = models.PositiveIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["serial", "part", "size"], name="taken_once")]

    def __str__(self) -> str:
        """Which, and for which engine."""
        return f"{self.serial} takes {self.pieces} of {self.part} {self.size}"


class DayLine(models.Model):
    """One line of the daybook: what a row of some table holds since then, sealed over the line before it."""

    seq = models.PositiveIntegerField(primary_key=True)
    at = models.DateTimeField(db_index=True)
    by = models.CharField(max_length=150)
    how = models.CharField(max_length=40, blank=True, help_text="How whoever did it had shown who he is")
    name = models.CharField(max_length=20, help_text="Which table, as the daybook calls it")
    key = models.CharField(max_length=150)
    says = models.JSONField(null=True, help_text="What the row holds; nothing when it is gone")
    digest = models.CharField(max_length=64)

    class Meta:
        indexes = [models.Index(fields=["name", "key", "-seq"], name="newest_line")]

    def __str__(self) -> str:
        """Which row, and when."""
        return f"{self.seq}: {self.name} {self.key}"


class Preference(models.Model):
    """How one person likes to see things."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="preference")
    length_unit = models.CharField(max_length=4, default="mm", choices=[("mm", "mm"), ("in", "in"), ("thou", "thou")])
    seen_from = models.CharField(max_length=10, default="front", choices=[("front", "front"), ("flywheel", "flywheel")])
    shows_help = models.BooleanField(default=False, help_text="Whether each question comes with what is meant by it")

    def __str__(self) -> str:
        """Whose it is."""
        return f"{self.user}: {self.length_unit}, from the {self.seen_from}"
