"""A camshaft's figures from the readings that stand: events, centrelines, advance, verdict, corrections."""

__all__ = ["advance_words", "cam_basis", "cam_places", "cams_of", "check_order", "event_found_deg"]

from collections.abc import Iterable
from functools import lru_cache

from gurvo_core.clearway.at_timing import at_timing, words_at_timing
from gurvo_core.engine import Camshaft, Flank
from gurvo_core.ledger import Basis
from gurvo_core.motion import CamPlace
from gurvo_core.timing import (
    Estimate,
    TdcEstimate,
    Verdict,
    corrections,
    event_deg,
    overlap_deg,
    separation_cam_deg,
)
from gurvo_core.timing.job.entries import MoveMade
from gurvo_core.timing.job.readings import gauge_u, wheel_u
from gurvo_core.timing.job.state import CamWork, EventReadings, TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero
from gurvo_core.timing.job.valve import EVENTS, NO_READINGS, SAME_LIFT_MM, MeasuredBy, MeasuredValve, valve_measured, wheel_degrees
from gurvo_core.timing.job.view import CamFigures, Offer, ValveFigures
from gurvo_core.timing.lines import CamLine
from gurvo_core.uncertainty import shares_of, weighted_estimate


def _readings(now: TimingState, line: CamLine, flank: str) -> EventReadings:
    return now.cams[line.camshaft].readings.get((line.cylinder, line.valve, flank), NO_READINGS)


def _of_events(now: TimingState, line: CamLine) -> tuple[EventReadings, EventReadings, EventReadings]:
    opening, closing, top = (_readings(now, line, event) for event in EVENTS)
    return opening, closing, top


def event_found_deg(now: TimingState, line: CamLine, flank: Flank, zero_deg: float) -> float | None:
    """Return the mean crank angle of the standing readings of one event at the card's checking lift.

    zero_deg: wheel zero [deg].
    Returned: crank degrees after the firing TDC of the card line's own cylinder; None where it has not been read [deg].
    """
    on_deg = now.document.from_reference_deg(line.cylinder)
    often = wheel_degrees(_readings(now, line, flank), line.lift_mm)
    if not often:
        return None
    near_deg = line.event_deg(flank) + on_deg
    return sum(times * (event_deg(at_deg, zero_deg, near_deg) - on_deg) for at_deg, times in often.items()) / often.total()


def check_order(opening_deg: float | None, closing_deg: float | None) -> bool:
    """Return whether a valve opens before it closes, as far as both are known.

    opening_deg, closing_deg: crank angles of one valve's events [deg].
    """
    return opening_deg is None or closing_deg is None or opening_deg < closing_deg


def _cam_figures(now: TimingState, shaft: Camshaft, zero: TdcEstimate | None) -> CamFigures:
    """All figures of one camshaft. Its advance is the mean of its valves', the surer ones counting more; the wheel zero's error is
    common to all of them and does not average out.
    """
    gauges = wheel_u(now), gauge_u(now.gauges.get("dial")), now.dial_step_mm
    own = [at for at in now.at if at.line.camshaft == shaft.id]
    parts = [valve_measured(at, zero, MeasuredBy(_of_events(now, at.line), *gauges)) for at in own]
    valves = [part.figures for part in parts]
    advance = _advance(parts, valves, zero)
    work = now.cams[shaft.id]
    intake, exhaust = (next((v for v in valves if v.valve == which), None) for which in ("intake", "exhaust"))
    return CamFigures(
        camshaft=shaft.id,
        name=shaft.name,
        valves=valves,
        separation_cam_deg=_separation(intake.centreline_deg, exhaust.centreline_deg) if intake and exhaust else None,
        card_separation_cam_deg=_separation(intake.card_centreline_deg, exhaust.card_centreline_deg) if intake and exhaust else None,
        overlap_deg=_overlap(intake, exhaust),
        advance_deg=advance.value if advance else None,
        expanded_deg=advance.expanded if advance else None,
        advance_words=advance_words(advance.value) if advance else "as found" if _worst(valves) else "",
        verdict=_worst(valves),
        settles=next((v.settles for v in valves if v.settles), ""),
        gap=words_at_timing(at_timing(now.document, shaft.id, advance.value)) if advance else "",
        offers=_offers(now, shaft, work, advance.value) if advance else [],
        rounds=work.rounds,
        decided="left as it is" if work.left and work.left.body.rests_on == cam_basis(now, shaft.id) else "",
        rests_on=cam_basis(now, shaft.id),
    )


