"""All rooms together: the entries and questions there are, what stands in a ledger, what is shown of it.

A house is made from a list of rooms and has nothing of any craft. What it takes and shows is put together from the rooms, one
union by ``kind`` and one typed field a room, so that the API and the web's types follow by themselves.
"""

__all__ = ["House"]

from bisect import bisect_left
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta
from functools import cached_property, reduce
from itertools import groupby, zip_longest
from operator import attrgetter, or_
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, TypeAdapter, ValidationError, create_model

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import EntryRefused
from gurvo_core.ledger import (
    CURRENT_STEP,
    PLAN,
    Body,
    Fact,
    Folded,
    Kind,
    LedgerEntry,
    Paper,
    Room,
    Strike,
    Table,
    Words,
    apply,
    find_kind,
    fold,
)
from gurvo_core.ledger.versions import upcast
from gurvo_core.work.gate import check_entry, permission_of
from gurvo_core.work.hand_over import SIGNED, SignOff, proof_words
from gurvo_core.work.state import BenchState, LooseEndView, PartTold, StepStatus, StepView, StruckBy, Stuck, Summary, TapeLine
from gurvo_core.work.steps import Steps
from gurvo_core.work.waiting import first_clock, waits_for, waits_on

# what was said otherwise when it was signed, and means the same
CALLED_ANEW = (("wheel zero", "pointer error"),)
SENT_AT_ONCE = timedelta(minutes=1)
MOST_TOLD = 6  # entries of one part


def _union(types: Sequence[type[Any]]) -> Any:
    """A union told apart by ``kind``; a lone type needs no telling."""
    return types[0] if len(types) == 1 else Annotated[reduce(or_, types), Field(discriminator="kind")]


