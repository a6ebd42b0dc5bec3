"""Where the crank stands: the last turn that somebody recorded, or the last reading, whichever came later."""

__all__ = ["crank_at", "crank_turned"]

from gurvo_core.angles import nearest_turn_deg, wrap_deg
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import CrankTurned
from gurvo_core.motion.twin import words_at
from gurvo_core.timing import TdcEstimate, in_words
from gurvo_core.timing.job.cams import cam_places, cams_of
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero
from gurvo_core.timing.job.view import CrankAt


def crank_at(now: TimingState) -> CrankAt | None:
    """Return where the last turn or reading left the crank. The ledger is the only memory."""
    last = _last(now)
    if last is None:
        return None
    _, from_reference, cycle_deg = last
    if cycle_deg is None:
        at_deg = wrap_deg(from_reference or 0.0)
        return CrankAt(crank_deg=at_deg, words=in_words(at_deg), cycle_deg=None, sees="")
    at_deg = wrap_deg(cycle_deg - now.document.firing_deg[now.document.reference_cylinder])
    sees = words_at(now.document, cycle_deg, cam_places(cams_of(now)))
    return CrankAt(crank_deg=at_deg, words=in_words(at_deg), cycle_deg=cycle_deg, sees=sees)


# place in the ledger, crank degrees after the reference's TDC, place in the cycle
_Place = tuple[int, float | None, float | None]
BY_EYE_DEG = 15.0  # a decision of ours: how far off a wheel may stand before true TDC is found


def _last(now: TimingState) -> _Place | None:
    zero = adopted_zero(now)
    places = [*_piston_readings(now, zero), *_lift_readings(now, zero)]
    if now.turned_to:
        places.append((now.turned_to[0], None, now.turned_to[1]))
    return max(places, key=lambda place: place[0], default=None)


def crank_turned(now: TimingState) -> CrankTurned | None:
    """Return where the last turn or reading left the crank, for whoever says what it may meet; a piston alone does not tell the stroke."""
    last = _last(now)
    if last is None:
        return None
    seq, from_reference, cycle_deg = last
    if cycle_deg is not None:
        return CrankTurned(seq, cycle_deg)
    place_deg = (from_reference or 0.0) + now.document.firing_deg.get(now.document.reference_cylinder, 0.0)
    within = CrankTurned(seq, 0.0).within_deg if adopted_zero(now) else BY_EYE_DEG
    return CrankTurned(seq, wrap_deg(place_deg, CYCLE_DEG), knows_stroke=False, within_deg=within)


def _piston_readings(now: TimingState, zero: TdcEstimate | None) -> list[_Place]:
    off_deg = zero.zero_deg if zero else 0.0
    return [(reading.seq, reading.wheel_deg - off_deg, None) for reading in now.tdc_readings[-1:]]


def _lift_readings(now: TimingState, zero: TdcEstimate | None) -> list[_Place]:
    """The last reading of every event; which turn it lies on follows from where it is expected."""
    found: list[_Place] = []
    document, off_deg = now.document, zero.zero_deg if zero else 0.0
    for line in now.lines:
        cylinder = line.cylinder
        for flank, near_deg in (("opening", line.opening_deg), ("closing", line.closing_deg), ("top", line.top_deg)):
            readings = now.cams[line.camshaft].readings.get((cylinder, line.valve, flank))
            last = readings.last if readings else None
            if last is None:
                continue
            event = nearest_turn_deg(last.wheel_deg - off_deg, near_deg + document.from_reference_deg(cylinder))
            cycle = wrap_deg(event + document.firing_deg[document.reference_cylinder], CYCLE_DEG) if zero and document.is_timed else None
            found.append((last.seq, event, cycle))
    return found