def _separation(intake_deg: float | None, exhaust_deg: float | None) -> float | None:
    return None if intake_deg is None or exhaust_deg is None else separation_cam_deg(intake_deg, exhaust_deg)


def _overlap(intake: ValveFigures | None, exhaust: ValveFigures | None) -> float | None:
    if intake is None or exhaust is None or abs(intake.lift_mm - exhaust.lift_mm) > SAME_LIFT_MM:
        return None
    if intake.opening.crank_deg is None or exhaust.closing.crank_deg is None:
        return None
    return overlap_deg(intake.opening.crank_deg, exhaust.closing.crank_deg)


def _advance(parts: list[MeasuredValve], valves: list[ValveFigures], zero: TdcEstimate | None) -> Estimate | None:
    if zero is None:
        return None
    own = [
        (part, v.advance_deg) for part, v in zip(parts, valves, strict=True) if v.advance_deg is not None and part.centreline is not None
    ]
    if not own:
        return None
    found = [Estimate(value=advance, u=part.own_u) for part, advance in own]
    mean, shares = weighted_estimate(found), shares_of(found)
    carried = sum((share * part.carried for share, (part, _) in zip(shares, own, strict=True)), 0j)
    return Estimate(value=mean.value, u=zero.u_of(mean.u, carried))


def _worst(valves: list[ValveFigures]) -> Verdict | None:
    verdicts = [v.verdict for v in valves]
    if not verdicts or None in verdicts:
        return None
    order: tuple[Verdict, ...] = ("out", "can't tell", "no limit known", "in")
    return next(verdict for verdict in order if verdict in verdicts)


@lru_cache(maxsize=256)
def cams_of(now: TimingState) -> list[CamFigures]:
    """Return the figures of all camshafts, by the wheel zero that was taken over."""
    zero = adopted_zero(now)
    measured = {line.camshaft for line in now.lines}
    # one of whose cylinders nobody knows when they fire tells a wheel nothing, and is proven otherwise
    shafts = [shaft for shaft in now.document.camshafts if shaft.id in measured] or now.document.camshafts
    return [_cam_figures(now, shaft, zero) for shaft in shafts]


def cam_basis(now: TimingState, camshaft: str) -> Basis:
    """Return the entries that a decision about a camshaft rests on now. A decision cites the entries it rests on."""
    taken = now.cams[camshaft].readings.values()
    places = [own.last.seq for own in taken if own.last] + ([now.zero.seq] if now.zero else [])
    return Basis(last=max(places, default=0), count=sum(own.count for own in taken) + (1 if now.zero else 0))


def cam_places(cams: Iterable[CamFigures]) -> dict[str, CamPlace]:
    """Return where camshafts stand against their cards, as far as they have been measured.

    The phasers are taken to be at rest while the engine is built.
    """
    return {cam.camshaft: CamPlace(advance_deg=cam.advance_deg) for cam in cams if cam.advance_deg is not None}


def advance_words(advance: float) -> str:
    """Return an advance as a builder says it. advance: positive = advanced, crank degrees [deg]."""
    if abs(round(advance, 1)) == 0:
        return "straight up"
    return f"{abs(advance):.1f}° {'advanced' if advance > 0 else 'retarded'}"


def _offers(now: TimingState, shaft: Camshaft, work: CamWork, advance: float) -> list[Offer]:
    offers = []
    own = [adjustment for adjustment in now.document.adjustments if not adjustment.camshafts or shaft.id in adjustment.camshafts]
    for correction in corrections(own, advance, work.made):
        left = at_timing(now.document, shaft.id, correction.residual_deg)
        if left is not None and left.least.may_touch:
            continue  # it would bring a valve onto its piston, or onto another
        moves = [MoveMade(adjustment=move.adjustment, place=move.place) for move in correction.moves]
        title = " and ".join(f"{move.adjustment}: {move.place}" for move in correction.moves)
        order = ". ".join(move.order for move in correction.moves) + "."
        residual = advance_words(correction.residual_deg)
        offers.append(Offer(value=title, title=title, order=order, residual_deg=correction.residual_deg, residual=residual, moves=moves))
    return offers
