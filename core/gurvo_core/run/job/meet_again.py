"""After how many turns coloured links stand on their marks again, and gears' marks face each other."""

__all__ = ["meet_again_turns", "meet_again_words"]

from fractions import Fraction
from math import lcm

from gurvo_core.engine import EngineDocument, GearStage, LoopStage, Sprocket
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.sentence import within


def meet_again_words(document: EngineDocument) -> str:
    """When painted links, printed lines or marks of gears come back to each other: where all that carries them comes round at once."""
    said = []
    for stage in document.drive.stages:
        turns = meet_again_turns(document, stage)
        if turns is not None and turns > 2:
            again = f"The marks on {within(stage.name)} meet again only after {turns} turns of the crank"
            said.append(f"{again}; until then the wheels' own marks count." if isinstance(stage, LoopStage) else f"{again}.")
    return " ".join(said)


def meet_again_turns(document: EngineDocument, stage: LoopStage | GearStage) -> int | None:
    """Return after how many turns of the crank the marks of a stage meet again.

    Whatever carries a mark has come round after a whole number of its own turns, a loop after its own length, the crank too: the least that
    all of them share. Of gears only an idler, whose teeth go into nobody's, makes it more than the cycle's two turns.
    """
    marked = _marked_wheels(document, stage)
    first, speeds = document.drive.wheel(stage.wheel_ids[0]), shaft_speeds(document.drive).turns
    shafts = {wheel.shaft for wheel in (first, *marked)}
    if not marked or not all(wheel.teeth for wheel in (first, *marked)) or not shafts <= speeds.keys():
        return None
    turned = [abs(speeds[shaft]) for shaft in shafts]  # for one turn of the crank
    if isinstance(stage, LoopStage):
        if stage.count is None:
            return None
        turned.append(abs(speeds[first.shaft]) * Fraction(first.teeth or 0, stage.count))
    return lcm(*(Fraction(one).denominator for one in turned))


def _marked_wheels(document: EngineDocument, stage: LoopStage | GearStage) -> list[Sprocket]:
    """The wheels whose marks meet a marked link, or a mark of another gear."""
    marks = {mark.id: mark for mark in document.drive.marks if not mark.decoy}
    if isinstance(stage, LoopStage):
        return [document.drive.wheel(marks[link.meets].wheel) for link in stage.marked if link.meets in marks]
    own = {mark.id: mark for mark in marks.values() if mark.wheel in stage.wheel_ids}
    facing = [(mark, own[mark.meets]) for mark in own.values() if mark.meets in own]
    return [document.drive.wheel(name) for name in {mark.wheel for pair in facing for mark in pair}]
