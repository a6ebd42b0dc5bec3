"""Valve clearances as they stand on paper: as found, as left, with which shim, at which stop."""

__all__ = ["LashPaper", "lash_papers"]

from dataclasses import dataclass

from gurvo_core.lash.job.show import lash_view, limits_words
from gurvo_core.lash.job.state import LashState
from gurvo_core.lash.job.view import LashView


@dataclass(frozen=True, kw_only=True)
class LashPaper:
    """One step."""

    title: str
    limits: str
    about: str
    view: LashView
    has_shims: bool


def lash_papers(now: LashState) -> list[LashPaper]:
    """Return every step that has set valves, as it stands on paper."""
    papers = []
    for step, planned in now.book.steps.items():
        valves = now.book.valves(step)
        if not any(name in now.reads for name in valves):
            continue
        ready = now.ready.get(step)
        about = [f"engine {ready.engine_is}" if ready else "", f"feelers {ready.gauge}" if ready and ready.gauge else ""]
        papers.append(
            LashPaper(
                title=planned.says.rstrip("."),
                limits="; ".join(sorted({f"{one.key.valve} {limits_words(one)}" for one in valves.values()}, reverse=True)),
                about=", ".join(filter(None, about)),
                view=lash_view(now, step),
                has_shims=any(now.reads[name].shim_mm is not None for name in valves if name in now.reads),
            )
        )
    return papers
