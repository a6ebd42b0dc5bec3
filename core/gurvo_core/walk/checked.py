"""A document walked when it is checked: whether a builder who answers everything rightly gets from nothing to a signed record."""

__all__ = ["Walked", "walk_document"]

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import Fault
from gurvo_core.walk.robot import Robot
from gurvo_core.walk.shot import Shot

SHOWN = 3  # of the steps that wait, the first ones say why


class Walked(BaseModel):
    """How far a run of work can be gone through, and where it sticks."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    steps: int
    entries: int
    stuck: list[Fault]
    shots: list[Shot] = Field(description="The bench at each step, in the order in which they were come to")


def walk_document(document: EngineDocument) -> Walked:
    """Go through a document's run as it is offered; steps that cannot be reached are its faults, with their paths."""
    robot = Robot(document)
    why = robot.walk() if document.stages else ""
    steps = sum(len(stage.steps) for stage in document.stages)
    return Walked(steps=steps, entries=len(robot.folded.entries), stuck=_stuck(robot, why) if why else [], shots=list(robot.shots.values()))


def _stuck(robot: Robot, why: str) -> list[Fault]:
    paths = {
        getattr(step, "id", ""): f"stages.{at}.steps.{n}"
        for at, stage in enumerate(robot.document.stages)
        for n, step in enumerate(stage.steps)
    }
    faults = []
    for step in robot.state.steps:
        waits = next((question.blocked for question in step.questions if question.status == "open" and question.blocked), "")
        if waits and step.key in paths:
            sentence = f"Whoever answers everything rightly gets stuck before “{step.title}”: {waits}. Look at what it needs."
            faults.append(Fault(path=paths[step.key], sentence=sentence))
    return faults[:SHOWN] or [Fault(path="stages", sentence=f"Whoever answers everything rightly gets stuck: {why}.")]
