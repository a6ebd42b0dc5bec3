"""What the ledger takes, and the one sentence it says when it does not.

``check_entry`` looks at an entry in the light of what stands. It changes nothing; the server appends what passes.
"""

__all__ = ["check_entry"]

from collections.abc import Sequence

from gurvo_core.angles import signed_deg
from gurvo_core.engine import CardLine, Flank
from gurvo_core.errors import EntryRefused, ReadingError
from gurvo_core.motion.crank import drop_at_deg
from gurvo_core.motion.frames import slider_of
from gurvo_core.motion.lobe import most_valve_lift_mm
from gurvo_core.timing import Wheel, event_deg, profile_event_deg
from gurvo_core.timing.events import card_event_deg
from gurvo_core.work.cam_work import SAME_ADVANCE_DEG, SAME_LIFT_MM, cams_of, check_order, events_found_deg
from gurvo_core.work.entries import (
    CamDecision,
    Decision,
    EntryBody,
    Gauge,
    LedgerEntry,
    LiftReading,
    Note,
    RevisionDecision,
    SetupDecision,
    SignOffDecision,
    StopOutDecision,
    Strike,
    TdcReading,
    Turn,
    WheelZero,
)
from gurvo_core.work.permission import loose_ends, permission
from gurvo_core.work.readings import length_mm, turned_deg, turned_to_deg
from gurvo_core.work.situation import Situation, struck_by
from gurvo_core.work.tdc_work import SAME_ZERO_DEG, adopted_zero, find_tdc, half_pair

LEAST_PAIR_ARC_DEG = 8.0  # nearer to TDC the piston dwells and a touch says nothing


def check_entry(now: Situation, entries: Sequence[LedgerEntry], body: EntryBody, gauges: Sequence[Gauge] = ()) -> None:
    """Refuse an entry that cannot be, or cannot be now.

    Parameters
    ----------
    now : Situation
        What stands before it.
    entries : sequence of LedgerEntry
        The ledger before it.
    body : EntryBody
        The entry.
    gauges : sequence of Gauge
        The gauges it names, as they are now.

    Returns
    -------
    nothing : None
        It passes.

    Raises
    ------
    CoreError
        With the field and one sentence.

    Source
    ------
    House rules; the limits of wheel, crank and lobe.

    Example
    -------
    >>> check_entry(gather(quern_4(), []), [], Note(kind="note", text="cold shop"))
    """
    if isinstance(body, Strike):
        _check_strike(now, entries, body)
        return
    if isinstance(body, Note):
        _need(bool(body.text), "text", "a note needs some words")
        return
    _need(now.signed is None, "kind", "the record is signed: strike the signature with a reason before adding to it")
    if isinstance(body, Decision):
        _check_decision(now, body, gauges)
        return
    if isinstance(body, Turn):
        _check_turn(now, body)
        return
    wheel = now.wheel
    if wheel is None:
        raise EntryRefused("kind", body.kind, "set up the wheel first: its numbering is not known yet")
    if isinstance(body, TdcReading):
        _check_tdc_reading(now, wheel, body)
    elif isinstance(body, WheelZero):
        _check_zero(now, body)
    else:
        _check_lift_reading(now, wheel, body)


def _need(right: bool, field: str, rule: str) -> None:
    if not right:
        raise EntryRefused(field, None, rule)


def _check_strike(now: Situation, entries: Sequence[LedgerEntry], body: Strike) -> None:
    target = next((entry for entry in entries if entry.id == body.strikes), None)
    if target is None:
        raise EntryRefused("strikes", str(body.strikes), "there is no such entry in this engine's ledger")
    _need(not isinstance(target.body, Strike), "strikes", "a strike cannot be struck: make the entry again instead")
    moved = isinstance(target.body, Decision) and isinstance(target.body.decision, RevisionDecision)
    _need(not moved, "strikes", "the engine has been moved to that revision since: move it on to another instead")
    _need(body.strikes not in struck_by(entries), "strikes", "this entry is struck already")
    _need(bool(body.reason), "reason", "say why it is struck, in a word or two")
    _need(now.signed is None or target is now.signed, "strikes", "the record is signed: strike the signature first")


