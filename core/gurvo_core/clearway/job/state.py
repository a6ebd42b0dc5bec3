"""What stands of valves' gaps: those that were measured of this engine, and the steps whose proposed way was left."""

__all__ = ["ClearwayState", "GapRead", "begin_clearway"]

from collections.abc import Mapping
from dataclasses import dataclass, field

from gurvo_core.clearway.job.entries import GapMeasured
from gurvo_core.engine import EngineDocument
from gurvo_core.uncertainty import Estimate


@dataclass(frozen=True, kw_only=True)
class GapRead:
    """One gap as it was measured: by which entry, by whom, what it is at TDC with the valve shut, and the least in turning over."""

    seq: int
    by: str
    body: GapMeasured
    name: str
    shut_mm: Estimate
    least: Estimate
    least_mm: float  # that is wanted
    verdict: str


@dataclass(frozen=True, kw_only=True)
class ClearwayState:
    """All that stands."""

    document: EngineDocument
    read: Mapping[str, GapRead] = field(default_factory=dict)  # by the valve's key
    left: Mapping[str, int] = field(default_factory=dict)  # place in the ledger, by step


def begin_clearway(document: EngineDocument) -> ClearwayState:
    """Return what stands before anything is entered."""
    return ClearwayState(document=document)
