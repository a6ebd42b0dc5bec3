"""How the run's entries are said on tape, paper and in the table."""

__all__ = ["SAW", "TROUBLES", "at_words", "called", "in_its_own_words", "looks_words", "plain"]

import re
from collections.abc import Iterable

from gurvo_core.engine import WorkStep
from gurvo_core.run.job.entries import (
    MarkLook,
    ShaftAt,
    Trouble,
    TurnSaw,
)
from gurvo_core.run.looks import is_off, off_words
from gurvo_core.sentence import within

TROUBLES: dict[Trouble, str] = {"dead_stop": "dead stop", "stiff": "stiff", "noise": "noise"}
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


def _look_name(look: MarkLook) -> str:
    return within(look.name or plain(look.of))


def looks_words(looks: Iterable[MarkLook]) -> str:
    """What was seen of each mark: those that met first, then what was off, then what could not be seen."""
    met = [_look_name(look) for look in looks if look.saw == "meets"]
    off = [f"{_look_name(look)} {off_words(look.saw, look.teeth, look.way)}" for look in looks if is_off(look.saw)]
    unseen = [_look_name(look) for look in looks if look.saw == "unseen"]
    said = [f"met: {', '.join(met)}"] if met else []
    return "; ".join([*off, *said, *([f"not seen: {', '.join(unseen)}"] if unseen else [])])


def at_words(at: ShaftAt | None) -> str:
    """As it was typed, from where it was seen."""
    if at is None:
        return ""
    clock = at.clock if at.clock.endswith(("°", "deg", "degrees", "clock")) else f"{at.clock} o'clock"
    return f"{at.name or at.of} at {clock}{', from the flywheel' if at.seen_from == 'flywheel' else ''}"
