"""A joint as it stands on paper: what each pull came to, stage by stage, what stands apart, with which wrench."""

__all__ = ["papers_of"]

from collections.abc import Iterator, Mapping, Sequence

from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.judged import TURNED, window_of
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.job.said import about_joint, window_words
from gurvo_core.joints.job.show import joint_view
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.job.view import JointView
from gurvo_core.joints.sequence import ALL, Figures
from gurvo_core.ledger import Facts, Judged, LedgerEntry, Paper, PaperDot, PaperRow, PaperTable, WordOfPaper
from gurvo_core.ledger.judged import counted

DONE = "✓"
GENERIC = "generic figure: by size and class, not this engine's own"


def papers_of(now: JointsState, _facts: Facts, _standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """Every joint that has been pulled at, with a dot for each sibling where something was measured."""
    for joint, view, own in _pulled(now):
        apart = {one.fastener for one in view.flagged}
        numbers = range(1, len(joint.joint.stages) + 1)
        figures = [joint.figures(next(item for item in joint.items if item.stage == number)) for number in numbers]
        windows = [_window(one) for one in figures]
        table = PaperTable(
            heads=("bolt", *(f"{number}: {words}" for number, words in zip(numbers, _stages(joint), strict=True))),
            limits=("window", *windows),
            rows=tuple(
                PaperRow(cells=(spot.id, *(_cell(joint, own, number, spot.id) for number in numbers)), is_apart=spot.id in apart)
                for spot in joint.spots
            ),
        )
        dots = tuple(PaperDot(name=f"bolt {one.fastener}", value=one.value, is_apart=one.is_apart) for one in view.siblings)
        yield Paper(
            title=joint.joint.name,
            about=(", ".join(about_joint(joint.joint)), _wrenches(own)),
            warns=GENERIC if any(one.is_generic for one in figures) else "",
            tables=(table,),
            dots=dots if len(dots) > 1 else (),
            dots_are=f"{view.siblings_are}, {view.unit}",
            apart=tuple(f"{one.title}. {one.decided or one.sentence}" for one in view.flagged),
            judged=_judged(joint, view, windows),
        )


def _judged(joint: PulledJoint, view: JointView, windows: Sequence[str]) -> Judged:
    """From where to where its siblings came, and whether all of them were in."""
    values = [one.value for one in view.siblings]
    got = f"{min(values):g} to {max(values):g}" if len(set(values)) > 1 else f"{values[0]:g}" if values else "all done"
    open_ones = [one for one in view.flagged if not one.decided]
    word: WordOfPaper = "see below" if open_ones else "accepted" if view.flagged else "in" if values and any(windows) else ""
    return Judged(what=counted(joint.joint.name, len(joint.spots)), wanted=" + ".join(_stages(joint)), got=got, word=word)


def _pulled(now: JointsState) -> Iterator[tuple[PulledJoint, JointView, Mapping[str, Pulled]]]:
    """The joints that have been pulled at, as their last step shows them."""
    for name, own in now.pulls.items():
        joint = now.book.joints.get(name)
        if joint is None or not own:
            continue
        ends = (step for step, planned in now.book.steps.items() if planned.joint == name and joint.items[-1] in now.book.segment(step))
        view = joint_view(now, next(ends))
        if view is not None:
            yield joint, view, own


def _stages(joint: PulledJoint) -> list[str]:
    return [joint.joint.stage_words(number - 1, number) for number in range(1, len(joint.joint.stages) + 1)]


def _wrenches(own: Mapping[str, Pulled]) -> str:
    codes = sorted({pull.wrench for pull in own.values() if pull.wrench})
    by_eye = ["angles by eye"] if any(pull.angle_by == "eye" for pull in own.values()) else []
    return ", ".join([*(f"wrench {code}" for code in codes), *by_eye])


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
