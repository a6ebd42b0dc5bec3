"""How the run's entries are said on tape, paper and in the table."""

__all__ = ["SAW", "called", "plain", "say_done", "say_thing", "say_turn"]

from gurvo_core.ledger import Words
from gurvo_core.run.job.entries import Saw, StepDone, ThingMoved, TurnSeen

SAW: dict[Saw, str] = {"meets": "they meet", "off": "off", "hard_stop": "hard stop", "springy": "springy"}


def plain(name: str) -> str:
    """An id as words."""
    return name.replace("-", " ").replace("_", " ").capitalize()


def called(name: str, title: str | None) -> str:
    """What it was called when it was entered; its id as words where nothing was kept."""
    return (title or plain(name)).rstrip(".")


def say_done(body: StepDone) -> Words:
    """A step, with its answers."""
    answers = ", ".join(f"{plain(key).lower()} {value.replace('_', ' ')}" for key, value in body.answers.items() if value)
    return Words(
        title=called(body.step, body.title), value="done" if not answers else "", detail=" · ".join(filter(None, (answers, body.note)))
    )


def say_turn(body: TurnSeen) -> Words:
    """A stop, with what was seen."""
    off = f" by {body.teeth:g} {'tooth' if body.teeth == 1 else 'teeth'}, {body.way}" if body.teeth else ""
    return Words(
        title=f"{called(body.step, body.title)}, stop {body.stop}",
        value=f"{SAW[body.saw]}{off}",
        detail=" · ".join(filter(None, (", ".join(f"{plain(name)} went in" for name in body.went_in), body.note))),
        look_again=body.saw != "meets",
    )


def say_thing(body: ThingMoved) -> Words:
    """Something put on or taken off."""
    detail = " · ".join(filter(None, (body.place, body.note)))
    return Words(title=called(body.thing, body.title), value="put on" if body.on else "taken off", detail=detail)
