"""Every pull of a joint against its window and its siblings: which stand apart, with numbers, and what to do."""

__all__ = ["Judgement", "judge_joint", "window_of"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.judge import USUAL_BEFORE, USUAL_END, Window, family_of, outside, read_to, stands_apart
from gurvo_core.joints.sequence import ALL, Figures, Item

TURNED = ("angle", "torque_angle")
USUAL_TORQUE = 0.06  # of the figure: what a wrench in order keeps to, where the book has no window
USUAL_ANGLE_DEG = 5.0
WHAT_TO_DO = {
    ("end", "low"): "Thread stretched, dirt under the head, or a bolt used before. Take it out and look before going on.",
    ("end", "high"): "Dry, bottoming in its hole, or crossed. Take it out and look before going on.",
    ("before", "low"): "Tight already, or binding: it came to its torque before it clamped. Take it out and look.",
    ("before", "high"): "Something gave: dirt, a gasket not down, or it was not finger tight. Take it out and look.",
    ("torque", "low"): "It was stopped early: pull it again to its figure, or take it out and look.",
    ("torque", "high"): "It was pulled past its figure: take it out and look, or let the lead decide.",
    ("angle", "low"): "It was not turned all the way: turn the rest in one pull, or let the lead decide.",
    ("angle", "high"): "It was turned too far: take it out and look, or let the lead decide.",
}


@dataclass(frozen=True, kw_only=True)
class Judgement:
    """A pull that stands apart."""

    item: Item
    seq: int
    title: str
    sentence: str
    value: float
    unit: str


def window_of(figures: Figures) -> Window:
    """Return the window of a pull's torque at its end.

    figures: what it is to reach [N·m].
    Returned: the book's; for a torque without one what a wrench in order keeps to [N·m].
    Source: [torque-wrench] in docs/sources.md.
    >>> window_of(Figures(does="torque", torque_nm=50.0))
    Window(least=47.0, most=53.0)
    """
    if figures.least_nm is not None or figures.most_nm is not None:
        return Window(figures.least_nm, figures.most_nm)
    if figures.does != "torque" or figures.torque_nm is None:
        return Window(None, None)
    return Window(round(figures.torque_nm * (1 - USUAL_TORQUE), 6), round(figures.torque_nm * (1 + USUAL_TORQUE), 6))


def judge_joint(joint: PulledJoint, pulls: Mapping[str, Pulled]) -> tuple[Judgement, ...]:
    """Return the pulls of a joint that stand apart."""
    by_group: dict[tuple[int, int], list[Item]] = {}
    for key in pulls:
        item = joint.by_key.get(key)
        if item is not None and item.fastener != ALL:
            by_group.setdefault((item.stage, item.turn), []).append(item)
    found = [one for items in by_group.values() for one in _group(joint, items, pulls)]
    unique = {one.item.key: one for one in reversed(found)}
    return tuple(unique[item.key] for item in (joint.items if unique else ()) if item.key in unique)


def _group(joint: PulledJoint, items: list[Item], pulls: Mapping[str, Pulled]) -> Iterator[Judgement]:
    """The pulls of one stage and time round."""
    for item in items:
        yield from _by_window(joint, item, pulls[item.key])
    is_turned = joint.figures(items[0]).does in TURNED
    what, figure, unit = ("end", "torque_nm", "N·m") if is_turned else ("before", "before_deg", "°")
    values = {item.key: getattr(pulls[item.key], figure) for item in items}
    known = {key: value for key, value in values.items() if value is not None}
    read, usual = list(known.values()), USUAL_END if is_turned else USUAL_BEFORE
    family = family_of(read, resolution=read_to(read), usual=usual)
    for item in items:
        side = stands_apart(known[item.key], family) if item.key in known else ""
        if side and family is not None:
            away = abs(known[item.key] - family.middle)
            where = "below" if side == "low" else "above"
            verb = "ended" if is_turned else "took to its torque"
            title = f"{joint.called(item.fastener)} {verb} {_plain(away)}{_gap(unit)} {where} the others"
            numbers = f"{_plain(known[item.key])}{_gap(unit)} against {_plain(family.middle)}{_gap(unit)}, the middle of {family.count}."
            yield Judgement(
                item=item,
                seq=pulls[item.key].seq,
                title=title,
                sentence=f"{numbers} {WHAT_TO_DO[what, side]}",
                value=known[item.key],
                unit=unit,
            )
    for item in items:
        yield from _by_start(joint, item, pulls[item.key])


def _by_start(joint: PulledJoint, item: Item, pull: Pulled) -> Iterator[Judgement]:
    """A bolt that is turned on, to yield and beyond, does not lose the torque that it was turned from (elementary; no source)."""
    from_nm, ended_nm = joint.figures(item).from_nm, pull.torque_nm
    if from_nm is None or ended_nm is None or ended_nm >= from_nm * (1 - USUAL_TORQUE):
        return
    title = f"{joint.called(item.fastener)} ended at {_plain(ended_nm)} N·m, below the {_plain(from_nm)} it was turned from"
    yield Judgement(item=item, seq=pull.seq, title=title, sentence=WHAT_TO_DO["end", "low"], value=ended_nm, unit="N·m")


def _by_window(joint: PulledJoint, item: Item, pull: Pulled) -> Iterator[Judgement]:
    figures = joint.figures(item)
    for what, value, window, unit in (
        ("torque" if figures.does == "torque" else "end", pull.torque_nm, window_of(figures), "N·m"),
        ("angle", pull.angle_deg, _angle_window(figures), "°"),
    ):
        side = outside(value, window) if value is not None else ""
        if side and value is not None:
            least, most = (_plain(limit) if limit is not None else "no limit" for limit in (window.least, window.most))
            verb = "was turned" if what == "angle" else "ended at"
            where = "below" if side == "low" else "above"
            title = f"{joint.called(item.fastener)} {verb} {_plain(value)}{_gap(unit)}, {where} its window of {least} to {most}"
            yield Judgement(item=item, seq=pull.seq, title=title, sentence=WHAT_TO_DO[what, side], value=value, unit=unit)


def _angle_window(figures: Figures) -> Window:
    if figures.does not in TURNED or figures.angle_deg is None:
        return Window(None, None)
    if figures.least_deg is not None or figures.most_deg is not None:
        return Window(figures.least_deg, figures.most_deg)
    return Window(figures.angle_deg - USUAL_ANGLE_DEG, figures.angle_deg + USUAL_ANGLE_DEG)


def _gap(unit: str) -> str:
    return unit if unit == "°" else f" {unit}"


def _plain(value: float) -> str:
    return f"{value:.1f}".removesuffix(".0")
