"""The tape: each entry as one line that can be read from a step away."""

__all__ = ["TapeLine", "tape_line"]

from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from gurvo_core.work.entries import (
    CamDecision,
    Decision,
    LedgerEntry,
    LiftReading,
    Note,
    RevisionDecision,
    SetupDecision,
    SignOffDecision,
    StopOutDecision,
    Strike,
    TdcMethodDecision,
    TdcReading,
    Turn,
    TypedWheel,
    WheelZero,
)
from gurvo_core.work.questions import METHOD_NAMES

SENT_AT_ONCE = timedelta(minutes=1)
_PLACES = {"before": "before TDC", "after": "after TDC", None: ""}


class StruckBy(BaseModel):
    """Who struck a line, when and why."""

    model_config = ConfigDict(extra="forbid")

    by: str
    at: datetime
    reason: str


class TapeLine(BaseModel):
    """One line of the tape."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    seq: int
    at: datetime
    by: str
    kind: Literal["tdc_reading", "wheel_zero", "lift_reading", "decision", "turn", "strike", "note"]
    title: str
    value: str
    detail: str
    look_again: bool
    typed_at: datetime | None  # only when it reached the ledger later than it was typed
    struck: StruckBy | None


def tape_line(entry: LedgerEntry, struck: LedgerEntry | None) -> TapeLine:
    """Return an entry as a line of the tape.

    Parameters
    ----------
    entry : LedgerEntry
        The entry.
    struck : LedgerEntry or None
        The strike that struck it.

    Returns
    -------
    line : TapeLine
        Figures as typed.

    Source
    ------
    House wording.
    """
    title, value, detail = _words(entry)
    return TapeLine(
        id=entry.id,
        seq=entry.seq,
        at=entry.at,
        by=entry.by,
        kind=entry.body.kind,
        title=title,
        value=value,
        detail=detail,
        look_again=isinstance(entry.body, TdcReading | LiftReading) and entry.body.turned == "back",
        typed_at=_typed_earlier(entry),
        struck=_struck_by(struck),
    )


def _typed_earlier(entry: LedgerEntry) -> datetime | None:
    """When it was typed, if that was well before it was taken; a clock that runs ahead says nothing."""
    late = entry.typed_at is not None and entry.at - entry.typed_at > SENT_AT_ONCE
    return entry.typed_at if late else None


def _struck_by(struck: LedgerEntry | None) -> StruckBy | None:
    if struck is None or not isinstance(struck.body, Strike):
        return None
    return StruckBy(by=struck.by, at=struck.at, reason=struck.body.reason)


def _wheel(typed: TypedWheel) -> str:
    return f"{typed.text.strip()}° {typed.side or ''}".strip()


def _words(entry: LedgerEntry) -> tuple[str, str, str]:
    body = entry.body
    if isinstance(body, TdcReading):
        drop = f"drop {body.drop.text.strip()} {body.drop.unit}" if body.drop else ""
        place = _PLACES[body.place]
        title = METHOD_NAMES[body.method].capitalize() + (f", {place}" if place else "")
        return title, _wheel(body.wheel), _details(drop, body.turned)
    if isinstance(body, LiftReading):
        lift = f"{body.lift.text.strip()} {body.lift.unit}" if body.lift else "full lift"
        moves = {"opening": "opens", "closing": "closes", "top": "stands"}[body.flank]
        return f"{body.valve.capitalize()} {moves}, {lift}", _wheel(body.wheel), _details(f"cylinder {body.cylinder}", body.turned)
    if isinstance(body, WheelZero):
        return "Wheel zero taken over", f"{body.zero_deg:+.2f}°", METHOD_NAMES[body.method]
    if isinstance(body, Strike):
        return "Struck an entry", "", body.reason
    if isinstance(body, Note):
        return "Note", "", body.text
    if isinstance(body, Turn):
        return "Crank turned to", f"{body.to.strip()}°", "after firing TDC of the first cylinder"
    return _decision_words(body)


def _details(*parts: str) -> str:
    return " · ".join(part for part in parts if part and part != "running way")


def _decision_words(body: Decision) -> tuple[str, str, str]:
    decision = body.decision
    if isinstance(decision, SetupDecision):
        runs = f" · {decision.runs} the running way" if decision.numbering == "0-360" else ""
        return "Wheel set up", decision.numbering, f"{decision.wheel_gauge} · {decision.dial_gauge}{runs} · plugs out"
    if isinstance(decision, TdcMethodDecision):
        return "True TDC by", METHOD_NAMES[decision.method], ""
    if isinstance(decision, StopOutDecision):
        return "Piston stop", "out", ""
    if isinstance(decision, RevisionDecision):
        return "Moved to revision", str(decision.number), decision.reason
    if isinstance(decision, SignOffDecision):
        return "Record signed", "", decision.remark
    return _cam_words(decision)


def _cam_words(decision: CamDecision) -> tuple[str, str, str]:
    if not decision.moves:
        return "Cam", "left as it is", decision.reason
    moved = ", ".join(f"{move.adjustment}: {move.place}" for move in decision.moves)
    return "Cam moved", moved, decision.reason
