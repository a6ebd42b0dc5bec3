"""Marks, coloured links and tools that are looked at by name: which of them where, and what each answer says.

Nothing here needs teeth, links or angles: a mark meets what it meets, or it is off.
"""

__all__ = [
    "OFF",
    "LookAt",
    "Saw",
    "is_off",
    "looks_at_turn",
    "looks_while_laying",
    "looks_while_parking",
    "off_words",
    "position_of",
    "tools_that_fit",
]

from collections.abc import Iterator
from typing import Literal, NamedTuple

from gurvo_core.engine import EngineDocument, LoopStage, Mark, Thing, WorkStep
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.engine.same import kept_for
from gurvo_core.sentence import within

Saw = Literal["meets", "off", "less", "tool", "unseen"]
OFF: frozenset[str] = frozenset({"off", "less", "tool"})
HALF = 0.5  # turns of a four-stroke's camshaft for one of the crank
SAME = 1e-6


class LookAt(NamedTuple):
    """One thing that is looked at."""

    id: str
    name: str
    kind: Literal["mark", "link", "tool", "own"]
    asks: str  # what must be seen of it
    beside: str = ""  # what is easily taken for it
    wheel: str = ""
    clock_deg: float | None = None


@kept_for
def looks_while_laying(document: EngineDocument, loop: str | None, position: str | None) -> tuple[LookAt, ...]:
    """What is looked at when a chain, a belt or gears have been laid: every deciding mark of its wheels, and every coloured link."""
    stage = next((one for one in document.drive.stages if one.id == loop), None)
    if stage is None:
        return ()
    marks = [_of_mark(document, mark, position) for mark in _deciding(document, set(stage.wheel_ids), position)]
    return (*marks, *(_links(document, stage) if isinstance(stage, LoopStage) else ()))


@kept_for
def looks_while_parking(document: EngineDocument, position: str | None) -> tuple[LookAt, ...]:
    """What is looked at where the crank is parked: the deciding marks on the crank that are told for that place."""
    wheels = document.drive.crank_wheels()
    others = {mark.id for mark in document.drive.marks if mark.wheel not in wheels}  # on wheels that may not be there yet
    here = [mark for mark in _deciding(document, wheels, position) if position in {one.position for one in mark.stands}]
    told = [mark for mark in here if mark.meets not in others]
    return tuple(_of_mark(document, mark, position) for mark in told)


@kept_for
def looks_at_turn(document: EngineDocument, position: str | None, turns_left: float, turns: float) -> tuple[LookAt, ...]:
    """What is looked at at a stop of turning over: deciding marks whose shaft stands there as it does at the end, and tools that fit again.

    ``turns_left`` is how far the stop is from the step's end, where the engine stands at its position; ``turns`` from its beginning.
    """
    wheels = {wheel.id for wheel in document.drive.wheels if _comes_round(document, wheel.shaft, turns_left)}
    wheel_of = {mark.id: mark.wheel for mark in document.drive.marks}
    met = [mark for mark in _deciding(document, wheels, position) if wheel_of.get(mark.meets or "", mark.wheel) in wheels]
    marks = [_of_mark(document, mark, position) for mark in met]
    return (*marks, *(_of_tool(one) for one in tools_that_fit(document, turns)))


def tools_that_fit(document: EngineDocument, turns: float) -> list[Thing]:
    """Locks and pins that must go in again after so many turns of the crank: after every one, or every two."""
    every = {"every_turn": 1, "every_two": 2}
    return [one for one in document.things if one.fits_again and turns % every[one.fits_again] == 0]


def _comes_round(document: EngineDocument, shaft: str, turns: float) -> bool:
    """Whether a shaft stands as before once the crank has turned so often: known of the crank, of camshafts, and by the teeth."""
    kind = document.drive.shaft(shaft).kind
    by_teeth = {name: abs(float(turns)) for name, turns in shaft_speeds(document.drive).turns.items()}
    known = {cam.id: HALF for cam in document.camshafts} | by_teeth
    by = 1.0 if kind == "crank" else known.get(shaft)
    return by is not None and abs(by * turns - round(by * turns)) < SAME


def _deciding(document: EngineDocument, wheels: set[str], position: str | None) -> list[Mark]:
    """The marks on some wheels that decide: those told for the place where the engine stands, or all where none is."""
    marks = [mark for mark in document.drive.marks if mark.wheel in wheels and mark.decides and not mark.decoy]
    here = [mark for mark in marks if position in {one.position for one in mark.stands}]
    return _once(here or marks)


def _once(marks: list[Mark]) -> list[Mark]:
    """Of two marks that meet each other the one that says so: both are looked at in one look."""
    kept: list[Mark] = []
    faced = {mark.meets for mark in marks if mark.meets}
    for mark in marks:
        if mark.id not in {one.meets for one in kept} and (mark.meets or mark.id not in faced):
            kept.append(mark)
    return kept


def _of_mark(document: EngineDocument, mark: Mark, position: str | None) -> LookAt:
    drive = document.drive
    names = {one.id: one.name for one in drive.marks} | {one.id: one.name for one in drive.pointers}
    meets = within(names.get(mark.meets or "", ""))
    clock_deg = next((one.clock_deg for one in mark.stands if one.position == position), None)
    is_known = position is not None and any(one.id == position for one in document.timing_positions) and document.is_placed(position)
    return LookAt(
        id=mark.id,
        name=mark.name,
        kind="mark",
        asks=f"meets {meets}" if meets else "stands on its mark",
        beside=" ".join(_beside(document, mark)),
        wheel=mark.wheel,
        clock_deg=clock_deg if is_known else None,
    )


def _beside(document: EngineDocument, mark: Mark) -> Iterator[str]:
    """What is easily taken for a mark: decoys of its wheel, and those that look the same."""
    decoys = [within(one.name) for one in document.drive.marks if one.decoy and one.wheel == mark.wheel]
    if decoys:
        yield f"Not {' nor '.join(decoys)}: no mark, though it looks like one."
    alike = [within(one.name) for one in document.drive.marks if mark.alike and one.alike == mark.alike and one is not mark]
    if alike:
        yield f"Looks like {' and '.join(alike)}."


def _links(document: EngineDocument, stage: LoopStage) -> Iterator[LookAt]:
    names = {mark.id: mark for mark in document.drive.marks}
    for link in stage.marked:
        if link.how != "help":
            mark = names[link.meets]
            where = f"two of them astride {within(mark.name)}" if link.how == "astride" else f"on {within(mark.name)}"
            yield LookAt(id=link.id, name=link.name, kind="link", asks=where, wheel=mark.wheel)


def _of_tool(thing: Thing) -> LookAt:
    return LookAt(id=thing.id, name=thing.name, kind="tool", asks="goes in again, by hand")


def is_off(saw: str) -> bool:
    """Whether what was seen is that it does not meet."""
    return saw in OFF


def off_words(saw: str, teeth: float | None, way: str | None) -> str:
    """How far something is off, in a builder's words; without any teeth known."""
    if saw == "tool":
        return "does not go in"
    behind = f", {way}" if way else ""
    if saw == "less":
        return f"off by less than a tooth{behind}"
    if teeth is None:
        return f"off{behind}"
    by = "a tooth" if teeth == 1 else "half a tooth" if teeth == HALF else f"{teeth:g} teeth"
    return f"off by {by}{behind}"


def position_of(step: WorkStep, before: tuple[WorkStep, ...]) -> str | None:
    """Where the engine stands at a step: its own position, or that of the last step before it that parks."""
    parked = [one.position for one in before if one.does == "park" and one.position]
    return step.position or (parked[-1] if parked else None)
