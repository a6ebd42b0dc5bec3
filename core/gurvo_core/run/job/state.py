"""What stands of the run: what is done, what is on, how far turning over has come. Frozen; made anew by every entry that changes it."""

__all__ = ["Done", "Opened", "RunState", "StopSeen", "ThingOn", "begin_run"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import LedgerEntry
from gurvo_core.run.job.entries import Saw
from gurvo_core.run.plan import Plan, plan_of


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


@dataclass(frozen=True, kw_only=True)
class ThingOn:
    """Something that is on: since which entry, and where."""

    seq: int
    place: str = ""


@dataclass(frozen=True, kw_only=True)
class StopSeen:
    """What was seen at a stop."""

    seq: int
    saw: Saw
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
    undone: tuple[int, frozenset[str], str] = (0, frozenset(), "")  # what was opened last: by which entry, which steps, and why
    on: Mapping[str, tuple[ThingOn, ...]] = field(default_factory=dict)
    stops: Mapping[str, tuple[StopSeen, ...]] = field(default_factory=dict)  # of steps that are being turned over
    sealing: Mapping[str, Done] = field(default_factory=dict)  # opened and not yet closed
    parked: str | None = None
    hard_stop: LedgerEntry | None = None
    off: LedgerEntry | None = None  # marks that did not meet, until they do
    plugs_out: bool = False
    oil_changed: bool = False  # or waived


def begin_run(document: EngineDocument) -> RunState:
    """Return what stands before anything is entered.

    Parameters
    ----------
    document : EngineDocument
        The engine.

    Returns
    -------
    state : RunState
        Nothing done, nothing on.

    Source
    ------
    House rule.

    Example
    -------
    >>> dict(begin_run(quern_4()).done)
    {}
    """
    return RunState(document=document, plan=plan_of(document))
