"""From rows to the core's ledger and back to plain results. No arithmetic, no saving.

Ledgers only ever grow, so what was read of one is kept in this process, by use and within a bound in bytes, and only new rows are
fetched. Each engine's row names its last entry: while that is the one kept, nothing is fetched at all.
"""

from bisect import bisect_left
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from operator import attrgetter
from threading import Lock

from cachetools import LRUCache, cached
from django.conf import settings
from django.contrib.auth.models import User
from django.http import Http404
from django.utils.module_loading import import_string
from django.utils.timezone import localtime

from engine.bridge import document_of
from gurvo_core.errors import AskFirst, CoreError
from gurvo_core.joints.job.traces import trace_lines
from gurvo_core.joints.job.view import TraceLine
from gurvo_core.ledger import MINUTES, OPENED_LAST, Body, Folded, Gauge, LedgerEntry, Strike
from gurvo_core.ledger.chain import START, short
from gurvo_core.pictures.job.state import PictureView, as_they_stand
from gurvo_core.scene import scene_of, steps_of
from gurvo_core.work import ROOMS, BenchState, House, PartTold, TapeLine
from shop.roles import shown_name
from work.errors import BrokenLedger, Meanwhile
from work.models import Engine, Entry
from work.seals import NO_TAIL, OTHER_DOCUMENT, document_digest, row_misfit
from work.times import minutes_of

# before the last room, which closes the record, stand those that a shop adds in its settings
HOUSE = House((*ROOMS[:-1], *map(import_string, settings.EXTRA_ROOMS), ROOMS[-1]))
LEDGER_BYTES = 64 * 1024 * 1024
LINES_KEPT = 20_000
ENTRY_BYTES = 4096  # what one entry takes in memory, a little on the safe side


@dataclass(frozen=True, kw_only=True)
class Ledger:
    """All entries of an engine and what stands in them. Shared between requests: never changed."""

    folded: Folded
    revision_id: int
    head: str = START
    misfit: str = ""  # the first thing that does not fit
    minutes: Mapping[str, float] = field(default_factory=dict)  # how long steps take in this shop, when it was read
    is_summed: bool = False  # whether what the Floor shows of it was kept by this process

    @property
    def entries(self) -> tuple[LedgerEntry, ...]:
        """Oldest first."""
        return self.folded.entries

    @property
    def code(self) -> str:
        """Short code of its head; empty as long as nothing is entered."""
        return short(self.head) if self.entries else ""

    @cached_property
    def shown(self) -> BenchState:
        """What the bench shows of it, worked out once however many benches look."""
        return HOUSE.show(self.known)

    @cached_property
    def summed(self) -> dict[str, object]:
        """What the Floor shows of it, as its row has it."""
        summary = HOUSE.summary(self.known, self.shown)
        plain = summary.model_dump(exclude={"titles", "verdict"})
        beads = [{"title": title, "status": status} for title, status in zip(summary.titles, summary.beads, strict=True)]
        drawn = {"step": self.shown.current, "stands": vars(self.shown)["run"].stands}
        shown = {**plain, "beads": beads, "verdict": summary.verdict or "", "drawn": drawn}
        # only a whole walk, not what is kept in memory, says that it fits again
        return {**shown, "chain": self.misfit} if self.misfit else shown

    @cached_property
    def known(self) -> Folded:
        """What stands, with what the shop knows beside."""
        return self.folded.knowing({MINUTES: self.minutes}) if self.minutes else self.folded


# one that is larger than all room for them is kept alone: read anew with every look, it would cost its engine seconds each time
_kept: LRUCache[str, Ledger] = LRUCache(LEDGER_BYTES, getsizeof=lambda ledger: min(LEDGER_BYTES, ENTRY_BYTES * (len(ledger.entries) + 1)))
_lock = Lock()


def to_entry(row: Entry, engine: Engine, before: Sequence[LedgerEntry]) -> LedgerEntry:
    """Return a row as the core's ledger entry, whatever version it was kept in."""
    try:
        body = HOUSE.completed(HOUSE.read(row.body, row.version), document_of(engine.revision_id), before)
        gauges = tuple(Gauge.model_validate(gauge) for gauge in row.gauges)
    except (CoreError, ValueError) as error:
        raise BrokenLedger(engine.serial, f"entry {row.seq} cannot be read ({error})") from error
    return _placed(row, body, gauges, before)


def _placed(row: Entry, body: Body, gauges: tuple[Gauge, ...], before: Sequence[LedgerEntry]) -> LedgerEntry:
    after = before[-1].latest if before else None
    plain = {name: getattr(row, name) for name in ("id", "seq", "at", "typed_at", "because", "digest")}
    return LedgerEntry(**plain, by=row.by_name, body=body, gauges=gauges, after=after)


def ledger_of(engine: Engine) -> Ledger:
    """Return an engine's whole ledger with what stands in it."""
    with _lock:
        known = _kept.get(engine.pk)
    if known is None:
        known = _empty(engine)
    if known.revision_id != engine.revision_id:
        known = _on_its_own_document(engine, on_revision(known, engine.revision_id))
    last = known.entries[-1] if known.entries else None
    if known.head == engine.head:
        return keep(engine, known)
    rows = list(Entry.objects.filter(engine=engine).since(last.seq if last else 1))
    if last is not None and (not rows or rows[0].id != last.id):
        grown = _grown(engine, _empty(engine), Entry.objects.filter(engine=engine).since(1))
    else:
        grown = _grown(engine, known, rows[1:] if last else rows)
    if grown.head != engine.head and not grown.misfit:
        grown = replace(grown, misfit=NO_TAIL)
    return keep(engine, _on_its_own_document(engine, grown))


