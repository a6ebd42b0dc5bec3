"""What stands of the valve clearances. Frozen; made anew by every entry that changes it."""

__all__ = ["LashIsReady", "LashRead", "LashState", "ShimIn", "begin_lash", "stops_of", "valves_left"]

from collections.abc import Mapping
from dataclasses import dataclass, field

from gurvo_core.engine import EngineDocument
from gurvo_core.lash.job.book import LashBook, lash_book
from gurvo_core.lash.stops import LashStops
from gurvo_core.ledger import CrankTurned
from gurvo_core.uncertainty import Estimate, GaugeUncertainty
from gurvo_core.verdict import Verdict


@dataclass(frozen=True, kw_only=True)
class LashIsReady:
    """How the valves of a step are reached, and with what they are read."""

    seq: int
    way: str
    begin_deg: float
    gauge: str | None
    read_with: GaugeUncertainty
    engine_is: str


@dataclass(frozen=True, kw_only=True)
class LashRead:
    """One valve's clearance as it was read last."""

    seq: int
    lash: Estimate | None  # None for a hydraulic lifter, which has none
    verdict: Verdict
    shim_mm: float | None
    turns: float | None
    gauge: str | None
    by: str
    because: str = ""


@dataclass(frozen=True, kw_only=True)
class ShimIn:
    """A shim that was put in."""

    seq: int
    shim_mm: float
    is_changed: bool


@dataclass(frozen=True, kw_only=True)
class LashState:
    """All that stands; valves by what each is kept under."""

    document: EngineDocument
    book: LashBook
    ready: Mapping[str, LashIsReady] = field(default_factory=dict)  # by step
    stop: Mapping[str, int] = field(default_factory=dict)  # by step: the stop the crank was turned to, from 1
    turned: CrankTurned | None = None  # where that was
    found: Mapping[str, LashRead] = field(default_factory=dict)  # as it was before anything was changed
    reads: Mapping[str, LashRead] = field(default_factory=dict)
    shims: Mapping[str, ShimIn] = field(default_factory=dict)
    decided: Mapping[str, tuple[int, str]] = field(default_factory=dict)  # since which entry, and why
    complete: frozenset[str] = frozenset()  # steps
    opened: Mapping[str, tuple[int, str]] = field(default_factory=dict)

    def is_settled(self, valve: str) -> bool:
        """Whether nothing more is to be done about a valve."""
        read, shim = self.reads.get(valve), self.shims.get(valve)
        if read is None or (shim is not None and shim.is_changed and shim.seq > read.seq):
            return False
        return read.verdict in ("in", "no limit known") or valve in self.decided


def begin_lash(document: EngineDocument) -> LashState:
    """Return what stands before anything is entered."""
    return LashState(document=document, book=lash_book(document))


def stops_of(now: LashState, step_id: str) -> LashStops | None:
    """Return how a step reaches its valves."""
    ready = now.ready.get(step_id)
    return now.book.stops(step_id, ready.way, ready.begin_deg) if ready and step_id in now.book.steps else None


def valves_left(now: LashState, step_id: str) -> list[str]:
    """Return the valves of a step that are to be read now, or read again.

    Source: Practice: a screw is set while the feeler is in; shims are read first, worked out, and changed together.
    >>> valves_left(begin_lash(quern_4()), "x")
    []
    """
    left = []
    for valve, one in now.book.valves(step_id).items():
        read, shim = now.reads.get(valve), now.shims.get(valve)
        by_shim = one.lash is not None and one.lash.set_by == "shim"
        is_pending = shim is not None and shim.is_changed and (read is None or shim.seq > read.seq)
        if read is None or is_pending or (not by_shim and not now.is_settled(valve)):
            left.append(valve)
    return left
