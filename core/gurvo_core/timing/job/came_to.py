"""Camshafts as they were degreed."""

__all__ = ["came_to"]

from collections.abc import Iterator

from gurvo_core.ledger.came_to import CameTo
from gurvo_core.timing.job.cams import cams_of
from gurvo_core.timing.job.state import TimingState


def came_to(now: TimingState) -> Iterator[CameTo]:
    """How far each camshaft is advanced against its card [deg]; a valve without a card by its centreline."""
    wheel = now.gauges.get("wheel")
    gauge = wheel.id if wheel else ""
    for cam in cams_of(now):
        work = now.cams.get(cam.camshaft)
        seq = max((one.last.seq for one in work.readings.values() if one.last), default=0) if work else 0
        tolerance = next((one.tolerance_deg for one in cam.valves if one.tolerance_deg is not None), None)
        if cam.advance_deg is not None:
            limits = (None, None) if tolerance is None else (-tolerance, tolerance)
            yield CameTo(
                "timing", cam.camshaft, "advance against the card", cam.name, round(cam.advance_deg, 3), "deg", gauge, seq, *limits
            )
            continue
        for valve in cam.valves:
            if valve.centreline_deg is not None:
                place = f"{cam.name}, {valve.valve}, cylinder {valve.cylinder}"
                yield CameTo("timing", cam.camshaft, "centreline", place, round(valve.centreline_deg, 3), "deg", gauge, seq)
