"""The roll: every engine as the Floor shows it, kept in memory and brought up to date by the engines that changed.

It never rests on being told which those are: the sums of what is kept are compared with those of the database, and where they differ
all of it is read anew.
"""

from collections import Counter
from collections.abc import Iterable
from datetime import date
from threading import RLock
from typing import Any, NamedTuple

from django.utils import timezone

from gurvo_core.run.ready import WorkingHours, ready_at
from gurvo_core.work import RULES_VERSION
from shop.roles import called
from work.models import Engine, EngineSummary
from work.schemas import FloorRow

OWN = ("serial", "purpose", "stand", "promised", "whereabouts", "aside_because")
WORKED_OUT_AT = ("last_seq", "last_entry", "revision_id", "summed_at", "summary__revision_id", "summary__rules")
SHOWN = (
    "step",
    "waits_for",
    "waits_on",
    "free_to_turn",
    "careful",
    "left_minutes",
    "loose_ends",
    "clock",
    "clock_at",
    "clock_clears",
    "after",
    "after_at",
    "signed",
    "broken",
    "chain",
    "beads",
    "verdict",
    "proof",
)
NAMES = ("revision__family", "revision__family__name", "builder__first_name", "builder__username")
COLUMNS = (*OWN, *NAMES, *WORKED_OUT_AT, *(f"summary__{name}" for name in SHOWN))


class Moment(NamedTuple):
    """Changes with everything the Floor shows: how many engines, entries and revisions; what does not fit; the hour; the shop's hours."""

    sums: tuple[int, int, int]
    misfits: tuple[tuple[str, str], ...]
    hour: str
    hours: WorkingHours
    misfit: str = ""  # of the shop's daybook


class Line:
    """One engine of the roll."""

    __slots__ = (
        "_row",
        "builder",
        "family",
        "is_archived",
        "is_open",
        "is_out",
        "is_to_sign",
        "loose_ends",
        "place",
        "plain",
        "promised",
        "serial",
        "stand",
        "words",
    )

    def __init__(self, plain: dict[str, Any]):
        self.plain, self.serial = plain, str(plain["serial"])
        self.is_archived = plain["whereabouts"] == "archived"
        self.stand: int | None = plain["stand"]
        self.place = (self.stand is None, self.stand or 0, self.serial)
        self.builder, self.family = plain["builder__username"], plain["revision__family"]
        self.is_open = plain["summary__signed"] is False
        self.is_out = self.is_open and self["verdict"] == "out"
        self.is_to_sign = self.is_open and self["waits_for"] == "the lead to sign"
        self.promised: date | None = plain["promised"] if self.is_open else None
        self.loose_ends: int = plain["summary__loose_ends"] or 0
        said = (self.serial, plain["revision__family__name"], plain["purpose"], plain["builder__first_name"], self["waits_for"])
        self.words = "\n".join(word or "" for word in said).casefold()
        self._row: tuple[object, FloorRow] | None = None

    def __getitem__(self, name: str) -> Any:
        """Return one figure of its summary; None where it was never made."""
        return self.plain[f"summary__{name}"]

    @property
    def waits_on(self) -> str:
        """On whom it waits; set aside, it waits for what its reason says."""
        return "aside" if self.plain["whereabouts"] == "set aside" and self.is_open else self["waits_on"] or "builder"

    @property
    def is_stale(self) -> bool:
        """Whether its summary was never made, or made at another entry, revision or version of the rules."""
        if (self["revision_id"], self["rules"]) != (self.plain["revision_id"], RULES_VERSION):
            return True
        return bool(self.plain["summed_at"] != self.plain["last_entry"] and not self["broken"])

    def late_days(self, today: date) -> int:
        """By how many days it is late; 0 where it is signed, or nothing was promised."""
        return max(0, (today - self.promised).days) if self.promised else 0

    def row(self, today: date, hours: WorkingHours, hour: str) -> FloorRow:
        """Return it as the Floor shows it at an hour, by which goes when it will be done."""
        if self._row is None or self._row[0] != (today, hours, hour):
            self._row = (today, hours, hour), self._shown(today, hours)
        return self._row[1]

    def _shown(self, today: date, hours: WorkingHours) -> FloorRow:
        shown = {name: self.plain[name] for name in OWN} | {name: self[name] for name in SHOWN}
        shown["family"] = self.plain["revision__family__name"]
        shown["builder"] = called(self.plain["builder__first_name"], self.builder)
        shown["promised"] = self.promised
        shown["expected"] = _expected(self["left_minutes"], hours) if self.is_open else None
        shown["late_days"] = self.late_days(today)
        shown["verdict"] = self["verdict"] or None
        shown["waits_on"] = self.waits_on
        return FloorRow.model_validate(shown)


