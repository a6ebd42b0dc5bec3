"""What the timing hands to other rooms and shows on the bench."""

__all__ = [
    "TRUE_TDC",
    "care_of",
    "facts_of",
    "holds_of",
    "loose_ends_of",
    "reach_of",
    "says_of",
    "tells_of",
    "verdict_of",
    "view_of",
    "warnings_of",
]

from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from typing import Any

from gurvo_core.ledger import (
    CAM_PLACES,
    CAMS_DEGREED,
    CRANK_TURNED,
    DONE_ELSEWHERE,
    PLUGS_OUT,
    CamProof,
    Fact,
    Facts,
    Hold,
    LooseEnd,
    Reach,
    Step,
    kept_with,
)
from gurvo_core.timing import DegreeWheel, TdcEstimate, Verdict, in_words, sides_of, wheel_figure
from gurvo_core.timing.job.cams import cam_places, cams_of
from gurvo_core.timing.job.crank_at import crank_at, crank_turned
from gurvo_core.timing.job.entries import PistonStop
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero, find_tdc, outlier_seq, tdc_basis
from gurvo_core.timing.job.view import CamFigures, TdcFigures, TimingView, WheelLabel, WheelSetting
from gurvo_core.timing.job.words import METHOD_NAMES

FAR_FROM_CARD_DEG = 60.0
WIDE_SPREAD = 4.0  # times the expanded uncertainty
LABEL_STEP_DEG = 30
SHOWN_DEG = 0.005  # figures are shown to a hundredth of a degree

TRUE_TDC: Fact[TdcEstimate] = Fact("true TDC")


def facts_of(now: TimingState, _facts: Facts) -> Mapping[Fact[Any], Any]:
    """True TDC as it was taken over, and where the cams stand as far as they were measured."""
    return _known(now)


@kept_with
def _known(now: TimingState) -> Mapping[Fact[Any], Any]:
    cams = cams_of(now)
    seen_to = {"set_up_wheel": now.setup is not None, "find_tdc": adopted_zero(now) is not None and not now.stop_in}
    seen_to["degree"] = all(cam.decided for cam in cams)
    done = frozenset(does for does, holds in seen_to.items() if holds)
    last = crank_turned(now)
    turned = {CRANK_TURNED: last} if last else {}
    return turned | {TRUE_TDC: adopted_zero(now), CAM_PLACES: cam_places(cams), DONE_ELSEWHERE: done, CAMS_DEGREED: _degreed(now, cams)}


def _degreed(now: TimingState, cams: Sequence[CamFigures]) -> Mapping[str, CamProof]:
    """The cams that were measured and decided about."""
    found = {}
    for cam in cams:
        left = now.cams[cam.camshaft].left
        if cam.decided and left is not None:
            words = f"degreed: {cam.advance_words}, {cam.verdict}"
            found[cam.camshaft] = CamProof(cam.camshaft, cam.name, "degreed", words, left.seq)
    return found


def loose_ends_of(now: TimingState, _facts: Facts) -> Iterator[LooseEnd]:
    """The piston stop, from when it is in: once true TDC is known it has done its work and must not be met again."""
    if now.stop_in:
        done = adopted_zero(now) is not None
        yield LooseEnd(
            title="Piston stop fitted",
            since=now.stop_in,
            holds_back=frozenset({"turn", "hand over"}) if done else frozenset({"hand over"}),
            until="take it out first",
            kept_from="turning over, degreeing",
            ends_with=PistonStop(kind="piston_stop", fitted=False),
            ends_as="It is out",
        )


def holds_of(now: TimingState, facts: Facts) -> Iterator[Hold]:
    """Nobody turns before the plugs are out and the stand is locked; the record as a whole asks for what proves each cam."""
    if now.setup is None and facts.get(PLUGS_OUT) is None:  # a run of work that has a step for it sees to it
        yield Hold(holds_back=frozenset({"turn"}), reason="plugs out and stand locked not yet confirmed")


def care_of(now: TimingState, facts: Facts) -> Iterator[str]:
    """How to turn."""
    yield "by hand"
    if now.setup is not None if facts.get(PLUGS_OUT) is None else facts.get(PLUGS_OUT):
        yield "plugs are out"


def reach_of(now: TimingState, _facts: Facts) -> Iterator[Reach]:
    """Up to the stop while one is in; otherwise the running way, so that play stays taken up."""
    yield Reach(way="either way, gently", how_far="up to the piston stop") if now.stop_in else Reach(way="the running way only")


def view_of(now: TimingState, _facts: Facts) -> TimingView:
    """Wheel, crank, true TDC and cams."""
    return _view(now)


@kept_with
def _view(now: TimingState) -> TimingView:
    return TimingView(wheel=_wheel_setting(now), crank=crank_at(now), tdc=_tdc_figures(now), cams=cams_of(now))


def verdict_of(now: TimingState) -> Verdict | None:
    """The first cam's verdict that is known."""
    return next((cam.verdict for cam in cams_of(now) if cam.verdict), None)


def says_of(now: TimingState) -> Iterator[str]:
    """True TDC and every cam, as a signature keeps them."""
    yield from _zero_said(now)
    yield from _cams_said(now)


def tells_of(now: TimingState, step: Step) -> Iterator[str]:
    """What true TDC, or the cams, came to in a step."""
    if step.does == "find_tdc":
        yield from _zero_said(now)
    elif step.does in ("degree", "as_found"):
        yield from _cams_said(now)


