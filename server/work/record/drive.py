"""The drive on paper: each chain or belt as it was laid and tensioned, and what was seen when it was turned over."""

from collections.abc import Callable
from typing import Any

from gurvo_core.run.job import RunState
from gurvo_core.run.job.paper import drive_papers, turn_lines
from work import bridge

Saying = Callable[[str], str]


def drive_on_paper(ledger: bridge.Ledger, say: Saying) -> dict[str, Any]:
    """Return loops and turns, ready for the page."""
    now: RunState = ledger.folded.states["run"]
    standing = (entry for entry in ledger.folded.entries if entry.id not in ledger.folded.struck)
    loops = [
        {**paper._asdict(), "steps": [{**step._asdict(), "says": say(step.says)} for step in paper.steps]} for paper in drive_papers(now)
    ]
    return {"loops": loops, "turns": [{**turn._asdict(), "says": say(turn.says)} for turn in turn_lines(now, standing)]}
