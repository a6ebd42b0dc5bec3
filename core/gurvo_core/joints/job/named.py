"""What entries at a joint name: their wrench, and the joint as it is called today."""

__all__ = ["named_today", "wrench_named"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.joints.job.book import PulledJoint, book_of
from gurvo_core.joints.job.entries import BoltFound, JointAnew, JointLeft, JointReady, Pull, PullDecided
from gurvo_core.joints.job.judged import TURNED
from gurvo_core.joints.sequence import ALL, Item
from gurvo_core.ledger import WRENCHES, Body, LedgerEntry, NamedGauge

Named = JointReady | Pull | BoltFound | PullDecided | JointAnew | JointLeft


def named_today(body: Named, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Body:
    """Keep what the joint is called today, and what was asked of a pull: the tape says it the same for ever."""
    joint = book_of(document).joint_of(body.step) if body.joint is None else None
    if joint is None:
        return body
    kept: dict[str, Any] = {"joint": joint.joint.name}
    if isinstance(body, Pull):
        item = joint.item(body.stage, body.turn, body.fastener)
        if item is not None:
            kept["asked"] = _asked(joint, item)
    if isinstance(body, JointReady) and body.pulls:
        one = joint.spots[0].id
        items = [(pull, joint.item(pull.stage, pull.turn, one) or joint.item(pull.stage, pull.turn, ALL)) for pull in body.pulls]
        kept["pulls"] = tuple(pull.model_copy(update={"asked": _asked(joint, item)}) if item else pull for pull, item in items)
    return body.model_copy(update=kept)


def _asked(joint: PulledJoint, item: Item) -> str:
    """What was asked of a pull, in a word or two."""
    figures = joint.figures(item)
    torque = f"{figures.torque_nm:g} N·m{' (generic)' if figures.is_generic else ''}" if figures.torque_nm else ""
    angle = f"{figures.angle_deg:g}°" if figures.angle_deg else ""
    if figures.does in TURNED and not angle:
        angle = "an angle, none known"
    if figures.does in TURNED or (figures.does == "torque" and torque):
        return " and ".join(filter(None, [torque if figures.does != "angle" else "", angle]))
    return joint.joint.stage_words(item.stage - 1, item.stage).split(",")[0]


def wrench_named(body: JointReady | Pull) -> tuple[NamedGauge, ...]:
    """The wrench, where one is named."""
    return (NamedGauge("wrench", body.wrench, WRENCHES, "wrench"),) if body.wrench else ()
