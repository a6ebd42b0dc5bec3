"""A camshaft's figures from the readings that stand: events, centrelines, advance, verdict, corrections."""

__all__ = ["advance_words", "cam_figures", "cam_places", "cams_of", "check_order", "events_found_deg"]

from collections.abc import Iterable
from functools import cached_property, lru_cache

from gurvo_core.angles import wrap_deg
from gurvo_core.engine import Camshaft, CardLine, Flank, Lobe, Profile
from gurvo_core.engine.document import CYCLE_DEG
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
from gurvo_core.timing.events import OVERLAP_TDC_DEG, card_event_deg, lift_slope_mm_per_deg, nose_half_width_deg
from gurvo_core.timing.uncertainty import COVERAGE, mean_estimate, root_sum_square
from gurvo_core.work.entries import MoveMade
from gurvo_core.work.readings import gauge_u
from gurvo_core.work.situation import CamWork, Situation, Taken
from gurvo_core.work.state import CamFigures, EventFigure, Offer, ValveFigures
from gurvo_core.work.tdc_work import adopted_zero, find_tdc

SAME_LIFT_MM = 0.0005
SAME_ADVANCE_DEG = 1e-6  # what was shown and sent back differs by rounding at most
FLANKS: tuple[Flank, Flank] = ("opening", "closing")
# a long ledger says the same few figures over and over
_event = lru_cache(maxsize=16_384)(event_deg)
_slope = lru_cache(maxsize=256)(lift_slope_mm_per_deg)
_nose_width = lru_cache(maxsize=256)(nose_half_width_deg)


def _readings(now: Situation, line: CardLine, flank: str) -> list[Taken]:
    """The readings of one event at the card's checking lift."""
    taken = now.cams[line.camshaft].readings.get((now.document.card_cylinder(line), line.valve, flank), [])
    if flank == "top":
        return taken
    return [reading for reading in taken if reading.lift_mm is not None and abs(reading.lift_mm - line.lift_mm) <= SAME_LIFT_MM]


def events_found_deg(now: Situation, line: CardLine, flank: str, zero_deg: float, near_deg: float) -> list[float]:
    """Return the crank angle of every standing reading of one event.

    Parameters
    ----------
    now : Situation
        What stands.
    line : CardLine
        The card's line: camshaft, valve and checking lift.
    flank : str
        ``opening``, ``closing`` or ``top``.
    zero_deg : float
        Wheel zero [deg].
    near_deg : float
        Where the card has the event [deg].

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
    >>> events_found_deg(gather(engine, []), engine.cam_card[0], "opening", 0.0, 344.0)
    []
    """
    on_deg = now.document.from_reference_deg(now.document.card_cylinder(line))
    return [_event(reading.wheel_deg, zero_deg, near_deg + on_deg) - on_deg for reading in _readings(now, line, flank)]


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
    """One card line with its readings, ready to be turned into figures."""

    def __init__(self, now: Situation, line: CardLine, shaft: Camshaft, lobe: Lobe, zero: TdcEstimate | None) -> None:
        self.now, self.line, self.shaft, self.lobe, self.zero = now, line, shaft, lobe, zero
        self.profile: Profile = now.document.profile(lobe.profile)
        self.on_deg = now.document.from_reference_deg(now.document.card_cylinder(line))
        self.events = {flank: self._event(flank) for flank in FLANKS}

    def _mean(self, flank: Flank | str, near_deg: float, u_each_deg: float) -> tuple[Estimate | None, int]:
        if self.zero is None:
            return None, len(_readings(self.now, self.line, flank))
        degrees = events_found_deg(self.now, self.line, flank, self.zero.zero_deg, near_deg)
        return (mean_estimate(degrees, u_each_deg) if degrees else None), len(degrees)

    def _event(self, flank: Flank) -> tuple[Estimate | None, int]:
        slope = _slope(self.profile, self.shaft, self.lobe, self.line.lift_mm, flank)
        u_each_deg = root_sum_square(gauge_u(self.now.wheel_gauge), gauge_u(self.now.dial_gauge) / slope)
        return self._mean(flank, card_event_deg(self.line, flank), u_each_deg)

    @cached_property
    def centreline(self) -> Estimate | None:
        """Middle of equal lifts; the wheel zero's error is common to both flanks, so it does not halve."""
        opening, closing = (self.events[flank][0] for flank in FLANKS)
        if opening is None or closing is None or self.zero is None:
            return None
        value = centreline_deg(self.line.valve, opening.value, closing.value)
        return Estimate(value=value, u=root_sum_square(opening.u / 2, closing.u / 2, self.zero.u_deg))

    def top_centreline(self) -> Estimate | None:
        """Centreline by maximum lift; the dial cannot see the nose's flat."""
        way = 1 if self.line.valve == "intake" else -1
        mean, _ = self._mean("top", OVERLAP_TDC_DEG + self.lobe.nose_after_overlap_deg, gauge_u(self.now.wheel_gauge))
        if mean is None or self.zero is None:
            return None
        hidden_deg = _nose_width(self.profile, self.shaft, self.lobe, self.now.dial_step_mm) / 3**0.5
        return Estimate(value=way * (mean.value - OVERLAP_TDC_DEG), u=root_sum_square(mean.u, hidden_deg, self.zero.u_deg))

    def _event_figure(self, flank: Flank) -> EventFigure:
        estimate, count = self.events[flank]
        card_deg = card_event_deg(self.line, flank)
        zero_u = self.zero.u_deg if self.zero else 0.0
        return EventFigure(
            crank_deg=estimate.value if estimate else None,
            wheel_deg=wrap_deg(estimate.value + self.on_deg, CYCLE_DEG) if estimate else None,
            card_wheel_deg=wrap_deg(card_deg + self.on_deg, CYCLE_DEG),
            words=in_words(estimate.value) if estimate else "",
            expanded_deg=COVERAGE * root_sum_square(estimate.u, zero_u) if estimate else None,
            card_deg=card_deg,
            card_words=in_words(card_deg),
            readings=count,
        )

    def figures(self) -> ValveFigures:
        """All of it, judged against the card."""
        line = self.line
        card_open, card_close = card_event_deg(line, "opening"), card_event_deg(line, "closing")
        card_deg = centreline_deg(line.valve, card_open, card_close)
        centre, top = self.centreline, self.top_centreline()
        judged = judge(centre, card_deg - line.tolerance_deg, card_deg + line.tolerance_deg, "°") if centre else None
        opening, closing = (self.events[flank][0] for flank in FLANKS)
        return ValveFigures(
            valve=line.valve,
            cylinder=self.now.document.card_cylinder(line),
            lift_mm=line.lift_mm,
            opening=self._event_figure("opening"),
            closing=self._event_figure("closing"),
            duration_deg=closing.value - opening.value if opening and closing else None,
            card_duration_deg=card_close - card_open,
            centreline_deg=centre.value if centre else None,
            centreline_expanded_deg=centre.expanded if centre else None,
            card_centreline_deg=card_deg,
            side_words="after TDC" if line.valve == "intake" else "before TDC",
            tolerance_deg=line.tolerance_deg,
            top_centreline_deg=top.value if top else None,
            top_expanded_deg=top.expanded if top else None,
            card_top_centreline_deg=self.lobe.nose_deg,
            advance_deg=advance_deg(line.valve, card_deg, centre.value) if centre else None,
            verdict=judged.verdict if judged else None,
            settles=judged.settles if judged else "",
        )


