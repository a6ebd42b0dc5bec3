"""A joint as it stands on paper: what each pull came to, stage by stage, what stands apart, with which wrench."""

__all__ = ["JointPaper", "PaperRow", "joint_papers"]

from collections.abc import Mapping
from dataclasses import dataclass

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.judged import TURNED, window_of
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.job.said import about_joint, window_words
from gurvo_core.joints.job.show import joint_view
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.job.view import Flagged, Sibling
from gurvo_core.joints.sequence import ALL, Figures

DONE = "✓"


@dataclass(frozen=True, kw_only=True)
class PaperRow:
    """One fastener: what its pull at each stage came to."""

    fastener: str
    cells: tuple[str, ...]
    is_apart: bool


@dataclass(frozen=True, kw_only=True)
class JointPaper:
    """One joint."""

    name: str
    about: str
    stages: tuple[str, ...]
    windows: tuple[str, ...]
    rows: tuple[PaperRow, ...]
    siblings_are: str
    siblings: tuple[Sibling, ...]
    flagged: tuple[Flagged, ...]
    wrenches: str
    is_generic: bool


def joint_papers(now: JointsState) -> list[JointPaper]:
    """Return every joint that has been pulled at, as it stands on paper."""
    return [_paper(now, now.book.joints[name], pulls) for name, pulls in now.pulls.items() if pulls and name in now.book.joints]


def _paper(now: JointsState, joint: PulledJoint, own: Mapping[str, Pulled]) -> JointPaper:
    step = next(
        name for name, planned in now.book.steps.items() if planned.joint == joint.joint.id and joint.items[-1] in now.book.segment(name)
    )
    view = joint_view(now, step)
    assert view is not None
    numbers = range(1, len(joint.joint.stages) + 1)
    apart = {one.fastener for one in view.flagged}
    figures = [joint.figures(next(item for item in joint.items if item.stage == number)) for number in numbers]
    rows = [
        PaperRow(fastener=spot.id, cells=tuple(_cell(joint, own, number, spot.id) for number in numbers), is_apart=spot.id in apart)
        for spot in joint.spots
    ]
    wrenches = sorted({pull.wrench for pull in own.values() if pull.wrench})
    by_eye = any(pull.angle_by == "eye" for pull in own.values())
    return JointPaper(
        name=joint.joint.name,
        about=", ".join(about_joint(joint.joint)),
        stages=tuple(joint.joint.stage_words(number - 1, number) for number in numbers),
        windows=tuple(_window(one) for one in figures),
        rows=tuple(rows),
        siblings_are=f"{view.siblings_are}, {view.unit}",
        siblings=tuple(view.siblings),
        flagged=tuple(view.flagged),
        wrenches=", ".join([*(f"wrench {one}" for one in wrenches), *(["angles by eye"] if by_eye else [])]),
        is_generic=any(one.is_generic for one in figures),
    )


def _window(figures: Figures) -> str:
    words = window_words(window_of(figures), " N·m")
    least, most = figures.least_deg, figures.most_deg
    return ", ".join(filter(None, [words, f"{least:g} to {most:g}°" if least is not None and most is not None else ""]))


def _cell(joint: PulledJoint, pulls: Mapping[str, Pulled], number: int, fastener: str) -> str:
    """What the pulls of a fastener at a stage came to; the last time round where it was gone round more than once."""
    items = [item for item in joint.items if item.stage == number and item.fastener in (fastener, ALL)]
    done = [pulls[item.key] for item in items if item.key in pulls]
    if not done:
        return ""
    if len(done) < len(items):
        return f"{len(done)} of {len(items)}"
    last = done[-1]
    shown = [f"{last.torque_nm:.1f} N·m".replace(".0 ", " ")] if last.torque_nm is not None else []
    shown += [f"{last.angle_deg:g}°"] if last.angle_deg is not None and joint.figures(items[-1]).does in TURNED else []
    return ", ".join(shown) or DONE