def _check_turn(now: Situation, body: Turn) -> None:
    turned_to_deg(body)
    allowed = permission(now, loose_ends(now, adopted_zero(now, find_tdc(now))))
    _need(allowed.free, "kind", f"do not turn: {'; '.join(allowed.reasons)}")


def _check_decision(now: Situation, body: Decision, gauges: Sequence[Gauge]) -> None:
    decision = body.decision
    if isinstance(decision, SetupDecision):
        _check_setup(decision, {gauge.id: gauge for gauge in gauges})
        return
    if isinstance(decision, RevisionDecision):
        _need(bool(decision.reason), "decision.reason", "say why the engine moves to another revision of its document")
        return
    _need(now.setup is not None, "decision.subject", "set up the wheel first")
    if isinstance(decision, StopOutDecision):
        _need(now.stop_in, "decision.subject", "no piston stop is in")
    elif isinstance(decision, CamDecision):
        _check_cam(now, decision)
    elif isinstance(decision, SignOffDecision):
        undecided = [cam.name for cam in cams_of(now) if not cam.decided]
        _need(not undecided, "decision.subject", f"decide first what is done about: {', '.join(undecided)}")


def _check_setup(decision: SetupDecision, gauges: dict[str, Gauge]) -> None:
    for field, gauge_id, kind in (("wheel_gauge", decision.wheel_gauge, "wheel"), ("dial_gauge", decision.dial_gauge, "dial")):
        gauge = gauges.get(gauge_id)
        _need(
            gauge is not None and gauge.kind == kind, f"decision.{field}", f"there is no {kind} called {gauge_id}; choose one of the gauges"
        )
    _need(decision.plugs_out, "decision.plugs_out", "take the plugs out and lock the stand before the crank is turned")


def _check_tdc_reading(now: Situation, wheel: Wheel, body: TdcReading) -> None:
    _need(body.method == now.method, "method", "this reading is by another method than the one chosen; choose the method first")
    turned = turned_deg(body.wheel, wheel)
    paired = body.method in ("positive_stop", "equal_drop")
    _need(paired == (body.place is not None), "place", "say before or after TDC for a stop or equal drops, and only there")
    needs_drop = body.method in ("equal_drop", "fit")
    _need(needs_drop == (body.drop is not None), "drop", "give the dial's drop for equal drops or a fit, and only there")
    drop = length_mm(body.drop, "drop") if body.drop else None
    if drop is not None:
        try:
            drop_at_deg(drop, "after", slider_of(now.document))
        except ReadingError as error:
            raise EntryRefused("drop.text", drop, error.rule) from None
    if paired:
        _check_pair(now, body, turned, drop)


def _check_pair(now: Situation, body: TdcReading, turned: float, drop: float | None) -> None:
    away_deg = signed_deg(turned)
    same_side = (
        "both readings lie on the same side of TDC: one must lie before it and one after; check the side, or set the wheel nearer to TDC"
    )
    _need((away_deg < 0) == (body.place == "before"), "wheel.side" if body.wheel.side else "wheel.text", same_side)
    _need(
        abs(away_deg) >= LEAST_PAIR_ARC_DEG / 2,
        "wheel.text",
        "too near TDC, where the piston dwells; use a longer stop or a larger drop",
    )
    waiting = half_pair(now)
    if waiting is None:
        return
    way = "turn back until the piston meets the stop" if body.method == "positive_stop" else "take the one on the other side"
    _need(waiting.place != body.place, "place", f"this side has been read already: {way}")
    if drop is not None and waiting.drop is not None:
        first = length_mm(waiting.drop, "drop")
        rule = f"the drop must be the same as on the other side ({first:.2f} mm)"
        _need(abs(drop - first) <= now.dial_step_mm / 2, "drop.text", rule)


def _check_zero(now: Situation, body: WheelZero) -> None:
    estimate = find_tdc(now)
    if estimate is None:
        raise EntryRefused("zero_deg", body.zero_deg, "true TDC is not known yet: take the readings first")
    seen = abs(estimate.zero_deg - body.zero_deg) <= SAME_ZERO_DEG and body.method == now.method
    _need(seen, "zero_deg", f"the readings now say {estimate.zero_deg:+.2f}°: look again and take that over")


