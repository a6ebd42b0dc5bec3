"""Replay: everything the bench shows, worked out from the document and the ledger alone. Same input, same state, always."""

__all__ = ["present", "replay"]

from collections.abc import Sequence

from gurvo_core.engine import EngineDocument
from gurvo_core.timing import TdcEstimate, in_words, sides_of, wheel_figure
from gurvo_core.work.cam_work import cam_figures
from gurvo_core.work.crank_at import crank_at
from gurvo_core.work.entries import LedgerEntry
from gurvo_core.work.permission import loose_ends, permission
from gurvo_core.work.questions import METHOD_NAMES, run_of_work
from gurvo_core.work.situation import Situation, gather
from gurvo_core.work.state import BenchState, CamFigures, Step, TdcFigures, WheelLabel, WheelSetting
from gurvo_core.work.tdc_work import adopted_zero, find_tdc, stray_entry

FAR_FROM_CARD_DEG = 60.0
WIDE_SPREAD = 4.0  # times the expanded uncertainty
LABEL_STEP_DEG = 30


def replay(document: EngineDocument, entries: Sequence[LedgerEntry]) -> BenchState:
    """Return what the bench shows after these entries.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    entries : sequence of LedgerEntry
        Its ledger, oldest first.

    Returns
    -------
    state : BenchState
        Steps, questions, figures, loose ends, permission. Struck entries leave no trace in it; the tape shows them.

    Source
    ------
    House rule: the ledger is the only memory.

    Example
    -------
    >>> replay(quern_4(), []).waits_for
    'wheel and dial'
    """
    return present(gather(document, entries))


def present(now: Situation) -> BenchState:
    """Return what the bench shows of a situation.

    Parameters
    ----------
    now : Situation
        What stands, from ``gather``.

    Returns
    -------
    state : BenchState
        As ``replay``.

    Source
    ------
    As ``replay``.

    Example
    -------
    >>> present(gather(quern_4(), [])).permission.free
    False
    """
    estimate = find_tdc(now)
    adopted = adopted_zero(now, estimate)
    cams = [cam_figures(now, shaft, estimate if adopted else None) for shaft in now.document.camshafts]
    steps = run_of_work(now, estimate, adopted, cams)
    ends = loose_ends(now, adopted)
    current = next((step for step in steps if step.status == "now"), None)
    return BenchState(
        steps=steps,
        current=current.key if current else None,
        waits_for=_waits_for(current),
        permission=permission(now, ends),
        loose_ends=ends,
        wheel=_wheel_setting(now),
        crank=crank_at(now, estimate if adopted else None, cams),
        tdc=_tdc_figures(now, estimate, adopted),
        cams=cams,
        warnings=_warnings(now, estimate, cams),
        signed=now.signed is not None,
    )


def _waits_for(current: Step | None) -> str:
    if current is None:
        return "nothing: signed"
    question = next(q for q in current.questions if q.status == "open")
    if question.kind == "cam":
        return "a decision about the cam"
    if question.kind == "sign_off":
        return "the lead to sign"
    return question.title[0].lower() + question.title[1:]


def _wheel_setting(now: Situation) -> WheelSetting | None:
    if now.setup is None or now.wheel is None:
        return None
    figures = [(at_deg, wheel_figure(at_deg, now.wheel)[0]) for at_deg in range(0, 360, LABEL_STEP_DEG)]
    return WheelSetting(
        numbering=now.setup.numbering,
        runs=now.setup.runs,
        sides=list(sides_of(now.setup.numbering)),
        wheel_gauge=now.setup.wheel_gauge,
        dial_gauge=now.setup.dial_gauge,
        wheel_name=now.wheel_gauge.name if now.wheel_gauge else "",
        dial_name=now.dial_gauge.name if now.dial_gauge else "",
        labels=[WheelLabel(turned_deg=at_deg, text=f"{figure:g}") for at_deg, figure in figures],
    )


def _tdc_figures(now: Situation, estimate: TdcEstimate | None, adopted: bool) -> TdcFigures | None:
    if estimate is None:
        return None
    return TdcFigures(
        method=estimate.method,
        method_name=METHOD_NAMES[estimate.method],
        zero_deg=estimate.zero_deg,
        expanded_deg=estimate.expanded_deg,
        spread_deg=estimate.spread_deg,
        readings=estimate.readings,
        adopted=adopted,
        stray=stray_entry(now, estimate),
        dial_zero_mm=estimate.dial_zero_mm,
        words=f"the wheel's zero stands {in_words(-estimate.zero_deg)}",
    )


def _warnings(now: Situation, estimate: TdcEstimate | None, cams: list[CamFigures]) -> list[str]:
    found = []
    if estimate and estimate.stray is not None:
        found.append(f"Reading {estimate.stray + 1} of the fit does not belong to the others: take it again, strike the wrong one.")
    if estimate and estimate.readings > 2 and estimate.spread_deg > WIDE_SPREAD * estimate.expanded_deg:
        found.append(f"The pairs spread over {estimate.spread_deg:.1f}°: one of them was misread, or there is play.")
    if now.dial_gauge and now.set_up_on:
        overdue = [gauge for gauge in (now.wheel_gauge, now.dial_gauge) if gauge and gauge.due and gauge.due < now.set_up_on]
        found += [f"{gauge.id} {gauge.name}: its calibration was due {gauge.due}; have it checked or use another." for gauge in overdue]
    lifts = [reading for work in now.cams.values() for readings in work.readings.values() for reading in readings]
    back = sum(1 for reading in lifts if reading.turned == "back")
    back += sum(1 for _, reading in now.tdc_readings if reading.turned == "back")
    if back:
        found.append(f"{back} reading{'s' if back > 1 else ''} taken after turning back, play not taken up: take again the running way.")
    for cam in cams:
        for valve in cam.valves:
            for name, event in (("opening", valve.opening), ("closing", valve.closing)):
                if event.crank_deg is not None and abs(event.crank_deg - event.card_deg) > FAR_FROM_CARD_DEG:
                    off_deg = abs(event.crank_deg - event.card_deg)
                    found.append(f"The {valve.valve} {name} is {off_deg:.0f}° from its card: look at the wheel and its side again.")
    return found
