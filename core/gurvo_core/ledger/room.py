"""What a room brings to the bench: its kinds of entries, its questions, facts, loose ends and what it shows.

``work`` folds whatever rooms it is given and knows nothing of any craft. Rooms meet only in facts: one room owns a fact, any
room after it may read it.
"""

__all__ = [
    "CURRENT_STEP",
    "DONE_ELSEWHERE",
    "GAUGES",
    "MAKER",
    "MINUTES",
    "NOW",
    "OPENED_LAST",
    "PICTURES_OWED",
    "PLAN",
    "PLUGS_OUT",
    "STEPS_DONE",
    "STOCK",
    "TYPED",
    "WHY_STEP_WAITS",
    "Asked",
    "Doing",
    "Fact",
    "Facts",
    "Hold",
    "Kind",
    "LooseEnd",
    "NamedGauge",
    "Objection",
    "Question",
    "Reach",
    "Room",
    "Status",
    "Step",
    "StepNews",
    "View",
    "WayOut",
    "Words",
    "known_gauge",
    "may_be_done",
    "need",
]

from collections.abc import Callable, Container, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import Any, ClassVar, Generic, Literal, TypeVar

from pydantic import BaseModel, ConfigDict

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger.came_to import CameTo
from gurvo_core.ledger.entry import Body, Gauge, LedgerEntry
from gurvo_core.ledger.paper import Paper
from gurvo_core.ledger.table import Table
from gurvo_core.ledger.topic import Topic
from gurvo_core.sentence import within

Doing = Literal[
    "look", "decide", "turn", "tighten", "cover", "start", "hand over", "keep"
]  # keep: what is noted of an engine beside its work
WayOut = Literal["none", "reason", "lead and reason"]
Status = Literal["done", "open", "optional"]
T = TypeVar("T")
B = TypeVar("B", bound=Body)
S = TypeVar("S")


class View(BaseModel):
    """Base of what is shown."""

    model_config = ConfigDict(extra="forbid")


class Question(View):
    """One thing that is asked at the bench; each room's questions have kinds of their own."""

    key: str
    kind: str
    title: str
    ask: str
    hint: str
    status: Status
    group: str = ""  # questions of one group are folded together
    waits: str = ""  # what the engine waits for while this is open; its title when left out
    blocked: str = ""  # why it cannot be answered yet
    doing: str = ""  # what its answer does, where something may hold that back
    later: bool = False  # left on purpose: asked once nothing else is
    for_lead: ClassVar[bool] = False  # whether a lead alone answers it

    @property
    def waits_for(self) -> str:
        """What the Floor says the engine waits for."""
        return self.waits or within(self.title)


class Step(View):
    """One thing to be done: what it is, which room asks for it, and the stage of the work it belongs to."""

    key: str
    title: str
    does: str
    stage: str = ""


@dataclass(frozen=True, kw_only=True, eq=False)
class Asked:
    """What a room asks for in a step, and a word on how far it has come."""

    questions: Sequence[Question]
    note: str = ""

    @cached_property
    def is_open(self) -> bool:
        """Whether anything of it is still to be answered."""
        return any(question.status == "open" for question in self.questions)

    @cached_property
    def is_shut(self) -> bool:
        """Whether nothing of it can be answered, whatever other rooms say: all is answered, or says itself why it waits."""
        return all(question.status != "open" or question.blocked for question in self.questions)

    @cached_property
    def said(self) -> tuple[str, ...]:
        """What the room itself says of each question that keeps it from being answered."""
        return tuple(question.blocked for question in self.questions)

    @cached_property
    def views(self) -> dict[object, Any]:
        """How it was shown: views of steps are sent over and over, and kept as long as what is asked in them."""
        return {}


@dataclass(frozen=True, eq=False)
class Fact(Generic[T]):
    """A name under which one room hands something to all rooms after it. Each is itself alone, and found at once."""

    name: str


class Facts:
    """What the rooms know so far."""

    def __init__(self, known: Mapping[Fact[Any], Any] | None = None) -> None:
        self._known = dict(known or {})

    def get(self, fact: Fact[T]) -> T | None:
        """What is known under a fact; None when no room has said anything."""
        value: T | None = self._known.get(fact)
        return value

    @property
    def values(self) -> tuple[Any, ...]:
        """All that is known, in the rooms' order."""
        return tuple(self._known.values())

    def joined(self, more: Mapping[Fact[Any], Any]) -> "Facts":
        """The same with some more."""
        return Facts({**self._known, **more})


