"""What stands of the run: what is done, what is on, how far turning over has come. Frozen; made anew by every entry that changes it."""

__all__ = ["Done", "Opened", "RunState", "StopSeen", "ThingOn", "begin_run"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import LedgerEntry, ShaftTold
from gurvo_core.run.job.entries import MarkLook, TurnSaw
from gurvo_core.run.plan import Plan, PlanStep, plan_of


@dataclass(frozen=True, kw_only=True)
class Done:
    """A step that was done: by which entry, when, by whom, with which answers."""

    seq: int
    at: datetime
    by: str
    answers: Mapping[str, str] = field(default_factory=dict)
    because: str = ""
    opened: datetime | None = None  # sealant: when it was opened; done once it is closed
    is_skipped: bool = False
    signed: int = 0  # hold point: the entry that signed it
    looks: Mapping[str, MarkLook] = field(default_factory=dict)  # what was seen last of each mark, by its id
    went_in: frozenset[str] = frozenset()  # tools that went in again
    all_met: bool = False  # entered before marks were asked by name: all of them met
    is_taken: bool = False  # marks that did not meet, taken by the lead as they are

    @cached_property
    def is_not_good(self) -> bool:
        """Whether what was looked at is not good, or was heard to leak or knock, and nothing has been done about it."""
        if self.is_skipped:
            return False
        found = (said for key, said in self.answers.items() if key.partition(".")[0] == "found")
        return self.answers.get("heard") in ("noise", "leak") or "not_good" in found


@dataclass(frozen=True, kw_only=True)
class ThingOn:
    """Something that is on: since which entry, and where."""

    seq: int
    place: str = ""


@dataclass(frozen=True, kw_only=True)
class StopSeen:
    """What was seen at a stop."""

    seq: int
    saw: TurnSaw
    looks: tuple[MarkLook, ...] = ()
    went_in: tuple[str, ...] = ()
    is_told: bool = False  # whether marks were asked by name: what was entered before that says that all of them met
    by: str


@dataclass(frozen=True, kw_only=True)
class Opened:
    """Why a step that was done is open again."""

    seq: int
    because: str


@dataclass(frozen=True, kw_only=True)
class RunState:
    """All that stands."""

    document: EngineDocument
    plan: Plan
    options: Mapping[str, str] = field(default_factory=dict)  # option by group
    done: Mapping[str, Done] = field(default_factory=dict)
    opened: Mapping[str, Opened] = field(default_factory=dict)
    opened_last: Mapping[str, int] = field(default_factory=dict)  # by step that ever was: place in the ledger; done again it stays
    undone: tuple[int, frozenset[str], str] = (0, frozenset(), "")  # what was opened last: by which entry, which steps, and why
    on: Mapping[str, tuple[ThingOn, ...]] = field(default_factory=dict)
    stops: Mapping[str, tuple[StopSeen, ...]] = field(default_factory=dict)  # of steps that are being turned over
    sealing: Mapping[str, Done] = field(default_factory=dict)  # opened and not yet closed
    parked: str | None = None
    parked_at: int = 0  # place in the ledger of what brought it there
    hard_stop: LedgerEntry | None = None
    off: LedgerEntry | None = None  # marks that did not meet, until they do
    off_undid: Mapping[str, Done] = field(default_factory=dict)  # what was done before them, by the lead's word done again
    plugs_out: bool = False
    oil_changed: bool = False  # or waived
    own_marks: tuple[LedgerEntry, ...] = ()
    touched: Mapping[str, int] = field(default_factory=dict)  # place in the ledger of what touched each loop last; “” = sprockets
    started: int = 0  # of the first start that was heard sound
    seen: Mapping[str, ShaftTold] = field(default_factory=dict)  # where shafts stand that somebody looked at
    turned_alone: Mapping[str, LedgerEntry] = field(default_factory=dict)  # shafts turned by themselves since something was laid on them

    def did(self, *does: str) -> list[PlanStep]:
        """The steps that do any of these and are done."""
        return [one for one in self.plan.doing(*does) if one.step.id in self.done]

    def has_still(self, *does: str) -> list[PlanStep]:
        """The steps that do any of these and are not done."""
        return [one for one in self.plan.doing(*does) if one.step.id not in self.done]


def begin_run(document: EngineDocument) -> RunState:
    """Return what stands before anything is entered."""
    return RunState(document=document, plan=plan_of(document))
