"""What is done about a camshaft: left as it is, or adjusted (no moves = left)."""

__all__ = ["KIND", "CamQuestion", "answers_about"]

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainAnswer, PlainQuestion, Topic, Words, need
from gurvo_core.timing.job.cams import cam_basis, cams_of
from gurvo_core.timing.job.entries import CamDecision
from gurvo_core.timing.job.rules import SAME_SHOWN_DEG
from gurvo_core.timing.job.state import CamWork, Placed, TimingState
from gurvo_core.timing.job.stood import what_stood
from gurvo_core.timing.job.take import with_cam
from gurvo_core.timing.job.view import CamFigures

TOPIC = Topic(
    id="cam_decision",
    title="What the cam says",
    drawing="lobe",
    meant="The cam as it was measured, beside its card: in, out, or not to be told with these gauges.",
    by_hand=["If one reading does not fit the others, take that one again before anything is moved."],
    goes_wrong=["A cam is moved by what was a reading's mistake. A whole tooth looks the same at every valve; a wrong lobe does not."],
)
REASON_FREE = ("in", "no limit known")  # verdicts on which a cam may be left without saying why


class CamQuestion(PlainQuestion):
    """What is done about a camshaft."""

    kind: Literal["cam_decision"] = "cam_decision"
    camshaft: str


def answers_about(cam: CamFigures) -> list[PlainAnswer]:
    """Return what may be done about a cam: leave it, or one of the corrections that were worked out; nothing before it is measured."""
    if cam.verdict is None:
        return []
    free = cam.verdict in REASON_FREE
    decided = {"kind": "cam_decision", "camshaft": cam.camshaft, "advance_deg": cam.advance_deg, "rests_on": cam.rests_on.model_dump()}
    leave = PlainAnswer(
        title="Leave it",
        detail=cam.advance_words,
        entry={**decided, "moves": []},
        words="reason",
        asks="A reason, if you wish" if free else f"Why is it left? It is “{cam.verdict}”",
        needs_words=not free,
    )
    moves = [
        PlainAnswer(
            title=offer.title,
            detail=f"leaves {offer.residual}",
            entry={**decided, "moves": [move.model_dump() for move in offer.moves]},
            button="It is moved",
            said=offer.order,
        )
        for offer in cam.offers
    ]
    return [leave, *moves]


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
    elif cam.verdict not in REASON_FREE:
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
    question=CamQuestion,
    topic=TOPIC,
    happening="cam decided",
    does="decide",
    words=_say,
    take=_take,
    check=_check,
    completes=_completed,
)
