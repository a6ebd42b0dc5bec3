"""A camshaft's figures from the readings that stand: events, centrelines, advance, verdict, corrections."""

__all__ = ["advance_words", "cam_basis", "cam_places", "cams_of", "check_order", "events_found_deg"]

from collections.abc import Iterable
from functools import cached_property, lru_cache

from gurvo_core.angles import nearest_turn_deg, wrap_deg
from gurvo_core.engine import Camshaft, Flank
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import Basis
from gurvo_core.motion import CamPlace
from gurvo_core.timing import (
    Estimate,
    TdcEstimate,
    Verdict,
    advance_deg,
    centreline_deg,
    corrections,
    event_deg,
    in_words,
    judge,
    overlap_deg,
    separation_cam_deg,
)
from gurvo_core.timing.events import OVERLAP_TDC_DEG, lift_slope_mm_per_deg, nose_half_width_deg
from gurvo_core.timing.job.entries import MoveMade
from gurvo_core.timing.job.readings import gauge_u
from gurvo_core.timing.job.state import CamWork, EventReadings, TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero
from gurvo_core.timing.job.view import CamFigures, EventFigure, Offer, ValveFigures
from gurvo_core.timing.lines import FLANKS, CamLine
from gurvo_core.uncertainty import COVERAGE, repeats_estimate, root_sum_square, weighted_estimate

SAME_LIFT_MM = 0.0005
# of a lobe whose shape is not known: a lazy flank and a broad nose, so that nothing is trusted more than it may be
SLOW_SLOPE_MM_PER_DEG = 0.05
BROAD_NOSE_DEG = 6.0
NO_READINGS = EventReadings()
# a long ledger asks for the same few over and over
_slope = lru_cache(maxsize=256)(lift_slope_mm_per_deg)
_nose_width = lru_cache(maxsize=256)(nose_half_width_deg)


def _readings(now: TimingState, line: CamLine, flank: str) -> EventReadings:
    return now.cams[line.camshaft].readings.get((line.cylinder, line.valve, flank), NO_READINGS)


@lru_cache(maxsize=1024)
def _wheel_degrees(readings: EventReadings, lift_mm: float | None) -> tuple[float, ...]:
    """Wheel degrees of the readings at a checking lift; of all, at the top."""
    return tuple(
        reading.wheel_deg
        for reading in readings.taken
        if lift_mm is None or (reading.lift_mm is not None and abs(reading.lift_mm - lift_mm) <= SAME_LIFT_MM)
    )


@lru_cache(maxsize=1024)
def _event(readings: EventReadings, lift_mm: float | None, near_wheel_deg: float, u_place: float, step_deg: float) -> Estimate | None:
    """Mean of one event's readings, unwrapped to the turn on which it is expected; kept as long as none joins."""
    degrees = _wheel_degrees(readings, lift_mm)
    on_turn_deg = {at_deg: nearest_turn_deg(at_deg, near_wheel_deg) for at_deg in set(degrees)}
    return repeats_estimate([on_turn_deg[at_deg] for at_deg in degrees], u_place, step_deg) if degrees else None


def events_found_deg(now: TimingState, line: CamLine, flank: Flank, zero_deg: float) -> list[float]:
    """Return the crank angle of every standing reading of one event at the card's checking lift.

    Parameters
    ----------
    now : TimingState
        What stands.
    line : CamLine
        Camshaft, valve and checking lift.
    flank : {"opening", "closing"}
        Which event.
    zero_deg : float
        Wheel zero [deg].

    Returns
    -------
    events_deg : list of float
        Crank degrees after the firing TDC of the card line's own cylinder [deg].

    Source
    ------
    ``timing.event_deg``; the wheel is set to the reference cylinder, so another's events stand further on.

    Example
    -------
    >>> engine = quern_4()
    >>> events_found_deg(begin(engine), begin(engine).lines[0], "opening", 0.0)
    []
    """
    on_deg = now.document.from_reference_deg(line.cylinder)
    degrees = _wheel_degrees(_readings(now, line, flank), line.lift_mm)
    return [event_deg(at_deg, zero_deg, line.event_deg(flank) + on_deg) - on_deg for at_deg in degrees]


def check_order(opening_deg: float | None, closing_deg: float | None) -> bool:
    """Return whether a valve opens before it closes, as far as both are known.

    Parameters
    ----------
    opening_deg, closing_deg : float or None
        Crank angles of one valve's events [deg].

    Returns
    -------
    right : bool
        True when one of them is not known yet.

    Source
    ------
    Plain sense.

    Example
    -------
    >>> check_order(344.0, 592.0), check_order(592.0, 344.0)
    (True, False)
    """
    return opening_deg is None or closing_deg is None or opening_deg < closing_deg


