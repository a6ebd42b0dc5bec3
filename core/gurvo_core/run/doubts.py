"""What is doubtful in a run of work: it can be gone through, and something that matters is never looked at."""

__all__ = ["run_doubts"]

from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, LoopStage, WorkStep
from gurvo_core.errors import Fault
from gurvo_core.run.job.proof import can_be_proven
from gurvo_core.run.plan import plan_of


def run_doubts(document: EngineDocument) -> list[Fault]:
    """Return what is doubtful in a document's run of work.

    Source: Practice: whatever drives a cam is turned over by hand before anything covers it, and something tells that the cam stands right.
    >>> run_doubts(quern_4())
    []
    """
    if not document.stages:
        return []
    return [*_never_turned(document), *_never_proven(document)]


def _never_turned(document: EngineDocument) -> Iterator[Fault]:
    loops = {loop.id: loop for loop in document.drive.stages if isinstance(loop, LoopStage)}
    steps = [
        (f"stages.{at}.steps.{n}", step)
        for at, stage in enumerate(document.stages)
        for n, step in enumerate(stage.steps)
        if isinstance(step, WorkStep)
    ]
    turned = max((n for n, (_, step) in enumerate(steps) if step.does == "turn_over"), default=-1)
    for n, (path, step) in enumerate(steps):
        if step.does == "lay" and step.loop in loops and n > turned:
            sentence = f"{loops[step.loop].name} is laid here and never turned over by hand after it: add a step that does “turn_over”."
            yield Fault(path=path, sentence=sentence)


def _never_proven(document: EngineDocument) -> Iterator[Fault]:
    plan = plan_of(document, frozenset())
    for at, cam in enumerate(document.camshafts):
        if not can_be_proven(plan, cam):
            sentence = (
                f"Nothing in this run tells that {cam.name} stands right, neither marks nor a lock nor readings: the lead will have to."
            )
            yield Fault(path=f"camshafts.{at}", sentence=sentence)
