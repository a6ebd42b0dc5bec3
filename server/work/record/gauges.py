"""Which gauges a reading was taken with, and how far one reading of each can be trusted."""

from collections.abc import Iterable, Iterator

from gurvo_core.ledger import Gauge, LedgerEntry
from gurvo_core.timing.job.entries import LiftReading, TdcReading
from gurvo_core.timing.job.readings import gauge_u
from gurvo_core.uncertainty import COVERAGE

SHOWN = {"wheel": ("°", 2), "dial": (" mm", 3)}


def with_gauges(entries: Iterable[LedgerEntry]) -> Iterator[tuple[LedgerEntry, dict[str, Gauge]]]:
    """Go through a ledger with the gauges that were set up at each entry, by what they stand for."""
    gauges: dict[str, Gauge] = {}
    for entry in entries:
        gauges = gauges | {gauge.role: gauge for gauge in entry.gauges if gauge.role in SHOWN}
        yield entry, gauges


def said_of(entry: LedgerEntry, gauges: dict[str, Gauge]) -> str:
    """Say with what a reading was taken: the wheel, and the dial when a length was read; nothing for other entries."""
    body = entry.body
    if not isinstance(body, TdcReading | LiftReading):
        return ""
    dial_read = body.drop is not None if isinstance(body, TdcReading) else True
    return ", ".join(
        f"{gauge.id} U = {COVERAGE * gauge_u(gauge).u:.{SHOWN[kind][1]}f}{SHOWN[kind][0]}"
        for kind, gauge in sorted(gauges.items(), reverse=True)
        if kind == "wheel" or dial_read
    )