# the steps of an engine's run; where no room plans one, each room's own steps stand one after another
PLAN: Fact[Sequence[Step]] = Fact("the run of work")
# whether the plugs are out and the stand is locked, as far as a run of work says
PLUGS_OUT: Fact[bool] = Fact("plugs out")
# what a step does, of every sort of step that its room has seen to
DONE_ELSEWHERE: Fact[frozenset[str]] = Fact("what rooms have seen to")
# the step that is to be done now, while what is shown is put together
CURRENT_STEP: Fact[str] = Fact("the step to be done")
# ids of the steps that need a picture first, and have none
PICTURES_OWED: Fact[frozenset[str]] = Fact("pictures owed")
# ids of the steps of a run that are done
STEPS_DONE: Fact[Container[str]] = Fact("steps done")
# place in the ledger of what opened each step again last: what was entered of it before shows what stands no more
OPENED_LAST: Fact[Mapping[str, int]] = Fact("steps opened again")
# why a step of a run cannot be done yet, asked by its id; empty where it can
WHY_STEP_WAITS: Fact[Callable[[str, "Facts"], str]] = Fact("why a step waits")
# what the server hands in when an entry is judged: the gauges it names as they are now, the time, who makes it
GAUGES: Fact[Mapping[str, Gauge]] = Fact("gauges")
# pieces that no other engine has taken, by the part's name and its size
STOCK: Fact[Mapping[str, Mapping[str, int]]] = Fact("stock")
NOW: Fact[datetime] = Fact("now")
TYPED: Fact[datetime] = Fact("typed")  # when an entry was typed, where it waited for the network
MINUTES: Fact[Mapping[str, float]] = Fact("minutes")  # how long steps take in this shop, where it knows [min]
MAKER: Fact[str] = Fact("who makes the entry")


@dataclass(frozen=True, kw_only=True)
class StepNews:
    """What became of a step that one room plans and another sees to: done, or open again and why."""

    step: str
    is_done: bool
    because: str = ""
    alone: bool = False  # whether what stands on it stays as it is: one bolt pulled again undoes no cover


@dataclass(frozen=True)
class Objection:
    """Why an entry is not taken, and what would make it acceptable."""

    field: str
    rule: str
    way_out: WayOut = "none"


def known_gauge(facts: Facts, code: str | None) -> Gauge | None:
    """Return a gauge by its code; None where none is named, or there is no such one."""
    return (facts.get(GAUGES) or {}).get(code or "")


def need(right: bool, field: str, rule: str, way_out: WayOut = "none") -> Iterator[Objection]:
    """Yield an objection unless a condition holds. What is wrong, where, what would be right."""
    if not right:
        yield Objection(field, rule, way_out)


def may_be_done(step: str, facts: Facts, once_done: str) -> Iterator[Objection]:
    """Yield whatever the run says of a step that cannot be done yet, or is done."""
    why = facts.get(WHY_STEP_WAITS)
    reasons = why(step, facts) if why else ""
    yield from need(not reasons, "step", f"not yet: {reasons}")
    yield from need(step not in (facts.get(STEPS_DONE) or ()), "step", f"this step is done; {once_done}")


@dataclass(frozen=True, kw_only=True)
class Hold:
    """Something that may not be done now, and why, without anything being left in or loose."""

    holds_back: frozenset[Doing]
    reason: str


@dataclass(frozen=True, kw_only=True)
class LooseEnd:
    """Something temporary or unfinished: since which entry, what it holds back and what ends it."""

    title: str
    since: int
    holds_back: frozenset[Doing]
    until: str
    kept_from: str = ""  # what it keeps from being done, in a builder's words
    ends_at: datetime | None = None  # of one that runs by the clock
    clears: bool = False  # whether it is over by itself then
    ends_with: Body | None = None  # the entry that ends it, where no step asks for it
    ends_as: str = ""  # what its button says
    waived_with: Body | None = None  # the entry by which the lead does without; he says why
    waived_as: str = "Waive it"  # what its button says
    is_after: bool = False  # of what comes after hand-over: it holds nothing back and is not counted


@dataclass(frozen=True, kw_only=True)
class Reach:
    """Which way the crank may be turned and how far, while it may be turned."""

    way: str = ""
    how_far: str = ""


@dataclass(frozen=True, kw_only=True)
class Words:
    """One line on tape, paper and in the table."""

    title: str
    value: str = ""
    detail: str = ""
    look_again: bool = False
    picture: str = ""  # digest of the one it is about


