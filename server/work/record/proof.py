"""What proves each camshaft, on paper: by what, and who saw it."""

from collections.abc import Callable
from typing import Any

from gurvo_core.work import BenchState

BY = {"degreed": "degree wheel", "marks": "marks", "lock": "locks", "counts": "links or teeth counted", "word": "the lead's word"}
LOOKS = {"in": "in", "out": "out", "can't tell": "tell", "no limit known": "tell"}
Saying = Callable[[str], str]


def proof_on_paper(state: BenchState, say: Saying) -> dict[str, Any]:
    """Return what the first page says of the timing."""
    views = vars(state)
    verdicts = {cam.camshaft: cam.verdict for cam in views["timing"].cams}
    read = [event for cam in views["timing"].cams for valve in cam.valves for event in (valve.opening, valve.closing)]
    return {
        "proofs": [_line(one, verdicts.get(one.camshaft), say) for one in views["hand_over"].proofs],
        "is_degreed": any(event.readings for event in read),
    }


def _line(one: Any, verdict: str | None, say: Saying) -> dict[str, str]:
    """One camshaft: the verdict where it was degreed, else by what it is told to stand right."""
    by_words = BY.get(one.by or "", "")
    short = (verdict or "degreed") if one.by == "degreed" else f"by {by_words}" if one.by else verdict or "not proven yet"
    look = LOOKS.get(verdict or "", "open") if one.by in ("degreed", None) else "tell" if one.by == "word" else "in"
    shown = {"name": one.name, "by": one.by or "", "by_words": by_words, "words": say(one.words), "who": one.who}
    return {**shown, "short": short, "look": look}
