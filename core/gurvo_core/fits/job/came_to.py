"""Clearances as they came out, place by place."""

__all__ = ["came_to"]

from collections.abc import Iterator

from gurvo_core.fits.job.state import FitsState
from gurvo_core.ledger.came_to import CameTo


def came_to(now: FitsState) -> Iterator[CameTo]:
    """Every place that is all read, by the end of its clearance that decides [mm]."""
    for name, places in now.places.items():
        placed = now.book.fits.get(name)
        if placed is None:
            continue
        least, most = placed.limits_mm
        for place, stands in places.items():
            own = [one for spot in placed.at_place.get(place, ()) for one in now.of_fit(name).get(spot.key, ())]
            gauges = " and ".join(sorted({one.gauge for one in own if one.gauge}))
            seq = max((one.seq for one in own), default=0)
            value = round(stands.judged.figure.value, 6)
            called = place if len(placed.places) > 1 else placed.fit.name
            yield CameTo("clearance", name, placed.fit.name, called, value, "mm", gauges, seq, least, most)
