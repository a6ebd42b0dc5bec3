"""An engine walked through from nothing to a signed record: as it should be, or with mistakes made on the way."""

__all__ = ["MISTAKES_MADE", "walk_right", "walk_wrong"]

from random import Random

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import CoreError
from gurvo_core.walk.answers import next_question
from gurvo_core.walk.mistakes import Mistake, mistake_of
from gurvo_core.walk.robot import Robot
from gurvo_core.work.hand_over import UNPROVEN

MISTAKES_MADE = 140  # entries tried, about a third of them wrong, before the rest is gone through as it should be
A_THIRD = 1 / 3


def walk_right(document: EngineDocument) -> str:
    """Answer everything rightly, in the order it is offered; empty, or where it gets stuck and why."""
    robot = Robot(document)
    return robot.walk() or _never_proven(robot)


def walk_wrong(document: EngineDocument, chance: Random, only: Mistake | None = None) -> str:
    """Make mistakes, one kind of them or any, and then go on as is offered; empty, or why nobody can.

    A refusal is a sentence and part of the walk; any other error is raised.
    """
    robot = Robot(document)
    for _ in range(MISTAKES_MADE):
        _one_more(robot, chance, only)
        if robot.state.signed:
            break
    return robot.carry() or _never_proven(robot)


def _one_more(robot: Robot, chance: Random, only: Mistake | None) -> None:
    question = next_question(robot.state)
    wrong = mistake_of(robot, question, chance, only) if chance.random() < A_THIRD else None
    try:
        if wrong:
            robot.say(wrong, because="so it was said" if chance.random() < 0.5 else "")
        elif question is not None:
            robot.answer_next()
    except CoreError:
        return


def _never_proven(robot: Robot) -> str:
    """A signature over a cam that nobody proved and nobody gave his word for is none."""
    unproven = robot.folded.facts.get(UNPROVEN) or ()
    return f"signed, and never proven: {', '.join(unproven)}" if unproven else ""