class _Valve:
    """One line with its readings, ready to be turned into figures."""

    def __init__(self, now: TimingState, line: CamLine, shaft: Camshaft, zero: TdcEstimate | None) -> None:
        self.now, self.line, self.shaft, self.zero = now, line, shaft, zero
        self.lobe = now.document.lobe(shaft.id, line.cylinder, line.valve)
        self.profile = now.document.shape(shaft, self.lobe) if self.lobe else None
        self.on_deg = now.document.from_reference_deg(line.cylinder)
        self.wheel, self.dial = gauge_u(now.gauges.get("wheel")), gauge_u(now.gauges.get("dial"))
        self.events = {flank: self._measured(flank) for flank in FLANKS}

    def _estimate(self, flank: str, lift_mm: float | None, near_deg: float, u_place: float) -> Estimate | None:
        if self.zero is None:
            return None
        to_wheel_deg = self.on_deg + self.zero.zero_deg
        found = _event(_readings(self.now, self.line, flank), lift_mm, near_deg + to_wheel_deg, u_place, self.wheel.step)
        return Estimate(value=found.value - to_wheel_deg, u=found.u) if found else None

    def _measured(self, flank: Flank) -> Estimate | None:
        known = self.profile is not None
        slope = _slope(self.profile, self.shaft, self.lobe, self.line.lift_mm, flank) if known else SLOW_SLOPE_MM_PER_DEG
        u_place = root_sum_square(self.wheel.u, self.dial.u / slope)
        return self._estimate(flank, self.line.lift_mm, self.line.event_deg(flank), u_place)

    @cached_property
    def centreline(self) -> Estimate | None:
        """Middle of equal lifts; the wheel zero's error is common to both flanks, so it does not halve."""
        opening, closing = (self.events[flank] for flank in FLANKS)
        if opening is None or closing is None or self.zero is None:
            return None
        value = centreline_deg(self.line.valve, opening.value, closing.value)
        return Estimate(value=value, u=root_sum_square(opening.u / 2, closing.u / 2, self.zero.u_deg))

    def top_centreline(self) -> Estimate | None:
        """Centreline by maximum lift; the dial cannot see the nose's flat."""
        sign = 1 if self.line.valve == "intake" else -1
        mean = self._estimate("top", None, self.line.top_deg, self.wheel.u)
        if mean is None or self.zero is None:
            return None
        known = self.profile is not None
        hidden_deg = (_nose_width(self.profile, self.shaft, self.lobe, self.now.dial_step_mm) if known else BROAD_NOSE_DEG) / 3**0.5
        return Estimate(value=sign * (mean.value - OVERLAP_TDC_DEG), u=root_sum_square(mean.u, hidden_deg, self.zero.u_deg))

    def _event_figure(self, flank: Flank) -> EventFigure:
        estimate = self.events[flank]
        card_deg = self.line.event_deg(flank) if self.line.has_card else None
        zero_u = self.zero.u_deg if self.zero else 0.0
        return EventFigure(
            crank_deg=estimate.value if estimate else None,
            wheel_deg=wrap_deg(estimate.value + self.on_deg, CYCLE_DEG) if estimate else None,
            card_wheel_deg=wrap_deg(card_deg + self.on_deg, CYCLE_DEG) if card_deg is not None else None,
            words=in_words(estimate.value) if estimate else "",
            expanded_deg=COVERAGE * root_sum_square(estimate.u, zero_u) if estimate else None,
            card_deg=card_deg,
            card_words=in_words(card_deg) if card_deg is not None else "",
            readings=len(_wheel_degrees(_readings(self.now, self.line, flank), self.line.lift_mm)),
        )

    def figures(self) -> ValveFigures:
        """All of it, judged against the card; as found where there is none."""
        line, card_deg = self.line, self.line.card_deg
        centre, top = self.centreline, self.top_centreline()
        low, high = (
            (None, None)
            if card_deg is None or line.tolerance_deg is None
            else (card_deg - line.tolerance_deg, card_deg + line.tolerance_deg)
        )
        judged = judge(centre, low, high, "°") if centre else None
        opening, closing = (self.events[flank] for flank in FLANKS)
        return ValveFigures(
            valve=line.valve,
            cylinder=line.cylinder,
            lift_mm=line.lift_mm,
            opening=self._event_figure("opening"),
            closing=self._event_figure("closing"),
            duration_deg=closing.value - opening.value if opening and closing else None,
            card_duration_deg=line.closing_deg - line.opening_deg if line.has_card else None,
            centreline_deg=centre.value if centre else None,
            centreline_expanded_deg=centre.expanded if centre else None,
            card_centreline_deg=card_deg,
            side_words="after TDC" if line.valve == "intake" else "before TDC",
            tolerance_deg=line.tolerance_deg,
            top_centreline_deg=top.value if top else None,
            top_expanded_deg=top.expanded if top else None,
            card_top_centreline_deg=self.lobe.nose_deg if self.lobe else None,
            advance_deg=advance_deg(line.valve, card_deg, centre.value) if centre and card_deg is not None else None,
            verdict=judged.verdict if judged else None,
            settles=judged.settles if judged else "",
        )