@dataclass(frozen=True, eq=False)
class House:
    """Rooms that meet at one bench."""

    rooms: tuple[Room[Any], ...]

    @cached_property
    def kinds(self) -> dict[str, Kind[Any, Any]]:
        """Every kind of entry but the strike, by name."""
        return {kind.name: kind for room in self.rooms for kind in room.kinds}

    @cached_property
    def body_type(self) -> Any:
        """The union of all entries."""
        return _union([*(kind.body for kind in self.kinds.values()), Strike])

    @cached_property
    def bodies(self) -> TypeAdapter[Body]:
        """Reads and writes entries."""
        return TypeAdapter(self.body_type)

    @cached_property
    def state_type(self) -> type[BenchState]:
        """What the bench shows: the common part, and one typed field a room."""
        own = (kind.question for kind in self.kinds.values() if kind.question)
        questions: Any = _union([*(question for room in self.rooms for question in room.questions), *own])
        does: Any = Literal[tuple(does for room in self.rooms for does in room.asks)]
        parts: dict[str, Any] = {"questions": (list[questions], ...), "does": (does, ...)}
        step: Any = create_model("Step", __base__=StepView, __doc__=StepView.__doc__, **parts)
        views: dict[str, Any] = {room.name: (room.shows | None, None) for room in self.rooms if room.shows}
        return create_model("BenchState", __base__=BenchState, __doc__=BenchState.__doc__, steps=(list[step], ...), **views)

    @cached_property
    def _steps(self) -> Steps:
        return Steps(self.rooms, self.state_type.model_fields["steps"].annotation.__args__[0])  # type: ignore[union-attr]

    def read(self, body: Mapping[str, Any], version: int) -> Body:
        """Read a plain body of any version; raises EntryRefused when it is none."""
        try:
            return self.bodies.validate_python(upcast(body, version))
        except ValidationError as error:
            first = error.errors()[0]
            field = ".".join(map(str, first["loc"][1:]))
            raise EntryRefused(field, None, f"this entry cannot be read: {first['msg']}") from None

    def completed(self, body: Body, document: EngineDocument, before: Sequence[LedgerEntry]) -> Body:
        """Complete what an entry left unsaid, from the entries before it."""
        kind = self.kinds.get(body.kind)
        completed: Body = kind.completes(body, document, before) if kind and kind.completes else body
        return completed

    def fold(self, document: EngineDocument, entries: Sequence[LedgerEntry]) -> Folded:
        """What stands in a ledger."""
        return fold(self.rooms, document, entries)

    def apply(self, folded: Folded, entry: LedgerEntry) -> Folded:
        """What stands after one more entry."""
        return apply(folded, entry)

    def check(self, folded: Folded, body: Body, more: Mapping[Fact[Any], Any], *, because: str = "", is_lead: bool = False) -> None:
        """Refuse an entry that cannot be, or cannot be now."""
        check_entry(folded, body, more, because=because, is_lead=is_lead)

    def si_values(self, folded: Folded, body: Body) -> dict[str, float]:
        """The figures of an entry in mm, degrees and N·m."""
        found = find_kind(self.rooms, body.kind)
        return found[1].si_values(folded.states[found[0].name], body) if found else {}

    def gauges_named(self, body: Body) -> Sequence[str]:
        """The gauges an entry names."""
        kind = self.kinds.get(body.kind)
        return [named.code for named in kind.gauges(body)] if kind else ()

    def signed(self, folded: Folded, body: Body, rules: int) -> Body:
        """A signature with what it signs: the last seal, and what is shown by today's rules; other entries as they are."""
        if not isinstance(body, SignOff):
            return body
        head = folded.entries[-1].digest if folded.entries else None
        return body.model_copy(update={"head": head, "shown": tuple(self.says(folded)), "rules": rules})

    def says(self, folded: Folded) -> list[str]:
        """All rooms' figures, in a sentence each."""
        return [words for room in self.rooms for words in room.says(folded.states[room.name])]

    def papers(self, folded: Folded) -> list[Paper]:
        """All rooms' parts of the record, in their order."""
        standing = [entry for entry in folded.entries if entry.id not in folded.struck]
        return [paper for room in self.rooms for paper in room.papers(folded.states[room.name], folded.facts, standing)]

    @cached_property
    def tables(self) -> dict[str, tuple[Room[Any], Table[Any]]]:
        """What can be handed over to a spreadsheet, by name."""
        return {table.name: (room, table) for room in self.rooms for table in room.tables}

    def rows(self, folded: Folded, table: str) -> list[BaseModel]:
        """The rows of a table as they stand."""
        room, own = self.tables[table]
        return list(own.rows(folded.states[room.name]))

    def asks_stock(self, body: Body) -> bool:
        """Whether an entry is judged by what is in stock."""
        kind = self.kinds.get(body.kind)
        return kind is not None and kind.asks_stock

    def needs_confirming(self, body: Body) -> bool:
        """Whether whoever makes it shows once more who he is."""
        kind = self.kinds.get(body.kind)
        return kind is not None and kind.confirmed

    def needs_lead(self, folded: Folded, body: Body) -> bool:
        """Whether only the lead makes this entry, or strikes the one it strikes."""
        if isinstance(body, Strike):
            place = folded.place.get(body.strikes)
            struck = self.kinds.get(folded.entries[place].body.kind) if place is not None else None
            return struck is not None and struck.by == "lead"
        return self.kinds[body.kind].by == "lead"

    def show(self, folded: Folded) -> BenchState:
        """Everything the bench shows. Built from what the rooms made, so it is not checked over again."""
        steps = self._steps.show(folded)
        current = next((step for step in steps if step.status == "now"), None)
        ends = [
            LooseEndView(
                title=end.title,
                since=end.since,
                at=(left := _entry_at(folded, end.since)) and left.at,
                by=left.by if left else "",
                ends_at=end.ends_at,
                clears=end.clears,
                ends_with=_plain(end.ends_with),
                ends_as=end.ends_as or "It is off",
                waived_with=_plain(end.waived_with),
                waived_as=end.waived_as,
                is_after=end.is_after,
                holds_back=end.kept_from or ", ".join(sorted(end.holds_back)),
                until=end.until,
                stops_turning="turn" in end.holds_back,
            )
            for end in folded.loose_ends
        ]
        warnings = [word for room in self.rooms for word in room.warnings(folded.states[room.name], folded.facts)]
        warnings += self._signed_otherwise(folded)
        return self.state_type.model_construct(
            steps=steps,
            current=current.key if current else None,
            waits_for=waits_for(current, folded.facts.get(SIGNED) is not None),
            stuck=[] if current or folded.facts.get(SIGNED) is not None else list(_stuck(steps)),
            permission=permission_of(folded),
            loose_ends=ends,
            warnings=warnings,
            signed=folded.facts.get(SIGNED) is not None,
            **self._views(folded, current.key if current else ""),
        )

    def tells(self, folded: Folded, steps: Collection[str]) -> list[str]:
        """What some steps came to, by their keys, a sentence each."""
        own = [step for step in folded.facts.get(PLAN) or () if step.key in steps]
        asked = [(room, step) for step in own for room in self.rooms if step.does in room.asks]
        return list(dict.fromkeys(word for room, step in asked for word in room.tells(folded.states[room.name], step)))

    def told(self, folded: Folded, steps: Collection[str], thing: str = "") -> PartTold:
        """What the ledger says of a part that some steps are about, by their keys, or of a thing that is on for a while, by its id."""
        entries = [one for one in folded.entries if _is_about(one.body, steps, thing)]
        about = {one.seq for one in entries}
        return PartTold(
            came_to=self.tells(folded, steps),
            loose_ends=[end.title for end in folded.loose_ends if end.since in about],
            entries=[self.tape_line(one, folded.struck.get(one.id)) for one in reversed(entries[-MOST_TOLD:])],
        )

    def _signed_otherwise(self, folded: Folded) -> Iterator[str]:
        """A signature keeps what was shown; where today's rules read it otherwise, both are said."""
        signed = folded.facts.get(SIGNED)
        shown = signed.body.shown if signed and isinstance(signed.body, SignOff) else None
        if shown is None:
            return
        kept = [reduce(lambda said, pair: said.replace(*pair), CALLED_ANEW, words) for words in shown]
        pairs = zip_longest(kept, self.says(folded), fillvalue="nothing")
        yield from (f"Signed as “{was}”; today's rules read “{now}”." for was, now in pairs if was != now)

    def _views(self, folded: Folded, current: str) -> dict[str, Any]:
        facts = folded.facts.joined({CURRENT_STEP: current})
        return {room.name: room.view(folded.states[room.name], facts) for room in self.rooms if room.view}

    def summary(self, folded: Folded, shown: BenchState) -> Summary:
        """What the Floor shows, from what the bench shows."""
        beads, clock = _by_stage(shown.steps), first_clock(shown.loose_ends)
        after = next((end for end in shown.loose_ends if end.is_after), None)
        verdicts = (room.verdict(folded.states[room.name]) for room in self.rooms if room.verdict)
        return Summary(
            beads=[status for _, status in beads],
            titles=[title for title, _ in beads],
            step=next((step.title for step in shown.steps if step.key == shown.current), "Signed"),
            waits_for=shown.waits_for,
            waits_on=waits_on(shown),
            free_to_turn=shown.permission.free,
            careful=shown.permission.careful,
            left_minutes=sum(room.left(folded.states[room.name], folded.facts) for room in self.rooms if room.left),
            loose_ends=sum(not end.clears and not end.is_after for end in shown.loose_ends),
            verdict=next(filter(None, verdicts), None),
            proof=proof_words(folded.facts),
            signed=shown.signed,
            clock=clock.title if clock else "",
            clock_at=clock.ends_at if clock else None,
            clock_clears=clock is not None and clock.clears,
            after=after.title if after else "",
            after_at=after.ends_at if after else None,
        )

    def words(self, body: Body) -> Words:
        """How an entry is said."""
        if isinstance(body, Strike):
            return Words(title="Struck an entry", detail=body.reason)
        words: Words = self.kinds[body.kind].words(body)
        return words

    def tape_line(self, entry: LedgerEntry, strike: LedgerEntry | None) -> TapeLine:
        """One line of the tape, figures as typed; ``strike`` is the entry that struck it."""
        words = self.words(entry.body)
        late = entry.typed_at is not None and entry.at - entry.typed_at > SENT_AT_ONCE
        struck = None
        if strike is not None and isinstance(strike.body, Strike):
            struck = StruckBy.model_construct(by=strike.by, at=strike.at, reason=strike.body.reason)
        return TapeLine.model_construct(
            id=entry.id,
            seq=entry.seq,
            at=entry.at,
            by=entry.by,
            kind=entry.body.kind,
            title=words.title,
            value=words.value,
            detail=words.detail,
            look_again=words.look_again,
            picture=words.picture,
            because=entry.because,
            typed_at=entry.typed_at if late else None,  # a clock that runs ahead says nothing
            struck=struck,
            goes_back=entry.goes_back,
        )


