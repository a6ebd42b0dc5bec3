"""What a document leaves open that somebody with the thing in his hand can tell: what is asked, and in which step of the run."""

__all__ = ["HOUR_DEG", "Option", "Wanted", "value_of", "wanted_in"]

from collections.abc import Iterator, Mapping
from typing import Literal, NamedTuple, get_args

from gurvo_core.engine import EngineDocument, GearStage, LoopStage, WorkStep
from gurvo_core.engine.joint import Joint
from gurvo_core.engine.same import kept_for
from gurvo_core.errors import FigureError
from gurvo_core.found.filled import Value
from gurvo_core.joints.thread import read_thread
from gurvo_core.sentence import within
from gurvo_core.units import read_figure

Kind = Literal["count", "figure", "clock", "choice", "words"]
TURNS = ("park", "turn_over", "set_up_wheel", "find_tdc", "degree")
HOUR_DEG = 30.0


class Option(NamedTuple):
    """One answer to choose from."""

    value: str
    label: str
    detail: str = ""


class Wanted(NamedTuple):
    """One thing that is not known: where it belongs, how it is asked, what it is good for."""

    pointer: str
    title: str
    ask: str
    kind: Kind
    good_for: str
    unit: str = ""
    options: tuple[Option, ...] = ()


@kept_for
def wanted_in(document: EngineDocument) -> Mapping[str, tuple[Wanted, ...]]:
    """What is asked in each step of a document's run, each thing once, in the first step that needs it."""
    asked: set[str] = set()
    found: dict[str, tuple[Wanted, ...]] = {}
    for n, step in enumerate(document.work_steps):
        own = [one for one in _in_step(document, step, is_first=n == 0) if one.pointer not in asked]
        asked |= {one.pointer for one in own}
        if own:
            found[step.id] = tuple(own)
    return found


def _in_step(document: EngineDocument, step: WorkStep, *, is_first: bool) -> Iterator[Wanted]:
    if is_first and document.sides is not None and document.sides.right_bank is None and len(document.banks) > 1:
        yield _right_bank(document)
    if step.does in TURNS and document.running_direction is None:
        yield _direction()
    if step.does == "park" and step.position:
        yield from _position(document, step.position)
    if step.does == "lay" and step.loop:
        yield from _loop(document, step.loop)
    if step.does in ("fit", "tighten") and step.joint:
        joint = document.joint(step.joint)
        yield from _joint(joint) if joint is not None else ()


def _right_bank(document: EngineDocument) -> Wanted:
    options = tuple(Option(bank.id, bank.name, f"cylinders {', '.join(map(str, bank.cylinders))}") for bank in document.banks)
    ask = "Which bank does the book call the right one?"
    return Wanted("/sides/right_bank", "Right bank", ask, "choice", "right and left are said as the book says them", options=options)


def _direction() -> Wanted:
    ways = (
        Option("clockwise", "Clockwise", "seen from the front"),
        Option("counter-clockwise", "Counter-clockwise", "seen from the front"),
    )
    ask = "Which way does it run, seen from the cam-drive end?"
    return Wanted("/running_direction", "Running way", ask, "choice", "which way it is turned by hand", options=ways)


def _position(document: EngineDocument, position_id: str) -> Iterator[Wanted]:
    position = next((one for one in document.timing_positions if one.id == position_id), None)
    if position is None:
        return
    if position.offset_deg is not None and position.stroke is None:
        cylinder = position.cylinder or document.reference_cylinder
        ways = (
            Option("firing", "Firing", f"both valves of cylinder {cylinder} shut, their gear loose"),
            Option("overlap", "Overlap", f"cylinder {cylinder} changes over: exhaust shutting, intake opening"),
        )
        ask = f"{position.name}: firing, or a turn away from it?"
        yield Wanted(
            f"/timing_positions/{position.id}/stroke", "Firing or overlap", ask, "choice", "where marks stand in between", options=ways
        )
    yield from _clocks(document, document.drive.crank_wheels(), position_id)


