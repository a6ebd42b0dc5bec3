"""Valve clearances as they were left."""

__all__ = ["came_to"]

from collections.abc import Iterator

from gurvo_core.lash.job.state import LashState
from gurvo_core.ledger.came_to import CameTo


def came_to(now: LashState) -> Iterator[CameTo]:
    """Every valve that was read, as it was read last [mm]."""
    for step in now.book.steps:
        for name, valve in now.book.valves(step).items():
            read = now.reads.get(name)
            if read is None or read.lash is None:
                continue
            least, most = valve.limits_mm
            gap, of, place = round(read.lash.value, 6), valve.key.valve, valve.key.words
            yield CameTo("valve gap", of, f"{of} valves", place, gap, "mm", read.gauge or "", read.seq, least, most)
