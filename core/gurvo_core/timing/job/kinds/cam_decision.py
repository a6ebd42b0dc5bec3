"""What is done about a camshaft: left as it is, or adjusted (no moves = left)."""

__all__ = ["KIND"]

from collections.abc import Iterator, Sequence
from dataclasses import replace

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.timing.job.cams import cam_basis, cams_of
from gurvo_core.timing.job.entries import CamDecision
from gurvo_core.timing.job.rules import SAME_SHOWN_DEG
from gurvo_core.timing.job.state import CamWork, Placed, TimingState
from gurvo_core.timing.job.stood import what_stood
from gurvo_core.timing.job.take import with_cam


def _say(body: CamDecision) -> Words:
    """What is done about a cam."""
    if not body.moves:
        return Words(title="Cam", value="left as it is", detail=body.reason)
    moved = ", ".join(f"{move.adjustment}: {move.place}" for move in body.moves)
    return Words(title="Cam moved", value=moved, detail=body.reason)


def _same_deg(one: float | None, other: float | None) -> bool:
    if one is None or other is None:
        return one is other
    return abs(one - other) <= SAME_SHOWN_DEG


def _check(now: TimingState, body: CamDecision, _facts: Facts) -> Iterator[Objection]:
    """A decision is made on the figure that was shown, and only what was offered can be moved."""
    cam = next((cam for cam in cams_of(now) if cam.camshaft == body.camshaft), None)
    if cam is None:
        yield Objection("camshaft", f"this engine has no camshaft {body.camshaft}")
        return
    if cam.verdict is None:
        yield Objection("camshaft", "take the readings of both flanks of every valve first")
        return
    same = body.rests_on in (None, cam_basis(now, body.camshaft)) and _same_deg(cam.advance_deg, body.advance_deg)
    yield from need(same, "advance_deg", f"the cam is now {cam.advance_words}: look again and decide on that")
    if body.moves:
        offered = [tuple(offer.moves) for offer in cam.offers]
        yield from need(body.moves in offered, "moves", "this is not one of the corrections offered; choose one of them")
    elif cam.verdict not in ("in", "no limit known"):
        yield from need(bool(body.reason), "reason", f"the cam is “{cam.verdict}”: say why it is left as it is")


def _take(now: TimingState, entry: LedgerEntry, body: CamDecision) -> TimingState:
    """A cam left as it is, or moved: then it is degreed again."""
    work = now.cams.get(body.camshaft)
    if work is None:
        return now
    if not body.moves:
        return with_cam(now, body.camshaft, replace(work, left=Placed(entry.seq, body)))
    made = {**work.made, **{move.adjustment: (*work.made.get(move.adjustment, ()), move.place) for move in body.moves}}
    return with_cam(now, body.camshaft, CamWork(made=made, rounds=work.rounds + 1))


def _completed(body: CamDecision, document: EngineDocument, before: Sequence[LedgerEntry]) -> CamDecision:
    """Version 1 named only the figure: it rested on the readings and the zero that stood."""
    if body.rests_on or document.camshaft(body.camshaft) is None:
        return body
    return body.model_copy(update={"rests_on": cam_basis(what_stood(document, before), body.camshaft)})


KIND: Kind[CamDecision, TimingState] = Kind(
    body=CamDecision,
    happening="cam decided",
    does="decide",
    words=_say,
    take=_take,
    check=_check,
    completes=_completed,
)