def _clocks(document: EngineDocument, wheels: set[str], position_id: str | None) -> Iterator[Wanted]:
    for mark in document.drive.marks:
        others = any(one.id == mark.meets and one.wheel not in wheels for one in document.drive.marks)
        if mark.wheel in wheels and mark.clock_deg is None and mark.decides and not others and position_id in (None, mark.position):
            ask = f"{mark.name}: at which hour does it stand?"
            yield Wanted(
                f"/drive/marks/{mark.id}/clock_deg", mark.name, ask, "clock", "it is drawn, and said where it must stand", "o'clock"
            )


def _loop(document: EngineDocument, loop_id: str) -> Iterator[Wanted]:
    stage = next((one for one in document.drive.stages if one.id == loop_id), None)
    if stage is None:
        return
    for name in dict.fromkeys(stage.wheel_ids):
        wheel = document.drive.wheel(name)
        shaft = document.drive.shaft(wheel.shaft)
        if wheel.teeth is None and wheel.diameter_mm is None and shaft.kind not in ("idler", "tensioner"):
            title = wheel.name or shaft.name
            yield Wanted(
                f"/drive/wheels/{wheel.id}/teeth", title, f"{title}: how many teeth?", "count", "what a tooth off is in degrees", "teeth"
            )
    if isinstance(stage, GearStage):
        return
    yield from _lengths(stage)


def _lengths(stage: LoopStage) -> Iterator[Wanted]:
    what, base = stage.counted_in, f"/drive/stages/{stage.id}"
    if stage.count is None:
        yield Wanted(f"{base}/count", stage.name, f"{stage.name}: how many {what}?", "count", "when its marks meet again", what)
    if len(stage.marked) > 1:
        for link, after in zip(stage.marked, (*stage.marked[1:], stage.marked[0]), strict=True):
            if link.to_next is None:
                ask = f"From {within(link.name)} to {within(after.name)}, the way it travels: how many {what}?"
                yield Wanted(f"{base}/marked/{link.id}/to_next", link.name, ask, "figure", "counts are held against it", what)
    for count in stage.counts:
        if count.number is None:
            ask = f"{count.name}: how many {count.counted}?"
            yield Wanted(f"{base}/counts/{count.id}/number", count.name, ask, "figure", "counts are held against it", count.counted)
    if stage.pitch_mm is None:
        ask = f"{stage.name}: what is its pitch?"
        yield Wanted(f"{base}/pitch_mm", stage.name, ask, "figure", "slack is said in mm, its length is checked", "mm")


def _joint(joint: Joint) -> Iterator[Wanted]:
    base = f"/joints/{joint.id}"
    if joint.fasteners is None and not joint.bolts:
        ask = f"{joint.name}: how many are there?"
        yield Wanted(f"{base}/fasteners", joint.name, ask, "count", "they are pulled one by one, in an order", "fasteners")
    if any(one.does in ("torque", "torque_angle") and one.torque_nm is None for one in joint.figures):
        if not joint.thread:
            ask = f"{joint.name}: which thread?"
            yield Wanted(f"{base}/thread", joint.name, ask, "words", "a generic torque, where the book has none")
        if joint.property_class is None:
            annotation = Joint.model_fields["property_class"].annotation
            classes = next(get_args(one) for one in get_args(annotation) if get_args(one))
            ask = f"{joint.name}: what is stamped on the heads?"
            options = tuple(Option(str(one), str(one)) for one in classes)
            yield Wanted(f"{base}/property_class", joint.name, ask, "choice", "a generic torque, where the book has none", options=options)


def value_of(wanted: Wanted, text: str) -> Value:
    """What was typed as the document has it; raises FigureError where it cannot be that."""
    text = text.strip()
    if wanted.kind == "choice":
        known = [option.value for option in wanted.options]
        if text not in known:
            raise FigureError("value", text, f"choose one of {', '.join(known)}")
        return text
    if wanted.kind == "words":
        read_thread(text)  # the only words that are asked: it says itself what is wrong with them
        return text
    figure = read_figure(text, "value")
    if wanted.kind == "count":
        if figure != round(figure) or figure < 1:
            raise FigureError("value", text, f"{wanted.unit} are counted in whole ones, from 1 on")
        return round(figure)
    if wanted.kind == "clock":
        if not 0 <= figure <= 12:
            raise FigureError("value", text, "an hour is from 0 to 12, halves allowed")
        return figure % 12 * HOUR_DEG
    return figure
