"""What cannot be in a drive once its way is drawn: no way round, a chain too short or too long, counts that miss their marks."""

__all__ = ["drive_faults"]

from collections.abc import Iterator, Mapping

from gurvo_core.drive.path import LoopPath, loop_path
from gurvo_core.drive.sketch import stage_is_known
from gurvo_core.engine import EngineDocument, LoopStage, Mark
from gurvo_core.errors import Fault, GeometryError

COUNT_WITHIN = 0.75  # pitches between two marks, worked out against counted
TOO_SHORT = 0.5  # pitches
MAX_SLACK = 0.06  # of the whole, taken up by a tensioner that is not on the path


def drive_faults(document: EngineDocument) -> list[Fault]:
    """Return faults of the chains' and belts' ways."""
    faults: list[Fault] = []
    for at, stage in enumerate(document.drive.stages):
        if isinstance(stage, LoopStage) and stage_is_known(document, stage):
            faults += _loop_faults(document, stage, f"drive.stages.{at}")
    return faults


def _loop_faults(document: EngineDocument, stage: LoopStage, path: str) -> list[Fault]:
    try:
        loop = loop_path(document, stage)
    except GeometryError as error:
        return [Fault(path=f"{path}.path", sentence=f"{_other_way(document, stage) or error}.")]
    return [*_length(stage, loop, path), *_counts(document, stage, loop, path), *_bare_counts(document, stage, loop, path)]


def _other_way(document: EngineDocument, stage: LoopStage) -> str:
    """What is wrong when the path would do if it were listed the other way round."""
    backwards = stage.model_copy(update={"path": (stage.path[0], *reversed(stage.path[1:]))})
    try:
        loop_path(document, backwards)
    except GeometryError:
        return ""
    return f"the path of {stage.name} is listed against the way the crank turns: list its wheels the other way round"


def _length(stage: LoopStage, loop: LoopPath, path: str) -> Iterator[Fault]:
    if stage.count is None:
        return
    has = f"{stage.name} has {stage.count} {stage.counted_in}"
    round_it = f"the way round its wheels is {loop.pitches:.1f}"
    if sum(link.to_next or 0 for link in stage.marked) == stage.count and abs(stage.count - loop.pitches) > TOO_SHORT:
        has = f"{stage.name} was counted: {stage.count} {stage.counted_in}"
        if not 0 <= stage.count / loop.pitches - 1 <= MAX_SLACK:
            yield Fault(path=f"{path}.path", sentence=f"{has}, but {round_it}: move the shaft that stands out of place.")
        return
    if stage.count < loop.pitches - TOO_SHORT:
        yield Fault(path=f"{path}.count", sentence=f"{has}, but {round_it}: it is too short.")
    elif stage.count > loop.pitches * (1 + MAX_SLACK) + TOO_SHORT:
        yield Fault(path=f"{path}.count", sentence=f"{has}, but {round_it}: it is too long.")


def _counts(document: EngineDocument, stage: LoopStage, loop: LoopPath, path: str) -> Iterator[Fault]:
    """Counts between marked ones against the way between the marks, but for the tensioner's side."""
    marks = {mark.id: mark for mark in document.drive.marks}
    if len(stage.marked) < 2 or len({marks[link.meets].position for link in stage.marked}) > 1:
        return
    for n, link in enumerate(stage.marked):
        here, there = marks[link.meets], marks[stage.marked[(n + 1) % len(stage.marked)].meets]
        passed = _taut_way(stage, loop, here, there)
        if passed is not None and link.to_next is not None and abs(passed - link.to_next) > COUNT_WITHIN:
            counted = f"From {here.name} to {there.name} {link.to_next:g} {stage.counted_in} are counted"
            sentence = f"{counted}, but the way is {passed:.1f}: they cannot meet."
            yield Fault(path=f"{path}.marked.{n}.to_next", sentence=sentence)


def _bare_counts(document: EngineDocument, stage: LoopStage, loop: LoopPath, path: str) -> Iterator[Fault]:
    """Counts from mark to mark without marked links, against the way between them."""
    marks = {mark.id: mark for mark in document.drive.marks}
    for n, count in enumerate(stage.counts):
        here, there = marks[count.from_mark], marks[count.to_mark]
        passed = _taut_way(stage, loop, here, there) if here.position == there.position else None
        if passed is not None and count.apart is not None and abs(passed - count.apart) > COUNT_WITHIN:
            sentence = f"{count.name}: {count.number:g} {count.counted} are counted, which leaves {count.apart:g} between the marks; "
            yield Fault(path=f"{path}.counts.{n}.number", sentence=f"{sentence}the way is {passed:.1f}: they cannot meet.")


def _taut_way(stage: LoopStage, loop: LoopPath, here: Mark, there: Mark) -> float | None:
    """Pitches from one mark to another; None where a mark is not on the loop, or the tensioner's side, which may hold slack, is passed."""
    places = {wrap.circle.name: n for n, wrap in enumerate(loop.wraps)}
    if any(mark.wheel not in places or mark.clock_deg is None for mark in (here, there)):
        return None
    slack_after = stage.tightened_by.after if stage.tightened_by and stage.tightened_by.shaft is None else None
    passed, over = _between(loop, places, here, there)
    return None if slack_after in over else passed


def _between(loop: LoopPath, places: Mapping[str, int], here: Mark, there: Mark) -> tuple[float, set[str]]:
    """Pitches from one mark to another the way of travel, and the wheels whose following run is passed."""
    first, last = places[here.wheel], places[there.wheel]
    passed, over = -_into(loop, first, here), set()
    at = first
    while True:
        wrap, run = loop.wraps[at], loop.runs[at]
        passed += wrap.pitches + run.length_mm / loop.pitch_mm
        over.add(wrap.circle.name)
        at = (at + 1) % len(loop.wraps)
        if at == last:
            return passed + _into(loop, at, there), over


def _into(loop: LoopPath, at: int, mark: Mark) -> float:
    """Pitches from where the loop meets a wheel to one of its marks; negative before it."""
    wrap = loop.wraps[at]
    stands_deg = mark.clock_deg or 0.0
    turned = (stands_deg - wrap.from_clock_deg if wrap.circle.clockwise else wrap.from_clock_deg - stands_deg) % 360
    if turned > 180 + wrap.wrap_deg / 2:
        turned -= 360  # just before the loop touches
    return wrap.pitches * turned / wrap.wrap_deg if wrap.wrap_deg else 0.0