def _expected(left_minutes: float, hours: WorkingHours) -> date | None:
    """The day on which so much work will be done; None where the document says nothing of it."""
    at = ready_at(timezone.localtime(), left_minutes, hours) if left_minutes else None
    return at.date() if at else None


def read(serials: Iterable[str] | None = None) -> list[Line]:
    """Read some engines, or all of them, in their order."""
    engines = Engine.objects.all() if serials is None else Engine.objects.filter(pk__in=list(serials))
    try:
        return [Line(plain) for plain in engines.in_order().values(*COLUMNS)]
    except (ValueError, TypeError):  # one odd value: what was kept of that engine is made anew
        for serial in engines.values_list("pk", flat=True):
            _drop_if_odd(serial)
        return [Line(plain) for plain in engines.in_order().values(*COLUMNS)]


def _drop_if_odd(serial: str) -> None:
    try:
        EngineSummary.objects.filter(engine=serial).values().first()
    except (ValueError, TypeError):
        EngineSummary.objects.filter(engine=serial).delete()


class Tally:
    """How a shop stands, counted on as its engines change."""

    def __init__(self) -> None:
        self.sums = (0, 0, 0)  # as the database adds them up: by these the roll is compared with it
        self.out = 0
        self.to_sign = 0
        self.stands: Counter[int] = Counter()
        self.promised: Counter[date] = Counter()  # of engines that are open

    def count(self, line: Line, times: int) -> None:
        """Count an engine in (1) or out again (-1)."""
        n, entries, revisions = self.sums
        self.sums = n + times, entries + times * line.plain["last_seq"], revisions + times * line.plain["revision_id"]
        self.out += times * line.is_out
        self.to_sign += times * line.is_to_sign
        if line.stand is not None:
            self.stands[line.stand] += times
        if line.promised is not None:
            self.promised[line.promised] += times

    @property
    def engines(self) -> int:
        """How many there are."""
        return self.sums[0]

    @property
    def taken_stands(self) -> list[int]:
        """Stands that hold an engine, in order."""
        return sorted(+self.stands)

    def late(self, today: date) -> int:
        """How many open engines were promised for an earlier day."""
        return sum(times for day, times in self.promised.items() if day < today)


class Roll:
    """All engines, stands first in their order; archived ones apart."""

    def __init__(self) -> None:
        self._lock = RLock()
        self._touched: set[str] = set()
        self._misfits: tuple[tuple[str, str], ...] | None = None
        self._begin_anew()

    def _begin_anew(self) -> None:
        self._lines: dict[bool, dict[str, Line]] = {False: {}, True: {}}
        self._tally = Tally()

    def touch(self, serial: str) -> None:
        """Hear that an engine has changed, so that it alone is read."""
        with self._lock:
            self._touched.add(serial)

    def forget(self) -> None:
        """Read all of it when it is asked for next."""
        with self._lock:
            self._misfits = None
            self._touched.clear()

    def at(self, moment: Moment, *, archived: bool) -> tuple[list[Line], Tally]:
        """Return the engines that are archived or not as they are at a moment, and how the whole shop stands."""
        with self._lock:
            if self._misfits == moment.misfits:
                self._read_touched()
            if (self._misfits, self._tally.sums) != (moment.misfits, moment.sums):
                self._read_all(moment.misfits)
            return list(self._lines[archived].values()), self._tally

    def read_again(self, serials: list[str]) -> list[Line]:
        """Read and return some engines that have changed though no entry was made."""
        with self._lock:
            self._touched.update(serials)
            self._read_touched()
            return [self._lines[False].get(serial) or self._lines[True][serial] for serial in serials]

    def _read_all(self, misfits: tuple[tuple[str, str], ...]) -> None:
        self._touched.clear()
        self._begin_anew()
        self._misfits = misfits
        for line in read():
            self._lines[line.is_archived][line.serial] = line
            self._tally.count(line, 1)

    def _read_touched(self) -> None:
        touched, self._touched = self._touched, set()
        for line in read(touched) if touched else ():
            self._take(line)

    def _take(self, line: Line) -> None:
        """Put an engine where it belongs now."""
        here, elsewhere = self._lines[line.is_archived], self._lines[not line.is_archived]
        before = here.get(line.serial) or elsewhere.pop(line.serial, None)
        if before is not None:
            self._tally.count(before, -1)
        is_in_its_place = line.serial in here and before is not None and before.place == line.place
        here[line.serial] = line
        self._tally.count(line, 1)
        if not is_in_its_place:
            self._lines[line.is_archived] = dict(sorted(here.items(), key=lambda item: item[1].place))


ROLL = Roll()
