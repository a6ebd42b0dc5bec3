"""Where the crank stands: the last turn that somebody recorded, or the last reading, whichever came later."""

__all__ = ["crank_at"]

from collections.abc import Sequence

from gurvo_core.angles import nearest_turn_deg, wrap_deg
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.motion.twin import words_at
from gurvo_core.timing import TdcEstimate, in_words
from gurvo_core.timing.events import OVERLAP_TDC_DEG, card_event_deg
from gurvo_core.work.cam_work import cam_places
from gurvo_core.work.readings import turned_deg
from gurvo_core.work.situation import Situation
from gurvo_core.work.state import CamFigures, CrankAt


def crank_at(now: Situation, zero: TdcEstimate | None, cams: Sequence[CamFigures]) -> CrankAt | None:
    """Return where the last turn or reading left the crank.

    Parameters
    ----------
    now : Situation
        What stands.
    zero : TdcEstimate or None
        The wheel zero that was taken over; until then a reading is as the wheel alone has it.
    cams : sequence of CamFigures
        The camshafts' figures, for where their marks stand.

    Returns
    -------
    crank : CrankAt or None
        None while nothing says where it stands. The place in the cycle is known after a turn and after a lift reading; a stop
        or a dial on the piston alone cannot tell one turn from the next.

    Source
    ------
    House rule: the ledger is the only memory.

    Example
    -------
    >>> crank_at(gather(quern_4(), []), None, []) is None
    True
    """
    places = [*_piston_readings(now, zero), *_lift_readings(now, zero)]
    if now.turned_to:
        places.append((now.turned_to[0], None, now.turned_to[1]))
    if not places:
        return None
    _, from_reference, cycle_deg = max(places, key=lambda place: place[0])
    if cycle_deg is None:
        at_deg = wrap_deg(from_reference or 0.0)
        return CrankAt(crank_deg=at_deg, words=in_words(at_deg), cycle_deg=None, sees="")
    at_deg = wrap_deg(cycle_deg - now.document.firing_deg[now.document.reference_cylinder])
    sees = words_at(now.document, cycle_deg, cam_places(cams))
    return CrankAt(crank_deg=at_deg, words=in_words(at_deg), cycle_deg=cycle_deg, sees=sees)


# place in the ledger, crank degrees after the reference's TDC, place in the cycle
_Place = tuple[int, float | None, float | None]


def _piston_readings(now: Situation, zero: TdcEstimate | None) -> list[_Place]:
    if now.wheel is None:
        return []
    off_deg = zero.zero_deg if zero else 0.0
    return [(entry.seq, turned_deg(body.wheel, now.wheel) - off_deg, None) for entry, body in now.tdc_readings[-1:]]


def _lift_readings(now: Situation, zero: TdcEstimate | None) -> list[_Place]:
    """The last reading of every event; which turn it lies on follows from the card."""
    found: list[_Place] = []
    document, off_deg = now.document, zero.zero_deg if zero else 0.0
    for line in document.cam_card:
        cylinder = document.card_cylinder(line)
        lobe = document.lobe(line.camshaft, cylinder, line.valve)
        if lobe is None:
            continue
        nose_deg = OVERLAP_TDC_DEG + lobe.nose_after_overlap_deg
        near = {"opening": card_event_deg(line, "opening"), "closing": card_event_deg(line, "closing"), "top": nose_deg}
        for flank, near_deg in near.items():
            readings = now.cams[line.camshaft].readings.get((cylinder, line.valve, flank), [])
            if not readings:
                continue
            event = nearest_turn_deg(readings[-1].wheel_deg - off_deg, near_deg + document.from_reference_deg(cylinder))
            cycle = wrap_deg(event + document.firing_deg[document.reference_cylinder], CYCLE_DEG) if zero else None
            found.append((readings[-1].seq, event, cycle))
    return found
