"""How the run's entries are said on tape, paper and in the table."""

__all__ = [
    "SAW",
    "TROUBLES",
    "called",
    "in_its_own_words",
    "looks_words",
    "plain",
    "say_done",
    "say_own_mark",
    "say_shaft",
    "say_thing",
    "say_trouble",
    "say_turn",
]

import re
from collections.abc import Iterable, Mapping

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import Words
from gurvo_core.run.job.entries import (
    MarkLook,
    OwnMark,
    ShaftAt,
    ShaftSeen,
    StepDone,
    ThingMoved,
    Trouble,
    TroubleTold,
    TurnedAlone,
    TurnSaw,
    TurnSeen,
)
from gurvo_core.run.looks import is_off, off_words
from gurvo_core.sentence import listed, within

TROUBLES: dict[Trouble, str] = {"dead_stop": "dead stop", "stiff": "stiff", "noise": "noise"}
SLACK = {"tight": "pulled tight", "left": "slack left on the tight side"}
PARTS_MOVE = ("fit", "put_on", "take_off")
MOVED = re.compile(r"(?P<what>.+?) (?P<how>in|on|off|out)(to)?( .*)?$")
ENDS_SO = re.compile(r"(?P<what>[^,]+) (?P<how>in|on|off|out)$")
SAW: dict[TurnSaw, str] = {"meets": "they meet", "off": "off", "hard_stop": "hard stop", "springy": "springy"}


def plain(name: str) -> str:
    """An id as words."""
    return name.replace("-", " ").replace("_", " ").capitalize()


def called(name: str, title: str | None) -> str:
    """What it was called when it was entered; its id as words where nothing was kept."""
    return (title or plain(name)).rstrip(".")


def in_its_own_words(step: WorkStep) -> str:
    """What a step's button says, as its heading has it: “Locking plate out” is answered by “It is out”; empty where it says otherwise."""
    clauses = step.says.split(", ")
    found = MOVED.match(clauses[0]) if step.does in PARTS_MOVE else ENDS_SO.match(step.says) if step.does == "do" else None
    if found is None:
        return ""
    things = [word for word in found["what"].split() if word.endswith("s") and not word.endswith("ss")]
    return f"{'They are' if things or ' and ' in found['what'] else 'It is'} {found['how']}"


def say_done(body: StepDone) -> Words:
    """A step, with its answers."""
    answers = _answers_words(body.answers)
    seen = looks_words(body.looks)
    said = " · ".join(filter(None, (answers, seen, body.note)))
    off = any(is_off(look.saw) for look in body.looks)
    return Words(title=called(body.step, body.title), value="" if answers else "done", detail=said, look_again=off)


def _one_answer(key: str, value: str) -> str:
    if key == "slack":
        return SLACK.get(value, value)
    asked, _, of = key.partition("-")
    return f"{plain(of).lower()} line {value}" if asked == "line" and of else f"{plain(key).lower()} {value}"


def _answers_words(answers: Mapping[str, str]) -> str:
    """Each answer by what it was asked of; pieces that were looked at one by one are told by what was found."""
    pieces: dict[str, list[str]] = {}
    stages: list[str] = []
    said = []
    for key, value in answers.items():
        asked, _, piece = key.partition(".")
        if value and asked == "stage":
            stages.append(piece)
        elif value and piece and asked == "found":
            pieces.setdefault(value.replace("_", " "), []).append(piece)
        elif value:
            said.append(_one_answer(key, value.replace("_", " ")))
    each = [f"all {len(own)} {found}" if len(pieces) == 1 and len(own) > 1 else f"{found}: {listed(own)}" for found, own in pieces.items()]
    gone_through = [f"stage {listed(stages)} done"] if stages else []
    return ", ".join([*gone_through, *each, *said])


def _look_name(look: MarkLook) -> str:
    return within(look.name or plain(look.of))


def looks_words(looks: Iterable[MarkLook]) -> str:
    """What was seen of each mark: those that met first, then what was off, then what could not be seen."""
    met = [_look_name(look) for look in looks if look.saw == "meets"]
    off = [f"{_look_name(look)} {off_words(look.saw, look.teeth, look.way)}" for look in looks if is_off(look.saw)]
    unseen = [_look_name(look) for look in looks if look.saw == "unseen"]
    said = [f"met: {', '.join(met)}"] if met else []
    return "; ".join([*off, *said, *([f"not seen: {', '.join(unseen)}"] if unseen else [])])


def say_turn(body: TurnSeen) -> Words:
    """A stop, with what was seen."""
    told = {look.of for look in body.looks}
    off = f" by {body.teeth:g} {'tooth' if body.teeth == 1 else 'teeth'}, {body.way}" if body.teeth else ""
    return Words(
        title=f"{called(body.step, body.title)}, stop {body.stop}",
        value=f"{SAW[body.saw]}{off}",
        detail=" · ".join(
            filter(
                None, (looks_words(body.looks), ", ".join(f"{plain(name)} went in" for name in body.went_in if name not in told), body.note)
            )
        ),
        look_again=body.saw != "meets",
    )


def say_thing(body: ThingMoved) -> Words:
    """Something put on or taken off."""
    detail = " · ".join(filter(None, (body.place, body.note)))
    return Words(title=called(body.thing, body.title), value="put on" if body.on else "taken off", detail=detail)


def say_trouble(body: TroubleTold) -> Words:
    """What was met or heard while something was moved."""
    return Words(title=called(body.step, body.title), value=TROUBLES[body.what], detail=body.note, look_again=True)


def say_shaft(body: TurnedAlone) -> Words:
    """A shaft turned by itself."""
    way = {"running": "the running way", "back": "back"}.get(body.way or "", "")
    then = {"stands": "stands there", "snapped": "snapped round", "dead_stop": "dead stop"}[body.then]
    said = ", ".join(filter(None, (way, body.how_far, _at_words(body.at))))
    detail = " · ".join(filter(None, (said, body.note)))
    return Words(title=f"{called(body.shaft, body.title)} turned by itself", value=then, detail=detail, look_again=body.then != "stands")


def say_seen(body: ShaftSeen) -> Words:
    """Where a shaft stands."""
    return Words(title=f"{called(body.shaft, body.title)} seen", value=_at_words(body.at), detail=body.note)


def _at_words(at: ShaftAt | None) -> str:
    """As it was typed, from where it was seen."""
    if at is None:
        return ""
    clock = at.clock if at.clock.endswith(("°", "deg", "degrees", "clock")) else f"{at.clock} o'clock"
    return f"{at.name or at.of} at {clock}{', from the flywheel' if at.seen_from == 'flywheel' else ''}"


def say_own_mark(body: OwnMark) -> Words:
    """A mark of one's own."""
    return Words(title=f"Own mark: {body.name}", value="put on", detail=" · ".join(filter(None, (body.meets, body.note))))
