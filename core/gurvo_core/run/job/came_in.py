"""How an engine came in, beside how it leaves: what was looked at before anything came off, and what of it was seen last."""

__all__ = ["CameIn", "came_in"]

from collections.abc import Iterator
from typing import NamedTuple

from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.words import looks_words

WORDS = {"meets": "met", "off": "off", "unseen": "could not be seen"}


class CameIn(NamedTuple):
    """One thing, as it was found and as it was left; left is empty where nobody looked again, or nothing is to be compared."""

    what: str
    found: str
    left: str


def came_in(now: RunState) -> Iterator[CameIn]:
    """Everything that was said of an engine as it came in."""
    for planned in now.plan.steps:
        done = now.done.get(planned.step.id)
        if planned.step.does != "as_found" or done is None:
            continue
        for look in planned.step.looks:
            said = done.answers.get(look.id, "")
            if said:
                found = f"{said} {look.unit}".strip() if look.mark is None else WORDS.get(said, said)
                yield CameIn(look.asks, found, _left(now, look.mark) if look.mark else "")


def _left(now: RunState, mark: str) -> str:
    """What was seen of a mark last, after it went together again."""
    seen = [(done.seq, done.looks[mark]) for done in now.done.values() if mark in done.looks]
    return looks_words([max(seen, key=lambda pair: pair[0])[1]]) if seen else ""
