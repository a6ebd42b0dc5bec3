"""What several readings do: the figures they come to, and the work on one camshaft."""

__all__ = ["figures_read", "with_cam"]


from gurvo_core.errors import CoreError
from gurvo_core.ledger import changed
from gurvo_core.timing.job.entries import (
    LiftReading,
    TdcReading,
)
from gurvo_core.timing.job.readings import si_values
from gurvo_core.timing.job.state import (
    CamWork,
    TimingState,
)


def figures_read(now: TimingState, body: TdcReading | LiftReading) -> dict[str, float]:
    """The reading's figures; none when it cannot be read, as after the set-up it was taken with was struck."""
    try:
        return si_values(now, body) if now.wheel else {}
    except CoreError:
        return {}


def with_cam(now: TimingState, shaft: str, work: CamWork) -> TimingState:
    """The same with the work on one camshaft."""
    return changed(now, cams={**now.cams, shaft: work})