def _is_about(body: Body, steps: Collection[str], thing: str) -> bool:
    return getattr(body, "step", None) in steps or (bool(thing) and getattr(body, "thing", None) == thing)


def _plain(body: Body | None) -> dict[str, str | bool | int] | None:
    return body.model_dump(exclude_none=True) if body else None


def _entry_at(folded: Folded, seq: int) -> LedgerEntry | None:
    """The entry at a place in the ledger; None for what no entry left."""
    at = bisect_left(folded.entries, seq, key=attrgetter("seq"))
    return folded.entries[at] if seq and at < len(folded.entries) else None


def _stuck(steps: Sequence[StepView]) -> Iterator[Stuck]:
    """The open steps with what keeps each; those that only wait for another of them come last."""
    waiting = [(step, next((one for one in step.questions if one.status == "open"), None)) for step in steps if step.status != "done"]
    said = [Stuck(key=one.key, title=step.title, why=one.blocked) for step, one in waiting if one is not None]
    yield from sorted(said, key=lambda one: one.why.endswith("first"))


def _by_stage(steps: Sequence[StepView]) -> list[tuple[str, StepStatus]]:
    """One bead a stage, or a step where there are no stages."""
    beads: list[tuple[str, StepStatus]] = []
    for title, own in groupby(steps, key=lambda step: step.stage or step.title):
        found = {step.status for step in own}
        beads.append((title, "now" if "now" in found else "done" if found == {"done"} else "open"))
    return beads