def _zero_said(now: TimingState) -> Iterator[str]:
    zero = adopted_zero(now)
    if zero:
        yield f"True TDC: pointer error {zero.zero_deg:+.2f}°, U = {zero.expanded_deg:.2f}°"


def _cams_said(now: TimingState) -> Iterator[str]:
    for cam in cams_of(now):
        if cam.advance_words:
            known = f", U = {cam.expanded_deg:.2f}°" if cam.expanded_deg is not None else ""
            yield f"{cam.name}: {cam.advance_words}{known}, {cam.verdict or 'not judged'}{_as_found(cam)}"


def _as_found(cam: CamFigures) -> str:
    """The centrelines of a cam that no card judges."""
    if cam.advance_deg is not None:
        return ""
    found = (f"{v.valve} centreline {v.centreline_deg:.1f}° {v.side_words}" for v in cam.valves if v.centreline_deg is not None)
    return f" ({', '.join(found)})"


def _wheel_setting(now: TimingState) -> WheelSetting | None:
    if now.setup is None or now.wheel is None:
        return None
    names = {kind: gauge.name for kind, gauge in now.gauges.items()}
    return WheelSetting(
        numbering=now.setup.numbering,
        runs=now.setup.runs,
        sides=list(sides_of(now.setup.numbering)),
        wheel_gauge=now.setup.wheel_gauge,
        dial_gauge=now.setup.dial_gauge,
        wheel_name=names.get("wheel", ""),
        dial_name=names.get("dial", ""),
        labels=_labels(now.wheel),
    )


@lru_cache(maxsize=64)
def _labels(wheel: DegreeWheel) -> list[WheelLabel]:
    figures = [(at_deg, wheel_figure(at_deg, wheel)[0]) for at_deg in range(0, 360, LABEL_STEP_DEG)]
    return [WheelLabel(turned_deg=at_deg, text=f"{figure:g}") for at_deg, figure in figures]


def _tdc_figures(now: TimingState) -> TdcFigures | None:
    estimate = find_tdc(now)
    if estimate is None:
        return None
    adopted = adopted_zero(now) is not None
    return TdcFigures(
        method=estimate.method,
        method_name=METHOD_NAMES[estimate.method],
        zero_deg=estimate.zero_deg,
        expanded_deg=estimate.expanded_deg,
        spread_deg=estimate.spread_deg,
        readings=estimate.readings,
        adopted=adopted,
        outlier=outlier_seq(now, estimate),
        dial_zero_mm=estimate.dial_zero_mm,
        words=f"the wheel's zero stands {in_words(-estimate.zero_deg)}",
        rests_on=tdc_basis(now),
        taken_deg=now.zero.body.zero_deg if adopted and now.zero else None,
    )


def warnings_of(now: TimingState, _facts: Facts) -> Sequence[str]:
    """What looks odd, in a sentence each."""
    return _warnings(now)


@kept_with
def _warnings(now: TimingState) -> Sequence[str]:
    return [*_of_the_fit(now), *_read_otherwise(now), *_overdue(now), *_turned_back(now), *_far_from_card(now)]


def _of_the_fit(now: TimingState) -> Iterator[str]:
    estimate = find_tdc(now)
    if estimate and estimate.outlier is not None:
        yield f"Reading {estimate.outlier + 1} of the fit does not belong to the others: take it again, strike the wrong one."
    if estimate and estimate.readings > 2 and estimate.spread_deg > WIDE_SPREAD * estimate.expanded_deg:
        yield f"The pairs spread over {estimate.spread_deg:.1f}°: one of them was misread, or there is play."


def _overdue(now: TimingState) -> Iterator[str]:
    for gauge in now.gauges.values():
        if now.set_up_on and gauge.due and gauge.due < now.set_up_on:
            yield f"{gauge.id} {gauge.name}: its calibration was due {gauge.due}; have it checked or use another."


def _far_from_card(now: TimingState) -> Iterator[str]:
    for cam in cams_of(now):
        for valve in cam.valves:
            for name, event in (("opening", valve.opening), ("closing", valve.closing)):
                off_deg = 0.0 if event.crank_deg is None or event.card_deg is None else abs(event.crank_deg - event.card_deg)
                if off_deg > FAR_FROM_CARD_DEG:
                    yield f"The {valve.valve} {name} is {off_deg:.0f}° from its card: look at the wheel and its side again."


def _read_otherwise(now: TimingState) -> Iterator[str]:
    """Today's rules may read the same entries otherwise than those of the day: both are said, and what was decided stands."""
    zero = adopted_zero(now)
    if zero and now.zero and abs(zero.zero_deg - now.zero.body.zero_deg) > SHOWN_DEG:
        yield f"The pointer error was taken over as {now.zero.body.zero_deg:+.2f}°; today's rules read it as {zero.zero_deg:+.2f}°."
    for cam in cams_of(now):
        left = now.cams[cam.camshaft].left
        shown, today = left.body.advance_deg if left else None, cam.advance_deg
        if cam.decided and shown is not None and today is not None and abs(today - shown) > SHOWN_DEG:
            yield f"{cam.name} was left as it is at {shown:+.2f}°; today's rules read it as {today:+.2f}°."


def _turned_back(now: TimingState) -> Iterator[str]:
    back = sum(readings.back for work in now.cams.values() for readings in work.readings.values())
    back += sum(reading.body.approach == "back" for reading in now.tdc_readings)
    if back:
        yield f"{back} reading{'s' if back > 1 else ''} taken after turning back, play not taken up: take again the running way."