def _nothing(*_args: Any) -> tuple[()]:
    return ()


def _no_figures(*_args: Any) -> dict[Any, Any]:
    return {}


@dataclass(frozen=True)
class NamedGauge:
    """A gauge that an entry names: the gate asks whether there is such a one, and whether its calibration holds."""

    field: str
    code: str
    kinds: frozenset[str]
    called: str  # what it is one of, such as "wrench"


@dataclass(frozen=True, kw_only=True)
class Kind(Generic[B, S]):
    """One kind of entry, all in one place."""

    body: type[B]
    does: Doing
    doing: Callable[[S, B], Doing] | None = None  # where that differs from entry to entry
    words: Callable[[B], Words]
    question: type[Question] | None = None  # by which it is asked for, where that is defined with it
    topic: Topic | None = None  # what the help says of that
    take: Callable[[S, LedgerEntry, B], S]
    check: Callable[[S, B, Facts], Iterable[Objection]] = _nothing
    gauges: Callable[[B], Sequence[NamedGauge]] = _nothing
    si_values: Callable[[S, B], dict[str, float]] = _no_figures
    by: Literal["builder", "lead"] = "builder"
    stays: str = ""  # why it can never be struck
    asks_stock: bool = False  # whether it is judged by what is in stock
    confirmed: bool = False  # whether its maker shows once more who he is
    happening: str = ""  # what sort of thing has happened, where that is worth counting over many engines
    fills: bool = False  # whether it writes something into the document: all is folded anew with it
    completes: Callable[[B, EngineDocument, Sequence[LedgerEntry]], Body] | None = None  # what it leaves unsaid, such as names of today

    @cached_property
    def name(self) -> str:
        """The value of its body's ``kind``."""
        name: str = self.body.model_fields["kind"].annotation.__args__[0]  # type: ignore[union-attr]
        return name


@dataclass(frozen=True, kw_only=True)
class Room(Generic[S]):
    """A room's job at the bench."""

    name: str
    empty: Callable[[EngineDocument], S]
    kinds: tuple[Kind[Any, S], ...]
    steps: tuple[Step, ...] = ()  # what a document that lists no steps gets
    asks: Mapping[str, Callable[[S, Step, Facts], Asked]] = field(default_factory=dict)
    asks_first: Callable[[S, Mapping[str, Step], Facts], Mapping[str, Sequence[Question]]] | None = None  # before steps of any room, by key
    fill: Callable[[EngineDocument, Sequence[LedgerEntry]], EngineDocument] | None = None  # the document with what stands written in
    blocks: Callable[[S, Step, Facts], str] | None = None  # why a step that another room asks for cannot be done yet
    questions: tuple[type[Question], ...] = ()
    facts: Callable[[S, Facts], Mapping[Fact[Any], Any]] = _no_figures
    loose_ends: Callable[[S, Facts], Iterable[LooseEnd]] = _nothing
    holds: Callable[[S, Facts], Iterable[Hold]] = _nothing
    care: Callable[[S, Facts], Iterable[str]] = _nothing  # how to turn, while turning is allowed
    wary: Callable[[S, Facts], Iterable[str]] = _nothing  # why turning is allowed, but not free
    reach: Callable[[S, Facts], Iterable[Reach]] = _nothing  # which way, and how far
    warnings: Callable[[S, Facts], Iterable[str]] = _nothing
    says: Callable[[S], Iterable[str]] = _nothing  # its figures in a sentence each, as a signature keeps them
    tells: Callable[[S, Step], Iterable[str]] = _nothing  # what a step that it asks for came to, a sentence each
    came_to: Callable[[S], Iterable[CameTo]] = _nothing  # its figures as they stand, for looking back over many engines
    papers: Callable[[S, Facts, Sequence[LedgerEntry]], Iterable[Paper]] = _nothing  # its part of the record, with the entries that stand
    tables: tuple[Table[S], ...] = ()  # for a spreadsheet
    shows: type[View] | None = None
    view: Callable[[S, Facts], View | None] | None = None
    news: Callable[[S, S], Iterable[StepNews]] | None = None  # what an entry did to steps, from what stood before and after it
    hears: Callable[[S, LedgerEntry, StepNews], S] | None = None  # what stands once another room has said so; itself where nothing changes
    left: Callable[[S, Facts], float] | None = None  # work that is left, as far as it is known [min]
    verdict: Callable[[S], Literal["in", "out", "can't tell", "no limit known"] | None] | None = None  # the one word the Floor shows