def _on_its_own_document(engine: Engine, ledger: Ledger) -> Ledger:
    """Note it when an engine's row names another document than its last entry was judged on, or moved it to."""
    if ledger.misfit or not ledger.entries:
        return ledger
    last = Entry.objects.filter(engine=engine).order_by("-seq").values("body", "revision_id").first()
    if last is None or last["body"]["kind"] == "revision" or document_digest(last["revision_id"]) == document_digest(engine.revision_id):
        return ledger
    return replace(ledger, misfit=OTHER_DOCUMENT)


def read_anew(engine: Engine) -> Ledger:
    """Return an engine's ledger as it is kept now, whatever this process knows of it."""
    return _grown(engine, _empty(engine), Entry.objects.filter(engine=engine).since(1))


def with_row(ledger: Ledger, row: Entry, body: Body, gauges: tuple[Gauge, ...]) -> Ledger:
    """Return a ledger with one more row, made and sealed just now. It is kept, as its summary is, once its transaction has held."""
    folded = HOUSE.apply(ledger.folded, _placed(row, body, gauges, ledger.entries))
    return replace(ledger, folded=folded, head=row.digest, is_summed=True)


def _empty(engine: Engine) -> Ledger:
    try:
        folded = HOUSE.fold(document_of(engine.revision_id), ())
    except ValueError as error:
        raise BrokenLedger(engine.serial, f"its engine document, revision {engine.about.number}, cannot be read") from error
    return Ledger(folded=folded, revision_id=engine.revision_id, minutes=minutes_of(engine.about.family))


def on_revision(ledger: Ledger, revision_id: int) -> Ledger:
    """Return the same entries as they stand on another revision of the engine document."""
    return replace(ledger, folded=HOUSE.fold(document_of(revision_id), ledger.entries), revision_id=revision_id, is_summed=False)


def _grown(engine: Engine, ledger: Ledger, rows: Iterable[Entry]) -> Ledger:
    entries, head, words = list(ledger.entries), ledger.head, ledger.misfit
    for row in rows:
        words = words or row_misfit(row, seq=len(entries) + 1, before=head)
        entries.append(to_entry(row, engine, entries))
        head = row.digest
    folded, one_more = ledger.folded, len(entries) == len(ledger.entries) + 1
    folded = HOUSE.apply(folded, entries[-1]) if one_more else HOUSE.fold(folded.base, entries)
    return replace(ledger, folded=folded, head=head, misfit=words, is_summed=False)


def keep(engine: Engine, ledger: Ledger) -> Ledger:
    """Keep a ledger in this process; one with a new row only once its transaction has held."""
    with _lock:
        if ledger.entries:
            _kept[engine.pk] = ledger
    return ledger


def meanwhile(engine: Engine, seen: int | None, by: User, refused: CoreError) -> Meanwhile | None:
    """What somebody else did since an old screen was looked at, said with the refusal; None when nobody did, or it only asks why."""
    if seen is None or isinstance(refused, AskFirst):
        return None
    others = [entry for entry in ledger_of(engine).entries[seen:] if entry.by != shown_name(by)]
    if not others:
        return None
    last = others[-1]
    words = HOUSE.words(last.body)
    said = f"{words.title}{f', {words.value}' if words.value else ''}"
    since = f"Meanwhile, at {localtime(last.at):%H:%M}, {last.by} recorded: {said}."
    return Meanwhile(f"{str(refused).rstrip('.')}. {since}", refused.field)


def traces_of(ledger: Ledger, step: str) -> list[TraceLine]:
    """Return the traces of a joint's pulls that stand, in the order of the pulls."""
    now = ledger.folded.states["joints"]
    return trace_lines(now, step, lambda seq: ledger.entries[bisect_left(ledger.entries, seq, key=attrgetter("seq"))].body)


def tape_of(ledger: Ledger, *, before: int | None = None, limit: int | None = None) -> list[TapeLine]:
    """Return the newest lines of the tape first, from before a place."""
    entries = ledger.entries
    part = entries[: bisect_left(entries, before, key=attrgetter("seq"))] if before is not None else entries
    chosen = part[-limit:] if limit else part
    return [_tape_line(entry, ledger.folded.struck.get(entry.id)) for entry in reversed(chosen)]


def pictures_of(ledger: Ledger) -> list[PictureView]:
    """Return every picture of an engine that stands, oldest first."""
    return as_they_stand(ledger.folded.states["pictures"], ledger.folded.facts.get(OPENED_LAST) or {})


def told_of(ledger: Ledger, part: str) -> PartTold:
    """Return what the ledger says of a part of the pictures. Raises Http404 where there is none of this id."""
    document = ledger.folded.document
    steps = {one.step for one in steps_of(document) if part in one.parts}
    # what no step is about may be drawn all the same
    if not steps and not any(one.id == part for view in scene_of(document, steps=[]).views for one in view.parts):
        raise Http404
    sort, _, name = part.partition(":")
    return HOUSE.told(ledger.folded, steps, name if sort == "thing" else "")


def tape_since(before: Ledger, after: Ledger) -> list[TapeLine]:
    """Return the lines that are new, newest first, and those that the new entries struck."""
    new = after.entries[len(before.entries) :]
    struck = [entry.body.strikes for entry in new if isinstance(entry.body, Strike)]
    lines = [after.entries[after.folded.place[key]] for key in struck if key in after.folded.place]
    return [_tape_line(entry, after.folded.struck.get(entry.id)) for entry in (*reversed(new), *lines)]


@cached(LRUCache(LINES_KEPT), key=lambda entry, strike: (entry.id, strike and strike.id), lock=Lock())
def _tape_line(entry: LedgerEntry, strike: LedgerEntry | None) -> TapeLine:
    """A line says the same for ever, unless its entry is struck."""
    return HOUSE.tape_line(entry, strike)
