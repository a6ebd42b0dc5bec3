"""What is seen to be off: in a builder's words, by whose marks, and which steps laid it."""

__all__ = ["laid_off", "off_said", "own_looks"]

from gurvo_core.ledger import LedgerEntry
from gurvo_core.run.job.entries import OwnMark, TurnSeen
from gurvo_core.run.job.state import RunState
from gurvo_core.run.looks import LookAt, is_off, off_words


def off_said(entry: LedgerEntry) -> str:
    """What was seen to be off at a turn, in a builder's words."""
    body = entry.body
    if not isinstance(body, TurnSeen):
        return "marks are off"
    named = [f"{look.name or look.of} {off_words(look.saw, look.teeth, look.way)}" for look in body.looks if is_off(look.saw)]
    return "; ".join(named) or f"Marks {off_words('off', body.teeth, body.way)}"


def own_looks(now: RunState) -> tuple[LookAt, ...]:
    """The engine's own marks, to be looked at by name: paint put on before it came apart."""
    bodies = [(entry.seq, entry.body) for entry in now.own_marks]
    return tuple(
        LookAt(id=f"own-{seq}", name=body.name, kind="own", asks=f"meets {body.meets}" if body.meets else "stands on its mark")
        for seq, body in bodies
        if isinstance(body, OwnMark)
    )


def laid_off(now: RunState, seen: TurnSeen) -> tuple[str, ...]:
    """Ids of the steps that lay what marks or tools say is off; all that lay, where it cannot be told."""
    off = {look.of for look in seen.looks if is_off(look.saw)}
    marks = now.document.drive.marks
    faced = {mark.meets for mark in marks if mark.id in off}
    wheels = {mark.wheel for mark in marks if mark.id in off | faced}
    held = {shaft for thing in now.document.things if thing.id in off for shaft in thing.holds}
    wheels |= now.document.drive.wheels_on(*held)
    loops = {stage.id for stage in now.document.drive.stages if wheels & set(stage.wheel_ids)}
    lays = [one.step for one in now.plan.doing("lay")]
    return tuple(step.id for step in lays if step.loop in loops) or tuple(step.id for step in lays)
