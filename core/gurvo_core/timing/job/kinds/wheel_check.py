"""What a second pointer, opposite the first, reads at one place."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.angles import signed_deg
from gurvo_core.errors import CoreError
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.timing.job.entries import WheelCheck
from gurvo_core.timing.job.readings import opposite_readings, si_values
from gurvo_core.timing.job.rules import SET_UP_FIRST
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.words import wheel_words

ABOUT_OPPOSITE_DEG = 10.0


def _say(body: WheelCheck) -> Words:
    """Two opposite pointers."""
    return Words(title="Opposite pointers", value=f"{wheel_words(body.wheel)} and {wheel_words(body.opposite)}")


def _check(now: TimingState, body: WheelCheck, _facts: Facts) -> Iterator[Objection]:
    """Both pointers are read before anything rests on the wheel, and the second stands about opposite."""
    if now.wheel is None:
        yield Objection("kind", SET_UP_FIRST)
        return
    here, opposite = opposite_readings(body, now.wheel)
    late = "something has been read on this wheel already: set it up anew, then check it before the first reading"
    yield from need(not now.tdc_readings and not any(cam.readings for cam in now.cams.values()), "kind", late)
    off_deg = signed_deg(opposite - here - 180)
    rule = f"the second pointer would stand {abs(off_deg):g}° from opposite: read it again, or set it half a turn from the first"
    yield from need(abs(off_deg) <= ABOUT_OPPOSITE_DEG, "opposite.text", rule)


def _take(now: TimingState, _entry: LedgerEntry, body: WheelCheck) -> TimingState:
    """One more place at which two opposite pointers were read."""
    try:
        return replace(now, checked=(*now.checked, opposite_readings(body, now.wheel))) if now.wheel else now
    except CoreError:
        return now


KIND: Kind[WheelCheck, TimingState] = Kind(body=WheelCheck, does="turn", words=_say, take=_take, check=_check, si_values=si_values)