def _cam_figures(now: TimingState, shaft: Camshaft, zero: TdcEstimate | None) -> CamFigures:
    """All figures of one camshaft. Its advance is the mean of its valves', the surer ones counting more; the wheel zero's error is
    common to all of them and does not average out.
    """
    parts = [_Valve(now, line, shaft, zero) for line in now.lines if line.camshaft == shaft.id]
    valves = [part.figures() for part in parts]
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


def _advance(parts: list[_Valve], valves: list[ValveFigures], zero: TdcEstimate | None) -> Estimate | None:
    if zero is None:
        return None
    found = [
        Estimate(value=v.advance_deg, u=max(0.0, part.centreline.u**2 - zero.u_deg**2) ** 0.5)
        for part, v in zip(parts, valves, strict=True)
        if v.advance_deg is not None and part.centreline is not None
    ]
    if not found:
        return None
    mean = weighted_estimate(found)
    return Estimate(value=mean.value, u=root_sum_square(mean.u, zero.u_deg))


def _worst(valves: list[ValveFigures]) -> Verdict | None:
    verdicts = [v.verdict for v in valves]
    if not verdicts or None in verdicts:
        return None
    order: tuple[Verdict, ...] = ("out", "can't tell", "no limit known", "in")
    return next(verdict for verdict in order if verdict in verdicts)


@lru_cache(maxsize=256)
def cams_of(now: TimingState) -> list[CamFigures]:
    """Return the figures of all camshafts, by the wheel zero that was taken over.

    Parameters
    ----------
    now : TimingState
        What stands.

    Returns
    -------
    cams : list of CamFigures
        In the document's order; readings wait until true TDC is taken over.

    Source
    ------
    ``timing.events``, ``verdict``, ``timing.correction``.

    Example
    -------
    >>> [cam.camshaft for cam in cams_of(begin(quern_4()))]
    ['cam']
    """
    zero = adopted_zero(now)
    return [_cam_figures(now, shaft, zero) for shaft in now.document.camshafts]


def cam_basis(now: TimingState, camshaft: str) -> Basis:
    """Return the entries that a decision about a camshaft rests on now.

    Parameters
    ----------
    now : TimingState
        What stands.
    camshaft : str
        Its id.

    Returns
    -------
    basis : Basis
        Its lift readings and the wheel zero that was taken over.

    Source
    ------
    House rule: a decision cites the entries it rests on.

    Example
    -------
    >>> cam_basis(begin(quern_4()), "cam")
    Basis(last=0, count=0)
    """
    taken = [readings.taken for readings in now.cams[camshaft].readings.values() if readings.taken]
    places = [own[-1].seq for own in taken] + ([now.zero.seq] if now.zero else [])
    return Basis(last=max(places, default=0), count=sum(map(len, taken)) + (1 if now.zero else 0))


def cam_places(cams: Iterable[CamFigures]) -> dict[str, CamPlace]:
    """Return where camshafts stand against their cards, as far as they have been measured.

    Parameters
    ----------
    cams : iterable of CamFigures
        The camshafts' figures.

    Returns
    -------
    places : dict of CamPlace
        By camshaft id; a cam that was not measured is left out.

    Source
    ------
    Definition; the phasers are taken to be at rest while the engine is built.

    Example
    -------
    >>> cam_places([])
    {}
    """
    return {cam.camshaft: CamPlace(advance_deg=cam.advance_deg) for cam in cams if cam.advance_deg is not None}


def advance_words(advance: float) -> str:
    """Return an advance as a builder says it.

    Parameters
    ----------
    advance : float
        Positive = advanced, crank degrees [deg].

    Returns
    -------
    words : str
        To a tenth of a degree.

    Source
    ------
    Trade wording.

    Example
    -------
    >>> advance_words(1.52), advance_words(-0.04)
    ('1.5° advanced', 'straight up')
    """
    if abs(round(advance, 1)) == 0:
        return "straight up"
    return f"{abs(advance):.1f}° {'advanced' if advance > 0 else 'retarded'}"


def _offers(now: TimingState, shaft: Camshaft, work: CamWork, advance: float) -> list[Offer]:
    offers = []
    own = [adjustment for adjustment in now.document.adjustments if not adjustment.camshafts or shaft.id in adjustment.camshafts]
    for correction in corrections(own, advance, work.made):
        moves = [MoveMade(adjustment=move.adjustment, place=move.place) for move in correction.moves]
        title = " and ".join(f"{move.adjustment}: {move.place}" for move in correction.moves)
        order = ". ".join(move.order for move in correction.moves) + "."
        residual = advance_words(correction.residual_deg)
        offers.append(Offer(value=title, title=title, order=order, residual_deg=correction.residual_deg, residual=residual, moves=moves))
    return offers
