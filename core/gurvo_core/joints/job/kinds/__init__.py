"""The joints' kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.joints.job.kinds import bolt, joint_anew, joint_left, joint_ready, pull, pull_decided
from gurvo_core.joints.job.state import JointsState
from gurvo_core.ledger import Kind

KINDS: tuple[Kind[Any, JointsState], ...] = (
    joint_ready.KIND,
    pull.KIND,
    bolt.KIND,
    pull_decided.KIND,
    joint_anew.KIND,
    joint_left.KIND,
)
