"""Valve clearances as they stand on paper: as found, as left, with which shim, at which stop; and as one table."""

__all__ = ["LashLine", "lash_lines", "papers_of"]

from collections.abc import Iterator, Sequence

from gurvo_core.lash.job.show import lash_view, limits_words
from gurvo_core.lash.job.state import LashState
from gurvo_core.lash.job.view import ValveView
from gurvo_core.ledger import Facts, LedgerEntry, Paper, PaperRow, PaperTable, View
from gurvo_core.ledger.judged import APART, judged_mm
from gurvo_core.verdict import Verdict


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


def papers_of(now: LashState, _facts: Facts, _standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """Every step that has set valves."""
    for step in (one for one in now.book.steps if any(name in now.reads for name in now.book.valves(one))):
        view, ready = lash_view(now, step), now.ready.get(step)
        has_shims = any(one.shim_mm is not None for one in view.valves)
        about = [f"engine {ready.engine_is}" if ready else "", f"feelers {ready.gauge}" if ready and ready.gauge else ""]
        heads = ("valve", "stop", "found", "left at", "U", *(["shim"] if has_shims else []), "verdict")
        table = PaperTable(heads=heads, rows=tuple(_row(one, has_shims=has_shims) for one in view.valves))
        title = now.book.steps[step].says.rstrip(".")
        limits = _limits(now, step)
        read = [(one.lash_mm, _verdict(one), bool(one.decided)) for one in view.valves if one.lash_mm is not None]
        judged = judged_mm("Valve clearances", limits, read)
        yield Paper(title=title, about=(limits, ", ".join(filter(None, about)), view.way), tables=(table,), judged=judged)


def _verdict(valve: ValveView) -> Verdict | None:
    return None if valve.is_pending else valve.verdict


def _limits(now: LashState, step: str) -> str:
    return "; ".join(sorted({f"{one.key.valve} {limits_words(one)}" for one in now.book.valves(step).values()}, reverse=True))


def _word(valve: ValveView) -> str:
    return "another shim, not read again" if valve.is_pending else valve.verdict or "not read"


def _found_mm(valve: ValveView) -> float | None:
    return valve.lash_mm if valve.found_mm is None else valve.found_mm


def _row(valve: ValveView, *, has_shims: bool) -> PaperRow:
    figures = ["" if value is None else f"{value:.3f}" for value in (_found_mm(valve), valve.lash_mm, valve.u_mm)]
    shim = ["" if valve.shim_mm is None else f"{valve.shim_mm:.2f}"] if has_shims else []
    return PaperRow(
        cells=(valve.words, str(valve.stop or ""), *figures, *shim, ", ".join(filter(None, [_word(valve), valve.decided]))),
        is_apart=valve.is_pending or valve.verdict in APART,
    )


def lash_lines(now: LashState) -> Iterator[LashLine]:
    """Return every valve that was read, as found and as left. Returned: clearances and shims [mm]."""
    for name, step in now.book.steps.items():
        for valve in (one for one in lash_view(now, name).valves if one.lash_mm is not None):
            yield LashLine(
                step=step.says.rstrip("."),
                valve=valve.words,
                cylinder=valve.cylinder,
                stop=valve.stop,
                found_mm=_found_mm(valve),
                left_mm=valve.lash_mm,
                u_mm=None if valve.u_mm is None else round(valve.u_mm, 6),
                least_mm=valve.low_mm,
                most_mm=valve.high_mm,
                shim_mm=valve.shim_mm,
                verdict=_word(valve),
                decided=valve.decided,
            )
