"""What stands at the joints: every pull, what was looked at before, what was decided. Frozen; made anew by every entry that changes it."""

__all__ = ["NEVER", "Decision", "JointsState", "Left", "Opened", "Pulled", "Ready", "begin_joints", "next_item"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

from gurvo_core.engine import EngineDocument
from gurvo_core.joints.job.book import JointBook, book_of
from gurvo_core.joints.job.entries import AngleBy
from gurvo_core.joints.job.judged import Judgement
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.sequence import Item


@dataclass(frozen=True, kw_only=True)
class Ready:
    """What was looked at before the first pull of a step, and with what it is pulled."""

    seq: int
    threads: str | None
    wrench: str | None = None
    angle_by: AngleBy | None = None
    per_set: float = 1.0  # torque at the bolt for one on the wrench's scale: its extension
    extension: str = ""


@dataclass(frozen=True, kw_only=True)
class Decision:
    """What is done about a pull that stands apart."""

    seq: int
    decision: str
    reason: str
    by: str


@dataclass(frozen=True, kw_only=True)
class Left:
    """A joint left as it is on purpose."""

    seq: int
    until: str


class Opened(NamedTuple):
    """A step open again: since which entry, why, and whether only its own bolts are pulled again."""

    seq: int
    because: str
    alone: bool = False


NEVER = Opened(0, "")


@dataclass(frozen=True, kw_only=True)
class JointsState:
    """All that stands."""

    document: EngineDocument
    book: JointBook
    pulls: Mapping[str, Mapping[str, Pulled]] = field(default_factory=dict)  # by joint, by the key of the pull
    ready: Mapping[str, Ready] = field(default_factory=dict)  # by step
    left: Mapping[str, Left] = field(default_factory=dict)  # by step
    decided: Mapping[tuple[str, str], Decision] = field(default_factory=dict)  # by joint and pull
    judged: Mapping[str, tuple[Judgement, ...]] = field(default_factory=dict)  # by joint
    spent: Mapping[str, frozenset[str]] = field(default_factory=dict)  # one-time fasteners that have been pulled and are out, by joint
    complete: frozenset[str] = frozenset()  # steps
    opened: Mapping[str, Opened] = field(default_factory=dict)  # steps open again

    def of_joint(self, joint_id: str) -> Mapping[str, Pulled]:
        """The pulls of a joint."""
        return self.pulls.get(joint_id, {})


def begin_joints(document: EngineDocument) -> JointsState:
    """Return what stands before anything is entered."""
    return JointsState(document=document, book=book_of(document))


def next_item(now: JointsState, step_id: str) -> Item | None:
    """Return the next pull of a step."""
    joint = now.book.joint_of(step_id)
    if joint is None:
        return None
    done = now.of_joint(joint.joint.id)
    return next((item for item in now.book.segment(step_id) if item.key not in done), None)
