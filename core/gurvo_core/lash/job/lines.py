"""Valve clearances as one table, valve by valve."""

__all__ = ["LashLine", "lash_lines"]

from collections.abc import Iterator

from gurvo_core.lash.job.show import lash_view
from gurvo_core.lash.job.state import LashState
from gurvo_core.ledger import View


class LashLine(View):
    """One valve that was read, for the table."""

    step: str
    valve: str
    cylinder: int
    stop: int | None
    found_mm: float | None
    left_mm: float | None
    u_mm: float | None
    least_mm: float | None
    most_mm: float | None
    shim_mm: float | None
    verdict: str
    decided: str


def lash_lines(now: LashState) -> Iterator[LashLine]:
    """Return every valve that was read, as found and as left. Returned: clearances and shims [mm]."""
    for name, step in now.book.steps.items():
        for valve in lash_view(now, name).valves:
            if valve.lash_mm is None:
                continue
            yield LashLine(
                step=step.says.rstrip("."),
                valve=valve.words,
                cylinder=valve.cylinder,
                stop=valve.stop,
                found_mm=valve.lash_mm if valve.found_mm is None else valve.found_mm,
                left_mm=valve.lash_mm,
                u_mm=None if valve.u_mm is None else round(valve.u_mm, 6),
                least_mm=valve.low_mm,
                most_mm=valve.high_mm,
                shim_mm=valve.shim_mm,
                verdict="another shim, not read again" if valve.is_pending else valve.verdict or "",
                decided=valve.decided,
            )
