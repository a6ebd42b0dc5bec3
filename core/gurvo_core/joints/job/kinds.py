"""The joints' kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.joints.job import rules, take, words
from gurvo_core.joints.job.book import PulledJoint, book_of
from gurvo_core.joints.job.entries import BoltFound, JointAnew, JointLeft, JointReady, Pull, PullDecided
from gurvo_core.joints.job.figures import per_set_of, pull_si, pulls_of
from gurvo_core.joints.job.judged import TURNED
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.sequence import ALL, Item
from gurvo_core.ledger import WRENCHES, Body, Kind, LedgerEntry, NamedGauge

Named = JointReady | Pull | BoltFound | PullDecided | JointAnew | JointLeft


def _named(body: Named, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Body:
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


def _si(now: JointsState, body: Pull) -> dict[str, float]:
    ready = now.ready.get(body.step)
    return pull_si(ready.per_set if ready else 1.0, body)


def _si_at_once(now: JointsState, body: JointReady) -> dict[str, float]:
    """Of a joint of one bolt: the figures of its pulls, by their place."""
    pulls = enumerate(pulls_of(now.book, body))
    return {f"pulls.{at}.{name}": value for at, pull in pulls for name, value in pull_si(per_set_of(body), pull).items()}


def _wrench(body: JointReady | Pull) -> tuple[NamedGauge, ...]:
    return (NamedGauge("wrench", body.wrench, WRENCHES, "wrench"),) if body.wrench else ()


KINDS: tuple[Kind[Any, JointsState], ...] = (
    Kind(
        body=JointReady,
        does="look",
        doing=lambda _now, body: "tighten" if body.pulls else "look",
        settle=_named,
        words=words.say_ready,
        take=take.take_ready,
        check=rules.check_ready,
        si_values=_si_at_once,
        gauges=_wrench,
    ),
    Kind(
        body=Pull,
        does="tighten",
        settle=_named,
        words=words.say_pull,
        take=take.take_pull,
        check=rules.check_pull,
        gauges=_wrench,
        si_values=_si,
    ),
    Kind(
        body=BoltFound,
        happening="bolt looked at",
        does="look",
        settle=_named,
        words=words.say_bolt,
        take=take.take_bolt,
        check=rules.check_bolt,
    ),
    Kind(
        body=PullDecided,
        happening="pull that was off",
        does="decide",
        settle=_named,
        words=words.say_decided,
        take=take.take_decided,
        check=rules.check_decided,
    ),
    Kind(
        body=JointAnew,
        happening="opened again",
        does="decide",
        settle=_named,
        words=words.say_anew,
        take=take.take_anew,
        check=rules.check_anew,
    ),
    Kind(body=JointLeft, does="decide", settle=_named, words=words.say_left, take=take.take_left, check=rules.check_left),
)
