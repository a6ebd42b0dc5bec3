"""What comes of a chain or belt laid as it was counted: before anything is turned, while it is turned, and how to lay it right."""

__all__ = ["Around", "LayAsked", "LayView", "lay_view"]

import math
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.drive.laid_runs import DrawnRun, drawn_runs
from gurvo_core.drive.rig import Rig, laid_rig, ties_with
from gurvo_core.drive.schools import Laying, School, schools_of
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.errors import CoreError, GeometryError
from gurvo_core.motion.laid import (
    check_counts,
    counted_spans,
    crank_deg_a_pitch,
    laid_shafts,
    laid_words,
    loads_of,
    shaft_name,
    teeth_words,
)
from gurvo_core.motion.slack import slack_after, turn_one
from gurvo_core.motion.twin import Shown
from gurvo_core.sentence import listed, within
from gurvo_core.units import read_figure

OFF_DEG = 0.05
MIN_LOADS = 2
EACH_WAY = 1.0  # links or teeth each way in the table


class LayAsked(BaseModel):
    """Counts as they were typed, whether slack was left on the tight side, and how far the driving shaft is tried."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)

    counted: dict[str, str] = Field(default_factory=dict, max_length=48)
    slack_left: bool = False
    turned_deg: float = Field(default=0, ge=-360, le=720)


class ShaftLaid(Shown):
    """Where one shaft stands, and where it ends; early is positive, degrees of the crank."""

    shaft: str
    name: str
    now_deg: float
    after_deg: float
    now_words: str
    after_words: str


class CountRow(Shown):
    """One line of the table: what it would do if it were counted so."""

    counted: float
    words: str
    is_book: bool
    is_typed: bool


class ShaftTurned(Shown):
    """How far a shaft stands from where it would be on its marks, clockwise at its own axis."""

    shaft: str
    clock_deg: float


class LayView(Shown):
    """All that can be said of a loop that is being laid."""

    loop: str
    is_counted: bool
    is_right: bool
    one_is: str
    figure: str = Field(description="What the driving shaft does before the rest follows; of one pitch while nothing is counted")
    off_deg: float
    off_words: str
    says: str
    shafts: list[ShaftLaid]
    table_of: str
    table: list[CountRow]
    runs: list[DrawnRun]
    turned_deg: float
    turned_words: str
    turned: list[ShaftTurned]
    schools: list[School]
    not_known: list[str]


@dataclass(frozen=True, kw_only=True)
class Around:
    """What stands round a loop that is laid: shafts that something holds, and what; other loops that are on; where the crank stands."""

    held: Mapping[str, str] = field(default_factory=dict)
    laid: Collection[str] = ()  # what they join turns along, all else stays
    crank_deg: float | None = None


def lay_view(document: EngineDocument, loop: LoopStage, asked: LayAsked, around: Around) -> LayView:
    """Return what comes of laying a loop so.

    Raises CoreError if a count cannot be, or two contradict each other; the field is the count's.
    """
    counted = _figures(loop, asked.counted)
    if crank_deg_a_pitch(document, loop) is None or len(loads_of(document, loop)) < MIN_LOADS:
        return _in_words(document, loop, asked)
    rig = laid_rig(document, loop, counted, slack_left=asked.slack_left)
    moved = turn_one(ties_with(document, rig, loop, around.laid), rig.driving, asked.turned_deg).moved_deg if asked.turned_deg else {}
    slack = [slack_after(tie, moved) for tie in rig.ties]
    stands = _stands(document, loop, rig, moved, asked.turned_deg)
    table_of, table = _table(document, loop, counted)
    return LayView(
        loop=loop.id,
        **_outcome(document, loop, rig, asked, is_counted=bool(counted)),
        shafts=_shafts(document, loop, rig),
        table_of=table_of,
        table=table,
        runs=drawn_runs(document, loop, rig, slack),
        turned_deg=asked.turned_deg,
        turned_words=_turned_words(document, rig, asked.turned_deg, stands),
        turned=_clocks(document, stands),
        schools=_schools(document, loop, around),
        not_known=[*_not_known(loop, rig, slack), *_anywhere(document, loop)],
    )


def _in_words(document: EngineDocument, loop: LoopStage, asked: LayAsked) -> LayView:
    """What can be said without any teeth known: which shaft takes slack up, and what falls behind."""
    driver = shaft_name(document, document.drive.wheel(loop.wheel_ids[0]).shaft)
    driven = [document.drive.shaft(document.drive.wheel(name).shaft) for name in loop.wheel_ids[1:]]
    late = listed(list(dict.fromkeys(within(shaft.name) for shaft in driven if shaft.kind == "camshaft"))) or "what it drives"
    pulled = f"Pull the run that the {driver} pulls tight; all slack goes {_slack_goes(loop)}."
    left = f"The marks may look right now. The {driver} takes the slack up first, {late} only then: it ends behind."
    return LayView(
        loop=loop.id,
        is_counted=asked.slack_left,
        is_right=False,
        one_is="How much a tooth is",
        figure="",
        off_deg=0.0,
        off_words=f"once it takes up, {late} falls behind" if asked.slack_left else _what_to_do(loop),
        says=left if asked.slack_left else pulled,
        shafts=[],
        table_of="",
        table=[],
        runs=[],
        turned_deg=0.0,
        turned_words="",
        turned=[],
        schools=[],
        not_known=[f"No teeth of {within(loop.name)} are known: counted, it is said in degrees too."],
    )


def _slack_goes(loop: LoopStage) -> str:
    if loop.tensioner == "none":
        return "to the other run, where there is no tensioner: there must be next to none"
    return f"to the run of {within(loop.tightened_by.name)}" if loop.tightened_by else "to the other run"


def _what_to_do(loop: LoopStage) -> str:
    """What is said before anything has been: some books count nothing."""
    return "Count from mark to mark, the way it travels" if counted_spans(loop) else "Nothing is counted here: every mark to its own"


def _stands(document: EngineDocument, loop: LoopStage, rig: Rig, moved: Mapping[str, float], turned_deg: float) -> dict[str, float]:
    """How far every shaft stands from where it would, had all turned together [crank deg]."""
    shafts = _shafts_shown(document, loop, rig)
    return {shaft: rig.now_deg.get(shaft, 0.0) + moved.get(shaft, 0.0) - turned_deg for shaft in shafts}


def _clocks(document: EngineDocument, stands: Mapping[str, float]) -> list[ShaftTurned]:
    turns = document.turns_clockwise
    return [ShaftTurned(shaft=shaft, clock_deg=round(own * turns.get(shaft, 0.0), 3)) for shaft, own in stands.items()]


def _shafts_shown(document: EngineDocument, loop: LoopStage, rig: Rig) -> list[str]:
    """Those of the loop first, then whatever it does not reach; its rollers and pumps go with it."""
    along = {document.drive.wheel(name).shaft for name in loop.wheel_ids}
    return [*rig.now_deg, *(shaft.id for shaft in document.drive.shafts if shaft.id not in along)]


def _outcome(document: EngineDocument, loop: LoopStage, rig: Rig, asked: LayAsked, *, is_counted: bool) -> dict[str, Any]:
    """What the big figure says, and whether all is right."""
    worst = max(rig.after_deg.values(), key=abs, default=0.0)
    pitch_deg = crank_deg_a_pitch(document, loop) or 0.0
    is_said = is_counted or asked.slack_left
    return {
        "is_counted": is_said,
        "is_right": abs(worst) < OFF_DEG and not asked.slack_left,
        "one_is": f"One {loop.counted_one} is",
        "figure": f"{round(_shown_deg(rig, worst, asked) if is_said else pitch_deg, 1):g}°",
        "off_deg": round(worst, 2),
        "off_words": _off_words(document, loop, rig, worst) if is_said else _what_to_do(loop),
        "says": _says(document, rig, asked) if is_said else "What a wrong count would do is said here, before anything is turned.",
    }


def _shown_deg(rig: Rig, worst_deg: float, asked: LayAsked) -> float:
    """How far something ends off; with slack left where the counts are right, how far the driving shaft goes before the rest follows."""
    return rig.assumed_deg if asked.slack_left and abs(worst_deg) < OFF_DEG else abs(worst_deg)


def _figures(loop: LoopStage, typed: Mapping[str, str]) -> dict[str, float]:
    """What was typed as figures; what is empty is not said yet."""
    keys = {span.key for span in counted_spans(loop)}
    counted = {}
    for key, text in typed.items():
        if key not in keys:
            raise GeometryError(f"counted.{key}", text, f"nothing called {key} is counted on {loop.name}; leave it out")
        if text.strip():
            try:
                counted[key] = read_figure(text)
            except CoreError as error:
                raise GeometryError(f"counted.{key}", text, error.rule) from error
    for key, rule in check_counts(loop, counted):
        raise GeometryError(f"counted.{key}", counted[key], rule)
    return counted


def _schools(document: EngineDocument, loop: LoopStage, around: Around) -> list[School]:
    """How to lay it right does not depend on how it lies now."""
    rig = laid_rig(document, loop, {}, slack_left=False)
    return schools_of(Laying(document=document, loop=loop, rig=rig, held=around.held, crank_deg=around.crank_deg))


def _off_words(document: EngineDocument, loop: LoopStage, rig: Rig, worst_deg: float) -> str:
    """Who ends off, and by how many teeth."""
    if abs(worst_deg) < OFF_DEG and rig.assumed_deg:
        return "until the slack is taken up; then it ends behind"
    if abs(worst_deg) < OFF_DEG:
        return "everything on its marks"
    cams = [shaft for shaft, own in rig.after_deg.items() if abs(own - worst_deg) < OFF_DEG and shaft != rig.driving]
    named = [shaft for shaft in cams if document.camshaft(shaft) is not None] or cams
    names = " and ".join(shaft_name(document, shaft) for shaft in named)
    by = teeth_words(loop, worst_deg, crank_deg_a_pitch(document, loop) or 1.0)
    return f"{names} {'early' if worst_deg > 0 else 'late'} by {by}"


def _says(document: EngineDocument, rig: Rig, asked: LayAsked) -> str:
    """Whether marks look right now, and what the driving shaft does before the others follow."""
    driver = shaft_name(document, rig.driving)
    pulled_deg = rig.ties[-1].slack_deg if rig.slack_tie != len(rig.ties) - 1 else 0.0
    off_now = [shaft for shaft, own in rig.now_deg.items() if abs(own) >= OFF_DEG and document.camshaft(shaft) is not None]
    if asked.slack_left and rig.assumed_deg:
        return f"Slack is left on the tight side. The {driver} takes it up before the cam follows: bring it over first."
    if asked.slack_left:
        looks = "The marks look right now." if not off_now else "Some marks look right now."
        return f"{looks} The {driver} turns {round(pulled_deg, 1):g}° before the cam follows."
    if off_now:
        names = " and ".join(shaft_name(document, shaft) for shaft in off_now)
        return f"With the run pulled tight, {names} cannot stand on the mark now."
    return "Marks stand right now, and after a turn."


def _shafts(document: EngineDocument, loop: LoopStage, rig: Rig) -> list[ShaftLaid]:
    pitch_deg = crank_deg_a_pitch(document, loop) or 1.0

    def words(off_deg: float) -> str:
        if abs(off_deg) < OFF_DEG:
            return "on its mark"
        return f"{teeth_words(loop, off_deg, pitch_deg)} {'early' if off_deg > 0 else 'late'}"

    return [
        ShaftLaid(
            shaft=shaft,
            name=document.drive.shaft(shaft).name,
            now_deg=round(rig.now_deg[shaft], 2),
            after_deg=round(after_deg, 2),
            now_words=words(rig.now_deg[shaft]),
            after_words=words(after_deg),
        )
        for shaft, after_deg in rig.after_deg.items()
        if shaft != rig.driving and document.camshaft(shaft) is not None
    ]


def _table(document: EngineDocument, loop: LoopStage, counted: Mapping[str, float]) -> tuple[str, list[CountRow]]:
    """One less and one more than the book, of the first count that is off, or the first of all."""
    spans = [(span, span.book) for span in counted_spans(loop) if span.book is not None]
    if not spans or crank_deg_a_pitch(document, loop) is None:
        return "", []
    about, book = next(((span, book) for span, book in spans if counted.get(span.key, book) != book), spans[0])
    rows = []
    for number in (book - EACH_WAY, book, book + EACH_WAY):
        if number <= 0:
            continue
        off = laid_shafts(document, loop, {about.key: number})
        said = laid_words(document, off).removeprefix("once the slack is taken up, ") or "everything on its marks"
        is_typed = counted.get(about.key) == number
        rows.append(CountRow(counted=number, words=said, is_book=number == book, is_typed=is_typed))
    return about.label, rows


def _turned_words(document: EngineDocument, rig: Rig, by_deg: float, stands: Mapping[str, float]) -> str:
    """What is seen when the driving shaft has been turned so far."""
    if not by_deg:
        return ""
    driver = document.drive.shaft(rig.driving).name
    way = "on" if by_deg > 0 else "back"
    alike: dict[str, list[str]] = {}
    for shaft, own in stands.items():
        if shaft in rig.now_deg and shaft != rig.driving and document.camshaft(shaft):
            alike.setdefault(_degrees(own), []).append(shaft_name(document, shaft))
    said = [f"{' and '.join(names)} {off}" for off, names in alike.items()]
    return f"{driver} {abs(by_deg):g}° {way}: {', '.join(said)}"


def _degrees(off_deg: float) -> str:
    if abs(off_deg) < OFF_DEG:
        return "as it should"
    return f"{round(abs(off_deg), 1):g}° {'early' if off_deg > 0 else 'late'}"


def _anywhere(document: EngineDocument, loop: LoopStage) -> Iterator[str]:
    """Shafts of the loop that have no place to keep: nobody need look for their mark."""
    for name in loop.wheel_ids:
        shaft = document.drive.shaft(document.drive.wheel(name).shaft)
        if shaft.kind in ("auxiliary", "pump") and document.drive.wheel(name).teeth and not shaft.position_matters:
            yield f"{shaft.name} may stand anywhere."


def _not_known(loop: LoopStage, rig: Rig, slack: list[float]) -> Iterator[str]:
    if rig.excess_deg is None:
        yield f"Not every length of {loop.name} is known: how much slack it has in all cannot be told, counts can."
    elif any(math.isfinite(own) for own in slack) and rig.excess_deg < rig.ties[-1].slack_deg - OFF_DEG and rig.slack_tie != len(slack) - 1:
        has_mm = rig.excess_deg * (rig.mm_a_deg or 0.0)
        yield f"{loop.name} has {has_mm:.0f} mm to spare, less than this needs: one of the marks must be off already. Count again."
