"""What stands of what was found: by its pointer, and what was asked and is not known."""

__all__ = ["FoundState", "Standing", "begin_found"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from gurvo_core.engine import EngineDocument
from gurvo_core.found.filled import Fact
from gurvo_core.found.job.entries import FoundFact
from gurvo_core.found.wanted import Wanted, wanted_in


@dataclass(frozen=True)
class Standing:
    """A fact that was found: by which entry, whom, and as what it was typed."""

    seq: int
    by: str
    body: FoundFact
    fact: Fact


@dataclass(frozen=True, kw_only=True)
class FoundState:
    """All that was found. Its document is the one with all of it written in."""

    document: EngineDocument
    found: Mapping[str, Standing] = field(default_factory=dict)
    unknown: frozenset[str] = frozenset()

    @cached_property
    def wanted(self) -> Mapping[str, tuple[Wanted, ...]]:
        """What is asked in each step of its run, of all that its document leaves open."""
        return wanted_in(self.document)

    @cached_property
    def still_wanted(self) -> Mapping[str, tuple[Wanted, ...]]:
        """What of it nobody has told, nor said to be unknown; steps that lack nothing are left out."""
        lacking = {
            step: tuple(one for one in wanted if one.pointer not in self.found and one.pointer not in self.unknown)
            for step, wanted in self.wanted.items()
        }
        return {step: still for step, still in lacking.items() if still}


def begin_found(document: EngineDocument) -> FoundState:
    """Nothing found yet."""
    return FoundState(document=document)
