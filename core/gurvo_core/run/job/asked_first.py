"""What the run asks before a step, whatever that does: what was met or heard there, and whether the plugs are out."""

__all__ = ["asked_first"]

from gurvo_core.ledger import LedgerEntry, PlainAnswer
from gurvo_core.run.job.entries import TroubleTold
from gurvo_core.run.job.kinds.hard_stop import HardStopQuestion
from gurvo_core.run.job.kinds.plugs import PlugsQuestion
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.words import TROUBLES
from gurvo_core.run.plan import PlanStep
from gurvo_core.sentence import at_start


def asked_first(now: RunState, one: PlanStep) -> list[HardStopQuestion | PlugsQuestion]:
    """What is asked before a step whatever it does: what was met or heard there, and, before the first turn, whether the plugs are out."""
    found: list[HardStopQuestion | PlugsQuestion] = []
    if now.hard_stop is not None and one.step.id == _stopped_at(now):
        found.append(_hard_stop(one.step.id, now.hard_stop))
    if not now.plugs_out and one.step.id == now.plan.first_turn and one.step.id not in now.done:
        found.append(_plugs(one.step.id))
    return found


def _stopped_at(now: RunState) -> str:
    """The step at which what was met is looked into: where it was told, or the first that is open where that is no more."""
    told = getattr(now.hard_stop.body, "step", "") if now.hard_stop is not None else ""
    own = [one.step.id for one in now.plan.steps if not one.is_elsewhere]  # of others their own rooms ask
    first = next((name for name in own if name not in now.done), own[-1] if own else "")
    return told if told in own else first


def _hard_stop(step_id: str, told: LedgerEntry) -> HardStopQuestion:
    what = TROUBLES[told.body.what] if isinstance(told.body, TroubleTold) else "hard stop"
    return HardStopQuestion(
        key=f"{step_id}:hard",
        title=at_start(what),
        ask=f"What was the {what}?" if what != "stiff" else "What made it stiff?",
        hint="Do not force it. A dead stop is a valve on a piston, something in the cylinder, or a lock left in; springy is compression.",
        status="open",
        waits=f"somebody to look into a {what}" if what != "stiff" else "somebody to look into what is stiff",
        answers=[PlainAnswer(title="Looked into", entry={"kind": "hard_stop"}, words="found", asks="What was it?", needs_words=True)],
        said="Once it is said, turning over begins anew.",
    )


def _plugs(step_id: str) -> PlugsQuestion:
    return PlugsQuestion(
        key=f"{step_id}:plugs",
        title="Plugs out",
        ask="Are the plugs or injectors out, and is the stand locked?",
        hint="Before the first turn: with them in it turns against compression, and springs back.",
        status="open",
        waits="the plugs to come out",
        answers=[PlainAnswer(title="Out and locked", entry={"kind": "plugs", "out": True})],
        said="Look, then say so.",
    )
