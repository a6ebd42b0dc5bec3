"""After how many turns the coloured links of a loop stand on their marks again."""

__all__ = ["meet_again_turns", "meet_again_words"]

from fractions import Fraction
from math import lcm

from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.sentence import within


def meet_again_words(document: EngineDocument) -> str:
    """When painted links or printed lines come back to their marks: where the loop and all the wheels whose marks they meet come round."""
    said = []
    for stage in document.drive.stages:
        turns = meet_again_turns(document, stage) if isinstance(stage, LoopStage) else None
        if turns is not None and turns > 2:
            again = f"The marks on {within(stage.name)} meet again only after {turns} turns of the crank"
            said.append(f"{again}; until then the wheels' own marks count.")
    return " ".join(said)


def meet_again_turns(document: EngineDocument, stage: LoopStage) -> int | None:
    """Return after how many turns of the crank a loop's marked links meet their marks again.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    stage : LoopStage
        A chain or belt.

    Returns
    -------
    turns : int or None
        Whole turns of the crank; None where the loop marks no link, or teeth or links are not known.

    Source
    ------
    The loop has come round after a whole number of its own lengths, each wheel with a marked link after whole turns of its own, and the
    crank after whole turns: the least that all of them share.

    Example
    -------
    >>> meet_again_turns(family("tarn-f4"), family("tarn-f4").drive.stages[0])  # 190 teeth over 24 and 48
    190
    """
    wheel_of = {mark.id: mark.wheel for mark in document.drive.marks}
    teeth = [document.drive.wheel(wheel_of[link.meets]).teeth for link in stage.marked]
    first = document.drive.wheel(stage.wheel_ids[0])
    if not stage.marked or stage.count is None or not first.teeth or not all(teeth):
        return None
    pitches = lcm(stage.count, first.teeth, *(one for one in teeth if one))
    turns = Fraction(pitches, first.teeth) * _slower(document, first.shaft)
    return int(turns * turns.denominator)


def _slower(document: EngineDocument, shaft: str) -> Fraction:
    """Turns of the crank for one of a shaft."""
    turns = abs(document.turns_clockwise[shaft])
    return Fraction(1 / turns).limit_denominator(1000)