def _check_lift_reading(now: Situation, wheel: Wheel, body: LiftReading) -> None:
    document = now.document
    shaft = document.camshaft(body.camshaft)
    if shaft is None:
        names = ", ".join(camshaft.id for camshaft in document.camshafts)
        raise EntryRefused("camshaft", body.camshaft, f"this engine has no camshaft {body.camshaft}; it has {names}")
    lobe = document.lobe(shaft.id, body.cylinder, body.valve)
    if lobe is None:
        raise EntryRefused("cylinder", body.cylinder, f"{shaft.name} has no {body.valve} lobe for cylinder {body.cylinder}")
    lines = [line for line in document.cam_card if line.camshaft == shaft.id and line.valve == body.valve]
    if not lines:
        raise EntryRefused("valve", body.valve, f"the cam card has no line for the {body.valve} valve")
    line = next((line for line in lines if document.card_cylinder(line) == body.cylinder), None)
    if line is None:
        cylinder = document.card_cylinder(lines[0])
        raise EntryRefused("cylinder", body.cylinder, f"the card is measured on cylinder {cylinder}: degree the cam on that one")
    estimate = find_tdc(now)
    _need(adopted_zero(now, estimate), "kind", "take over true TDC first: without it a reading says nothing")
    _need(not now.stop_in, "kind", "the piston stop is still in: take it out before turning on")
    turned_deg(body.wheel, wheel)
    if body.flank == "top":
        _need(body.lift is None, "lift", "full lift needs no lift figure; leave it out")
        return
    if body.lift is None:
        raise EntryRefused("lift.text", None, "give the checking lift, such as 1.00 mm")
    lift, most = length_mm(body.lift, "lift"), most_valve_lift_mm(document.profile(lobe.profile), shaft, lobe)
    _need(
        0 < lift < most - SAME_LIFT_MM,
        "lift.text",
        f"a lift of {lift:.2f} mm cannot be: this valve lifts above 0 and below {most:.2f} mm",
    )
    profile_event_deg(document.profile(lobe.profile), shaft, lobe, lift, body.flank)
    assert estimate is not None
    if abs(lift - line.lift_mm) <= SAME_LIFT_MM:
        _check_events(now, body, line, estimate.zero_deg)


def _check_events(now: Situation, body: LiftReading, line: CardLine, zero_deg: float) -> None:
    """An opening must come before its closing, with the readings that stand."""
    assert now.wheel is not None
    flanks: tuple[Flank, Flank] = ("opening", "closing")
    found: dict[Flank, float | None] = {}
    on_deg = now.document.from_reference_deg(body.cylinder)
    for flank in flanks:
        near_deg = card_event_deg(line, flank)
        if flank == body.flank:
            found[flank] = event_deg(turned_deg(body.wheel, now.wheel), zero_deg, near_deg + on_deg) - on_deg
        else:
            others = events_found_deg(now, line, flank, zero_deg, near_deg)
            found[flank] = sum(others) / len(others) if others else None
    right = check_order(found["opening"], found["closing"])
    _need(right, "wheel.text", f"the {body.valve} valve would open after it closes: check the figure and its side")


def _check_cam(now: Situation, decision: CamDecision) -> None:
    cam = next((cam for cam in cams_of(now) if cam.camshaft == decision.camshaft), None)
    if cam is None:
        raise EntryRefused("decision.camshaft", decision.camshaft, f"this engine has no camshaft {decision.camshaft}")
    if cam.verdict is None or cam.advance_deg is None:
        raise EntryRefused("decision.camshaft", decision.camshaft, "take the readings of both flanks of every valve first")
    same = abs(cam.advance_deg - decision.advance_deg) <= SAME_ADVANCE_DEG
    _need(same, "decision.advance_deg", f"the cam is now {cam.advance_words}: look again and decide on that")
    if decision.moves:
        offered = [tuple(offer.moves) for offer in cam.offers]
        _need(decision.moves in offered, "decision.moves", "this is not one of the corrections offered; choose one of them")
    elif cam.verdict != "in":
        _need(bool(decision.reason), "decision.reason", f"the cam is “{cam.verdict}”: say why it is left as it is")
