"""What goes wrong at a bench: wrong answers, things undone, entries struck. A robot that makes such mistakes is the best test there is."""

__all__ = ["MISTAKES", "Mistake", "mistake_of"]

from collections.abc import Callable
from random import Random
from typing import Any

from gurvo_core.walk.answers import Body, right_answer
from gurvo_core.walk.robot import Robot

Mistake = Callable[[Robot, Any, Random], Body | None]


def _off(robot: Robot, question: Any, chance: Random) -> Body | None:
    """One of the marks is off, or a tool does not go in."""
    if question is None or question.kind not in ("turn_seen", "step_done") or not question.looks:
        return None
    body = right_answer(robot.state, question, robot.document, robot.shelf)
    at = chance.randrange(len(question.looks))
    one = question.looks[at]
    saw = "tool" if one.kind == "tool" else chance.choice(["off", "less", "unseen"])
    look = {"of": one.of, "saw": saw, **({"teeth": 1, "way": "behind"} if saw == "off" else {})}
    looks = [look if n == at else other for n, other in enumerate(body["looks"])]
    if question.kind == "step_done":
        return {**body, "looks": looks}
    went_in = [name for name in body["went_in"] if name != one.of]
    return {**body, "looks": looks, "went_in": went_in, "saw": "off" if saw != "unseen" else "meets"}


def _met_on_the_way(_robot: Robot, question: Any, chance: Random) -> Body | None:
    """A dead stop, a noise, something stiff."""
    step = getattr(question, "step", None)
    return {"kind": "trouble", "step": step, "what": chance.choice(["dead_stop", "noise", "stiff"]), "note": "here"} if step else None


def _answered_wrongly(robot: Robot, question: Any, chance: Random) -> Body | None:
    """The other answer of a choice: slack left, not good, a noise, a rod that did not move."""
    if question is None or question.kind != "step_done" or not question.fields:
        return None
    body = right_answer(robot.state, question, robot.document, robot.shelf)
    field = chance.choice(question.fields)
    text = chance.choice(field.options).value if field.kind == "choice" else chance.choice(["0", "-3", "1e9", "some", "9"])
    return {**body, "answers": {**body["answers"], field.key: text, **({"reason": "seen"} if "reason" in _keys(question) else {})}}


def _keys(question: Any) -> set[str]:
    return {field.key for field in question.fields}


def _undone(robot: Robot, _question: Any, chance: Random) -> Body | None:
    """A step opened again."""
    done = sorted(robot.folded.states["run"].done)
    return {"kind": "step_opened", "step": chance.choice(done), "reason": "undone"} if done else None


def _struck(robot: Robot, _question: Any, chance: Random) -> Body | None:
    """An entry struck."""
    entries = [one for one in robot.folded.entries if one.id not in robot.folded.struck and one.body.kind not in ("strike", "sign_off")]
    return {"kind": "strike", "strikes": str(chance.choice(entries).id), "reason": "slip"} if entries else None


def _left_on(robot: Robot, _question: Any, chance: Random) -> Body | None:
    """Something put on that no step puts on there."""
    if not robot.document.things:
        return None
    thing = chance.choice(robot.document.things)
    return {"kind": "thing", "thing": thing.id, "on": chance.random() < 0.7, "place": (thing.places or ("",))[0]}


def _turned_alone(robot: Robot, _question: Any, chance: Random) -> Body | None:
    """A shaft turned by itself."""
    shaft = chance.choice(robot.document.drive.shafts)
    return {"kind": "shaft_turned", "shaft": shaft.id, "then": chance.choice(["stands", "snapped", "dead_stop"])}


def _found(_robot: Robot, question: Any, chance: Random) -> Body | None:
    """Something counted that cannot be, or may."""
    if question is None or question.kind != "found":
        return None
    value = chance.choice(question.options).value if question.options else chance.choice(["43", "22", "44", "0", "7", "M10", "many"])
    return {"kind": "found", "pointer": question.pointer, "value": value, "how": question.hows[0]}


def _bolt(robot: Robot, _question: Any, chance: Random) -> Body | None:
    """A bolt found loose."""
    steps = robot.folded.states["joints"].book.steps
    if not steps:
        return None
    return {"kind": "bolt", "step": chance.choice(sorted(steps)), "fastener": "1", "found": "loose", "note": "by the click"}


def _own_mark(robot: Robot, _question: Any, _chance: Random) -> Body | None:
    """A mark of one's own."""
    return {"kind": "own_mark", "name": f"paint {len(robot.folded.entries)}", "meets": "the case"}


def _signed_early(_robot: Robot, _question: Any, _chance: Random) -> Body | None:
    """The record signed before it is ready."""
    return {"kind": "sign_off", "remark": "in a hurry"}


MISTAKES: tuple[Mistake, ...] = (
    _off,
    _met_on_the_way,
    _answered_wrongly,
    _undone,
    _struck,
    _left_on,
    _turned_alone,
    _found,
    _bolt,
    _own_mark,
    _signed_early,
)


def mistake_of(robot: Robot, question: Any, chance: Random, only: Mistake | None = None) -> Body | None:
    """A mistake that can be made now; None where that one cannot."""
    return (only or chance.choice(MISTAKES))(robot, question, chance)
