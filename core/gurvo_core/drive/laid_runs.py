"""The runs of a loop as they lie: straight where they are taut, bent where slack lies on them."""

__all__ = ["DrawnRun", "drawn_runs"]

import math
from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import Field

from gurvo_core.drive.drawing import Place
from gurvo_core.drive.path import LoopPath, Run, loop_path
from gurvo_core.drive.rig import Rig
from gurvo_core.drive.sketch import laid_out
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.errors import GeometryError
from gurvo_core.motion.laid import crank_deg_a_pitch, loads_of
from gurvo_core.motion.twin import Shown

SLACK_DEG = 0.05
MAX_BOW = 0.3  # of the run's length: more is not drawn
UNKNOWN_BOW = 0.08
LABEL_GAP = 0.05  # of how far the loop reaches


class DrawnRun(Shown):
    """One straight run between two wheels, and how it bends where there is slack."""

    after: str
    begin: Place
    bend: Place = Field(description="Point of a quadratic curve from begin to end")
    end: Place
    label: Place = Field(description="Where its label is: beside the curve, out of the loop")
    is_taut: bool
    is_pulled: bool
    words: str


def drawn_runs(document: EngineDocument, loop: LoopStage, rig: Rig, slack_deg: Sequence[float]) -> list[DrawnRun]:
    """Return the runs of a loop as they lie.

    slack_deg: of each of its ties [crank deg].
    Source: A shallow bow is longer than its chord by 8 sag² / 3 chord; the slack of several runs is drawn on the one it gathers on.
    >>> engine = family("tarn-f4")
    >>> loop = engine.drive.stages[0]
    >>> rig = laid_rig(engine, loop, {"line-crank": 62.5}, slack_left=True)
    >>> [run.after for run in drawn_runs(engine, loop, rig, [tie.slack_deg for tie in rig.ties]) if run.is_pulled and not run.is_taut]
    ['right-pulley']
    """
    drawn = laid_out(document)
    stage = next(one for one in drawn.drive.stages if one.id == loop.id and isinstance(one, LoopStage))
    try:
        path = loop_path(drawn, stage)
    except GeometryError:
        return []
    lie = _Lie(
        rig=rig, loop=loop, pitch_deg=crank_deg_a_pitch(document, loop) or 1.0, centre=_centre(path), gap_mm=LABEL_GAP * _extent_mm(path)
    )
    bears = _bearing(document, loop, path)
    pulled = _pulled(document, loop, rig)
    return [
        _drawn(run, 0.0 if n not in bears else slack_deg[bears[n]], lie, is_pulled=run.after in pulled) for n, run in enumerate(path.runs)
    ]


@dataclass(frozen=True, kw_only=True)
class _Lie:
    """What all runs of a loop have in common."""

    rig: Rig
    loop: LoopStage
    pitch_deg: float
    centre: tuple[float, float]
    gap_mm: float


def _bearing(document: EngineDocument, loop: LoopStage, path: LoopPath) -> dict[int, int]:
    """Which run shows the slack of which tie: the tensioner's own, else the longest between two loads."""
    wheels, loads = list(loop.wheel_ids), [wheel for wheel, _ in loads_of(document, loop)]
    places = [wheels.index(wheel) for wheel in loads]
    found = {}
    for tie, (begin, end) in enumerate(zip(places, [*places[1:], places[0] + len(wheels)], strict=True)):
        between = [place % len(wheels) for place in range(begin, end)]
        own = [place for place in between if loop.tightened_by and wheels[place] == loop.tightened_by.after]
        found[own[0] if own else max(between, key=lambda place: path.runs[place].length_mm)] = tie
    return found


def _pulled(document: EngineDocument, loop: LoopStage, rig: Rig) -> set[str]:
    """Wheels whose runs are pulled: those from the tensioner's load on, round to the driving wheel."""
    wheels, loads = list(loop.wheel_ids), [wheel for wheel, _ in loads_of(document, loop)]
    first = wheels.index(loads[rig.slack_tie + 1]) if rig.slack_tie + 1 < len(loads) else len(wheels)
    return set(wheels[first:])


def _centre(path: LoopPath) -> tuple[float, float]:
    circles = [wrap.circle for wrap in path.wraps]
    return sum(one.x_mm for one in circles) / len(circles), sum(one.y_mm for one in circles) / len(circles)


def _extent_mm(path: LoopPath) -> float:
    xs, ys = ([point[axis] for run in path.runs for point in (run.start, run.end)] for axis in (0, 1))
    return max(max(xs) - min(xs), max(ys) - min(ys))


def _drawn(run: Run, own_deg: float, lie: _Lie, *, is_pulled: bool) -> DrawnRun:
    is_taut = own_deg < SLACK_DEG
    (x0, y0), (x1, y1) = run.start, run.end
    x_mm, y_mm = (x0 + x1) / 2, (y0 + y1) / 2
    bow_mm = 0.0 if is_taut else _bow_mm(own_deg, lie.rig, run.length_mm)
    out = ((y1 - y0) / (run.length_mm or 1.0), (x0 - x1) / (run.length_mm or 1.0))
    if (x_mm - lie.centre[0]) * out[0] + (y_mm - lie.centre[1]) * out[1] < 0:
        bow_mm = -bow_mm  # slack hangs out of the loop, away from its wheels
    away_mm = bow_mm + math.copysign(lie.gap_mm, bow_mm)
    return DrawnRun(
        after=run.after,
        begin=Place(x_mm=x0, y_mm=y0),
        bend=Place(x_mm=x_mm + 2 * bow_mm * out[0], y_mm=y_mm + 2 * bow_mm * out[1]),
        end=Place(x_mm=x1, y_mm=y1),
        label=Place(x_mm=x_mm + away_mm * out[0], y_mm=y_mm + away_mm * out[1]),
        is_taut=is_taut,
        is_pulled=is_pulled,
        words="" if is_taut else _slack_words(own_deg, lie),
    )


def _bow_mm(slack_deg: float, rig: Rig, chord_mm: float) -> float:
    if not math.isfinite(slack_deg) or rig.mm_a_deg is None:
        return UNKNOWN_BOW * chord_mm
    return min(MAX_BOW * chord_mm, math.sqrt(3 / 8 * chord_mm * slack_deg * rig.mm_a_deg))


def _slack_words(slack_deg: float, lie: _Lie) -> str:
    if not math.isfinite(slack_deg):
        return "slack, length not known"
    if lie.rig.mm_a_deg is None or lie.rig.excess_deg is None:
        return f"slack, {slack_deg / lie.pitch_deg:.1f} {lie.loop.counted_in}"
    return f"slack, {slack_deg * lie.rig.mm_a_deg:.0f} mm"