def cam_figures(now: Situation, shaft: Camshaft, zero: TdcEstimate | None) -> CamFigures:
    """Return all figures of one camshaft.

    Parameters
    ----------
    now : Situation
        What stands.
    shaft : Camshaft
        The camshaft.
    zero : TdcEstimate or None
        The wheel zero that was taken over; without it readings wait.

    Returns
    -------
    figures : CamFigures
        Angles in crank degrees, separation in cam degrees.

    Source
    ------
    ``timing.events``, ``timing.verdict``, ``timing.correction``. The camshaft's advance is the mean of its valves'; the
    wheel-zero error is common to all of them and does not average out.

    Example
    -------
    >>> engine = quern_4()
    >>> cam_figures(gather(engine, []), engine.camshafts[0], None).valves[0].card_centreline_deg
    108.0
    """
    parts = []
    for line in now.document.cam_card:
        lobe = now.document.lobe(shaft.id, now.document.card_cylinder(line), line.valve)
        if line.camshaft == shaft.id and lobe is not None:
            parts.append(_Valve(now, line, shaft, lobe, zero))
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
        advance_words=advance_words(advance.value) if advance else "",
        verdict=_worst(valves),
        settles=next((v.settles for v in valves if v.settles), ""),
        offers=_offers(now, shaft, work, advance.value) if advance else [],
        rounds=work.rounds,
        decided=_decided(work, advance),
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
    found = [(v.advance_deg, part.centreline) for part, v in zip(parts, valves, strict=True) if v.advance_deg is not None]
    if not found or zero is None:
        return None
    own = [max(0.0, centre.u**2 - zero.u_deg**2) for _, centre in found if centre]
    mean = sum(advance for advance, _ in found) / len(found)
    return Estimate(value=mean, u=root_sum_square(sum(own) ** 0.5 / len(found), zero.u_deg))


def _worst(valves: list[ValveFigures]) -> Verdict | None:
    verdicts = [v.verdict for v in valves]
    if not verdicts or None in verdicts:
        return None
    order: tuple[Verdict, ...] = ("out", "can't tell", "in")
    return next(verdict for verdict in order if verdict in verdicts)


def cams_of(now: Situation) -> list[CamFigures]:
    """Return the figures of all camshafts, by the wheel zero that was taken over.

    Parameters
    ----------
    now : Situation
        What stands.

    Returns
    -------
    cams : list of CamFigures
        In the document's order; readings wait until true TDC is taken over.

    Source
    ------
    ``cam_figures``, ``find_tdc``.

    Example
    -------
    >>> [cam.camshaft for cam in cams_of(gather(quern_4(), []))]
    ['cam']
    """
    estimate = find_tdc(now)
    zero = estimate if adopted_zero(now, estimate) else None
    return [cam_figures(now, shaft, zero) for shaft in now.document.camshafts]


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


def _offers(now: Situation, shaft: Camshaft, work: CamWork, advance: float) -> list[Offer]:
    offers = []
    own = [adjustment for adjustment in now.document.adjustments if not adjustment.camshafts or shaft.id in adjustment.camshafts]
    for correction in corrections(own, advance, work.made):
        moves = [MoveMade(adjustment=move.adjustment, place=move.place) for move in correction.moves]
        title = " and ".join(f"{move.adjustment}: {move.place}" for move in correction.moves)
        order = ". ".join(move.order for move in correction.moves) + "."
        leaves = advance_words(correction.leaves_deg)
        offers.append(Offer(value=title, title=title, order=order, leaves_deg=correction.leaves_deg, leaves=leaves, moves=moves))
    return offers


def _decided(work: CamWork, advance: Estimate | None) -> str:
    """A decision to leave a cam stands as long as the figure it was made on does."""
    if work.left and advance and abs(work.left[1].advance_deg - advance.value) <= SAME_ADVANCE_DEG:
        return "left as it is"
    return ""
